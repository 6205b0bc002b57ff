using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>A rate read back as it was understood: both ways round, and what a sample quantity takes.</summary>
/// <param name="Text">The rate as it is kept.</param>
/// <param name="OtherWay">The same the other way round.</param>
/// <param name="Sample">What a hundred (or ten) of what it is measured in take.</param>
public sealed record RateReading(string Text, string OtherWay, string Sample)
{
    /// <summary>Reads a rate. With <paramref name="driver"/>, a percentage of it may be typed, and the sample is of its kind.</summary>
    /// <exception cref="RefusedException">It is not a rate, or does not apply to the driver.</exception>
    public static RateReading Of(string text, Unit? driver, string field = "rate")
    {
        var ratio =
            driver is not null && Ratio.OfPercent(text, driver) is { } percent ? percent : Ratio.Parse(text, field);
        var from =
            driver?.Kind
            ?? (
                ratio.UnitA.Kind == Kind.Time ? ratio.UnitB.Kind
                : ratio.UnitA.Kind == ratio.UnitB.Kind ? ratio.UnitB.Kind
                : ratio.UnitB.Kind == Kind.Time ? ratio.UnitA.Kind
                : ratio.UnitB.Kind
            );
        if (ratio.UnitA.Kind != from && ratio.UnitB.Kind != from)
            throw RefusedException.Of(field, $"“{ratio}” does not apply to {BookCheck.Words(from)}.");
        var (times, to, over, of) = ratio.Turn(from);
        var sample = of.Kind == Kind.Count ? 10m : 100m;
        return new(
            ratio.ToString(),
            ratio.OtherWay(),
            $"{Rounding.Text(sample)} {of}: {Rounding.Text(Rounding.Digits(sample * times / over, 4))} {to}"
        );
    }
}
