using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Emendum.Core.Delivery;
using Emendum.Core.Json;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>What a revision keeps for ever (architecture decision 19).</summary>
/// <param name="Start">Which it is, and until when its prices hold.</param>
/// <param name="Job">The job.</param>
/// <param name="JobVersion">The version of the job that it was made from.</param>
/// <param name="Rules">The version of the rules by which it was reckoned.</param>
/// <param name="JobFile">The job file, as it leaves the house.</param>
/// <param name="Reckoning">Canonical JSON of every figure.</param>
/// <param name="Document">The document with its look.</param>
/// <param name="Figures">What it is compared by.</param>
/// <param name="Pdf">Hash of its PDF.</param>
public sealed record Revision(
    RevisionStart Start,
    Guid Job,
    long JobVersion,
    int Rules,
    byte[] JobFile,
    byte[] Reckoning,
    SentDocument Document,
    RevisionFigures Figures,
    string Pdf
);

/// <summary>A document with the look it was sent in.</summary>
public sealed record SentDocument(Document Document, Brand Brand);

/// <summary>What is made with a fact: links, and the mails that bring them.</summary>
public sealed record Brought(ImmutableArray<NewLink> Links, ImmutableArray<Mail> Mails)
{
    /// <summary>What was agreed; null for nothing.</summary>
    public Acceptance? Acceptance { get; init; }

    /// <summary>Whether it is agreed as it was sent, whatever was chosen before: live pricing has stopped (L10).</summary>
    public bool WhateverWasChosen { get; init; }

    /// <summary>Nothing of all that.</summary>
    public static readonly Brought Nothing = new([], []);
}

/// <summary>A revision as lists have it.</summary>
public sealed record RevisionRow(RevisionStart Start, RevisionFigures Figures);

/// <summary>Revisions and what happened to them, on disk. Each fact is checked against all that are there in the transaction that appends it.</summary>
public sealed class RevisionStore(Database database)
{
    /// <summary>The life of a job's proposal.</summary>
    public ProposalLife Life(Guid job)
    {
        using var connection = database.Connect();
        return Life(connection, job);
    }

    /// <summary>The lives of the proposals of all jobs of which something was sent.</summary>
    public Dictionary<Guid, ProposalLife> Lives()
    {
        using var connection = database.Connect();
        return Lives(connection, null);
    }

    /// <summary>The life in which a revision stands: of a change order its own, otherwise that of the job's proposal.</summary>
    public ProposalLife Life(Guid job, Guid revision)
    {
        using var connection = database.Connect();
        return Life(connection, job, revision);
    }

    internal static ProposalLife Life(SqliteConnection connection, Guid job, Guid revision) =>
        ChangeLives(connection, job).FirstOrDefault(c => c.Revisions[0].Id == revision) ?? Life(connection, job);

    /// <summary>The change orders of a job that were sent, in their order.</summary>
    public ImmutableArray<SentChange> Changes(Guid job)
    {
        using var connection = database.Connect();
        return Changes(connection, job);
    }

    internal static ImmutableArray<SentChange> Changes(SqliteConnection connection, Guid job)
    {
        var orders = connection
            .Rows(
                "SELECT content FROM change_order WHERE job_id = $job",
                r => JsonSerializer.Deserialize<ChangeOrder>(r.GetString(0), CoreJson.Options)!,
                ("$job", job)
            )
            .ToDictionary(c => c.Revision);
        return [.. ChangeLives(connection, job).Select(life => new SentChange(orders[life.Revisions[0].Id], life))];
    }

    /// <summary>The lives of a job's change orders: each is a chain of its own (L23).</summary>
    private static IEnumerable<ProposalLife> ChangeLives(SqliteConnection connection, Guid job)
    {
        var starts = connection.Rows(
            $"SELECT {StartColumns} FROM revision WHERE job_id = $job AND number < 0 ORDER BY number DESC",
            Start,
            ("$job", job)
        );
        if (starts.Count == 0)
            return [];
        var facts = Facts(connection, job)[job].ToLookup(f => f.Revision);
        return starts.Select(start => new ProposalLife([start], [.. facts[start.Id]]));
    }

