using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>Makes the proposal of a reckoned job as blocks in reading order (estimating model §9).</summary>
public static class Proposal
{
    /// <summary>The blocks, at the job's own detail, for <paramref name="party"/>.</summary>
    public static ImmutableArray<Block> Of(Estimate estimate, Party party, Trace trace)
    {
        var job = estimate.Job;
        var (info, terms) = (job.Info, job.Proposal);
        var blocks = ImmutableArray.CreateBuilder<Block>();
        var date = Day.Of(info.Date);
        blocks.Add(
            new Letterhead(
                info.Firm,
                info.FirmAddress,
                party.Name,
                party.Address,
                info.Name,
                info.Subtitle,
                $"Proposal {info.Number} · {Written(date)}",
                $"Prices hold until {Written(job.PricesHoldUntil)}"
            )
        );
        foreach (var paragraph in Paragraphs(terms.Letter))
            blocks.Add(new Paragraph(paragraph));
        AddScope(blocks, estimate);
        AddCustomers(blocks, estimate);
        AddExclusions(blocks, estimate);
        AddYear(blocks, estimate, trace);
        blocks.Add(new Heading(1, estimate.Price.Occurrences.IsEmpty ? "Price" : "Price of the first year"));
        blocks.Add(PriceTable.Of(estimate, Rows(estimate, trace)));
        AddChoices(blocks, estimate);
        AddAlternates(blocks, estimate, trace);
        var closing = Paragraphs(terms.Terms);
        if (closing.Length > 0)
            blocks.Add(new Heading(1, "Terms"));
        foreach (var paragraph in closing)
            blocks.Add(new Paragraph(paragraph));
        blocks.Add(new Signature(party.Name, info.Firm));
        return blocks.ToImmutable();
    }

