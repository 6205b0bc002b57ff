using System.Globalization;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reckoning;

/// <summary>A measure that a line could be led by instead.</summary>
/// <param name="Leaf">Its name as a source of quantity.</param>
/// <param name="Label">Its words.</param>
/// <param name="Value">What it comes to for one such place.</param>
/// <param name="Unit">Its unit; empty for a count.</param>
public sealed record OtherMeasure(string Leaf, string Label, Val Value, string Unit)
{
    /// <summary>What it comes to, with its unit.</summary>
    public string Shown => $"{Value.V.ToString("#,0.##", CultureInfo.InvariantCulture)} {Unit}".TrimEnd();
}

/// <summary>What is said of a line that comes to nothing (estimating model §4).</summary>
public static class OtherMeasures
{
    /// <summary>Measures of the place that are of the line's kind and not nothing; the one people ask for first stands first. None where the quantity was typed.</summary>
    public static IEnumerable<OtherMeasure> CouldTake(this Line line, UnitSystem units)
    {
        if (line.Cell.Quantity is not null)
            return [];
        var (measures, kind) = (line.Measures, line.Item.Measure.Kind());
        var symbol = Line.SymbolOf(line.Item.Measure, units);
        OtherMeasure Other(string leaf, string label, Val value) => new(leaf, label, value, symbol);
        return Measures
            .All.Where(m => m.Kind() == kind && measures.Has(m) && measures[m].V != 0)
            // A length may stand for another; so many steps are no windows.
            .Where(m => kind != Kind.Count || m == Measure.Count)
            .OrderBy(m => m != measures.Place.Shape.Main)
            .Select(m => Other(m.Name(), m.Label(units), measures[m]))
            .Concat(
                measures
                    .Extras.Where(e => e.Kind == kind && e.Value.V != 0)
                    .Select(e => Other(e.Leaf, e.Label, e.Value))
            );
    }

    /// <summary>Why it comes to nothing.</summary>
    public static string WhyNothing(this Line line, UnitSystem units)
    {
        if (line.Cell.Quantity is not null)
            return "A quantity of nothing was typed.";
        if (line.Measures.Place.Shape is Unmeasured)
            return $"{line.Measures.Place.Name} is not measured yet.";
        var (measure, place) = (line.Item.LedAt(line.Measures), line.Measures.Place);
        var label = measure.Label(units).ToLowerInvariant();
        return line.Cell.Source.Length > 0 ? $"What it was set to take is zero at {place.Name}."
            : line.Measures.Has(measure) ? $"It goes by {label}, which is zero at {place.Name}."
            : $"It goes by {label}, which {place.Name} does not have.";
    }
}
