using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>A figure of a place beyond the named measures: a band, a counted thing, the user's own measure.</summary>
/// <param name="Leaf">End of its figure path: <c>bands/1</c>, <c>items/2</c>, <c>own/NAME</c>, <c>walls/A</c>.</param>
/// <param name="Label">Words on screen.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Value">The figure.</param>
public sealed record ExtraMeasure(string Leaf, string Label, Kind Kind, Val Value);

/// <summary>The measures of one place, for one of it (before ×n), in the job's units.</summary>
public sealed class PlaceMeasures
{
    private readonly Val[] values;
    private readonly ulong has;
    private readonly ImmutableArray<Opening> incoming;

    private PlaceMeasures(Place place, ImmutableArray<Opening> incoming, Measuring tape) =>
        (Place, this.incoming, values, has, Extras) = (place, incoming, tape.Values, tape.Made, tape.Extras);

    /// <summary>The place they are of.</summary>
    public Place Place { get; }

    /// <summary>Bands, counted things, own measures, walls.</summary>
    public ImmutableArray<ExtraMeasure> Extras { get; }

    /// <summary>Whether such a place has that measure.</summary>
    public bool Has(Measure measure) => (has >> (int)measure & 1) == 1;

    /// <summary>One measure; zero where such a place has none.</summary>
    public Val this[Measure measure] => values[(int)measure];

    /// <summary>The figure of that name (<c>netWallArea</c>, <c>bands/1</c>, <c>own/NAME</c>); null where such a place has none.</summary>
    public Val? Named(string name) =>
        Measures.Find(name) is { } measure
            ? Has(measure)
                ? this[measure]
                : null
            : Extras.FirstOrDefault(e => e.Leaf == name)?.Value;

    /// <summary>Whether they still stand for these inputs.</summary>
    public bool IsOf(Place place, ImmutableArray<Opening> from) =>
        ReferenceEquals(place, Place) && incoming.AsSpan().SequenceEqual(from.AsSpan());

    /// <summary>Measures that somebody gave, without a place that was measured: for trying things out.</summary>
    public static PlaceMeasures Given(
        Place place,
        IReadOnlyDictionary<Measure, decimal> given,
        UnitSystem system,
        Trace trace
    )
    {
        var tape = new Measuring(place, system, DeductionRule.Find("net")!, trace);
        foreach (var (measure, value) in given.OrderBy(g => g.Key))
            tape.Keep(
                measure,
                trace.Typed(
                    value,
                    measure.Kind() == Kind.Count ? "" : measure.UnitIn(system).Symbol,
                    "typed",
                    null,
                    "places",
                    place.Id
                )
            );
        return new(place, [], tape);
    }

    /// <summary>Measures a place. <paramref name="incoming"/> are the openings of other places that lead into it.</summary>
    public static PlaceMeasures Of(
        Place place,
        ImmutableArray<Opening> incoming,
        UnitSystem system,
        DeductionRule rule,
        Trace trace
    )
    {
        var tape = new Measuring(place, system, rule, trace);
        switch (place.Shape)
        {
            case Room room:
                RoomMeasures.Of(tape, room, incoming);
                break;
            case Elevation face:
                FaceMeasures.Of(tape, face);
                break;
            case Site site:
                SiteMeasures.Of(tape, site);
                break;
            case Run run:
                var length = tape.Read(run.Long, "length");
                tape.Make(Measure.Length, length);
                if (run.Across is { } across)
                    tape.Make(Measure.Area, length * tape.Read(across, run.IsGirth ? "girth" : "width"));
                break;
            case Stair stair:
                StairMeasures.Of(tape, stair);
                break;
            case ItemSet items:
                ItemMeasures.Of(tape, items);
                break;
        }
        foreach (var own in place.Typed.Where(t => Measures.Find(t.Name) is null))
            tape.Own(own);
        return new(place, incoming, tape);
    }
}

/// <summary>The tape while one place is measured: reads its lengths into one unit (decimal inches, or millimetres when any is metric) and makes its figures, converting last.</summary>
internal sealed class Measuring(Place place, UnitSystem system, DeductionRule rule, Trace trace)
{
    private ImmutableArray<ExtraMeasure>.Builder? extras;

    /// <summary>Inch or millimetre.</summary>
    public Unit Unit { get; } = place.AllInches ? Unit.Inch : Unit.Millimetre;

    /// <summary>The place.</summary>
    public Place Place => place;

    /// <summary>The rule by which openings are taken off.</summary>
    public DeductionRule Rule => rule;

    /// <summary>Whether labels are wanted.</summary>
    public bool On => trace.On;

