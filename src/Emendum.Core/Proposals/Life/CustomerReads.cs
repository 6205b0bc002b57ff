namespace Emendum.Core.Proposals;

/// <summary>How a revision stands in the words of the customer's page. What is the firm's own affair, as that it is on hold (L11), is not in them.</summary>
/// <param name="Open">Whether it can still be declined, and questions be more than questions.</param>
/// <param name="Stands">Why not, as a sentence; empty where it can.</param>
/// <param name="Holds">Until when its prices hold, where the firm lets them hold longer than the document says; empty otherwise (L3).</param>
public sealed record CustomerReads(bool Open, string Stands, string Holds)
{
    /// <summary>That of a revision.</summary>
    /// <param name="life">The life of its proposal.</param>
    /// <param name="revision">Its id.</param>
    /// <param name="today">The firm's day.</param>
    /// <param name="writes">How days are written.</param>
    /// <param name="dayOf">The firm's day of a moment (UTC).</param>
    public static CustomerReads Of(
        ProposalLife life,
        Guid revision,
        DateOnly today,
        PaperLanguage writes,
        Func<DateTime, DateOnly> dayOf
    )
    {
        (life, revision) = life.Led(revision);
        var (start, until) = (life.Revision(revision), life.HoldsUntil(revision));
        string At(Fact? fact) => fact is null ? "" : $" on {writes.Day(fact.Day ?? dayOf(fact.At))}";
        var stands = life.StateOf(revision, today) switch
        {
            RevisionState.Accepted => $"Accepted{At(life.Acceptance)}.",
            RevisionState.Declined => $"Declined{At(life.NoOf(revision))}. If you think otherwise now, ask us.",
            RevisionState.Superseded => Superseded(life, start, At),
            RevisionState.Expired =>
                $"The prices held until {writes.Day(until!.Value)}. Ask for it again, and we look at them anew.",
            _ => "",
        };
        return new(
            stands.Length == 0,
            stands,
            until != start.ValidUntil && until is { } longer && stands.Length == 0
                ? $"We let the prices hold longer than the document says: until {writes.Day(longer)}."
                : ""
        );
    }

    /// <summary>It says by what it was replaced, and gives no way there (L4).</summary>
    private static string Superseded(ProposalLife life, RevisionStart start, Func<Fact?, string> at)
    {
        if (life.Facts.LastOrDefault(f => f.Revision == start.Id && f.Kind == FactKind.Withdrawn) is { } withdrawn)
            return $"Withdrawn{at(withdrawn)}.";
        if (life.Revisions.FirstOrDefault(r => r.Number > start.Number) is { } later)
        {
            var sent = life.Facts.FirstOrDefault(f => f.Revision == later.Id && f.Kind == FactKind.Sent);
            return $"Replaced{at(sent)} by revision {later.Letters}, which has a link of its own.";
        }
        return $"Replaced: revision {life.Revision(life.Acceptance!.Revision).Letters} was accepted{at(life.Acceptance)}.";
    }
}
