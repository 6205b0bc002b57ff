using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Drawings;

/// <summary>A surface of a drawing.</summary>
/// <param name="Kind">Says its hatch: <c>floor</c>, <c>ceiling</c>, <c>wall</c>, <c>site</c>, <c>run</c>, <c>tread</c>, <c>riser</c>, <c>item</c>, <c>unknown</c>.</param>
/// <param name="Name">Wall letter or thing; empty for the others.</param>
/// <param name="Points">Corners as x, y, x, y … in millimetres.</param>
/// <param name="Counts">Ends of the figure paths that count it.</param>
public sealed record Surface(string Kind, string Name, ImmutableArray<double> Points, ImmutableArray<string> Counts);

/// <summary>Something cut out of a surface: an opening or an island. Where along a wall an opening stands was not measured: the drawing spaces them evenly.</summary>
public sealed record Cut(
    string Kind,
    string On,
    ImmutableArray<double> Points,
    string Label,
    bool Deducted,
    bool Glass
);

/// <summary>A line that trims an edge, counted by a figure.</summary>
public sealed record Edge(string Kind, double X1, double Y1, double X2, double Y2);

/// <summary>A written dimension or letter, centred on a point and turned by degrees.</summary>
public sealed record Mark(string Text, double X, double Y, double Turned, bool Quiet);

/// <summary>A place drawn to scale from its measures: a picture of the numbers, not a plan.</summary>
/// <param name="Left">Left edge in millimetres.</param>
/// <param name="Top">Top edge.</param>
/// <param name="Width">Width.</param>
/// <param name="Height">Height.</param>
/// <param name="Surfaces">In the order they are painted.</param>
/// <param name="Cuts">Over the surfaces.</param>
/// <param name="Edges">Over both.</param>
/// <param name="Marks">Dimensions and letters.</param>
/// <param name="Note">What of it is not to scale or not drawn; empty when nothing.</param>
public sealed record Drawing(
    double Left,
    double Top,
    double Width,
    double Height,
    ImmutableArray<Surface> Surfaces,
    ImmutableArray<Cut> Cuts,
    ImmutableArray<Edge> Edges,
    ImmutableArray<Mark> Marks,
    string Note
)
{
    /// <summary>Width over height of the sheet that drawings are laid out for.</summary>
    internal const double Sheet = 1.6;

    /// <summary>The drawing of a place, with the openings that lead into it from elsewhere.</summary>
    public static Drawing Of(Place place, ImmutableArray<Opening> incoming, UnitSystem system, DeductionRule rule) =>
        place.Shape switch
        {
            Room room => UnfoldedRoom.Of(room, place.Openings, incoming, system, rule),
            Elevation face => DrawnFace.Of(face, place.Openings, system, rule),
            Site site => DrawnSite.Of(site, system, rule),
            Run run => DrawnRun.Of(run, system),
            Stair stair => DrawnStair.Of(stair, system),
            ItemSet { TakesOpenings: true } => DrawnOpenings.Of(place.Openings, system),
            ItemSet items => DrawnItems.Of(items),
            _ => new(0, 0, 1600, 1000, [], [], [], [], ""),
        };
}

/// <summary>Collects a drawing.</summary>
internal sealed class Pencil
{
    private readonly ImmutableArray<Surface>.Builder surfaces = ImmutableArray.CreateBuilder<Surface>();
    private readonly ImmutableArray<Cut>.Builder cuts = ImmutableArray.CreateBuilder<Cut>();
    private readonly ImmutableArray<Edge>.Builder edges = ImmutableArray.CreateBuilder<Edge>();
    private readonly ImmutableArray<Mark>.Builder marks = ImmutableArray.CreateBuilder<Mark>();
    private readonly List<(Cut Cut, string Size)> sized = [];
    private readonly List<string> notes = [];

    public void Surface(
        string kind,
        string name,
        IEnumerable<(double X, double Y)> points,
        params ImmutableArray<string> counts
    ) => surfaces.Add(new(kind, name, Flat(points), counts));

