using System.Collections.Frozen;

namespace Emendum.Core.Quantities;

/// <summary>What a unit measures. Units of one kind convert into each other; no others do.</summary>
public enum Kind
{
    Length,
    Area,
    Volume,
    Mass,
    Count,
    Time,
}

/// <summary>A unit of measure. <see cref="Factor"/> is exact, to the base of its kind: mm, mm², mm³, kg, one piece, minute.</summary>
/// <remarks>Factors: NIST SP 811 appendix B and Handbook 44 appendix C (1 in = 25.4 mm, 1 lb = 0.45359237 kg, 1 US gal = 231 in³, the international acre).</remarks>
public sealed class Unit
{
    private static readonly Dictionary<string, Unit> Known = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Length units.</summary>
    public static readonly Unit Millimetre =
            new("mm", Kind.Length, 1m, "millimetre", "millimetres", "millimeter", "millimeters"),
        Centimetre = new("cm", Kind.Length, 10m, "centimetre", "centimetres", "centimeter", "centimeters"),
        Metre = new("m", Kind.Length, 1000m, "metre", "metres", "meter", "meters", "lm"),
        Inch = new("in", Kind.Length, 25.4m, "inch", "inches"),
        Foot = new("ft", Kind.Length, 304.8m, "foot", "feet", "lf"),
        Yard = new("yd", Kind.Length, 914.4m, "yard", "yards"),
        Mil = new("mil", Kind.Length, 0.0254m, "mils"),
        Micron = new("µm", Kind.Length, 0.001m, "um", "micron", "microns", "μm");

    /// <summary>Area units.</summary>
    public static readonly Unit SquareInch = new("in²", Kind.Area, 645.16m, "in2", "sqin"),
        SquareFoot = new("ft²", Kind.Area, 92903.04m, "ft2", "sqft", "sf"),
        SquareYard = new("yd²", Kind.Area, 836127.36m, "yd2", "sqyd", "sy"),
        SquareMetre = new("m²", Kind.Area, 1_000_000m, "m2", "sqm"),
        Square = new("square", Kind.Area, 9_290_304m, "squares"),
        Acre = new("acre", Kind.Area, 4_046_856_422.4m, "acres"),
        Hectare = new("ha", Kind.Area, 10_000_000_000m, "hectare", "hectares");

    /// <summary>Volume units.</summary>
    public static readonly Unit CubicFoot = new("ft³", Kind.Volume, 28_316_846.592m, "ft3", "cuft", "cf"),
        CubicYard = new("yd³", Kind.Volume, 764_554_857.984m, "yd3", "cuyd", "cy"),
        CubicMetre = new("m³", Kind.Volume, 1_000_000_000m, "m3"),
        Litre = new("L", Kind.Volume, 1_000_000m, "l", "litre", "litres", "liter", "liters"),
        Millilitre = new("mL", Kind.Volume, 1_000m, "ml", "millilitre", "millilitres", "milliliter", "milliliters"),
        FluidOunce = new("floz", Kind.Volume, 29_573.5295625m),
        Quart = new("qt", Kind.Volume, 946_352.946m, "quart", "quarts"),
        Gallon = new("gal", Kind.Volume, 3_785_411.784m, "gallon", "gallons", "gals");

    /// <summary>Mass units.</summary>
    public static readonly Unit Gram = new("g", Kind.Mass, 0.001m, "gram", "grams"),
        Ounce = new("oz", Kind.Mass, 0.028349523125m, "ounce", "ounces"),
        Kilogram = new("kg", Kind.Mass, 1m, "kilogram", "kilograms"),
        Tonne = new("t", Kind.Mass, 1000m, "tonne", "tonnes"),
        Pound = new("lb", Kind.Mass, 0.45359237m, "lbs", "pound", "pounds"),
        ShortTon = new("ton", Kind.Mass, 907.18474m, "tons");

    /// <summary>Time and count units.</summary>
    public static readonly Unit Hour = new("h", Kind.Time, 60m, "hr", "hrs", "hour", "hours"),
        Minute = new("min", Kind.Time, 1m, "minute", "minutes"),
        Each = new("each", Kind.Count, 1m, "no", "pc", "pcs", "piece", "pieces"),
        Door = new("door", Kind.Count, 1m, "doors"),
        Window = new("window", Kind.Count, 1m, "windows");

