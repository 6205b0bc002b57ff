using System.Collections.Immutable;

namespace Emendum.Core.Proposals;

/// <summary>
/// The life of a job's proposal: its revisions, and all that happened to them, in order. States are read from the facts and the date (L1); what may happen next is the table of delivery.md, in words where it may not.
/// </summary>
/// <param name="Revisions">Those that were sent, in order.</param>
/// <param name="Facts">What happened, in the order in which it was committed.</param>
public sealed record ProposalLife(ImmutableArray<RevisionStart> Revisions, ImmutableArray<Fact> Facts)
{
    /// <summary>Most questions about one revision.</summary>
    public const int MostQuestions = 200;

    /// <summary>A visit within this time of the last one by the same link is the same visit.</summary>
    public static readonly TimeSpan OneVisit = TimeSpan.FromMinutes(30);

    /// <summary>Most visits that are recorded of a link: who comes back so often has long been seen.</summary>
    public const int MostVisits = 100;

    /// <summary>Nothing was sent yet.</summary>
    public static readonly ProposalLife Empty = new([], []);

    /// <summary>The revision that is frozen and goes out later (L5); null for none.</summary>
    public Scheduled? Waiting { get; init; }

    /// <summary>The lives of the jobs with whose proposals revisions of this one went out, by job.</summary>
    public ImmutableDictionary<Guid, ProposalLife> Leads { get; init; } = ImmutableDictionary<Guid, ProposalLife>.Empty;

    /// <summary>Where the life of a revision is led: with another job's where it went out with that one's proposal, else here.</summary>
    public (ProposalLife Life, Guid Revision) Led(Guid revision) =>
        Revisions.FirstOrDefault(r => r.Id == revision)?.Lead is { } lead && Leads.TryGetValue(lead.Job, out var life)
            ? (life, lead.Revision)
            : (this, revision);

    /// <summary>The revision with that id.</summary>
    /// <exception cref="RefusedException">There is none.</exception>
    public RevisionStart Revision(Guid id) =>
        Revisions.FirstOrDefault(r => r.Id == id)
        ?? throw RefusedException.Of("revision", "That revision is not in this job.");

    /// <summary>Number of the revision that would be sent next: after one that waits to go out, which has its letters already.</summary>
    public int NextNumber => (Waiting?.Number ?? Revisions.LastOrDefault()?.Number ?? 0) + 1;

    /// <summary>Its letters.</summary>
    public string Next => RevisionStart.LettersOf(NextNumber);

    /// <summary>What happened to a revision, in order.</summary>
    public IEnumerable<Fact> Of(Guid revision)
    {
        var (life, led) = Led(revision);
        var facts = life.Facts.Where(f => f.Revision == led);
        return led == revision ? facts : facts.Select(f => f with { Revision = revision });
    }

    /// <summary>The acceptance that stands; null for none. A job has at most one.</summary>
    public Fact? Acceptance => Revisions.Select(r => AcceptanceOf(r.Id)).FirstOrDefault(f => f is not null);

    private Fact? AcceptanceOf(Guid revision) =>
        Of(revision).LastOrDefault(f => f.Kind is FactKind.Accepted or FactKind.YesRecorded or FactKind.Annulled)
            is { Kind: not FactKind.Annulled } yes
            ? yes
            : null;

    /// <summary>The no that stands of a revision; null for none.</summary>
    public Fact? NoOf(Guid revision) =>
        Of(revision).LastOrDefault(f => f.Kind is FactKind.Declined or FactKind.NoRecorded or FactKind.Reopened)
            is { Kind: not FactKind.Reopened } no
            ? no
            : null;

    /// <summary>Last day on which the prices of a revision hold, as the firm has it by now; null for never ending.</summary>
    public DateOnly? HoldsUntil(Guid revision) =>
        Of(revision).LastOrDefault(f => f.Kind is FactKind.Extended or FactKind.Reopened && f.Day is not null)?.Day
        ?? Revision(revision).ValidUntil;

    /// <summary>Questions that nobody has answered yet, in order.</summary>
    public IEnumerable<Fact> Unanswered
    {
        get
        {
            var answered = Facts.Where(f => f.Kind == FactKind.Answered).Select(f => f.About).ToHashSet();
            return Facts.Where(f => f.Kind == FactKind.Asked && !answered.Contains(f.Id));
        }
    }