    /// <summary>Figures so far, by measure.</summary>
    public Val[] Values { get; } = new Val[Measures.Count];

    /// <summary>A bit for each measure that was made.</summary>
    public ulong Made { get; private set; }

    /// <summary>Figures beyond the named ones.</summary>
    public ImmutableArray<ExtraMeasure> Extras => extras?.ToImmutable() ?? [];

    /// <summary>A length off the tape.</summary>
    public Val Read(Length length, string label) =>
        trace.Convert(
            trace.Typed(length.Value, length.Unit.Symbol, label, length.Typed, "places", place.Id),
            length.Unit,
            Unit
        );

    /// <summary>A count someone typed.</summary>
    public Val Typed(decimal value, string label) => trace.Typed(value, "", label, null, "places", place.Id);

    /// <summary>An area in square tape units as square metres, for limits.</summary>
    public decimal SquareMetres(Val area) => area.V * Unit.Factor * Unit.Factor / 1_000_000m;

    /// <summary>A length in tape units as metres, for limits.</summary>
    public decimal Metres(Val length) => length.V * Unit.Factor / 1000m;

    /// <summary>Makes a measure from a value in tape units (to the power of its kind). Where someone typed another, that one stands and this is kept beside it.</summary>
    public Val Make(Measure measure, Val raw) =>
        Keep(measure, measure.Kind() == Kind.Count ? raw : FromTape(raw, measure.Kind(), measure.UnitIn(system)));

    /// <summary>Makes a measure from figures that are made already.</summary>
    public Val Keep(Measure measure, Val value)
    {
        var symbol = measure.Kind() == Kind.Count ? "" : measure.UnitIn(system).Symbol;
        var label = On ? $"{measure.Label(system)}, {place.Name}" : "";
        if (place.Typed.FirstOrDefault(t => t.Name == measure.Name()) is { } typed)
        {
            trace.Make(
                value,
                symbol,
                On ? label + ", as measured" : "",
                new("places", place.Id, measure.Name() + "/derived")
            );
            value = Evaluated(typed, measure.UnitIn(system));
        }
        var made = trace.Make(value, symbol, label, new("places", place.Id, measure.Name()));
        Values[(int)measure] = made;
        Made |= 1UL << (int)measure;
        return made;
    }

    /// <summary>A figure beyond the named ones, from a value in tape units.</summary>
    public Val Extra(string leaf, string label, Kind kind, Val raw)
    {
        var unit = system.For(kind);
        var made = trace.Make(
            kind == Kind.Count ? raw : FromTape(raw, kind, unit),
            kind == Kind.Count ? "" : unit.Symbol,
            On ? $"{label}, {place.Name}" : "",
            new("places", place.Id, leaf)
        );
        (extras ??= ImmutableArray.CreateBuilder<ExtraMeasure>()).Add(new(leaf, label, kind, made));
        return made;
    }

    /// <summary>A measure of the user's own.</summary>
    public void Own(TypedMeasure own)
    {
        var unit = system.For(own.Quantity.Kind);
        var made = trace.Make(
            Evaluated(own, unit),
            own.Quantity.Kind == Kind.Count ? "" : unit.Symbol,
            On ? $"{own.Name}, {place.Name}" : "",
            new("places", place.Id, "own/" + own.Name)
        );
        (extras ??= ImmutableArray.CreateBuilder<ExtraMeasure>()).Add(
            new("own/" + own.Name, own.Name, own.Quantity.Kind, made)
        );
    }

    /// <summary>An area as someone typed it, in square tape units.</summary>
    public Val Area(TypedQuantity typed)
    {
        var (value, from) = TypedQuantities.Read(typed);
        var leaf = trace.Typed(value, On ? from + "²" : "", "area", typed.Text, "places", place.Id);
        return from == Unit ? leaf : leaf * (from!.Factor * from.Factor / (Unit.Factor * Unit.Factor));
    }

    /// <summary>A length in tape units raised to the power of the kind, in the unit the job shows.</summary>
    private Val FromTape(Val raw, Kind kind, Unit to) =>
        trace.ConvertBy(
            raw,
            TapeScanner.FactorOf(Unit, kind),
            On
                ? Unit
                    + (
                        kind == Kind.Length ? ""
                        : kind == Kind.Area ? "²"
                        : "³"
                    )
                : "",
            to
        );

    private Val Evaluated(TypedMeasure typed, Unit unit)
    {
        var value = TypedQuantities.In(typed.Quantity, unit);
        return trace.Typed(
            Rounding.Figure(value),
            typed.Quantity.Kind == Kind.Count ? "" : unit.Symbol,
            "typed",
            typed.Quantity.Text,
            "places",
            place.Id
        );
    }
}