    /// <summary>Things that are counted under their own name; one of each is one piece.</summary>
    public static readonly IReadOnlyList<Unit> Counted =
    [
        .. new[]
        {
            "visit",
            "step",
            "brick",
            "paver",
            "kit",
            "sheet",
            "panel",
            "tile",
            "roll",
            "post",
            "pane",
            "room",
            "place",
            "plant",
            "tree",
            "letter",
            "sign",
            "fixture",
            "corner",
            "bag",
            "tube",
            "length",
        }.Select(name => new Unit(
            name,
            Kind.Count,
            1m,
            name == "length" ? "lengths"
                : name == "brick" ? "bricks"
                : name + "s"
        )),
    ];

    private Unit(string symbol, Kind kind, decimal factor, params string[] spellings)
    {
        (Symbol, Kind, Factor) = (symbol, kind, factor);
        Known[symbol] = this;
        foreach (var spelling in spellings)
            Known.TryAdd(spelling, this);
    }

    /// <summary>How the unit is written.</summary>
    public string Symbol { get; }

    /// <summary>What it measures.</summary>
    public Kind Kind { get; }

    /// <summary>Exact size in the base unit of its kind.</summary>
    public decimal Factor { get; }

    /// <summary>To how many decimals a quantity in it is shown: of large units as much as can be paced out.</summary>
    public int ShownPlaces =>
        this == Acre || this == Hectare ? 3
        : this == Square || Kind == Kind.Count ? 2
        : 1;

    /// <summary>The unit written as <paramref name="text"/>, or null when there is none.</summary>
    public static Unit? Find(string text) => Spellings.GetValueOrDefault(text.Trim());

    private static readonly FrozenDictionary<string, Unit> Spellings = Known.ToFrozenDictionary(
        StringComparer.OrdinalIgnoreCase
    );

    /// <inheritdoc/>
    public override string ToString() => Symbol;
}

/// <summary>The units a job is measured in.</summary>
public enum UnitSystem
{
    /// <summary>Feet and inches, square feet.</summary>
    Feet,

    /// <summary>Metres, square metres.</summary>
    Metres,
}

/// <summary>The unit of each kind that a system shows.</summary>
public static class UnitSystems
{
    /// <summary>The unit of the system in which people say what is said in <paramref name="unit"/> elsewhere: a thickness in inches is one in millimetres. One that is at home in both, or a count, stays.</summary>
    public static Unit Like(this UnitSystem system, Unit unit)
    {
        foreach (var (feet, metres) in Alike)
            if (unit == (system == UnitSystem.Feet ? metres : feet))
                return system == UnitSystem.Feet ? feet : metres;
        return unit;
    }

    private static readonly (Unit Feet, Unit Metres)[] Alike =
    [
        (Unit.Inch, Unit.Millimetre),
        (Unit.Inch, Unit.Centimetre),
        (Unit.Mil, Unit.Micron),
        (Unit.Foot, Unit.Metre),
        (Unit.Yard, Unit.Metre),
        (Unit.SquareFoot, Unit.SquareMetre),
        (Unit.SquareYard, Unit.SquareMetre),
        (Unit.Acre, Unit.Hectare),
        (Unit.CubicFoot, Unit.CubicMetre),
        (Unit.CubicYard, Unit.CubicMetre),
    ];

    /// <summary>Unit of <paramref name="kind"/> in <paramref name="system"/>.</summary>
    public static Unit For(this UnitSystem system, Kind kind) =>
        (system, kind) switch
        {
            (UnitSystem.Feet, Kind.Length) => Unit.Foot,
            (UnitSystem.Feet, Kind.Area) => Unit.SquareFoot,
            (UnitSystem.Feet, Kind.Volume) => Unit.CubicFoot,
            (_, Kind.Length) => Unit.Metre,
            (_, Kind.Area) => Unit.SquareMetre,
            (_, Kind.Volume) => Unit.CubicMetre,
            (_, Kind.Mass) => Unit.Kilogram,
            (_, Kind.Time) => Unit.Hour,
            _ => Unit.Each,
        };
}