    private static string Written(DateOnly date) => date.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);

    private static string[] Paragraphs(string text) =>
        text.ReplaceLineEndings("\n")
            .Split("\n\n", StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static void AddScope(ImmutableArray<Block>.Builder blocks, Estimate estimate)
    {
        if (!Array.Exists(estimate.Reckoned.Lines, l => l.Seen))
            return;
        blocks.Add(new Heading(1, "What we will do"));
        foreach (var section in Sections(estimate))
        {
            blocks.Add(new Heading(2, section.Name));
            blocks.Add(
                new Bullets(
                    [
                        .. estimate
                            .Reckoned.Items.Where(i => i.Item.Section == section.Id)
                            .SelectMany(item => Scope(item, estimate)),
                    ]
                )
            );
        }
    }

    /// <summary>What a work item is to the customer: a bullet for each way in which it is done, with the places where it is.</summary>
    private static IEnumerable<Bullet> Scope(CompiledItem item, Estimate estimate)
    {
        var everywhere = estimate.Job.Places.All(p => p.Shape is Room) ? "in every room." : "everywhere.";
        return estimate
            .Reckoned.Lines.Where(l => ReferenceEquals(l.OfItem, item) && l.Seen)
            .GroupBy(l => Said(l, estimate))
            .Select(way =>
            {
                var allowed = estimate.Priced.Where(p => p.Line is { } line && way.Contains(line)).Sum(p => p.Price.V);
                return new Bullet(
                    $"{way.Key.Wording}{(allowed > 0 ? $", an allowance of {Shown.Money(allowed, estimate.MoneyPlaces)}" : "")}:",
                    (
                        way.Count() == estimate.Job.Places.Length
                            ? everywhere
                            : string.Join(", ", way.Select(PlaceName)) + "."
                    ) + (way.Key.Note.Length > 0 ? " " + way.Key.Note : "")
                );
            });
    }

    private static (string Wording, string Note) Said(Line line, Estimate estimate)
    {
        var here = line.Cell.Of(line.OfItem.Item);
        var coats =
            estimate.Job.Proposal.Coats
            && line.OfItem.Entry is ProductionRate { Paces: var paces }
            && (paces.Length > 1 || paces[0].Coats > 1)
                ? here.Coats == 1
                    ? ", one coat"
                    : $", {Words(here.Coats)} coats"
                : "";
        // In a round it is said how often.
        var often = estimate.Price.Occurrences.IsEmpty
            ? ""
            : ", "
                + (
                    RhythmTimes.Of(estimate.Job, line.OfItem.Item) is { } rhythm
                        ? char.ToLowerInvariant(rhythm.Name[0]) + rhythm.Name[1..]
                        : "once"
                );
        var theirs = line.Supply == Supply.CustomerMaterial ? ", with material that you supply" : "";
        return (
            $"{(here.Wording.Length > 0 ? here.Wording : here.Name)}{coats}{(here.Colour.Length > 0 ? ", " + here.Colour : "")}{often}{theirs}",
            string.Join(
                " ",
                new[] { here.CustomerNote ?? line.OfItem.Entry.CustomerNote, line.Cell.Note }
                    .Select(Sentence)
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

    private static void AddExclusions(ImmutableArray<Block>.Builder blocks, Estimate estimate)
    {
        var job = estimate.Job;
        var excluded =
            from item in job.Work
            from place in job.Places
            where job.Cells.TryGetValue(new(item.Id, place.Id), out var cell) && cell.State == CellState.Excluded
            group (place.Name, job.Cells[new(item.Id, place.Id)].Note) by item;
        AddList(
            blocks,
            "What is not included",
            excluded.SelectMany(item =>
                item.GroupBy(x => x.Note).Select(g => In(job, item.Key, g.Select(x => x.Name), g.Key))
            )
        );
    }

    /// <summary>What the customer does, by place.</summary>
    private static void AddCustomers(ImmutableArray<Block>.Builder blocks, Estimate estimate) =>
        AddList(
            blocks,
            "What you will do",
            estimate
                .Reckoned.Lines.Where(l => l.Supply == Supply.Customer && !l.Hidden && !l.IsNothing)
                .GroupBy(l => (Item: l.OfItem, l.Cell.Note))
                .Select(g => In(estimate.Job, g.Key.Item.Item, g.Select(PlaceName), g.Key.Note))
        );

    private static Bullet In(Job job, WorkItem item, IEnumerable<string> places, string note) =>
        new(job.Titled(item), $"in {string.Join(", ", places)}{(note.Length == 0 ? "." : ": " + Sentence(note))}");

    private static void AddList(ImmutableArray<Block>.Builder blocks, string heading, IEnumerable<Bullet> items)
    {
        var bullets = items.ToImmutableArray();
        if (bullets.IsEmpty)
            return;
        blocks.Add(new Heading(1, heading));
        blocks.Add(new Bullets(bullets));
    }

    /// <summary>Words with a stop at their end, unless they have one or there are none.</summary>
    private static string Sentence(string text) =>
        text.Trim() is { Length: > 0 } words
            ? words[^1] is '.' or '!' or '?'
                ? words
                : words + "."
            : "";

    /// <summary>What comes back, how often and at what price, and what a year and a month of it come to.</summary>
    private static void AddYear(ImmutableArray<Block>.Builder blocks, Estimate estimate, Trace trace)
    {
        if (Year.Of(estimate, trace) is not { } year)
            return;
        var (price, terms) = (estimate.Price, estimate.Job.Round);
        var steps = price.Steps.TakeWhile(s => s.Key != YearPass.Key);
        blocks.Add(new Heading(1, "A year of it"));
        blocks.Add(
            PriceTable.Of(
                estimate,
                [
                    .. steps.Select(s => new PriceRow(
                        s.IsDiscount ? RowKind.Discount : RowKind.Part,
                        s.Label,
                        s.Key == SuppliesPass.Key ? "" : s.Note,
                        s.Amount.V,
                        s.Amount.Path
                    )),
                    new(RowKind.Subtotal, "A year, before tax", "", year.OfYear.V, year.OfYear.Path),
                ]
            )
        );
        string Money(Total of) => Shown.Money(of.V, estimate.MoneyPlaces);
        var words = terms.Billing switch
        {
            RoundBilling.Level when year.Last.V == year.Month.V => $"Billed at {Money(year.Month)} a month.",
            RoundBilling.Level => $"Billed at {Money(year.Month)} a month, in the twelfth {Money(year.Last)}.",
            RoundBilling.OverMonths => "Billed by the month, seasonal work over its months.",
            _ => "Billed by the month, for what was done in it.",
        };
        if (year.FirstDay is { } first)
            words += $" It begins on {Written(first)}.";
        if (year.Once is { } once)
            words += $" What is done once, at the start, is {Money(once.Price)}.";
        if (terms.Rise != 0)
            words +=
                $" Each year after is {Rounding.Text(decimal.Abs(terms.Rise))} % {(terms.Rise > 0 ? "dearer" : "less")} than the one before.";
        blocks.Add(new Paragraph(words));
    }

    /// <summary>Most options of a choice that stand on paper.</summary>
    private const int MostOptions = 12;

    /// <summary>What the customer may choose between, each against what is included; who sells it only where that is to be read.</summary>
    private static void AddChoices(ImmutableArray<Block>.Builder blocks, Estimate estimate)
    {
        var offered = estimate.Job.Choices.Where(c => !c.Hidden).ToArray();
        if (offered.Length == 0)
            return;
        // Each option is the whole job once more: its workings are made when they are asked for.
        var choices = Choices.Of(estimate, Trace.Silent);
        var rows = ImmutableArray.CreateBuilder<PriceRow>();
        foreach (var choice in offered)
        {
            var more = choice.Options.Length - MostOptions;
            rows.Add(new(RowKind.Group, choice.Name, more > 0 ? $"and {more} others at their prices" : "", null, null));
            // What is included and what is taken stand in any case.
            foreach (
                var option in choice
                    .Options.OrderByDescending(o => o.Id == choice.Included || o.Id == choice.Taken)
                    .Take(MostOptions)
                    .OrderBy(choice.Options.IndexOf)
            )
                if (choices.Price(choice, option) is { Price: { } price })
                    rows.Add(
                        new(
                            RowKind.Part,
                            option.Name,
                            string.Join(
                                ", ",
                                new[]
                                {
                                    option.Id == choice.Included ? "included" : "",
                                    option.Id == choice.Taken && choice.Taken != choice.Included
                                        ? "chosen, in the price"
                                        : "",
                                    choice.SupplierShown ? $"{option.Supplier} {option.Code}".Trim() : "",
                                }.Where(w => w.Length > 0)
                            ),
                            price.V,
                            price.Path
                        )
                    );
        }
        blocks.Add(new Heading(1, "Choices"));
        blocks.Add(
            new Paragraph(
                "Each is the difference to what is included, before tax and for itself; several together may come to a little more or less."
            )
        );
        blocks.Add(PriceTable.Of(estimate, rows.ToImmutable()));
    }

    private static void AddAlternates(ImmutableArray<Block>.Builder blocks, Estimate estimate, Trace trace)
    {
        var all = Alternates.Priced(estimate, trace);
        var rows = all.Select(a => new PriceRow(
                RowKind.Part,
                a.Offered.Name,
                MadeOf(estimate.Job, a.Offered),
                a.Price.V,
                a.Path
            ))
            .ToImmutableArray();
        if (rows.IsEmpty)
            return;
        blocks.Add(new Heading(1, "Alternates, not in the price"));
        var (adds, deducts) = (
            all.Any(a => a.Offered.Kind == AlternateKind.Add),
            all.Any(a => a.Offered.Kind == AlternateKind.Deduct)
        );
        blocks.Add(
            new Paragraph(
                !deducts ? "Each of these can be added at its price before tax."
                : !adds ? "Each of these can be left out for its price before tax."
                : "Each of these can be added, or left out where its price is below zero, at its price before tax."
            )
        );
        blocks.Add(PriceTable.Of(estimate, rows));
    }

    /// <summary>What an alternate is made of: where it is done, and of one with a name also what is done.</summary>
    private static string MadeOf(Job job, Offered offered) =>
        offered.Named is null
            ? string.Join(", ", offered.Places)
            : $"{string.Join(", ", offered.Work.Select(w => job.Titled(w.Item)))}: {string.Join(", ", offered.Places)}";

    /// <summary>Sections that the customer sees something of; all, where nothing is to be seen at all.</summary>
    private static IEnumerable<Section> Sections(Estimate estimate)
    {
        var seen = Visible(estimate).Select(l => l.Item.Item.Section).ToHashSet();
        return estimate.Job.Sections.Where(s => seen.Contains(s.Id));
    }

    private static IEnumerable<Line> Visible(Estimate estimate) =>
        Array.Exists(estimate.Reckoned.Lines, l => l.Seen)
            ? estimate.Reckoned.Lines.Where(l => l.Seen)
            : estimate.Reckoned.Lines;

    private static string PlaceName(Line line) =>
        line.Measures.Place is { Count: > 1 } place ? $"{place.Name} ×{place.Count}" : line.Measures.Place.Name;

    private static IEnumerable<PriceRow> Rows(Estimate estimate, Trace trace)
    {
        var (job, price) = (estimate.Job, estimate.Price);
        var discounts = price.Steps.Where(s => s.IsDiscount).ToArray();
        var spread =
            job.Proposal.Detail == Detail.Total ? null : Spread.Of(estimate, trace, list: discounts.Length > 0);
        PriceRow Part(string label, string detail, Func<Line, bool> within, FigurePath path) =>
            new(RowKind.Part, label, detail, spread!.Sum(estimate, within, label, path, trace).V, path.ToString());
        switch (job.Proposal.Detail)
        {
            case Detail.Section:
                foreach (var section in Sections(estimate))
                    yield return Part(
                        section.Name,
                        string.Join(
                            ", ",
                            Visible(estimate)
                                .Where(l => l.Item.Item.Section == section.Id)
                                .Select(l => l.Item.Item.Name)
                                .Distinct()
                        ),
                        l => l.Item.Item.Section == section.Id,
                        new("sections", section.Id, "price")
                    );
                break;
            case Detail.Place:
                var group = "";
                foreach (var place in job.Places)
                {
                    var lines = Visible(estimate).Where(l => l.Measures.Place.Id == place.Id).ToArray();
                    if (lines.Length == 0)
                        continue;
                    if (place.Group != group && place.Group.Length > 0)
                        yield return new(RowKind.Group, place.Group, "", null, null);
                    group = place.Group;
                    yield return Part(
                        PlaceName(lines[0]),
                        string.Join(
                            "; ",
                            lines
                                .GroupBy(l => job.SectionOf(l.Item.Item))
                                .Select(g =>
                                    $"{g.Key.ToLowerInvariant()}: {string.Join(", ", g.Select(l => l.Item.Item.Name.ToLowerInvariant()))}"
                                )
                        ),
                        l => l.Measures.Place.Id == place.Id,
                        new("places", place.Id, "price")
                    );
                }
                break;
        }
        var supplies = price.Step(SuppliesPass.Key);
        if (spread is not null && spread.Other.V - (supplies?.Amount.V ?? 0) is var other and not 0)
            yield return new(RowKind.Part, "Other work", "", other, null);
        if (spread is not null && supplies is not null)
            yield return new(RowKind.Part, supplies.Label, "", supplies.Amount.V, supplies.Amount.Path);
        if (spread is { Contingency.V: not 0 })
            yield return new(RowKind.Part, "Contingency", "", spread.Contingency.V, "price/contingency");
        foreach (var discount in spread is null ? [] : discounts)
            yield return new(
                RowKind.Discount,
                "Discount",
                price
                    .Draft
                    .Terms
                    .Discounts[int.Parse(discount.Key["discounts/".Length..], CultureInfo.InvariantCulture) - 1]
                    .Reason,
                discount.Amount.V,
                discount.Amount.Path
            );
        foreach (var step in price.Steps.SkipWhile(s => s.Amount.Path != price.BeforeTax.Path))
        {
            // A tax that falls on nothing is not charged, and the customer need not read of it.
            if (step.Kind == StepKind.Tax && price.Taxes.First(t => t.Amount == step.Amount).Tax?.On.IsEmpty != false)
                continue;
            var kind =
                step.Amount.Path == price.Total.Path ? RowKind.Total
                : step.Kind != StepKind.Sum ? RowKind.Tax
                : RowKind.Subtotal;
            var label = kind == RowKind.Total ? "Total" : step.Label;
            yield return new(kind, label, kind == RowKind.Tax ? step.Note : "", step.Amount.V, step.Amount.Path);
        }
    }
}
