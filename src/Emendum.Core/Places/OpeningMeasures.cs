using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>What the openings of a place come to, in tape units. Those that lead in from elsewhere are deducted and interrupt skirting here, and are counted where they were entered.</summary>
internal sealed class OpeningMeasures
{
    private readonly Sum area = new(),
        doorArea = new(),
        windowArea = new(),
        glass = new(),
        deducted = new(),
        reveals = new(),
        revealArea = new(),
        doors = new(),
        windows = new(),
        all = new(),
        interrupted = new(),
        lined = new();

    private bool keep;

    /// <summary>One opening read off the tape.</summary>
    /// <param name="Opening">What it is.</param>
    /// <param name="Width">Its width.</param>
    /// <param name="Height">Its height.</param>
    /// <param name="Count">How many.</param>
    /// <param name="Part">The part of each that the rule takes off.</param>
    public sealed record Hole(Opening Opening, Val Width, Val Height, Val Count, (int Times, int Over) Part);

    /// <summary>Each opening, where they were to be kept.</summary>
    public List<Hole> Holes { get; } = [];

    /// <summary>Area the rule takes off.</summary>
    public Val Deducted => deducted.Total;

    /// <summary>Widths that interrupt the skirting.</summary>
    public Val Interrupted => interrupted.Total;

    /// <summary>What unlined pass-throughs add to the skirting.</summary>
    public Val Lined => lined.Total;

    /// <summary>Adds up the openings of a place and those that lead into it; <paramref name="keep"/> lists each.</summary>
    public static OpeningMeasures Of(
        Measuring tape,
        ImmutableArray<Opening> own,
        ImmutableArray<Opening> incoming,
        bool keep = false
    )
    {
        var openings = new OpeningMeasures { keep = keep };
        foreach (var opening in own)
            openings.Add(tape, opening, counts: true);
        foreach (var opening in incoming)
            openings.Add(tape, opening, counts: false);
        return openings;
    }

    /// <summary>How many there are.</summary>
    public Val All => all.Total;

    /// <summary>Makes the area of all openings, and of doors, windows and glass by themselves: what is done to glass is never driven by all openings.</summary>
    public void MakeAreas(Measuring tape)
    {
        tape.Make(Measure.OpeningArea, area.Total);
        tape.Make(Measure.DoorArea, doorArea.Total);
        tape.Make(Measure.WindowArea, windowArea.Total);
        tape.Make(Measure.GlassArea, glass.Total);
    }

    /// <summary>Makes the measures that every place with openings has, but for the areas.</summary>
    public void MakeCounts(Measuring tape)
    {
        tape.Make(Measure.DoorCount, doors.Total);
        tape.Make(Measure.WindowCount, windows.Total);
        tape.Make(Measure.OpeningCount, all.Total);
        tape.Make(Measure.RevealLength, reveals.Total);
        tape.Make(Measure.RevealArea, revealArea.Total);
    }

    private void Add(Measuring tape, Opening opening, bool counts)
    {
        var (rule, name) = (tape.Rule, tape.On ? opening.Words : "");
        var (w, h) = (tape.Read(opening.Width, name + " width"), tape.Read(opening.Height, name + " height"));
        var n = tape.Typed(opening.Count, name + " count");
        var size = w * h;
        var squareMetres = tape.SquareMetres(size);
        area.Add(n * size);
        var part = rule.PartOf(squareMetres, opening.ReachesFloor);
        if (part.Times == 1)
            deducted.Add(part.Over == 1 ? n * size : n * size / part.Over);
        if (keep)
            Holes.Add(new(opening, w, h, n, part));
        if (rule.CountsReveals(squareMetres))
        {
            var run = n * (2 * h + (opening.Sill ? 2 : 1) * w);
            reveals.Add(run);
            if (opening.Depth is { } depth)
                revealArea.Add(run * tape.Read(depth, name + " depth"));
        }
        if (opening.ReachesFloor && rule.Interrupts(tape.Metres(w)))
            interrupted.Add(n * w);
        if (opening is { Kind: OpeningKind.PassThrough, Depth: { } through, ReachesFloor: true })
            lined.Add(2 * n * tape.Read(through, name + " depth"));
        if (!counts)
            return;
        if (opening.Kind == OpeningKind.Window)
        {
            windows.Add(n);
            windowArea.Add(n * size);
        }
        else if (opening.Kind == OpeningKind.Door)
        {
            doors.Add(n);
            doorArea.Add(n * size);
        }
        if (opening.IsGlass)
            glass.Add(n * size);
        all.Add(n);
    }
}
