using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Measures a room (estimating model §2).</summary>
internal static class RoomMeasures
{
    /// <summary>Makes all measures of a room.</summary>
    public static void Of(Measuring tape, Room room, ImmutableArray<Opening> incoming)
    {
        var edge = OutlineMeasures.Of(tape, room.Outline);
        var high = room.High is { } h ? tape.Read(h, "height") : (Val?)null;
        var slope = room.Slope.IsEmpty
            ? null
            : new SlopedCeiling(
                edge.Corners,
                [.. room.Slope.Select((s, i) => tape.Read(s, tape.On ? $"height at corner {i + 1}" : ""))]
            );
        var openings = OpeningMeasures.Of(tape, tape.Place.Openings, incoming, keep: !room.Bands.IsEmpty);

        Val floor = edge.Area,
            around = edge.Around,
            crown = edge.Around,
            cubic = slope is null ? edge.Area * high!.Value : slope.Volume(edge.Corners);
        if (slope is not null)
            crown = slope.Cornice(edge.Sides);
        // Wall by wall only where walls differ or are split: most rooms are boxes.
        var box = room.Outline is Rectangle && room.WallHeights.IsEmpty && slope is null;
        var walls = box && room.Bands.IsEmpty ? [] : WallsOf(tape, room, edge, high, slope);
        Val gross = room.WallHeights.IsEmpty && slope is null ? around * high!.Value : Total(walls.Select(w => w.Area));
        Val corners = room.Outline.Sides;
        var stretches = walls.Select(w => w.Stretch).ToList();
        foreach (var island in room.Islands)
        {
            var own = OutlineMeasures.Of(tape, island.Outline);
            var n = tape.Typed(island.Count, "islands");
            if (tape.Rule.TakesIsland(tape.SquareMetres(own.Area)))
                floor -= n * own.Area;
            around += n * own.Around;
            corners += n * island.Outline.Sides;
            if (slope is null)
            {
                crown += n * own.Around;
                gross += n * own.Around * high!.Value;
                cubic -= n * own.Area * high.Value;
                stretches.Add(new(n * own.Around, high.Value, high.Value));
            }
            else
            {
                var at = island.At is { } where
                    ? (tape.Read(where.X, "across"), tape.Read(where.Y, "up"))
                    : ((Val)0m, (Val)0m);
                var stands = own.Corners.Select(c => (X: at.Item1 + c.X, Y: at.Item2 + c.Y)).ToArray();
                var over = stands.Select(slope.Over).ToArray();
                for (var i = 0; i < over.Length; i++)
                {
                    var stretch = new Stretch(own.Sides[i], over[i], over[(i + 1) % over.Length]);
                    gross += stretch.Area;
                    crown += SlopedCeiling.Along(stretch.Length, stretch.From, stretch.To);
                    stretches.Add(stretch);
                }
                cubic -= slope.Volume(stands);
            }
        }

        tape.Make(Measure.FloorArea, floor);
        tape.Make(Measure.CeilingArea, slope is null ? floor : floor * slope.Factor());
        tape.Make(Measure.Perimeter, around);
        var made = tape.Make(Measure.GrossWallArea, gross);
        openings.MakeAreas(tape);
        var less = tape.Make(Measure.DeductedArea, openings.Deducted);
        tape.Keep(Measure.NetWallArea, made - less);
        tape.Make(Measure.SkirtingLength, around - openings.Interrupted + openings.Lined);
        tape.Make(Measure.CorniceLength, crown);
        openings.MakeCounts(tape);
        tape.Make(Measure.CornerCount, corners);
        tape.Make(Measure.Volume, cubic);
        if (!box)
            for (var i = 0; i < walls.Length; i++)
                tape.Extra("walls/" + Outline.Letter(i), "Wall " + Outline.Letter(i), Kind.Area, walls[i].Area);
        BandMeasures.Of(tape, room, stretches, openings.Holes);
    }

