using System.Collections.Immutable;
using CsCheck;
using Emendum.Core.Drawings;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The drawing is a picture of the numbers: what is drawn has the size that is measured.</summary>
public class DrawingTests
{
    /// <summary>Area in square feet by the shoelace formula.</summary>
    private static double Area(IEnumerable<ImmutableArray<double>> shapes) =>
        shapes.Sum(p =>
        {
            var (n, twice) = (p.Length / 2, 0d);
            for (var i = 0; i < n; i++)
                twice += p[2 * i] * p[(2 * i + 3) % p.Length] - p[(2 * i + 2) % p.Length] * p[2 * i + 1];
            return Math.Abs(twice) / 2;
        }) / (double)Unit.SquareFoot.Factor;

    private static decimal Around(Outline island) =>
        island is Rectangle box
            ? 2 * (box.Long.Millimetres + box.Wide.Millimetres)
            : throw new InvalidOperationException("random islands are rectangles");

    private static bool Near(double drawn, decimal measured) =>
        Math.Abs(drawn - (double)measured) <= 1e-4 * Math.Max(1, (double)measured);

    [Fact]
    public void Every_kind_of_place_is_drawn_in_its_true_size() =>
        RandomPlaces.Readings.Always(
            reading =>
            {
                if (TapeLine.Read(PlaceLine.Print(reading, UnitSystem.Feet), UnitSystem.Feet).Reading is null)
                    return true;
                var place = reading.ToPlace(Guid.Empty, "", "", "");
                var drawing = Drawing.Of(place, [], UnitSystem.Feet, DeductionRule.All[0]);
                var measures = PlaceMeasures.Of(place, [], UnitSystem.Feet, DeductionRule.All[0], Trace.Silent);
                double Drawn(Measure measure) =>
                    Area(drawing.Surfaces.Where(s => s.Counts.Contains(measure.Name())).Select(s => s.Points));
                var islands = Area(drawing.Cuts.Where(c => c.Kind == "island").Select(c => c.Points));
                var all = drawing.Surfaces.SelectMany(s => s.Points.Chunk(2)).ToList();
                if (
                    all.Any(p =>
                        p[0] < drawing.Left
                        || p[0] > drawing.Left + drawing.Width
                        || p[1] < drawing.Top
                        || p[1] > drawing.Top + drawing.Height
                    )
                )
                    return false;
                switch (place.Shape)
                {
                    case Room room:
                        // Islands are cut out of the floor; their own walls are not drawn.
                        var own =
                            room.Islands.Sum(i => i.Count * Around(i.Outline) * room.High!.Millimetres)
                            / Unit.SquareFoot.Factor;
                        var openings = Area(drawing.Cuts.Where(c => c.Kind != "island").Select(c => c.Points));
                        return Near(Drawn(Measure.FloorArea) - islands, measures[Measure.FloorArea].V)
                            && Near(
                                Drawn(Measure.CeilingArea) - (room.Slope.IsEmpty ? islands : 0),
                                measures[Measure.CeilingArea].V
                            )
                            && Near(Drawn(Measure.GrossWallArea), measures[Measure.GrossWallArea].V - own)
                            && (
                                drawing.Note.Contains("not drawn", StringComparison.Ordinal)
                                || (
                                    Near(openings, measures[Measure.OpeningArea].V)
                                    && Near(
                                        Area(drawing.Cuts.Where(c => c.Glass).Select(c => c.Points)),
                                        measures[Measure.GlassArea].V
                                    )
                                )
                            );
                    case Elevation:
                        return Near(Drawn(Measure.GrossFaceArea), measures[Measure.GrossFaceArea].V);
                    case Site:
                        return Near(Drawn(Measure.Area), measures[Measure.Area].V);
                    case Run { Across: not null } when !drawing.Note.Contains("wider", StringComparison.Ordinal):
                        return Near(Drawn(Measure.Area), measures[Measure.Area].V);
                    case Stair stair when stair.Risers <= 60:
                        return Near(Drawn(Measure.DevelopedArea), measures[Measure.DevelopedArea].V);
                    case ItemSet { TakesOpenings: true }:
                        return Near(Drawn(Measure.OpeningArea), measures[Measure.OpeningArea].V)
                            && Near(Drawn(Measure.GlassArea), measures[Measure.GlassArea].V)
                            && drawing.Surfaces.Length == measures[Measure.Count].V;
                    case ItemSet { Items: var items } when items.All(i => i.Count <= 30):
                        return drawing.Surfaces.Length == items.Sum(i => i.Count);
                    default:
                        return true;
                }
            },
            times: 4_000
        );

    [Theory]
    [InlineData("R 24'6 x 18 x 9'2; door 3 x 6'8 x2; window 4 x 5 x3", 79)]
    [InlineData("L walls 20 r 10 r 8 l 6 r 12 r 16 x 9; door 3 x 7 on D; door 3 x 7 on D", 66)]
    [InlineData("R 20 x 10 x 9; door 3 x 7 on B; pass-through 5 x 7 on C", 52)]
    public void Skirting_is_drawn_as_long_as_it_is_measured(string line, double feet)
    {
        var place = TapeLine.ReadOrThrow(line, UnitSystem.Feet).ToPlace(Guid.Empty, "", "", line);
        var drawing = Drawing.Of(place, [], UnitSystem.Feet, DeductionRule.All[0]);
        Assert.Equal(
            feet,
            drawing
                .Edges.Where(e => e.Kind == "skirtingLength")
                .Sum(e => Math.Sqrt((e.X2 - e.X1) * (e.X2 - e.X1) + (e.Y2 - e.Y1) * (e.Y2 - e.Y1))) / 304.8,
            4
        );
        Assert.Equal(feet, (double)Sample.Measure(line)[Measure.SkirtingLength].V, 9);
    }

    [Fact]
    public void Walls_fold_out_where_they_can_and_are_unrolled_where_they_would_lie_on_each_other()
    {
        static Drawing Of(string line) =>
            Drawing.Of(
                TapeLine.ReadOrThrow(line, UnitSystem.Feet).ToPlace(Guid.Empty, "", "", line),
                [],
                UnitSystem.Feet,
                DeductionRule.All[0]
            );
        static bool TouchesFloor(Drawing drawing, string wall)
        {
            var floor = drawing
                .Surfaces.Single(s => s.Kind == "floor")
                .Points.Chunk(2)
                .Select(p => (p[0], p[1]))
                .ToHashSet();
            return drawing
                    .Surfaces.Single(s => s.Kind == "wall" && s.Name == wall)
                    .Points.Chunk(2)
                    .Count(p => floor.Contains((p[0], p[1]))) == 2;
        }
        Assert.True(TouchesFloor(Of("R 20 x 10 x 9"), "C"));
        Assert.True(TouchesFloor(Of("Hex walls 9 r60° 9 r60° 9 r60° 9 r60° 9 r60° 9 x 8"), "A"));
        Assert.False(TouchesFloor(Of("L walls 20 r 10 r 8 l 6 r 12 r 16 x 9"), "C"));
    }
}
