using System.Collections.Immutable;
using CsCheck;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using NetTopologySuite.Geometries;
using Xunit;

namespace Emendum.Core.Tests;

public class PlaceMeasuresTests
{
    private const string LRoom =
        "L corners 0,0 20,0 20,10 12,10 12,16 0,16 x 9; door 3 x 7 x2; pass-through 5 x 7; window 4 x 4 sill";

    [Theory]
    // Estimating model §2, worked 2.
    [InlineData("net", Measure.FloorArea, 272)]
    [InlineData("net", Measure.Perimeter, 72)]
    [InlineData("net", Measure.GrossWallArea, 648)]
    [InlineData("net", Measure.OpeningArea, 93)]
    [InlineData("net", Measure.NetWallArea, 555)]
    [InlineData("net", Measure.SkirtingLength, 61)]
    [InlineData("net", Measure.RevealLength, 69)]
    [InlineData("net", Measure.CornerCount, 6)]
    [InlineData("vob", Measure.NetWallArea, 613)]
    [InlineData("is1200", Measure.NetWallArea, 584)]
    public void Worked_L_room(string rule, Measure measure, double value) =>
        Assert.Equal((decimal)value, Sample.Measure(LRoom, UnitSystem.Feet, rule)[measure].V);

    [Fact]
    public void The_L_room_walked_by_its_walls_is_the_same_room()
    {
        var (corners, walls) = (
            Sample.Measure(LRoom),
            Sample.Measure(LRoom.Replace("corners 0,0 20,0 20,10 12,10 12,16 0,16", "walls 20 r 10 r 8 l 6 r 12 r 16"))
        );
        foreach (var measure in Measures.All.Where(corners.Has))
            Assert.Equal(corners[measure].V, walls[measure].V);
    }

    private static Polygon ToPolygon(ImmutableArray<(int X, int Y)> p) =>
        new(new LinearRing([.. p.Select(c => new Coordinate(c.X, c.Y)), new(p[0].X, p[0].Y)]));

    private static bool Near(decimal ours, double theirs) =>
        Math.Abs((double)ours - theirs) <= 1e-9 * Math.Max(1, Math.Abs(theirs));