    /// <summary>A stretch of wall between two heights.</summary>
    internal sealed record Stretch(Val Length, Val From, Val To)
    {
        /// <summary>Length × the mean of its ends.</summary>
        public Val Area => From.V == To.V ? Length * From : Length * (From + To) / 2;
    }

    private static (Val Area, Stretch Stretch)[] WallsOf(
        Measuring tape,
        Room room,
        OutlineMeasures edge,
        Val? high,
        SlopedCeiling? slope
    )
    {
        var walls = new (Val, Stretch)[edge.Sides.Length];
        for (var i = 0; i < walls.Length; i++)
        {
            var own = room.WallHeights.FirstOrDefault(w => room.Outline.WallOf(w.Wall) == i);
            var stretch =
                slope is not null ? new Stretch(edge.Sides[i], slope.Heights[i], slope.Heights[(i + 1) % walls.Length])
                : own is not null && tape.Read(own.High, tape.On ? "height of wall " + own.Wall : "") is var height
                    ? new Stretch(edge.Sides[i], height, height)
                : new Stretch(edge.Sides[i], high!.Value, high.Value);
            walls[i] = (stretch.Area, stretch);
        }
        return walls;
    }

    private static Val Total(IEnumerable<Val> values)
    {
        var sum = new Sum();
        foreach (var value in values)
            sum.Add(value);
        return sum.Total;
    }
}

/// <summary>A ceiling in one sloped plane through heights over the corners.</summary>
internal sealed class SlopedCeiling((Val X, Val Y)[] corners, Val[] heights)
{
    /// <summary>Height over each corner.</summary>
    public Val[] Heights => heights;

    private Val FlatCross() => Flat(0, 1, 2);

    private Val Flat(int o, int a, int b) =>
        (corners[a].X - corners[o].X) * (corners[b].Y - corners[o].Y)
        - (corners[a].Y - corners[o].Y) * (corners[b].X - corners[o].X);

    private Val AcrossRise() =>
        (heights[1] - heights[0]) * (corners[2].Y - corners[0].Y)
        - (heights[2] - heights[0]) * (corners[1].Y - corners[0].Y);

    private Val UpRise() =>
        (heights[2] - heights[0]) * (corners[1].X - corners[0].X)
        - (heights[1] - heights[0]) * (corners[2].X - corners[0].X);

    /// <summary>True area over plan area: √(1 + slope²).</summary>
    public Val Factor()
    {
        var (across, up, flat) = (AcrossRise(), UpRise(), FlatCross());
        return (1 + (across * across + up * up) / (flat * flat)).Sqrt();
    }

    /// <summary>Height over a point.</summary>
    public Val Over((Val X, Val Y) point) =>
        heights[0] + (AcrossRise() * (point.X - corners[0].X) + UpRise() * (point.Y - corners[0].Y)) / FlatCross();

    /// <summary>Length along a wall's sloped head.</summary>
    public static Val Along(Val length, Val from, Val to) =>
        from.V == to.V ? length : (length * length + (to - from) * (to - from)).Sqrt();

    /// <summary>Length of the cornice along all walls.</summary>
    public Val Cornice(Val[] sides)
    {
        var sum = new Sum();
        for (var i = 0; i < sides.Length; i++)
            sum.Add(Along(sides[i], heights[i], heights[(i + 1) % sides.Length]));
        return sum.Total;
    }

    /// <summary>Room under the ceiling over an outline: each triangle's plan area × the mean of its three heights.</summary>
    public Val Volume((Val X, Val Y)[] outline)
    {
        var over = ReferenceEquals(outline, corners) ? heights : [.. outline.Select(Over)];
        var six = new Sum();
        for (var i = 1; i + 1 < outline.Length; i++)
        {
            var (o, a, b) = (outline[0], outline[i], outline[i + 1]);
            six.Add(((a.X - o.X) * (b.Y - o.Y) - (a.Y - o.Y) * (b.X - o.X)) * (over[0] + over[i] + over[i + 1]));
        }
        return six.Total.V < 0 ? (0 - six.Total) / 6 : six.Total / 6;
    }
}
