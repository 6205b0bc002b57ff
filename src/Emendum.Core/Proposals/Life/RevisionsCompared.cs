using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Proposals;

/// <summary>Something in which two revisions differ.</summary>
/// <param name="Label">What it is.</param>
/// <param name="Note">How it differs, in short; empty where the price alone does.</param>
/// <param name="Before">Money in the earlier; null where it is not in it.</param>
/// <param name="After">Money in the later; null where it is not in it.</param>
public sealed record RevisionDifference(string Label, string Note, decimal? Before, decimal? After)
{
    /// <summary>How much it moves the price before tax.</summary>
    public decimal By => (After ?? 0) - (Before ?? 0);
}

/// <summary>Words of a block that were changed, run by run.</summary>
/// <param name="Title">The block.</param>
/// <param name="Runs">What stayed, what went, what came.</param>
public sealed record Reworded(string Title, ImmutableArray<WordRun> Runs);

/// <summary>Two revisions side by side: what the later has more, less, at another price, in other words. The differences sum to that of the two prices before tax.</summary>
public sealed record RevisionsCompared(
    ImmutableArray<RevisionDifference> Added,
    ImmutableArray<RevisionDifference> Dropped,
    ImmutableArray<RevisionDifference> Repriced,
    ImmutableArray<Reworded> Reworded,
    int Same
)
{
    /// <summary>Compares them.</summary>
    public static RevisionsCompared Of(RevisionFigures a, Document wordsOfA, RevisionFigures b, Document wordsOfB)
    {
        var (inA, inB) = (a.Lines.ToDictionary(Key), b.Lines.ToDictionary(Key));
        var same = a.Lines.Count(l => inB.TryGetValue(Key(l), out var now) && now == l);
        var repriced = new List<RevisionDifference>();
        foreach (var work in b.Lines.Where(l => inA.ContainsKey(Key(l))).GroupBy(l => l.Work))
        {
            RevisionLine[] after = [.. work];
            RevisionLine[] before = [.. after.Select(l => inA[Key(l)])];
            var (was, now) = (before.Sum(l => l.Price), after.Sum(l => l.Price));
            if (was != now)
                repriced.Add(new(after[0].Name, Note(before, after), was, now));
        }
        foreach (var key in a.Steps.Concat(b.Steps).Select(s => s.Key).Distinct())
        {
            var (was, now) = (a.Steps.FirstOrDefault(s => s.Key == key), b.Steps.FirstOrDefault(s => s.Key == key));
            if (was?.Amount != now?.Amount)
                repriced.Add(
                    new((now ?? was)!.Label, now?.Note ?? "none any more", was?.Amount ?? 0, now?.Amount ?? 0)
                );
        }
        return new(
            [.. ByPlace(b.Lines.Where(l => !inA.ContainsKey(Key(l))), (label, sum) => new(label, "", null, sum))],
            [.. ByPlace(a.Lines.Where(l => !inB.ContainsKey(Key(l))), (label, sum) => new(label, "", sum, null))],
            [.. repriced],
            [.. InOtherWords(wordsOfA, wordsOfB)],
            same
        );
    }

    private static (Guid, Guid) Key(RevisionLine line) => (line.Work, line.Place);

    /// <summary>Lines that stand on one side alone: work at a place; several pieces of work at one place, and one piece at several places, stand together.</summary>
    private static IEnumerable<RevisionDifference> ByPlace(
        IEnumerable<RevisionLine> lines,
        Func<string, decimal, RevisionDifference> made
    ) =>
        lines
            .GroupBy(l => l.Place)
            .Select(at => (Names: string.Join(", ", at.Select(l => l.Name)), Lines: at.ToArray()))
            .GroupBy(at => at.Names)
            .Select(of =>
            {
                RevisionLine[] all = [.. of.SelectMany(at => at.Lines)];
                string[] places = [.. all.Select(l => l.At).Distinct()];
                return made($"{Counted.Few(places, 4)}: {of.Key}", all.Sum(l => l.Price));
            });

    private static string Note(RevisionLine[] before, RevisionLine[] after)
    {
        var notes = new List<string>();
        void Moved(string was, string now)
        {
            if (was != now)
                notes.Add($"{was} → {now}");
        }
        if (before.Select(l => l.Unit).Concat(after.Select(l => l.Unit)).Distinct().Count() == 1)
            Moved(Amount(before), Amount(after));
        Moved(Coats(before), Coats(after));
        var (said, says) = (
            before.Select(l => l.Said).Distinct().ToArray(),
            after.Select(l => l.Said).Distinct().ToArray()
        );
        if (notes.Count == 0 && said.Length == 1 && says.Length == 1)
            Moved(said[0], says[0]);
        return string.Join("; ", notes);
    }

    private static string Amount(RevisionLine[] lines) =>
        $"{Shown.Amount(lines.Sum(l => l.Quantity), lines[0].Unit)} {lines[0].Unit}".TrimEnd();

    private static string Coats(RevisionLine[] lines) =>
        string.Join(
            " and ",
            lines.Select(l => l.Coats).Distinct().Order().Select(c => c.ToString(CultureInfo.InvariantCulture))
        ) + (lines.All(l => l.Coats == 1) ? " coat" : " coats");

    /// <summary>Blocks that read otherwise, but for tables, and for what tells of the work: that is in the lines.</summary>
    private static IEnumerable<Reworded> InOtherWords(Document a, Document b)
    {
        static string Text(Block? block) =>
            block is not { IsRead: true }
                ? ""
                : string.Join(
                    "\n",
                    block
                        .Elements.Skip(block.IsTitled ? 1 : 0)
                        .SelectMany(e =>
                            e switch
                            {
                                Paragraph p => new[] { p.Text },
                                Heading h => [h.Text],
                                Bullets items => items.Items.Select(i => "– " + i.Text),
                                PriceTable table when block.Kind == Jobs.BlockKind.Payment => table.Rows.Select(r =>
                                    $"{r.Label} {r.Detail}".TrimEnd()
                                ),
                                _ => [],
                            }
                        )
                );
        foreach (var id in a.Blocks.Concat(b.Blocks).Select(x => x.Id).Distinct())
        {
            var (was, now) = (a.Blocks.FirstOrDefault(x => x.Id == id), b.Blocks.FirstOrDefault(x => x.Id == id));
            if ((now ?? was)!.Kind is Jobs.BlockKind.Scope or Jobs.BlockKind.Price or Jobs.BlockKind.Options)
                continue;
            var (before, after) = (Text(was), Text(now));
            if (before != after)
                yield return new((now ?? was)!.Title, WordRun.Between(before, after));
        }
    }
}