    private static PlaceMeasures OfCorners(IEnumerable<(decimal X, decimal Y)> points, string parts = "") =>
        Sample.Measure(
            $"P corners {string.Join(' ', points.Select(p => $"{Rounding.Text(p.X)}\",{Rounding.Text(p.Y)}\""))} x 100\"{parts}"
        );

    [Fact]
    public void Areas_and_perimeters_of_simple_polygons_agree_with_a_geometry_library() =>
        // NetTopologySuite 2.6.0: Polygon.Area and Polygon.Length in doubles.
        RandomPlaces.Simple.Always(
            p =>
            {
                var (ours, theirs) = (OfCorners(p.Select(c => ((decimal)c.X, (decimal)c.Y))), ToPolygon(p));
                return Near(ours[Measure.FloorArea].V * 144, theirs.Area)
                    && Near(ours[Measure.Perimeter].V * 12, theirs.Length)
                    && Near(ours[Measure.GrossWallArea].V * 144, theirs.Length * 100);
            },
            times: 2_000
        );

    [Fact]
    public void With_islands_they_agree_too() =>
        RandomPlaces.Simple.Always(
            p =>
            {
                // A square about the centre, inside the nearest corner of any of them.
                var hole = new LinearRing([new(-60, -60), new(60, -60), new(60, 60), new(-60, 60), new(-60, -60)]);
                var shell = ToPolygon(p);
                if (!shell.Contains(new Polygon(hole)))
                    return true;
                var (ours, theirs) = (
                    OfCorners(
                        p.Select(c => ((decimal)c.X, (decimal)c.Y)),
                        "; island corners -60\",-60\" 60\",-60\" 60\",60\" -60\",60\""
                    ),
                    new Polygon(shell.Shell, [hole])
                );
                return Near(ours[Measure.FloorArea].V * 144, theirs.Area)
                    && Near(ours[Measure.Perimeter].V * 12, theirs.Length);
            },
            times: 1_000
        );

    [Fact]
    public void L_and_U_rooms_agree_and_a_turned_room_stays_the_same() =>
        Gen.Select(Gen.Int[40, 400], Gen.Int[40, 400], Gen.Int[10, 39], Gen.Int[10, 39], Gen.Int[0, 359], Gen.Bool)
            .Always(
                drawn =>
                {
                    var (a, b, c, d, degrees, u) = drawn;
                    ImmutableArray<(int X, int Y)> points = u
                        ?
                        [
                            (0, 0),
                            (a + b + c, 0),
                            (a + b + c, 300),
                            (a + b, 300),
                            (a + b, d),
                            (a, d),
                            (a, 300),
                            (0, 300),
                        ]
                        : [(0, 0), (a + c, 0), (a + c, b), (a, b), (a, b + d), (0, b + d)];
                    var (ours, theirs) = (
                        OfCorners(points.Select(p => ((decimal)p.X, (decimal)p.Y))),
                        ToPolygon(points)
                    );
                    var (cos, sin) = Roots.Turn(degrees);
                    // As a tape would give them: to six decimals.
                    var turned = OfCorners(
                        points.Select(p =>
                            (decimal.Round(p.X * cos - p.Y * sin, 6), decimal.Round(p.X * sin + p.Y * cos, 6))
                        )
                    );
                    bool Same(Measure m) => Math.Abs((double)(turned[m].V - ours[m].V)) <= 1e-6 * (double)ours[m].V;
                    return Near(ours[Measure.FloorArea].V * 144, theirs.Area)
                        && Near(ours[Measure.Perimeter].V * 12, theirs.Length)
                        && Same(Measure.FloorArea)
                        && Same(Measure.Perimeter)
                        && Same(Measure.GrossWallArea)
                        && Same(Measure.Volume);
                },
                times: 500
            );

    [Fact]
    public void A_room_walked_from_any_heading_agrees_to_one_in_a_thousand_million() =>
        // The whole walk turned is the same walk: only the first turn differs. Quarter turns are exact; others agree to 1e-9.
        Gen.Select(Gen.Int[40, 400], Gen.Int[40, 400], Gen.Int[1, 89])
            .Always(
                (a, b, degrees) =>
                {
                    var straight = Sample.Measure($"P walls {a} r {b} r {a} r {b} x 9", UnitSystem.Feet);
                    var rhombus = Sample.Measure(
                        $"P walls {a}\" r{degrees}° {b}\" r{180 - degrees}° {a}\" r{degrees}° {b}\" x 9\""
                    );
                    return straight[Measure.FloorArea].V == a * b
                        && Near(rhombus[Measure.FloorArea].V * 144, a * b * Math.Sin(degrees * Math.PI / 180));
                },
                times: 300
            );

    [Theory]
    // Slope factor √(1 + (rise/run)²): geometry; the values roofers' tables print.
    [InlineData(4, 1.0541)]
    [InlineData(6, 1.1180)]
    [InlineData(8, 1.2019)]
    [InlineData(12, 1.4142)]
    public void Slope_factors(int rise, double factor) =>
        Assert.Equal(
            factor,
            (double)(Sample.Measure($"Loft 10 x 12 slope 3, 3, {3 + rise}, {3 + rise}")[Measure.CeilingArea].V / 120m),
            4
        );

    [Fact]
    public void A_slope_over_any_outline_is_its_floor_times_the_factor_and_its_volume_that_under_the_plane() =>
        RandomPlaces.Simple.Always(
            p =>
            {
                // The plane z = 400 + 0.3 x + 0.1 y; volume = area × height over the centroid.
                decimal Over((int X, int Y) c) => 4000 + 0.3m * c.X + 0.1m * c.Y;
                var line =
                    $"P corners {string.Join(' ', p.Select(c => $"{c.X}\",{c.Y}\""))} slope {string.Join(", ", p.Select(c => Rounding.Text(Over(c)) + "\""))}";
                var (ours, theirs) = (Sample.Measure(line), ToPolygon(p));
                var centroid = theirs.Centroid;
                return Near(ours[Measure.CeilingArea].V * 144, theirs.Area * Math.Sqrt(1.1))
                    && Math.Abs(
                        (double)ours[Measure.Volume].V
                            * 1728
                            / (theirs.Area * (4000 + 0.3 * centroid.X + 0.1 * centroid.Y))
                            - 1
                    ) < 1e-9;
            },
            times: 500
        );

    [Theory]
    // Handbook form of a straight flight: 14 risers of 7½ in and 13 treads of 10 in rise 8'9" over 10'10"; the line of the flight is √(105² + 130²) in.
    [InlineData(Measure.StepCount, 14)]
    [InlineData(Measure.DevelopedArea, 68.541666666667)]
    [InlineData(Measure.StringerLength, 27.851291611781)]
    [InlineData(Measure.EdgeLength, 45.5)]
    public void A_straight_flight(Measure measure, double value) =>
        Assert.Equal(value, (double)Sample.Measure("Main stair 14 rise 7 1/2\" going 10\" wide 3'6")[measure].V, 1e-9);

    [Fact]
    public void A_flight_of_three_four_five() =>
        Assert.Equal(2 * 5m, Sample.Measure("S stair 3 rise 1 going 1 wide 3 treads 4")[Measure.StringerLength].V);

    [Theory]
    // RICS NRM2, from memory: a void at the boundary of the area is always deducted.
    [InlineData("nrm2", "door 0.9 x 1", 65.1)]
    [InlineData("nrm2", "window 0.9 x 1", 66)]
    // VOB/C, from memory: doors too are measured over up to 2.5 m².
    [InlineData("vob", "door 0.9 x 1", 66)]
    [InlineData("over 2 m2; 1 m2; 1 m", "door 0.9 x 2.1", 66)]
    [InlineData("over 2 m2; 1 m2; 1 m", "door 1 x 2.1", 63.9)]
    public void Openings_at_the_edge_and_own_limits(string rule, string opening, double net) =>
        Assert.Equal(
            (decimal)net,
            Sample.Measure($"R 6 x 5 x 3; {opening}", UnitSystem.Metres, rule)[Measure.NetWallArea].V
        );

    [Theory]
    // VOB/C DIN 18363, from memory: floors 0.5 m²; RICS NRM2, from memory: 1.00 m².
    [InlineData("vob", "0.5 x 1", 30)]
    [InlineData("vob", "0.51 x 1", 29.49)]
    [InlineData("nrm2", "1 x 1", 30)]
    [InlineData("nrm2", "1 x 1.01", 28.99)]
    [InlineData("net", "0.1 x 0.1", 29.99)]
    [InlineData("gross", "2 x 2", 30)]
    public void Islands_against_the_floor_limit(string rule, string island, double floor) =>
        Assert.Equal(
            (decimal)floor,
            Sample.Measure($"R 6 x 5 x 3; island {island}", UnitSystem.Metres, rule)[Measure.FloorArea].V
        );

    [Fact]
    public void Bands_add_up_to_the_net_walls() =>
        RandomPlaces.Readings.Always(
            reading =>
            {
                if (
                    reading.Shape is not Room { Bands.IsEmpty: false } room
                    || TapeLine.Read(PlaceLine.Print(reading, UnitSystem.Feet), UnitSystem.Feet).Reading is null
                )
                    return true;
                foreach (var rule in DeductionRule.All)
                {
                    var measures = PlaceMeasures.Of(
                        reading.ToPlace(Guid.Empty, "", "", ""),
                        [],
                        UnitSystem.Feet,
                        rule,
                        Trace.Silent
                    );
                    var bands = measures
                        .Extras.Where(e => e.Leaf.StartsWith("bands/", StringComparison.Ordinal))
                        .Sum(e => e.Value.V);
                    if (Math.Abs(bands - measures[Measure.NetWallArea].V) > 1e-9m)
                        return false;
                }
                return true;
            },
            times: 6_000
        );

    [Fact]
    public void A_connecting_door_is_deducted_on_both_sides_and_counted_once()
    {
        var (hall, study) = (Sample.NewId(), Sample.NewId());
        var job = Sample
            .Empty()
            .Do(new AddPlace(hall, "Hall 20 x 6 x 9; door 3 x 7", "", null))
            .Do(new AddPlace(study, "Study 14 x 11 x 9; door 3 x 7 deep 4\" into hall", "", null));
        var (a, b) = (Sample.Reckon(job).Reckoned.Measures[hall], Sample.Reckon(job).Reckoned.Measures[study]);
        Assert.Equal(
            (468 - 42m, 46m, 1m, 34m),
            (a[Measure.NetWallArea].V, a[Measure.SkirtingLength].V, a[Measure.DoorCount].V, a[Measure.RevealLength].V)
        );
        Assert.Equal(
            (450 - 21m, 47m, 1m, 17m),
            (b[Measure.NetWallArea].V, b[Measure.SkirtingLength].V, b[Measure.DoorCount].V, b[Measure.RevealLength].V)
        );
        Assert.Contains(
            "equal rooms",
            Assert
                .Throws<RefusedException>(() =>
                    job.Do(new RemeasurePlace(hall, job.Places[0].Line, "Hall 20 x 6 x 9 x2"))
                )
                .Message
        );
        Assert.Contains(
            "no place called “Attic”",
            Assert
                .Throws<RefusedException>(() =>
                    job.Do(new AddPlace(Sample.NewId(), "R 10 x 8 x 8; door 3 x 7 into Attic", "", null))
                )
                .Message
        );
    }

    [Fact]
    public void An_override_stands_and_what_was_measured_is_kept_beside_it()
    {
        var place = Sample.NewId();
        var job = Sample.Empty().Do(new AddPlace(place, "Study 14'6 x 11 x 8; door 3 x 7", "", null));
        var typed = new TypedQuantity(Kind.Area, "24 x 15 + 10 x 10", UnitSystem.Feet);
        var now = job.Do(new SetMeasure(place, "grossWallArea", null, typed))
            .Do(new SetMeasure(place, "Coving", null, new(Kind.Length, "12 + 3'6", UnitSystem.Feet)));
        var trace = Reported.Record(now).Trace;
        Assert.Equal(460, trace.Figures[$"places/{place}/grossWallArea"].Value);
        Assert.Equal(408, trace.Figures[$"places/{place}/grossWallArea/derived"].Value);
        Assert.Equal(439, trace.Figures[$"places/{place}/netWallArea"].Value);
        Assert.Equal(15.5m, trace.Figures[$"places/{place}/own/Coving"].Value);
        Assert.Equal(
            "24 x 15 + 10 x 10 = 460 ft²",
            Explanation.Sentence(trace.Figures[$"places/{place}/grossWallArea"])
        );
        var back = now.Do(new SetMeasure(place, "grossWallArea", typed, null));
        Assert.Equal(408, Sample.Reckon(back).Reckoned.Measures[place][Measure.GrossWallArea].V);
        Assert.Contains(
            "is a area",
            Assert
                .Throws<RefusedException>(() =>
                    job.Do(new SetMeasure(place, "floorArea", null, new(Kind.Length, "3", UnitSystem.Feet)))
                )
                .Message.Replace("an area", "is a area")
        );
    }

    [Fact]
    public void Every_figure_of_every_kind_of_place_is_recomputed_from_its_explanation()
    {
        var job = Sample.Empty();
        foreach (
            var line in new[]
            {
                LRoom,
                "Hex walls 10 r60° 10 r60° 10 r60° 10 r60° 10 r60° 10 x 8; island 2 x 2 x2; band tile to 4; window 3 x 4",
                "Loft 14 x 10 slope 4, 4, 8, 8; island 2 x 2 at 5,4; band low to 6; door 2 x 4",
                "Mixed 4.2 m x 11 x 8; wall B 9; door 3 x 6'8",
                "Front face 40 x 18 + 20 x 10 x2; gable 40 x 9; window 3 x 5 x6 deep 4\"",
                "Court site 24 x 15 + 10 x 10 around 120 deep 4\"",
                "Lawn site corners 0,0 20,0 25,10 12,10 12,16 0,16; island 2 x 3",
                "Kerb run 44 wide 5\"",
                "Back stair 14 rise 7 1/2\" going 10\" wide 3'6; landing 3'6 x 4",
                "Fittings items 12 handles, 4 boards; x2",
                "Later not measured",
            }
        )
            job = job.Do(new AddPlace(Sample.NewId(), line, "", null));
        job = job.Do(new SetMeasure(job.Places[0].Id, "ceilingArea", null, new(Kind.Area, "12 x 12", UnitSystem.Feet)));
        var trace = Reported.Record(job).Trace;
        foreach (var path in trace.Figures.Keys)
            WorkingsTests.Checker(trace, path).Figure(path);
        Assert.InRange(trace.Figures.Count, 120, 1000);
    }
}