    internal static ProposalLife Life(SqliteConnection connection, Guid job) =>
        Lives(connection, job).GetValueOrDefault(job, ProposalLife.Empty) with
        {
            Waiting = ScheduledStore.Waiting(connection, job),
        };

    /// <summary>Lives with those that lead their revisions.</summary>
    private static Dictionary<Guid, ProposalLife> Lives(SqliteConnection connection, Guid? job)
    {
        var lives = Alone(connection, job);
        var leads = new Dictionary<Guid, ProposalLife>();
        foreach (var (of, life) in lives.ToList())
        {
            var led = ImmutableDictionary.CreateBuilder<Guid, ProposalLife>();
            foreach (var lead in life.Revisions.Select(r => r.Lead?.Job).OfType<Guid>().Distinct())
            {
                if (!leads.TryGetValue(lead, out var found))
                    leads[lead] = found = Alone(connection, lead).GetValueOrDefault(lead, ProposalLife.Empty);
                led[lead] = found;
            }
            if (led.Count > 0)
                lives[of] = life with { Leads = led.ToImmutable() };
        }
        return lives;
    }

    private static Dictionary<Guid, ProposalLife> Alone(SqliteConnection connection, Guid? job)
    {
        var facts = Facts(connection, job);
        return connection
            .Rows(
                $"SELECT {StartColumns}, job_id FROM revision WHERE {(job is null ? "" : "job_id = $job AND ")}number > 0 ORDER BY number",
                r => (Job: r.GetGuid(5), Start: Start(r)),
                job is null ? [] : [("$job", job)]
            )
            .GroupBy(r => r.Job, r => r.Start)
            .ToDictionary(
                r => r.Key,
                r =>
                {
                    var own = r.Select(start => start.Id).ToHashSet();
                    return new ProposalLife([.. r], [.. facts[r.Key].Where(f => own.Contains(f.Revision))]);
                }
            );
    }

    /// <summary>What happened to the revisions of a job, or of all jobs, in order.</summary>
    private static ILookup<Guid, Fact> Facts(SqliteConnection connection, Guid? job) =>
        connection
            .Rows(
                $"SELECT id, revision_id, kind, at, by, words, day, total, job_id, link_id, copy, about_id, photo FROM proposal_fact {(job is null ? "" : "WHERE job_id = $job")} ORDER BY number",
                r =>
                    (
                        Job: r.GetGuid(8),
                        Fact: new Fact(
                            r.GetGuid(0),
                            r.GetGuid(1),
                            Enum.Parse<FactKind>(r.GetString(2)),
                            JobStore.Moment(r.GetString(3)),
                            r.GetString(4),
                            r.GetString(5)
                        )
                        {
                            Day = r.IsDBNull(6) ? null : Day.Of(r.GetString(6)),
                            Total = r.IsDBNull(7) ? null : decimal.Parse(r.GetString(7), CultureInfo.InvariantCulture),
                            Link = r.IsDBNull(9) ? null : r.GetGuid(9),
                            Copy = r.GetInt32(10) != 0,
                            About = r.IsDBNull(11) ? null : r.GetGuid(11),
                            Photo = r.IsDBNull(12) ? null : r.GetString(12),
                        }
                    ),
                job is null ? [] : [("$job", job)]
            )
            .ToLookup(f => f.Job, f => f.Fact);

    private const string StartColumns = "id, number, valid_until, lead_job_id, lead_id";

    private static RevisionStart Start(SqliteDataReader r) =>
        new(r.GetGuid(0), r.GetInt32(1), r.IsDBNull(2) ? null : Day.Of(r.GetString(2)))
        {
            Lead = r.IsDBNull(4) ? null : new(r.GetGuid(3), r.GetGuid(4)),
        };

    /// <summary>A job's revisions, the latest first.</summary>
    public List<RevisionRow> Of(Guid job) => Rows("job_id = $job AND number > 0 ORDER BY number DESC", ("$job", job));

    /// <summary>A revision as lists have it; null where there is none of that id in the job.</summary>
    public RevisionRow? Row(Guid job, Guid id) =>
        Rows("id = $id AND job_id = $job", ("$id", id), ("$job", job)).FirstOrDefault();

