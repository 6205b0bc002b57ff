namespace Emendum.Core.Work;

/// <summary>How far work may come out otherwise than it is reckoned, in percent of what is reckoned: −10 to 20 is from nine tenths of it to six fifths. Anything between is as likely as anything else.</summary>
/// <param name="HoursLow">Labour hours at the least, and machines with them.</param>
/// <param name="HoursHigh">Labour hours at the most.</param>
/// <param name="PricesLow">What is bought, goods and subcontracts, at the least.</param>
/// <param name="PricesHigh">What is bought, at the most.</param>
public sealed record Doubt(decimal HoursLow, decimal HoursHigh, decimal PricesLow, decimal PricesHigh)
{
    /// <summary>The least and the most that can be said, percent.</summary>
    public const decimal Least = -90,
        Most = 400;

    /// <summary>Checks that each goes from low to high.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public void Check(string field)
    {
        Check(HoursLow, HoursHigh, "Hours", field);
        Check(PricesLow, PricesHigh, "Prices", field);
    }

    private static void Check(decimal low, decimal high, string what, string field)
    {
        if (low < Least || high > Most || low > Most || high < Least)
            throw RefusedException.Of(field, $"{what} come out at −{-Least:0} to +{Most:0} percent.");
        if (low > high)
            throw RefusedException.Of(field, $"{what} go from low to high: −10 and then 20, not the other way round.");
    }
}
