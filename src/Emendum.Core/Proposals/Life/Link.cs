namespace Emendum.Core.Proposals;

/// <summary>How a link stands.</summary>
public enum LinkState
{
    Open,

    /// <summary>Its year is over.</summary>
    Ended,

    /// <summary>The firm has revoked it.</summary>
    Revoked,
}

/// <summary>A customer's private link to one revision (L19, L20). What opens it is known to its holder alone.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Revision">The revision that it shows.</param>
/// <param name="For">Whom it was made for: a name, or an e-mail address.</param>
/// <param name="Signs">Whether they may choose, decline and sign; otherwise they have a copy: they read and ask.</param>
/// <param name="Made">When it was made (UTC).</param>
/// <param name="Revoked">When it was revoked (UTC); null where it was not.</param>
public sealed record Link(Guid Id, Guid Revision, string For, bool Signs, DateTime Made, DateTime? Revoked)
{
    /// <summary>Most links of a revision.</summary>
    public const int Most = 200;

    /// <summary>Most characters of whom it is for.</summary>
    public const int MostOfFor = 254;

    /// <summary>The moment from which it opens nothing any more (UTC): a year after it was made.</summary>
    public DateTime Ends => Made.AddYears(1);

    /// <summary>How it stands at a moment (UTC). One that is revoked is nothing else.</summary>
    public LinkState StateAt(DateTime now) =>
        Revoked is not null ? LinkState.Revoked
        : now >= Ends ? LinkState.Ended
        : LinkState.Open;

    /// <summary>Refuses a name that is none.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public static void CheckFor(string name)
    {
        if (string.IsNullOrWhiteSpace(name) || name.Length > MostOfFor || name.Any(char.IsControl))
            throw RefusedException.Of(
                "for",
                $"Say whom the link is for, in one line of at most {MostOfFor} characters."
            );
    }
}
