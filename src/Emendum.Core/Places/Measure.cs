using Emendum.Core.Quantities;
using Q = Emendum.Core.Quantities.Kind;

namespace Emendum.Core.Places;

/// <summary>What can be measured of a place. Names in files and exports are these in camelCase (estimating model §2).</summary>
public enum Measure
{
    FloorArea,
    CeilingArea,
    Perimeter,
    GrossWallArea,
    OpeningArea,
    DoorArea,
    WindowArea,
    GlassArea,
    DeductedArea,
    NetWallArea,
    SkirtingLength,
    CorniceLength,
    DoorCount,
    WindowCount,
    OpeningCount,
    RevealLength,
    RevealArea,
    CornerCount,
    Volume,
    GrossFaceArea,
    NetFaceArea,
    EavesLength,
    Area,
    Length,
    StepCount,
    DevelopedArea,
    StringerLength,
    EdgeLength,
    Count,
}

/// <summary>Names and kinds of the measures.</summary>
public static class Measures
{
    private static readonly (string Name, Q Kind, string Label)[] Known =
    [
        ("floorArea", Q.Area, "Floor"),
        ("ceilingArea", Q.Area, "Ceiling"),
        ("perimeter", Q.Length, "Perimeter"),
        ("grossWallArea", Q.Area, "Walls, gross"),
        ("openingArea", Q.Area, "Openings"),
        ("doorArea", Q.Area, "Doors, area"),
        ("windowArea", Q.Area, "Windows, area"),
        ("glassArea", Q.Area, "Glass"),
        ("deductedArea", Q.Area, "Deducted"),
        ("netWallArea", Q.Area, "Walls, net"),
        ("skirtingLength", Q.Length, "Skirting"),
        ("corniceLength", Q.Length, "Cornice"),
        ("doorCount", Q.Count, "Doors"),
        ("windowCount", Q.Count, "Windows"),
        ("openingCount", Q.Count, "Openings, count"),
        ("revealLength", Q.Length, "Reveals"),
        ("revealArea", Q.Area, "Reveal area"),
        ("cornerCount", Q.Count, "Corners"),
        ("volume", Q.Volume, "Volume"),
        ("grossFaceArea", Q.Area, "Face, gross"),
        ("netFaceArea", Q.Area, "Face, net"),
        ("eavesLength", Q.Length, "Eaves"),
        ("area", Q.Area, "Area"),
        ("length", Q.Length, "Length"),
        ("stepCount", Q.Count, "Steps"),
        ("developedArea", Q.Area, "Developed area"),
        ("stringerLength", Q.Length, "Stringers"),
        ("edgeLength", Q.Length, "Step edges"),
        ("count", Q.Count, "Count"),
    ];

    /// <summary>Every measure, in the order they are shown.</summary>
    public static readonly Measure[] All = Enum.GetValues<Measure>();

    /// <summary>How many there are.</summary>
    public static int Count => Known.Length;

    /// <summary>Name in files: <c>netWallArea</c>.</summary>
    public static string Name(this Measure measure) => Known[(int)measure].Name;

    /// <summary>Words on screen. In feet the trade says base and crown for skirting and cornice.</summary>
    public static string Label(this Measure measure, UnitSystem system) =>
        (measure, system) switch
        {
            (Measure.SkirtingLength, UnitSystem.Feet) => "Base",
            (Measure.CorniceLength, UnitSystem.Feet) => "Crown",
            _ => Known[(int)measure].Label,
        };

    /// <summary>What it is.</summary>
    public static Q Kind(this Measure measure) => Known[(int)measure].Kind;

    /// <summary>Unit it is computed in for a job.</summary>
    public static Unit UnitIn(this Measure measure, UnitSystem system) => system.For(measure.Kind());

    /// <summary>The measure of that name, or null.</summary>
    public static Measure? Find(string name)
    {
        var index = Array.FindIndex(Known, m => m.Name == name);
        return index < 0 ? null : (Measure)index;
    }
}
