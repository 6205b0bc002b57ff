using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>What we will do, by section, by place or by line.</summary>
internal static class ScopeBlock
{
    public static IEnumerable<Element> Of(Writing writing)
    {
        Line[] lines = [.. writing.Estimate.Reckoned.Lines.Where(l => l.Seen)];
        if (lines.Length == 0)
            return [];
        var places = new PlacesInWords(writing.Job);
        ImmutableArray<Element> elements =
        [
            .. writing.Terms.ScopeBy switch
            {
                Detail.Place => ByPlace(lines, writing, places),
                Detail.Line => ByLine(lines, writing),
                _ => BySection(lines, writing, places),
            },
        ];
        return places.Lists.Count == 0
            ? elements
            : [.. elements, new Heading(2, "Lists of places"), new Bullets([.. places.ListItems])];
    }

    /// <summary>Under each section a sentence for each way in which a piece of work is done, with the places where it is.</summary>
    private static IEnumerable<Element> BySection(Line[] lines, Writing writing, PlacesInWords places)
    {
        foreach (var section in writing.Sections)
        {
            yield return new Heading(2, section.Name);
            yield return new Bullets(
                [
                    .. lines
                        .Where(l => l.OfItem.Item.Section == section.Id)
                        .GroupBy(l => l.OfItem)
                        .SelectMany(item =>
                            item.GroupBy(l => Said(l, writing))
                                .Select(way => new Bullet(
                                    [
                                        new(
                                            Joined(
                                                $"{way.Key.Wording}{Allowed(way, writing)}: {places.Of(way.Select(l => l.Measures.Place))}{Much(way, writing)}.",
                                                way.Key.Note
                                            )
                                        ),
                                    ]
                                ))
                        ),
                ]
            );
        }
    }

    /// <summary>Under each heading of places a sentence for each, or for several in which the same is done.</summary>
    private static IEnumerable<Element> ByPlace(Line[] lines, Writing writing, PlacesInWords places)
    {
        foreach (var group in writing.Job.Places.GroupBy(p => p.Group))
        {
            var alike = group
                .Select(p => (Place: p, Lines: lines.Where(l => l.Measures.Place.Id == p.Id).ToArray()))
                .Where(p => p.Lines.Length > 0)
                .GroupBy(p => string.Join('\n', p.Lines.Select(l => Said(l, writing)).Select(s => s.Wording + s.Note)))
                .ToArray();
            if (alike.Length == 0)
                continue;
            if (group.Key.Length > 0)
                yield return new Heading(2, group.Key);
            yield return new Bullets(
                [
                    .. alike.Select(of =>
                    {
                        var ways = of.SelectMany(p => p.Lines).GroupBy(l => Said(l, writing)).ToArray();
                        return new Bullet(
                            [
                                new(Upper(places.Of(of.Select(p => p.Place))), Stress.Strong),
                                new(
                                    Joined(
                                        ": "
                                            + string.Join(
                                                "; ",
                                                ways.Select(w =>
                                                    Lower(w.Key.Wording) + Allowed(w, writing) + Much(w, writing)
                                                )
                                            )
                                            + ".",
                                        string.Join(
                                            " ",
                                            ways.Select(w => w.Key.Note).Where(n => n.Length > 0).Distinct()
                                        )
                                    )
                                ),
                            ]
                        );
                    }),
                ]
            );
        }
    }

    /// <summary>Under each section a sentence for each line.</summary>
    private static IEnumerable<Element> ByLine(Line[] lines, Writing writing)
    {
        foreach (var section in writing.Sections)
        {
            yield return new Heading(2, section.Name);
            yield return new Bullets(
                [
                    .. lines
                        .Where(l => l.OfItem.Item.Section == section.Id)
                        .Select(l =>
                        {
                            var (wording, note) = Said(l, writing);
                            return new Bullet(
                                [
                                    new(
                                        Joined(
                                            $"{wording}{Allowed([l], writing)}: {Writing.PlaceName(l)}{Much([l], writing)}.",
                                            note
                                        )
                                    ),
                                ]
                            );
                        }),
                ]
            );
        }
    }

    private static string Joined(string said, string note) => note.Length > 0 ? $"{said} {note}" : said;

    private static string Upper(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    /// <summary>The first letter small, where the word is not written in capitals.</summary>
    private static string Lower(string words) =>
        words.Length > 1 && char.IsUpper(words[0]) && !char.IsUpper(words[1])
            ? char.ToLowerInvariant(words[0]) + words[1..]
            : words;

    /// <summary>Quantity and hours, where they are shown.</summary>
    private static string Much(IEnumerable<Line> lines, Writing writing)
    {
        var (terms, all) = (writing.Terms, lines.ToArray());
        var said = new List<string>();
        if (terms.Quantities && Array.TrueForAll(all, l => l.Quantity.V != 0))
            said.Add(writing.Amount(all.Sum(l => l.Quantity.V), all[0].OfItem.SymbolIn(writing.Job.Units)));
        if (terms.Hours && all.Sum(l => l.Hours.V) is > 0 and var hours)
            said.Add(writing.Hours(hours));
        return said.Count == 0 ? "" : $" ({string.Join(", ", said)})";
    }

    private static string Allowed(IEnumerable<Line> lines, Writing writing)
    {
        var at = lines.ToHashSet();
        var allowed = writing.Estimate.Priced.Where(p => p.Line is { } line && at.Contains(line)).Sum(p => p.Price.V);
        return allowed > 0 ? $", an allowance of {writing.Money(allowed)}" : "";
    }

    /// <summary>What the customer reads of a line, and the note beside it.</summary>
    internal static (string Wording, string Note) Said(Line line, Writing writing)
    {
        var (here, terms) = (line.Cell.Of(line.OfItem.Item), writing.Terms);
        var coats =
            terms.Coats
            && line.OfItem.Entry is ProductionRate { Paces: var paces }
            && (paces.Length > 1 || paces[0].Coats > 1)
                ? here.Coats == 1
                    ? ", one coat"
                    : $", {Words(here.Coats)} coats"
                : "";
        var goods = line
            .Item.Parts.Where(p => p.Kind.IsGoods)
            .Select(p => p.Entry is Material { Brand.Length: > 0 } of ? $"{of.Brand} {of.Name}" : p.Entry.Name)
            .Distinct()
            .ToArray();
        var products =
            terms.Products && line.Supply == Supply.We && goods.Length > 0 ? " with " + string.Join(", ", goods) : "";
        var colour = terms.Colours && here.Colour.Length > 0 ? ", " + here.Colour : "";
        // In a round it is said how often.
        var often = writing.Estimate.Price.Occurrences.IsEmpty
            ? ""
            : ", " + (RhythmTimes.Of(writing.Job, line.OfItem.Item) is { } rhythm ? Lower(rhythm.Name) : "once");
        var theirs = line.Supply == Supply.CustomerMaterial ? ", with material that you supply" : "";
        return (
            $"{(here.Wording.Length > 0 ? here.Wording : here.Name)}{products}{coats}{colour}{often}{theirs}",
            string.Join(
                " ",
                new[] { here.CustomerNote ?? line.OfItem.Entry.CustomerNote, line.Cell.Note }
                    .Select(Writing.Sentence)
                    .Where(text => text.Length > 0)
            )
        );
    }

    private static string Words(int count) =>
        count switch
        {
            2 => "two",
            3 => "three",
            4 => "four",
            _ => count.ToString(CultureInfo.InvariantCulture),
        };
}