    private List<RevisionRow> Rows(string which, params ReadOnlySpan<(string, object?)> parameters)
    {
        using var connection = database.Connect();
        return connection.Rows(
            $"SELECT id, number, valid_until, lead_job_id, lead_id, figures FROM revision WHERE {which}",
            r => new RevisionRow(Start(r), Json<RevisionFigures>((byte[])r[5])),
            parameters
        );
    }

    /// <summary>A revision, whole; null where there is none of that id in the job.</summary>
    public Revision? Find(Guid job, Guid id)
    {
        using var connection = database.Connect();
        return connection
            .Rows($"SELECT {Whole} FROM revision WHERE id = $id AND job_id = $job", Read, ("$id", id), ("$job", job))
            .FirstOrDefault();
    }

    /// <summary>The further estimates that went out with a revision, whole, in their order.</summary>
    public List<Revision> Further(Guid job, Guid lead)
    {
        using var connection = database.Connect();
        return connection.Rows(
            $"SELECT {Whole} FROM revision WHERE lead_job_id = $job AND lead_id = $lead ORDER BY rowid",
            Read,
            ("$job", job),
            ("$lead", lead)
        );
    }

    /// <summary>Number and name of the further estimates that went out with revisions of a job, and what they came to, by revision, in their order.</summary>
    public ILookup<Guid, (string Name, RevisionFigures Figures)> FurtherOf(Guid job)
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT lead_id, job.number, job.name, figures FROM revision JOIN job ON job.id = revision.job_id WHERE lead_job_id = $job ORDER BY revision.rowid",
                r =>
                    (
                        Lead: r.GetGuid(0),
                        Name: $"{r.GetString(1)} {r.GetString(2)}".Trim(),
                        Figures: Json<RevisionFigures>((byte[])r[3])
                    ),
                ("$job", job)
            )
            .ToLookup(f => f.Lead, f => (f.Name, f.Figures));
    }

    /// <summary>The jobs of which something went out with a proposal of this one.</summary>
    public List<Guid> FurtherJobs(Guid job)
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT DISTINCT job_id FROM revision WHERE lead_job_id = $job",
            r => r.GetGuid(0),
            ("$job", job)
        );
    }

    private const string Whole =
        "id, number, valid_until, lead_job_id, lead_id, job_id, job_version, rules, job, reckoning, document, figures, pdf";

    private static Revision Read(SqliteDataReader r) =>
        new(
            Start(r),
            r.GetGuid(5),
            r.GetInt64(6),
            r.GetInt32(7),
            Packed.Read((byte[])r[8]),
            Packed.Read((byte[])r[9]),
            Json<SentDocument>((byte[])r[10]),
            Json<RevisionFigures>((byte[])r[11]),
            r.GetString(12)
        );

    /// <summary>Keeps a revision with the fact of its sending, both or none. The same id again is answered by what is there.</summary>
    /// <param name="revision">The revision; its number is the next that is free.</param>
    /// <param name="sent">The fact.</param>
    /// <param name="bring">The links and mails that bring it.</param>
    /// <param name="scheduled">Whether it is one that has waited for its time; it waits no more then.</param>
    /// <param name="further">The further estimates that go out with it, each a revision of its own job.</param>
    /// <exception cref="Core.RefusedException">It cannot be sent any more: another was accepted, one with its number was sent meanwhile, or it was cancelled.</exception>
    public ProposalLife Send(
        Revision revision,
        Fact sent,
        Brought bring,
        bool scheduled = false,
        ImmutableArray<Revision>? further = null
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var life = Life(connection, revision.Job);
        if (life.Facts.Any(f => f.Id == sent.Id))
            return life;
        if (
            scheduled
            && !ScheduledStore.Ends(connection, revision.Job, revision.Start.Id, ScheduledOutcome.Went, "", sent.At)
        )
            throw Core.RefusedException.Of("revision", "It was cancelled meanwhile.");
        var then = life.Sending(revision.Start, sent);
        CheckNumber(life, revision);
        Write(connection, revision, sent.At);
        Append(connection, revision.Job, sent, bring);
        // Each further estimate takes the next letters of its own job (L22).
        foreach (var one in further ?? [])
        {
            var its = Life(connection, one.Job);
            its.Sending(one.Start, sent with { Revision = one.Start.Id });
            CheckNumber(its, one);
            Write(connection, one, sent.At);
        }
        writing.Commit();
        return then;
    }

    private static void CheckNumber(ProposalLife life, Revision revision)
    {
        if (life.Revisions.Length + 1 != revision.Start.Number)
            throw Core.RefusedException.Of(
                "revision",
                $"Revision {revision.Start.Letters} was sent meanwhile: look at it, and send the next."
            );
    }

    private static void Write(SqliteConnection connection, Revision revision, DateTime sent) =>
        connection.Run(
            "INSERT INTO revision (id, job_id, number, sent, job_version, rules, valid_until, lead_job_id, lead_id, job, reckoning, document, figures, pdf) VALUES ($id, $job, $number, $sent, $version, $rules, $until, $leadJob, $lead, $file, $reckoning, $document, $figures, $pdf)",
            ("$id", revision.Start.Id),
            ("$job", revision.Job),
            ("$number", revision.Start.Number),
            ("$sent", JobStore.Utc(sent)),
            ("$version", revision.JobVersion),
            ("$rules", revision.Rules),
            ("$until", revision.Start.ValidUntil is { } until ? Day.Written(until) : null),
            ("$leadJob", revision.Start.Lead?.Job),
            ("$lead", revision.Start.Lead?.Revision),
            ("$file", Packed.Of(revision.JobFile)),
            ("$reckoning", Packed.Of(revision.Reckoning)),
            ("$document", Packed.Of(JsonSerializer.SerializeToUtf8Bytes(revision.Document, CoreJson.Options))),
            ("$figures", Packed.Of(JsonSerializer.SerializeToUtf8Bytes(revision.Figures, CoreJson.Options))),
            ("$pdf", revision.Pdf)
        );

    /// <summary>Appends a fact, with the links and mails that were made with it, if it may happen as the proposal stands in this very transaction. The same id again changes nothing.</summary>
    /// <exception cref="Core.RefusedException">It may not; says why.</exception>
    public ProposalLife Record(Guid job, Fact fact, DateOnly today, Brought? bring = null)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var was = Life(connection, job, fact.Revision);
        var life = was.With(fact, today);
        if (ReferenceEquals(life, was))
            return was;
        if (was.Revisions[0].IsChange)
            CheckChange(connection, job, fact);
        if (fact.Kind is FactKind.Reopened or FactKind.YesRecorded)
            CheckFurther(connection, job, fact);
        if (fact.Kind == FactKind.Annulled && !was.Revisions[0].IsChange && ChangeLives(connection, job).Any())
            throw Core.RefusedException.Of(
                "revision",
                "A change order rests on this acceptance: it cannot be annulled any more."
            );
        if (fact.Kind == FactKind.Annulled && was.Acceptance is { } yes && InvoiceStore.RestsOn(connection, yes.Id))
            throw Core.RefusedException.Of(
                "revision",
                "An invoice rests on this acceptance: it cannot be annulled any more."
            );
        if (fact.Kind == FactKind.Annulled && was.Acceptance is { } agreed && OrderStore.RestsOn(connection, agreed.Id))
            throw Core.RefusedException.Of(
                "revision",
                "An order to a supplier rests on this acceptance: it cannot be annulled any more."
            );
        // A link that was revoked while its page stood open does nothing more; one is revoked once.
        if (fact.Link is { } link && LinkStore.Find(connection, link) is not { Link.Revoked: null })
            throw Core.RefusedException.Of("link", "That link was revoked.");
        if (
            bring is { Acceptance.Statement: var signed, WhateverWasChosen: false }
            && Selected(connection, fact.Revision).Version != signed.Selection
        )
            throw Core.RefusedException.Of(
                "total",
                "Something else was chosen meanwhile. What stands now is shown; look at it, and sign again."
            );
        Append(connection, job, fact, bring ?? Brought.Nothing);
        writing.Commit();
        return life;
    }

    /// <summary>Keeps a change order with the fact of its sending, both or none. The same id again is answered by what is there.</summary>
    /// <param name="revision">It as a revision.</param>
    /// <param name="change">What it holds.</param>
    /// <param name="sent">The fact.</param>
    /// <param name="bring">The links and mails that bring it.</param>
    /// <exception cref="Core.RefusedException">The contract is another by now, or another was sent under its number.</exception>
    public void SendChange(Revision revision, ChangeOrder change, Fact sent, Brought bring)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var there = Changes(connection, revision.Job);
        if (there.Any(c => c.Life.Facts.Any(f => f.Id == sent.Id)))
            return;
        var yes =
            Life(connection, revision.Job).Acceptance
            ?? throw Core.RefusedException.Of("job", "Nothing was accepted yet: there is no contract to change.");
        if (SentChange.RestsOn(yes, there) != change.Base)
            throw Core.RefusedException.Of("lines", "The contract was changed meanwhile. Look once more, and send.");
        if (there.Length >= ChangeOrder.Most)
            throw Core.RefusedException.Of("lines", $"A job has at most {ChangeOrder.Most} change orders.");
        if (revision.Start.Number != -(there.Length + 1))
            throw Core.RefusedException.Of(
                "lines",
                "Another change order was sent meanwhile. Look once more, and send."
            );
        Write(connection, revision, sent.At);
        connection.Run(
            "INSERT INTO change_order (revision_id, job_id, content) VALUES ($id, $job, $content)",
            ("$id", revision.Start.Id),
            ("$job", revision.Job),
            ("$content", JsonSerializer.Serialize(change, CoreJson.Options))
        );
        Append(connection, revision.Job, sent, bring);
        writing.Commit();
    }

    /// <summary>Refuses what cannot happen to a change order by what has happened beside it.</summary>
    private static void CheckChange(SqliteConnection connection, Guid job, Fact fact)
    {
        var all = Changes(connection, job);
        var of = all.Single(c => c.Order.Revision == fact.Revision);
        if (fact.Kind is FactKind.Accepted or FactKind.YesRecorded)
        {
            if (Life(connection, job).Acceptance is null)
                throw Core.RefusedException.Of("revision", "The contract that it changes does not stand any more.");
            of.CheckAccepted(all, SiteStore.DoneOf(connection, job));
        }
        if (fact.Kind == FactKind.Annulled && of.Life.Acceptance is { } yes)
        {
            if (all.Any(c => c.Life.Facts[0].At > yes.At && c.Order.Revision != fact.Revision))
                throw Core.RefusedException.Of(
                    "revision",
                    "A later change order rests on it: it cannot be annulled any more."
                );
            var rests = connection.Rows(
                "SELECT 1 FROM invoice WHERE job_id = $job AND at > $at UNION ALL SELECT 1 FROM purchase_order WHERE job_id = $job AND at > $at LIMIT 1",
                r => r.GetInt32(0),
                ("$job", job),
                ("$at", JobStore.Utc(yes.At))
            );
            if (rests.Count > 0)
                throw Core.RefusedException.Of(
                    "revision",
                    "An invoice or an order was written since it was accepted: it cannot be annulled any more. Send a change order that takes it back."
                );
        }
    }

    /// <summary>Refuses to revive a proposal of which a further estimate has gone another way since.</summary>
    private static void CheckFurther(SqliteConnection connection, Guid job, Fact fact)
    {
        var further = connection.Rows(
            "SELECT revision.job_id, revision.id, job.name FROM revision JOIN job ON job.id = revision.job_id WHERE lead_job_id = $job AND lead_id = $lead",
            r => (Job: r.GetGuid(0), Revision: r.GetGuid(1), Name: r.GetString(2)),
            ("$job", job),
            ("$lead", fact.Revision)
        );
        foreach (var one in further)
            Life(connection, one.Job).CheckRevived(fact.Kind, one.Revision, one.Name);
    }

    /// <summary>What is chosen of a revision by now.</summary>
    public Selection Selected(Guid revision)
    {
        using var connection = database.Connect();
        return Selected(connection, revision);
    }

    private static Selection Selected(SqliteConnection connection, Guid revision) =>
        connection
            .Rows(
                "SELECT content FROM selection WHERE revision_id = $revision ORDER BY version DESC LIMIT 1",
                r => JsonSerializer.Deserialize<Selection>(r.GetString(0), CoreJson.Options)!,
                ("$revision", revision)
            )
            .FirstOrDefault()
        ?? Selection.AsSent;

    /// <summary>Keeps what is chosen, if something may be chosen as the proposal stands in this very transaction, and if nothing else was chosen since it was seen. The fact is recorded once a visit; the same id again
    /// changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="fact">The fact; its id is that of the change.</param>
    /// <param name="seen">The version that its sender has seen.</param>
    /// <param name="next">What is chosen from now on: one version more.</param>
    /// <param name="today">The firm's day.</param>
    /// <exception cref="Core.RefusedException">It may not; says why.</exception>
    public ProposalLife Choose(Guid job, Fact fact, int seen, Selection next, DateOnly today)
    {
        // Of many who choose at once all but one have seen an older selection: they need not wait for their turn to write to be told.
        using (var reading = database.Connect())
            if (!IsKept(reading, fact) && seen != Selected(reading, fact.Revision).Version)
            {
                Life(reading, job).With(fact, today);
                throw Meanwhile();
            }
        using var writing = database.Writes();
        var connection = writing.Connection;
        var life = Life(connection, job);
        if (IsKept(connection, fact))
            return life;
        var then = life.With(fact, today);
        if (fact.Link is { } link && LinkStore.Find(connection, link) is not { Link.Revoked: null })
            throw Core.RefusedException.Of("link", "That link was revoked.");
        // What stands now is what its sender has seen (L8), and what the change was made from.
        var now = Selected(connection, fact.Revision).Version;
        if (seen != now || next.Version != now + 1)
            throw Meanwhile();
        if (next.Version > Selection.Most)
            throw Core.RefusedException.Of("choose", "So many changes are better talked about: please call.");
        connection.Run(
            "INSERT INTO selection (id, revision_id, version, content, link_id, at) VALUES ($id, $revision, $version, $content, $link, $at)",
            ("$id", fact.Id),
            ("$revision", fact.Revision),
            ("$version", next.Version),
            ("$content", JsonSerializer.Serialize(next, CoreJson.Options)),
            ("$link", fact.Link),
            ("$at", JobStore.Utc(fact.At))
        );
        if (life.IsNewVisit(fact.Link, fact.Revision, fact.At, FactKind.Chosen))
        {
            Append(connection, job, fact);
            life = then;
        }
        writing.Commit();
        return life;
    }

    private static bool IsKept(SqliteConnection connection, Fact chosen) =>
        connection.Rows("SELECT 1 FROM selection WHERE id = $id", r => r.GetInt32(0), ("$id", chosen.Id)).Count > 0;

    private static Core.RefusedException Meanwhile() =>
        Core.RefusedException.Of(
            "version",
            "Somebody else has chosen meanwhile. What stands now is shown; choose again."
        );

    private static void Append(SqliteConnection connection, Guid job, Fact fact, Brought bring)
    {
        Append(connection, job, fact);
        foreach (var link in bring.Links)
            LinkStore.Write(connection, job, fact.Id, link);
        foreach (var mail in bring.Mails)
            MailStore.Write(connection, mail);
        if (bring.Acceptance is { } agreed)
            AcceptanceStore.Write(connection, job, agreed);
    }

    private static void Append(SqliteConnection connection, Guid job, Fact fact) =>
        connection.Run(
            "INSERT INTO proposal_fact (id, job_id, revision_id, kind, at, by, words, day, total, link_id, copy, about_id, photo) VALUES ($id, $job, $revision, $kind, $at, $by, $words, $day, $total, $link, $copy, $about, $photo)",
            ("$id", fact.Id),
            ("$job", job),
            ("$revision", fact.Revision),
            ("$kind", fact.Kind.ToString()),
            ("$at", JobStore.Utc(fact.At)),
            ("$by", fact.By),
            ("$words", fact.Words),
            ("$day", fact.Day is { } day ? Day.Written(day) : null),
            ("$total", fact.Total?.ToString(CultureInfo.InvariantCulture)),
            ("$link", fact.Link),
            ("$copy", fact.Copy ? 1 : 0),
            ("$about", fact.About),
            ("$photo", fact.Photo)
        );

    private static T Json<T>(byte[] stored) => JsonSerializer.Deserialize<T>(Packed.Read(stored), CoreJson.Options)!;
}
