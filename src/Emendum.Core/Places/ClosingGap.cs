using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Walls that do not come back to where they began: how far they miss, and which wall could be wrong (architecture decision 9).</summary>
public static class ClosingGap
{
    private const int MostRemedies = 6;

    /// <summary>Refuses an outline whose end misses its beginning by more than a tape shows; offers the walls that would close it.</summary>
    /// <exception cref="RefusedException">With the gap in words and its remedies.</exception>
    public static void Check(Walls walls, UnitSystem system, Func<Outline, string?> print)
    {
        var end = walls.Walk()[^1];
        if (decimal.Abs(end.X) <= PlaceLimits.TapeStep && decimal.Abs(end.Y) <= PlaceLimits.TapeStep)
            return;
        var remedies = Remedies(walls, end)
            .Select(fix => (Words: Say(fix, walls, system), Line: print(Adjusted(walls, fix))))
            .Where(r => r.Line is not null)
            .Take(MostRemedies)
            .Select(r => new Remedy(r.Words, r.Line!))
            .ToList();
        throw new RefusedException(
            new(
                "line",
                $"The walls do not close: the last ends {Missing(end, system)} from where the first began.{(remedies.Count > 0 ? " Which wall is wrong?" : "")}",
                Remedies: remedies,
                Walk:
                [
                    .. walls
                        .Walk()
                        .SelectMany(p => new[] { (double)decimal.Round(p.X, 2), (double)decimal.Round(p.Y, 2) }),
                ]
            )
        );
    }

    private static string Missing((decimal X, decimal Y) end, UnitSystem system)
    {
        string Say(decimal mm) => new Length(decimal.Abs(mm), Unit.Millimetre, "").Read(system);
        var parts = new List<string>();
        if (decimal.Abs(end.X) > PlaceLimits.TapeStep)
            parts.Add($"{Say(end.X)} along wall A");
        if (decimal.Abs(end.Y) > PlaceLimits.TapeStep)
            parts.Add($"{Say(end.Y)} across it");
        return string.Join(" and ", parts);
    }

    /// <summary>Changes of length, in mm, that close the outline: of one wall where that is enough, otherwise of two; the smallest first.</summary>
    private static IEnumerable<(int Wall, decimal By)[]> Remedies(Walls walls, (decimal X, decimal Y) end)
    {
        var headings = walls.Headings;
        var found = new List<(int Wall, decimal By)[]>();
        for (var i = 0; i < headings.Length; i++)
        {
            // Along this wall by −gap: closes alone where the gap lies along it.
            var along = end.X * headings[i].Cos + end.Y * headings[i].Sin;
            var off = end.X * headings[i].Sin - end.Y * headings[i].Cos;
            if (decimal.Abs(off) <= PlaceLimits.TapeStep)
                found.Add([(i, -along)]);
        }
        if (found.Count == 0)
        {
            for (var i = 0; i < headings.Length; i++)
            {
                for (var j = i + 1; j < headings.Length; j++)
                {
                    var (a, b) = (headings[i], headings[j]);
                    var flat = a.Cos * b.Sin - a.Sin * b.Cos;
                    if (decimal.Abs(flat) < 0.05m)
                        continue;
                    found.Add(
                        [(i, (-end.X * b.Sin + end.Y * b.Cos) / flat), (j, (-a.Cos * end.Y + a.Sin * end.X) / flat)]
                    );
                }
            }
        }
        return found
            .Where(fix =>
                fix.All(f => walls.Runs[f.Wall].Long.Millimetres + f.By > 1)
                && Polygon.Crossing([.. Adjusted(walls, fix).Walk().Take(walls.Runs.Length)]) is null
            )
            .OrderBy(fix => fix.Sum(f => decimal.Abs(f.By)));
    }

    private static Walls Adjusted(Walls walls, (int Wall, decimal By)[] fix)
    {
        var runs = walls.Runs;
        foreach (var (wall, by) in fix)
        {
            var old = runs[wall].Long;
            var value = decimal.Round(
                old.Value + by / old.Unit.Factor,
                old.Unit == Unit.Inch ? 4 : 2,
                MidpointRounding.AwayFromZero
            );
            runs = runs.SetItem(
                wall,
                runs[wall] with
                {
                    Long = new Length(value, old.Unit, "") is var length
                        ? length with
                        {
                            Typed = length.Exact(),
                        }
                        : null!,
                }
            );
        }
        return new(runs);
    }

    private static string Say((int Wall, decimal By)[] fix, Walls walls, UnitSystem system) =>
        string.Join(
            " and ",
            fix.Select(f =>
            {
                var run = walls.Runs[f.Wall].Long;
                return $"wall {Outline.Letter(f.Wall)} {run.Read(system)} → {new Length(run.Millimetres + f.By, Unit.Millimetre, "").Read(system)}";
            })
        );
}
