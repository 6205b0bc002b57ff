using Emendum.Core.Quantities;

namespace Emendum.Core.Figures;

/// <summary>Where a figure stands: an area, up to two ids and a name. Its text is built only when someone asks.</summary>
public readonly record struct FigurePath(string Area, Guid A, Guid B, string Leaf)
{
    /// <summary>A path without ids.</summary>
    public FigurePath(string area, string leaf)
        : this(area, Guid.Empty, Guid.Empty, leaf) { }

    /// <summary>A path with one id.</summary>
    public FigurePath(string area, Guid a, string leaf)
        : this(area, a, Guid.Empty, leaf) { }

    /// <summary>An area told apart by a colour; the area itself where there is none.</summary>
    public static string InColour(string area, string colour) =>
        colour.Length == 0 ? area : $"{area}~{Uri.EscapeDataString(colour)}";

    /// <inheritdoc/>
    public override string ToString() =>
        A == Guid.Empty ? $"{Area}/{Leaf}"
        : B == Guid.Empty ? $"{Area}/{A}/{Leaf}"
        : $"{Area}/{A}/{B}/{Leaf}";
}

/// <summary>Either silent, and then costs next to nothing, or recording how every figure is made.</summary>
public sealed class Trace
{
    /// <summary>Records nothing.</summary>
    public static readonly Trace Silent = new(false);

    private readonly bool on;

    private Trace(
        bool on,
        string prefix = "",
        Dictionary<string, Figure>? figures = null,
        List<Assumption>? assumptions = null
    ) =>
        (this.on, Prefix, Figures, this.assumptions) = (
            on,
            prefix,
            figures ?? new(StringComparer.Ordinal),
            assumptions
        );

    private readonly List<Assumption>? assumptions;

    /// <summary>A new recording trace.</summary>
    public static Trace Recording() => new(true);

    /// <summary>One that records for a workbook which goes on reckoning by itself: also what is nothing now and would not be if a quantity were another, and what was assumed on the way.</summary>
    public static Trace Following() => new(true, assumptions: []);

    /// <summary>Whether it records what a changed quantity would bring.</summary>
    public bool Follows => assumptions is not null;

    /// <summary>What was assumed, while following.</summary>
    public IReadOnlyList<Assumption> Assumptions => assumptions ?? [];

    /// <summary>Keeps, while following, that the way taken depends on how two numbers stand to each other.</summary>
    public void Assume(Val left, Relation relation, Val right, string otherwise) =>
        assumptions?.Add(new(left.HowOrConstant, relation, right.HowOrConstant, otherwise));

    /// <summary>Whether it records; guards the making of labels.</summary>
    public bool On => on;

    /// <summary>Every figure made so far by path, while recording.</summary>
    public Dictionary<string, Figure> Figures { get; }

    /// <summary>What its paths begin with.</summary>
    public string Prefix { get; }

    /// <summary>Keeps, while following, that a number reaches the row of a table that begins at <paramref name="at"/>, and not the next.</summary>
    public void AssumeRow(Val size, IEnumerable<decimal> edges, decimal at, string otherwise)
    {
        if (!Follows)
            return;
        Assume(size, Relation.AtLeast, at, otherwise);
        decimal[] above = [.. edges.Where(e => e > at)];
        if (above.Length > 0)
            Assume(size, Relation.Below, above.Min(), otherwise);
    }

    /// <summary>The same trace for a reckoning within the reckoning, whose paths all begin with <paramref name="prefix"/>.</summary>
    public Trace Within(string prefix) => on ? new(true, prefix, Figures, assumptions) : this;

    /// <summary>The same trace for a part of this reckoning: its paths begin with those of the whole and <paramref name="part"/>, also where nothing is recorded.</summary>
    public Trace Under(string part) => new(on, Prefix + part, Figures, assumptions);

    /// <summary>A number someone typed.</summary>
    public Val Typed(decimal value, string unit, string label, string? text, string area, Guid id) =>
        new(value, on ? new Leaf("typed", value, unit, label, text, $"{area}/{id}") : null);

    /// <summary>A number from the Book as pinned in the job.</summary>
    public Val Book(decimal value, string unit, string label, Guid entry) =>
        new(value, on ? new Leaf("book", value, unit, label, null, $"book/{entry}") : null);

    /// <summary>A number from the job's pricing terms.</summary>
    public Val Term(decimal value, string unit, string label, string field) =>
        new(value, on ? new Leaf("terms", value, unit, label, null, $"pricing/{field}") : null);

    /// <summary>A number from the terms of the job's crew.</summary>
    public Val Crew(decimal value, string unit, string label, string field) =>
        new(value, on ? new Leaf("terms", value, unit, label, null, $"crew/{field}") : null);

    /// <summary>Turns a value in <paramref name="unit"/> by a ratio: × times ÷ over, after converting to the ratio's own unit where needed.
    /// The ratio stands in the Book, or was typed for <paramref name="typedIn"/>, a work item of the job.</summary>
    public Val Turn(Val value, Unit unit, Ratio ratio, string label, Guid entry, Guid? typedIn, out Unit to)
    {
        var (times, result, over, from) = ratio.Turn(unit.Kind);
        to = result;
        var converted = Convert(value, unit, from);
        var turned = converted.V * times / over;
        if (!on)
            return new(turned, null);
        Leaf Side(decimal number, Unit of) =>
            typedIn is { } work
                ? new("typed", number, of.Symbol, label, null, $"work/{work}")
                : new("book", number, of.Symbol, label, null, $"book/{entry}");
        return new(turned, new Apply(converted.HowOrConstant, Side(times, result), Side(over, from)));
    }

    /// <summary>The value in another unit of its kind by the exact factors.</summary>
    public Val Convert(Val value, Unit from, Unit to)
    {
        if (from.Factor == to.Factor)
            return value;
        if (from.Kind != to.Kind)
            _ = new Quantity(value.V, from).In(to);
        return ConvertBy(value, from.Factor, from.Symbol, to);
    }

    /// <summary>The value from a unit given by its exact factor to the kind's base into <paramref name="to"/>.</summary>
    public Val ConvertBy(Val value, decimal factor, string from, Unit to)
    {
        var converted = value.V * factor / to.Factor;
        return on
            ? new(
                converted,
                new Apply(
                    value.HowOrConstant,
                    new Leaf("constant", factor, to.Symbol, $"{from} to {to}", null, null),
                    new Leaf("constant", to.Factor, from, $"{from} to {to}", null, null)
                )
            )
            : new(converted, null);
    }

    /// <summary>Makes a figure: rounds to 12 places and, when recording, gives it its path.</summary>
    public Val Make(Val value, string unit, string label, in FigurePath path)
    {
        var rounded = Rounding.Figure(value.V);
        if (!on)
            return rounded;
        var figure = new Figure(Prefix + path, label, rounded, unit, value.HowOrConstant);
        Figures[figure.Path] = figure;
        return new(rounded, new Ref(figure));
    }

    /// <summary>Makes a figure that knows where it stands.</summary>
    public Total Total(Val value, string unit, string label, in FigurePath path) =>
        new(Make(value, unit, label, path), unit, path, Prefix);
}