    /// <summary>Whether a look by a link is worth recording: the first of a visit.</summary>
    /// <param name="link">The link; null in person.</param>
    /// <param name="revision">The revision that is looked at.</param>
    /// <param name="at">When (UTC).</param>
    /// <param name="kind">What kind of look: seen, or chosen.</param>
    public bool IsNewVisit(Guid? link, Guid revision, DateTime at, FactKind kind)
    {
        var seen = Facts.Where(f => f.Link == link && f.Revision == revision && f.Kind == kind).ToList();
        return seen.Count < MostVisits && (seen.Count == 0 || at - seen[^1].At >= OneVisit);
    }

    /// <summary>How a revision stands: the first of these that holds (L1).</summary>
    /// <param name="revision">Its id.</param>
    /// <param name="today">The firm's day.</param>
    public RevisionState StateOf(Guid revision, DateOnly today)
    {
        if (AcceptanceOf(revision) is not null)
            return RevisionState.Accepted;
        if (NoOf(revision) is not null)
            return RevisionState.Declined;
        var (life, led) = Led(revision);
        if (
            Of(revision).Any(f => f.Kind == FactKind.Withdrawn)
            || Revisions.Any(r => r.Number > Revision(revision).Number)
            || life.Revisions.Any(r => r.Number > life.Revision(led).Number)
            || Acceptance is not null
            || life.Acceptance is not null
        )
            return RevisionState.Superseded;
        if (HoldsUntil(revision) < today)
            return RevisionState.Expired;
        if (
            Of(revision).LastOrDefault(f => f.Kind is FactKind.PutOnHold or FactKind.TakenOffHold) is
            { Kind: FactKind.PutOnHold }
        )
            return RevisionState.OnHold;
        return Of(revision).Any(f => f is { Copy: false, Kind: FactKind.Seen or FactKind.Asked or FactKind.Chosen })
            ? RevisionState.Seen
            : RevisionState.Sent;
    }

    /// <summary>The events that are refused, by the state in which they are (the rows with a dash of the table).</summary>
    private static ImmutableArray<RevisionState> RefusedIn(FactKind kind)
    {
        const RevisionState expired = RevisionState.Expired,
            declined = RevisionState.Declined,
            accepted = RevisionState.Accepted,
            superseded = RevisionState.Superseded;
        return kind switch
        {
            FactKind.SentAgain => [expired, declined, superseded],
            FactKind.Seen or FactKind.Asked or FactKind.Answered or FactKind.LinkRevoked => [],
            FactKind.Chosen or FactKind.Accepted or FactKind.Declined => [expired, declined, accepted, superseded],
            FactKind.YesRecorded => [accepted],
            FactKind.NoRecorded => [declined, accepted, superseded],
            FactKind.PutOnHold => [RevisionState.OnHold, expired, declined, accepted, superseded],
            FactKind.TakenOffHold => [RevisionState.Sent, RevisionState.Seen, expired, declined, accepted, superseded],
            FactKind.Extended => [declined, accepted, superseded],
            FactKind.Reopened =>
            [
                RevisionState.Sent,
                RevisionState.Seen,
                RevisionState.OnHold,
                expired,
                accepted,
                superseded,
            ],
            FactKind.Withdrawn => [expired, declined, accepted, superseded],
            FactKind.Annulled =>
            [
                RevisionState.Sent,
                RevisionState.Seen,
                RevisionState.OnHold,
                expired,
                declined,
                superseded,
            ],
            _ => [.. Enum.GetValues<RevisionState>()],
        };
    }

    /// <summary>Whether something may happen to a revision as it stands, leaving aside what has to be said with it.</summary>
    public bool May(FactKind kind, Guid revision, DateOnly today) =>
        Revision(revision).Lead is null
        && !(kind == FactKind.YesRecorded && OpenLead is not null)
        && !RefusedIn(kind).Contains(StateOf(revision, today))
        && !(kind == FactKind.YesRecorded && Acceptance is not null)
        && !(kind == FactKind.Reopened && Revisions.Any(r => r.Number > Revision(revision).Number));

