namespace Emendum.Core.Jobs;

/// <summary>How finely the price is shown.</summary>
public enum Detail
{
    Total,
    Section,
    Place,
}

/// <summary>What the customer sees and reads.</summary>
/// <param name="Detail">How finely the price is shown.</param>
/// <param name="Coats">Whether coats are named.</param>
/// <param name="Letter">Opening words; paragraphs are separated by an empty line.</param>
/// <param name="Terms">Closing words.</param>
/// <param name="ValidDays">How many days the price holds.</param>
public sealed record ProposalTerms(Detail Detail, bool Coats, string Letter, string Terms, int ValidDays)
{
    /// <summary>Checks lengths and days.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (Letter.Length > 20_000)
            throw RefusedException.Of("letter", "The letter is at most 20,000 characters.");
        if (Terms.Length > 20_000)
            throw RefusedException.Of("terms", "The terms are at most 20,000 characters.");
        if (ValidDays is < 1 or > 3650)
            throw RefusedException.Of("validDays", "A price holds for 1 to 3650 days.");
    }
}
