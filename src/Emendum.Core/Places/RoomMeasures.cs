using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Places;

/// <summary>The measures of one place, for one of it (before ×n), in the job's units.</summary>
public sealed class PlaceMeasures(Place place, Val[] values)
{
    /// <summary>The place they are of.</summary>
    public Place Place { get; } = place;

    /// <summary>One measure.</summary>
    public Val this[Measure measure] => values[(int)measure];
}

/// <summary>Measures a rectangular room (estimating model §2). Lengths stay in decimal inches, or millimetres when any is metric, and convert last.</summary>
public static class RoomMeasures
{
    /// <summary>All measures of <paramref name="room"/>.</summary>
    public static PlaceMeasures Of(Place room, UnitSystem system, DeductionRule rule, Trace trace)
    {
        var tape = AllInches(room) ? Unit.Inch : Unit.Millimetre;
        Val Read(Length length, string label) => trace.Convert(
            trace.Typed(length.Value, length.Unit.Symbol, label, length.Typed, "places", room.Id), length.Unit, tape);

        var values = new Val[Measures.Count];
        Val Make(Measure measure, Val raw)
        {
            var unit = measure.UnitIn(system);
            var value = measure.Kind() == Kind.Count ? raw : FromTape(raw, tape, measure.Kind(), unit, trace);
            return values[(int)measure] = trace.Make(value, measure.Kind() == Kind.Count ? "" : unit.Symbol, trace.On ? $"{measure.Label()}, {room.Name}" : "", new("places", room.Id, measure.Name()));
        }

        var (length, width, height) = (Read(room.Long, "length"), Read(room.Wide, "width"), Read(room.High, "height"));
        var around = 2 * (length + width);
        Sum openings = new(), deducted = new(), reveals = new(), revealArea = new(), doors = new(), windows = new(), all = new(), interrupted = new(), lined = new();
        foreach (var opening in room.Openings)
        {
            var name = trace.On ? Words(opening.Kind) : "";
            var (w, h) = (Read(opening.Width, name + " width"), Read(opening.Height, name + " height"));
            var n = trace.Typed(opening.Count, "", name + " count", null, "places", room.Id);
            var area = w * h;
            var squareMetres = area.V * tape.Factor * tape.Factor / 1_000_000m;
            openings.Add(n * area);
            var (times, over) = rule.PartOf(squareMetres);
            if (times == 1) deducted.Add(over == 1 ? n * area : n * area / over);
            if (rule.CountsReveals(squareMetres))
            {
                var run = n * (2 * h + (opening.Sill ? 2 : 1) * w);
                reveals.Add(run);
                if (opening.Depth is { } depth) revealArea.Add(run * Read(depth, name + " depth"));
            }
            if (opening.ReachesFloor && rule.Interrupts(w.V * tape.Factor / 1000m)) interrupted.Add(n * w);
            if (opening is { Kind: OpeningKind.PassThrough, Depth: { } through }) lined.Add(2 * n * Read(through, name + " depth"));
            (opening.Kind == OpeningKind.Window ? windows : opening.Kind == OpeningKind.Door ? doors : new Sum()).Add(n);
            all.Add(n);
        }

        Make(Measure.FloorArea, length * width);
        Make(Measure.CeilingArea, length * width);
        Make(Measure.Perimeter, around);
        Make(Measure.GrossWallArea, around * height);
        Make(Measure.OpeningArea, openings.Total);
        Make(Measure.DeductedArea, deducted.Total);
        values[(int)Measure.NetWallArea] = trace.Make(
            values[(int)Measure.GrossWallArea] - values[(int)Measure.DeductedArea], Measure.NetWallArea.UnitIn(system).Symbol,
            trace.On ? $"Walls, net, {room.Name}" : "", new("places", room.Id, Measure.NetWallArea.Name()));
        Make(Measure.SkirtingLength, around - interrupted.Total + lined.Total);
        Make(Measure.CorniceLength, around);
        Make(Measure.DoorCount, doors.Total);
        Make(Measure.WindowCount, windows.Total);
        Make(Measure.OpeningCount, all.Total);
        Make(Measure.RevealLength, reveals.Total);
        Make(Measure.RevealArea, revealArea.Total);
        Make(Measure.CornerCount, 4);
        Make(Measure.Volume, length * width * height);
        return new(room, values);
    }

    /// <summary>An opening's kind in words.</summary>
    public static string Words(OpeningKind kind) => kind == OpeningKind.PassThrough ? "pass-through" : kind == OpeningKind.Door ? "door" : "window";

    private static bool AllInches(Place room) =>
        room.Long.Unit == Unit.Inch && room.Wide.Unit == Unit.Inch && room.High.Unit == Unit.Inch
        && room.Openings.All(o => o.Width.Unit == Unit.Inch && o.Height.Unit == Unit.Inch && (o.Depth is null || o.Depth.Unit == Unit.Inch));

    private static Val FromTape(Val raw, Unit tape, Kind kind, Unit to, Trace trace)
    {
        var (power, sign) = kind switch { Kind.Length => (1, ""), Kind.Area => (2, "²"), _ => (3, "³") };
        var factor = 1m;
        for (var i = 0; i < power; i++) factor *= tape.Factor;
        return trace.ConvertBy(raw, factor, trace.On ? tape + sign : "", to);
    }
}