    public void Cut(
        string kind,
        string on,
        IEnumerable<(double X, double Y)> points,
        string label,
        bool deducted,
        bool glass = false,
        string size = ""
    )
    {
        var cut = new Cut(kind, on, Flat(points), label, deducted, glass);
        cuts.Add(cut);
        if (size.Length > 0)
            sized.Add((cut, size));
    }

    public void Edge(string kind, (double X, double Y) from, (double X, double Y) to) =>
        edges.Add(new(kind, Round(from.X), Round(from.Y), Round(to.X), Round(to.Y)));

    public void Mark(string text, (double X, double Y) at, double turned = 0, bool quiet = false) =>
        marks.Add(new(text, Round(at.X), Round(at.Y), Math.Round(turned, 2), quiet));

    public void Note(string note)
    {
        if (!notes.Contains(note))
            notes.Add(note);
    }

    /// <summary>How large a letter is on a drawing of that size.</summary>
    public static double Letter(double width, double height) => Math.Max(width, height * Drawing.Sheet) * 0.02;

    /// <summary>Writes a size into what was cut out, along its width or else its height; where it fits in neither, pointing at it says it.</summary>
    private void WriteInto(Cut cut, string size, double letter)
    {
        var corners = Pairs(cut.Points).ToArray();
        var room = size.Length * letter * 0.58;
        for (var side = 0; side < 2; side++)
        {
            var (x, y) = (corners[side + 1].X - corners[side].X, corners[side + 1].Y - corners[side].Y);
            var length = Math.Sqrt(x * x + y * y);
            if (length < room)
                continue;
            Mark(
                size,
                ((corners[0].X + corners[2].X) / 2, (corners[0].Y + corners[2].Y) / 2),
                Upright((x / length, y / length)),
                true
            );
            return;
        }
    }

    /// <summary>The drawing with a margin round everything that was drawn.</summary>
    public Drawing Done()
    {
        var all = surfaces.SelectMany(s => Pairs(s.Points)).Concat(cuts.SelectMany(c => Pairs(c.Points))).ToList();
        if (all.Count == 0)
            all = [(0, 0), (1600, 1000)];
        var (left, top, right, bottom) = (all.Min(p => p.X), all.Min(p => p.Y), all.Max(p => p.X), all.Max(p => p.Y));
        var letter = Letter(right - left, bottom - top);
        foreach (var (cut, size) in sized)
            WriteInto(cut, size, letter);
        var margin = letter * 2.2;
        return new(
            Round(left - margin),
            Round(top - margin),
            Round(right - left + 2 * margin),
            Round(bottom - top + 2 * margin),
            surfaces.ToImmutable(),
            cuts.ToImmutable(),
            edges.ToImmutable(),
            marks.ToImmutable(),
            string.Join("; ", notes)
        );
    }

    public static IEnumerable<(double X, double Y)> Pairs(ImmutableArray<double> points)
    {
        for (var i = 0; i + 1 < points.Length; i += 2)
            yield return (points[i], points[i + 1]);
    }

    public static (double X, double Y)[] Box(double x, double y, double width, double height) =>
        [(x, y), (x + width, y), (x + width, y + height), (x, y + height)];

    /// <summary>Twice the signed area; above zero when the corners go round clockwise on the sheet.</summary>
    public static double Twice((double X, double Y)[] p) =>
        Enumerable.Range(0, p.Length).Sum(i => p[i].X * p[(i + 1) % p.Length].Y - p[(i + 1) % p.Length].X * p[i].Y);

    /// <summary>Angle of a text along a line, never upside down.</summary>
    public static double Upright((double X, double Y) line)
    {
        var angle = Math.Atan2(line.Y, line.X) * 180 / Math.PI;
        return angle > 90.01 ? angle - 180
            : angle < -90.01 ? angle + 180
            : angle is > 89.99 ? -90
            : angle;
    }

    private static ImmutableArray<double> Flat(IEnumerable<(double X, double Y)> points) =>
        [.. points.SelectMany(p => new[] { Round(p.X), Round(p.Y) })];

    /// <summary>To a hundredth of a millimetre.</summary>
    private static double Round(double value) => Math.Round(value, 2);
}