    /// <summary>The life after something more has happened; the same life where it is recorded already under its id.</summary>
    /// <param name="fact">What is to be recorded.</param>
    /// <param name="today">The firm's day.</param>
    /// <exception cref="RefusedException">It may not happen as the revision stands; says why, and nothing is recorded.</exception>
    public ProposalLife With(Fact fact, DateOnly today)
    {
        if (Facts.Any(f => f.Id == fact.Id))
            return this;
        // Who has a copy reads and asks (L19); what they see makes nothing seen, and is not recorded.
        if (fact is { Copy: true, Kind: not FactKind.Asked })
            throw RefusedException.Of("link", "This link is for reading and asking.");
        if (Revision(fact.Revision).Lead is not null)
            throw RefusedException.Of(
                "revision",
                "This estimate went out with another proposal: what happens to that happens to both."
            );
        var state = StateOf(fact.Revision, today);
        if (RefusedIn(fact.Kind).Contains(state))
            throw RefusedException.Of("revision", $"{Revision(fact.Revision).Called} {Why(fact, state)}.");
        Check(fact, state, today);
        return this with { Facts = Facts.Add(fact) };
    }

    /// <summary>The life after a revision was sent; what was open before is superseded by that (L4).</summary>
    /// <param name="revision">The revision; it takes the next number.</param>
    /// <param name="sent">The fact of its sending.</param>
    /// <exception cref="RefusedException">One was accepted: what is wanted then is a change order (L6).</exception>
    public ProposalLife Sending(RevisionStart revision, Fact sent)
    {
        if (Revisions.FirstOrDefault(r => r.Id == revision.Id) is { } there)
            throw RefusedException.Of(
                "revision",
                $"Revision {there.Letters} was sent on {Said(Facts.First(f => f.Revision == there.Id).At)}."
            );
        CheckOpen(revision.Id, revision.Lead?.Job);
        return this with { Revisions = Revisions.Add(revision), Facts = Facts.Add(sent), Waiting = null };
    }

    /// <summary>The open proposal of another job that this one's latest estimate went out with; null for none.</summary>
    public LeadRevision? OpenLead =>
        Revisions is [.., { Lead: { } lead } latest]
        // Expired it can still be extended: it is open for whoever would send the estimate elsewhere.
        && StateOf(latest.Id, DateOnly.MinValue) is RevisionState.Sent or RevisionState.Seen or RevisionState.OnHold
            ? lead
            : null;

    /// <summary>Refuses to revive a proposal of which a further estimate has gone another way since (L22).</summary>
    /// <param name="kind">What is to be recorded of the proposal.</param>
    /// <param name="revision">The further estimate's revision, in this life, that went out with it.</param>
    /// <param name="name">What the further estimate is called.</param>
    /// <exception cref="RefusedException">It was sent anew, or accepted otherwise.</exception>
    public void CheckRevived(FactKind kind, Guid revision, string name)
    {
        if (
            kind == FactKind.Reopened
            && Revisions.FirstOrDefault(r => r.Number > Revision(revision).Number) is { } later
        )
            throw RefusedException.Of("revision", $"“{name}” was sent anew since, as its revision {later.Letters}.");
        if (kind == FactKind.YesRecorded && Acceptance is { } yes)
            throw RefusedException.Of("revision", $"“{name}” was accepted otherwise on {Said(yes.At)}.");
    }

    /// <summary>The life with a revision that is to go out later (L5): until then what was sent before stays as it is.</summary>
    /// <exception cref="RefusedException">It could not be sent now, or another waits already.</exception>
    public ProposalLife Scheduling(Scheduled later)
    {
        CheckOpen(later.Id, null);
        return this with { Waiting = later };
    }

    /// <summary>Refuses a revision that cannot be sent by what has happened to the others.</summary>
    private void CheckOpen(Guid revision, Guid? lead)
    {
        if (Acceptance is { } yes)
            throw RefusedException.Of(
                "revision",
                $"Revision {Revision(yes.Revision).Letters} was accepted on {Said(yes.At)}: what is wanted next is a change order."
            );
        if (Waiting is { } waiting && waiting.Id != revision)
            throw RefusedException.Of(
                "revision",
                $"Revision {waiting.Letters} waits to go out. Let it go, or cancel it first."
            );
        CheckLead(lead);
    }

