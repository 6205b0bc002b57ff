namespace Emendum.Core.Proposals;

/// <summary>How a revision stands (delivery.md, Life of a proposal). It is never stored, but read from what happened and the date.</summary>
public enum RevisionState
{
    Draft,
    Sent,
    Seen,
    OnHold,
    Expired,
    Declined,
    Accepted,
    Superseded,
}

/// <summary>Words of states.</summary>
public static class RevisionStates
{
    /// <summary>As it is read: <c>on hold</c>.</summary>
    public static string Words(this RevisionState state) =>
        state == RevisionState.OnHold ? "on hold" : state.ToString().ToLowerInvariant();
}

/// <summary>A revision as its life is read: which it is, and until when its prices hold.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">1 for A, in the order in which they were sent; −1 for the job's first change order, −2 for its second: each of them is a chain of its own (L23).</param>
/// <param name="ValidUntil">Last day on which its prices hold as its document says; null for never ending.</param>
public sealed record RevisionStart(Guid Id, int Number, DateOnly? ValidUntil)
{
    /// <summary>Where it went out as a further estimate of another job's proposal, that: what happens happens there (L22). Null where it went out by itself.</summary>
    public LeadRevision? Lead { get; init; }

    /// <summary>Whether it is a change order.</summary>
    public bool IsChange => Number < 0;

    /// <summary>Its letters: A … Z, AA, AB …; of a change order its number.</summary>
    public string Letters => LettersOf(Number);

    /// <summary>As it is called: <c>Revision A</c>, <c>Change order 1</c>.</summary>
    public string Called => CalledOf(Number);

    /// <summary>As one of a number is called.</summary>
    public static string CalledOf(int number) => $"{(number < 0 ? "Change order" : "Revision")} {LettersOf(number)}";

    /// <summary>Letters of a number, from 1 on; of a change order, below nothing, its own number.</summary>
    public static string LettersOf(int number)
    {
        if (number < 0)
            return (-number).ToString(System.Globalization.CultureInfo.InvariantCulture);
        var letters = "";
        for (; number > 0; number = (number - 1) / 26)
            letters = (char)('A' + (number - 1) % 26) + letters;
        return letters;
    }
}

/// <summary>The revision of another job with which an estimate went out.</summary>
/// <param name="Job">That job.</param>
/// <param name="Revision">Its revision.</param>
public sealed record LeadRevision(Guid Job, Guid Revision);
