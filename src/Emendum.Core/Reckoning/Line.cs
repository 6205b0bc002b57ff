using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>An included cell reckoned: its quantity and what each part takes (estimating model §5).</summary>
public sealed class Line
{
    private Line(CompiledItem item, PlaceMeasures measures, Cell cell, Val quantity, Val[] amounts, Val hours) =>
        (Item, Measures, Cell, Quantity, Amounts, Hours) = (item, measures, cell, quantity, amounts, hours);

    /// <summary>The work item.</summary>
    public CompiledItem Item { get; }

    /// <summary>The place's measures.</summary>
    public PlaceMeasures Measures { get; }

    /// <summary>The cell it was reckoned from.</summary>
    public Cell Cell { get; }

    /// <summary>The quantity worked, for all ×n places.</summary>
    public Val Quantity { get; }

    /// <summary>Hours or need with waste of each part, in <see cref="CompiledItem.Part.Unit"/>.</summary>
    public Val[] Amounts { get; }

    /// <summary>Labour hours of all parts.</summary>
    public Val Hours { get; }

    /// <summary>Whether the line still stands for these inputs.</summary>
    public bool IsOf(CompiledItem item, PlaceMeasures measures, Cell cell) =>
        ReferenceEquals(item, Item) && ReferenceEquals(measures, Measures) && ReferenceEquals(cell, Cell);

    /// <summary>Reckons one included cell.</summary>
    public static Line Of(CompiledItem item, PlaceMeasures measures, Cell cell, UnitSystem system, Trace trace)
    {
        var (work, place) = (item.Item.Id, measures.Place);
        var count = trace.Typed(place.Count, "", "equal places", null, "places", place.Id);
        Val Driven(Measure measure) => place.Count == 1 ? measures[measure] : measures[measure] * count;
        FigurePath Path(string leaf) => new("cells", work, place.Id, leaf);

        var quantity = trace.Make(Driven(item.Measure), SymbolOf(item.Measure, system), trace.On ? $"{item.Item.Name}, {place.Name}: quantity" : "", Path("quantity"));
        var amounts = new Val[item.Parts.Length];
        var net = new Val[item.Parts.Length];
        Val hours = 0m;
        var labourParts = 0;
        for (var i = 0; i < item.Parts.Length; i++)
        {
            var part = item.Parts[i];
            Val amount;
            if (part.Crew > 0)
            {
                amount = hours / trace.Book(part.Crew, "", trace.On ? part.Name + ", crew" : "", part.Source);
            }
            else
            {
                var (driver, unit) = part.Driver >= 0
                    ? ((part.AsOrdered ? amounts : net)[part.Driver], item.Parts[part.Driver].Unit)
                    : (part.Measure == item.Measure ? quantity : Driven(part.Measure!.Value), part.Measure!.Value.UnitIn(system));
                amount = trace.Turn(driver, unit, part.Ratio!, part.Name, part.Source, part.TypedIn, out var to);
                if (part.Coats > 1)
                {
                    var later = trace.Turn(driver, unit, part.Later ?? part.Ratio!, part.Name, part.Source, part.TypedIn, out to);
                    amount += part.Coats == 2 ? later : (part.Coats - 1) * later;
                }
                amount = trace.Convert(amount, to, part.Unit);
            }
            net[i] = amount;
            if (part.Waste != 0) amount = amount * (100m + trace.Book(part.Waste, "%", "waste", part.Source)) / 100m;
            var isLabour = part.Entry is LabourRole;
            amounts[i] = trace.Make(amount, part.Unit.Symbol, trace.On ? $"{part.Name}, {place.Name}" : "", trace.On ? Path("parts/" + part.Id) : default);
            if (!isLabour) continue;
            hours = labourParts++ == 0 ? amounts[i] : hours + amounts[i];
        }
        return new(item, measures, cell, quantity, amounts, trace.Make(hours, "h", trace.On ? $"{item.Item.Name}, {place.Name}: labour" : "", Path("hours")));
    }

    /// <summary>The symbol shown with a quantity; counts show none.</summary>
    public static string SymbolOf(Measure measure, UnitSystem system) => measure.Kind() == Kind.Count ? "" : measure.UnitIn(system).Symbol;
}