    /// <summary>Refuses what would part an estimate from an open proposal of another job.</summary>
    /// <param name="but">The job whose next proposal it goes out with; null for none.</param>
    private void CheckLead(Guid? but)
    {
        if (OpenLead is { } open && open.Job != but)
            throw RefusedException.Of(
                "revision",
                "This estimate stands in another proposal that is open. Send it from there, or withdraw that first."
            );
    }

    private void Check(Fact fact, RevisionState state, DateOnly today)
    {
        void Reason(string what)
        {
            if (string.IsNullOrWhiteSpace(fact.Words))
                throw RefusedException.Of("words", what);
        }
        switch (fact.Kind)
        {
            case FactKind.Withdrawn:
                Reason("Say why it is withdrawn.");
                break;
            case FactKind.Annulled:
                Reason("Say why the acceptance is annulled.");
                break;
            case FactKind.Asked:
                Reason("Write something.");
                if (Of(fact.Revision).Count(f => f.Kind == FactKind.Asked) >= MostQuestions)
                    throw RefusedException.Of("words", "So many questions are better talked about: please call.");
                break;
            case FactKind.Answered:
                Reason("Write something.");
                if (!Of(fact.Revision).Any(f => f.Kind == FactKind.Asked && f.Id == fact.About))
                    throw RefusedException.Of("about", "That question is not there.");
                break;
            case FactKind.YesRecorded:
                if (fact.Day is null)
                    throw RefusedException.Of("day", "Say which date the yes bears.");
                if (fact.Day > today)
                    throw RefusedException.Of("day", "A yes does not bear a date to come.");
                // On a revision that is not open the firm says why it takes it all the same (L14).
                if (state is RevisionState.Expired or RevisionState.Declined or RevisionState.Superseded)
                    Reason($"It is {state.Words()}: say why you take the yes.");
                CheckLead(null);
                if (Acceptance is { } other)
                    throw RefusedException.Of(
                        "revision",
                        $"Revision {Revision(other.Revision).Letters} was accepted on {Said(other.At)}."
                    );
                break;
            case FactKind.Extended:
                if (fact.Day is not { } to || to <= HoldsUntil(fact.Revision) || to < today)
                    throw RefusedException.Of("day", "Prices can hold longer only until a later day.");
                break;
            case FactKind.Reopened:
                if (Revisions.Any(r => r.Number > Revision(fact.Revision).Number))
                    throw RefusedException.Of("revision", "A later revision was sent: that one is open, or was.");
                if (HoldsUntil(fact.Revision) < today && (fact.Day is not { } day || day < today))
                    throw RefusedException.Of("day", "Its last day is past: say until when the prices hold now.");
                break;
        }
    }

    /// <summary>Why something may not happen, as the end of a sentence.</summary>
    private string Why(Fact fact, RevisionState state) =>
        state switch
        {
            RevisionState.Accepted when AcceptanceOf(fact.Revision) is { } yes =>
                $"was accepted on {Said(yes.At)} by {yes.By}",
            RevisionState.Declined when NoOf(fact.Revision) is { } no => $"was declined on {Said(no.At)}",
            RevisionState.Superseded
                when Facts.FirstOrDefault(f => f.Revision == fact.Revision && f.Kind == FactKind.Withdrawn)
                    is { } withdrawn => $"was withdrawn on {Said(withdrawn.At)}",
            RevisionState.Superseded
                when Revisions.FirstOrDefault(r => r.Number > Revision(fact.Revision).Number) is { } later =>
                $"was replaced by {later.Letters}",
            RevisionState.Superseded => "is superseded: another was accepted",
            RevisionState.Expired => $"held until {Said(HoldsUntil(fact.Revision)!.Value)}",
            _ => $"is {state.Words()}",
        };

    private static string Said(DateTime at) => Said(DateOnly.FromDateTime(at));

    private static string Said(DateOnly day) => PaperLanguage.English.Day(day);
}
