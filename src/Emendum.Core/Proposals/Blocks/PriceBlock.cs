using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>The price, as finely as the job shows it. The parts shown sum to the price before tax, and that with the tax to the total (estimating model §9).</summary>
internal static class PriceBlock
{
    public static IEnumerable<Element> Of(Writing writing) => [writing.Table(Rows(writing))];

    /// <summary>Its rows.</summary>
    public static IEnumerable<PriceRow> Rows(Writing writing)
    {
        var (terms, price) = (writing.Terms, writing.Estimate.Price);
        if (terms.Detail == Detail.Total)
            return Sums(writing);
        // Without a schedule there are no rows of it.
        var detail = terms.Detail == Detail.Schedule && writing.Job.Schedule.IsEmpty ? Detail.Section : terms.Detail;
        var apart =
            detail == Detail.Schedule || (detail == Detail.Line && terms.UnitPrices) ? Apart.Adjustments
            : price.Steps.Any(s => s.IsDiscount) ? Apart.Discounts
            : Apart.Nothing;
        var spread = Spread.Of(writing.Estimate, writing.Trace, apart);
        var parts = new Parts(writing, spread);
        return
        [
            .. detail switch
            {
                Detail.Place => parts.ByPlace(),
                Detail.Line => parts.ByLine(),
                Detail.Headline => parts.ByHeadline(),
                Detail.Schedule => parts.BySchedule(),
                _ => parts.BySection(),
            },
            .. Beside(writing, spread, apart),
            .. Sums(writing),
        ];
    }

    /// <summary>Rows of what stands in lines that the customer sees.</summary>
    private sealed class Parts(Writing writing, Spread spread)
    {
        private readonly Line[] lines = writing.Estimate.Reckoned.Lines;
        private readonly HashSet<Line> visible = [.. writing.Visible];

        public IEnumerable<PriceRow> BySection() =>
            writing.Sections.Select(section => OfSection(section, _ => true, "price"));

        /// <summary>What of a section a condition holds for.</summary>
        private PriceRow OfSection(Section section, Func<Line, bool> holds, string leaf)
        {
            bool Within(Line line) => line.Item.Item.Section == section.Id && holds(line);
            return Part(
                section.Name,
                string.Join(", ", At(Within).Select(l => l.Item.Item.Name).Distinct()),
                Within,
                new("sections", section.Id, leaf)
            );
        }

        /// <summary>The customer's rows with their numbers and quantities, each at the price of the work that is in it; what is in none, by section after them.</summary>
        public IEnumerable<PriceRow> BySchedule()
        {
            var schedule = writing.Job.Schedule;
            var rows = new ScheduleRows(writing.Job);
            int? RowOf(Line line) => rows.At(line.Item.Item.Id, line.Measures.Place);
            var at = Enumerable
                .Range(0, lines.Length)
                .Where(i => visible.Contains(lines[i]))
                .ToLookup(i => RowOf(lines[i]) ?? -1);
            for (var row = 0; row < schedule.Length; row++)
                yield return schedule[row].IsHeading
                    ? new(RowKind.Group, schedule[row].Wording, "", null, null) { Number = schedule[row].Number }
                    : OfSchedule(schedule[row], [.. at[row]]);
            if (at.Contains(-1))
            {
                yield return new(RowKind.Group, "Not in your schedule", "", null, null);
                foreach (var section in writing.Sections)
                    if (at[-1].Any(i => lines[i].Item.Item.Section == section.Id))
                        yield return OfSection(section, l => visible.Contains(l) && RowOf(l) is null, "notInSchedule");
            }
            foreach (var left in Rounded())
                yield return left;
        }

        /// <summary>A row of the schedule: the price of its work by the customer's quantity, in whole cents a unit, and that times the quantity.</summary>
        private PriceRow OfSchedule(ScheduleItem item, int[] of)
        {
            var trace = writing.Trace;
            var row = new PriceRow(RowKind.Part, item.Wording, "", 0, null)
            {
                Shown = "not included",
                Number = item.Number,
                Quantity = writing.Number(Shown.Typed(item.Quantity)) + " " + item.Unit,
                Of = new(item.Quantity, item.Unit, null),
                Hours =
                    writing.Terms.Hours && of.Sum(i => writing.Estimate.Reckoned.HoursInYear(i).V) is > 0 and var hours
                        ? writing.Hours(hours)
                        : "",
            };
            if (of.Length == 0)
                return row;
            var called = $"{item.Number} {item.Wording}".Trim();
            var sum = trace.Make(
                Figures.Sum.Of(of.Select(i => spread.Shown[i])),
                "",
                called + ": price of its work",
                new("schedule", item.Id, "work")
            );
            var (amount, unit) = (sum, default(Val?));
            if (item.Quantity != 0)
            {
                var places = writing.Estimate.MoneyPlaces;
                var theirs = trace.Typed(item.Quantity, "", "the schedule's quantity", null, "schedule", item.Id);
                unit = trace.Make(
                    (sum / theirs).Money(places),
                    "",
                    called + ": unit price",
                    new("schedule", item.Id, "unitPrice")
                );
                amount = (unit.Value * theirs).Money(places);
                rounded.Add(sum - amount);
            }
            var path = new FigurePath("schedule", item.Id, "price");
            amount = trace.Make(amount, "", called + ": price", path);
            return row with
            {
                Amount = amount.V,
                Shown = writing.Money(amount.V),
                Figure = path.ToString(),
                UnitPrice = unit is { } each ? writing.Money(each.V) : "",
                Of = row.Of! with { UnitPrice = unit?.V },
            };
        }

        public IEnumerable<PriceRow> ByPlace()
        {
            var job = writing.Job;
            var at = visible.ToLookup(l => l.Measures.Place.Id);
            var group = "";
            foreach (var place in job.Places)
            {
                Line[] here = [.. lines.Where(l => l.Measures.Place.Id == place.Id && visible.Contains(l))];
                if (here.Length == 0)
                    continue;
                if (place.Group != group && place.Group.Length > 0)
                    yield return new(RowKind.Group, place.Group, "", null, null);
                group = place.Group;
                yield return Part(
                    Writing.PlaceName(here[0]),
                    string.Join(
                        "; ",
                        here.GroupBy(l => job.SectionOf(l.Item.Item))
                            .Select(g =>
                                $"{g.Key.ToLowerInvariant()}: {string.Join(", ", g.Select(l => l.Item.Item.Name.ToLowerInvariant()))}"
                            )
                    ),
                    l => l.Measures.Place.Id == place.Id,
                    new("places", place.Id, "price")
                );
            }
        }

        /// <summary>Sections that a headline bundles, where its first one stands; others by themselves.</summary>
        public IEnumerable<PriceRow> ByHeadline()
        {
            var done = new HashSet<Guid>();
            foreach (var section in writing.Sections)
            {
                if (!done.Add(section.Id))
                    continue;
                var headlines = writing.Terms.Headlines;
                var number = Enumerable
                    .Range(0, headlines.Length)
                    .FirstOrDefault(n => headlines[n].Sections.Contains(section.Id), -1);
                if (number < 0)
                {
                    yield return Part(
                        section.Name,
                        "",
                        l => l.Item.Item.Section == section.Id,
                        new("sections", section.Id, "price")
                    );
                    continue;
                }
                var bundled = headlines[number].Sections.ToHashSet();
                done.UnionWith(bundled);
                yield return Part(
                    headlines[number].Words,
                    "",
                    l => bundled.Contains(l.Item.Item.Section),
                    new("headlines", (number + 1).ToString(CultureInfo.InvariantCulture) + "/price")
                );
            }
        }

        /// <summary>Each line by itself: under its section, and where the same work is done in several places, under that.</summary>
        public IEnumerable<PriceRow> ByLine()
        {
            foreach (var section in writing.Sections)
            {
                yield return new(RowKind.Group, section.Name, "", null, null);
                var ways = Enumerable
                    .Range(0, lines.Length)
                    .Where(i => lines[i].Item.Item.Section == section.Id && visible.Contains(lines[i]))
                    .GroupBy(i => (lines[i].OfItem, ScopeBlock.Said(lines[i], writing).Wording));
                foreach (var way in ways)
                {
                    int[] all = [.. way];
                    if (all.Length > 1)
                        yield return new(RowKind.Work, way.Key.Wording, "", null, null);
                    foreach (var i in all)
                        yield return all.Length > 1
                            ? OfLine(i, Writing.PlaceName(lines[i]), "")
                            : OfLine(i, way.Key.Wording, Writing.PlaceName(lines[i]));
                }
            }
            foreach (var left in Rounded())
                yield return left;
        }

        /// <summary>What unit prices in whole cents leave, in a row of its own.</summary>
        private IEnumerable<PriceRow> Rounded()
        {
            if (rounded.Total.V == 0)
                yield break;
            var path = new FigurePath(
                "price",
                writing.Terms.Detail == Detail.Schedule ? "scheduleRounding" : "unitRounding"
            );
            yield return writing.Row(
                RowKind.Part,
                "Rounding of unit prices",
                "",
                writing.Trace.Make(rounded.Total, "", "Rounding of unit prices", path).V,
                path.ToString()
            );
        }

        /// <summary>What unit prices in whole cents leave, so far.</summary>
        private readonly Sum rounded = new();

        private PriceRow OfLine(int i, string label, string detail)
        {
            var (terms, line) = (writing.Terms, lines[i]);
            var path = new FigurePath(
                "lines",
                line.OfItem.Item.Id,
                line.Measures.Place.Id,
                terms.UnitPrices ? "atUnitPrice" : "printed"
            );
            var (shown, each) = (spread.Shown[i], "");
            if (terms.UnitPrices && line.Quantity.V != 0)
            {
                var places = writing.Estimate.MoneyPlaces;
                var unit = (shown / line.Quantity).Money(places);
                each = writing.Money(unit.V);
                var amount = (unit * line.Quantity).Money(places);
                rounded.Add(shown - amount);
                shown = amount;
            }
            var name = $"{line.Item.Item.Name}, {line.Measures.Place.Name}";
            return writing.Row(
                RowKind.Part,
                label,
                detail,
                writing.Trace.Make(shown, "", name, path).V,
                path.ToString()
            ) with
            {
                Quantity =
                    (terms.Quantities || terms.UnitPrices) && line.Quantity.V != 0
                        ? writing.Amount(line.Quantity.V, line.OfItem.SymbolIn(writing.Job.Units))
                        : "",
                UnitPrice = each,
                Hours = HoursOf(i),
            };
        }

        private IEnumerable<Line> At(Func<Line, bool> within) => lines.Where(l => visible.Contains(l) && within(l));

        private string HoursOf(int line) =>
            writing.Terms.Hours && writing.Estimate.Reckoned.HoursInYear(line).V is > 0 and var hours
                ? writing.Hours(hours)
                : "";

        private PriceRow Part(string label, string detail, Func<Line, bool> within, FigurePath path)
        {
            var hours = writing.Terms.Hours
                ? Enumerable
                    .Range(0, lines.Length)
                    .Where(i => within(lines[i]))
                    .Sum(i => writing.Estimate.Reckoned.HoursInYear(i).V)
                : 0;
            return writing.Row(
                RowKind.Part,
                label,
                detail,
                spread.Sum(writing.Estimate, within, label, path, writing.Trace).V,
                path.ToString()
            ) with
            {
                Hours = hours > 0 ? writing.Hours(hours) : "",
            };
        }
    }

    /// <summary>What is in the price before tax and in no line that is shown.</summary>
    private static IEnumerable<PriceRow> Beside(Writing writing, Spread spread, Apart apart)
    {
        var price = writing.Estimate.Price;
        var supplies = price.Step(SuppliesPass.Key);
        if (spread.Other.V - (supplies?.Amount.V ?? 0) is var other and not 0)
            yield return writing.Row(RowKind.Part, "Other work", "", other, null);
        if (supplies is not null)
            yield return writing.Row(RowKind.Part, supplies.Label, "", supplies.Amount.V, supplies.Amount.Path);
        if (spread is { Contingency.V: not 0 })
            yield return writing.Row(RowKind.Part, "Contingency", "", spread.Contingency.V, "price/contingency");
        foreach (var step in price.Steps.Where(s => Spread.StandsApart(s, apart)))
            yield return step.IsDiscount
                ? writing.Row(RowKind.Discount, "Discount", Reason(price, step), step.Amount.V, step.Amount.Path)
                : writing.Row(
                    RowKind.Part,
                    step.Label,
                    step.Key == "adjustment" ? step.Note : "",
                    step.Amount.V,
                    step.Amount.Path
                );
    }

    private static string Reason(Price price, PriceStep step) =>
        price
            .Draft
            .Terms
            .Discounts[int.Parse(step.Key["discounts/".Length..], CultureInfo.InvariantCulture) - 1]
            .Reason;

    /// <summary>The price before tax, the taxes, and what the customer pays.</summary>
    public static IEnumerable<PriceRow> Sums(Writing writing)
    {
        var price = writing.Estimate.Price;
        foreach (var step in price.Steps.SkipWhile(s => s.Amount.Path != price.BeforeTax.Path))
        {
            var tax = price.Taxes.FirstOrDefault(t => t.Amount == step.Amount);
            // A tax that falls on nothing is not charged, and the customer need not read of it.
            if (step.Kind == StepKind.Tax && tax?.Tax?.On.IsEmpty != false)
                continue;
            var kind =
                step.Amount.Path == price.Total.Path ? RowKind.Total
                : step.Kind != StepKind.Sum ? RowKind.Tax
                : RowKind.Subtotal;
            yield return writing.Row(
                kind,
                kind == RowKind.Total ? "Total" : step.Label,
                tax is null ? "" : OfTax(writing, tax),
                step.Amount.V,
                step.Amount.Path
            );
        }
    }

    /// <summary>Its rate and what it falls on; or why it is not charged.</summary>
    private static string OfTax(Writing writing, TaxAmount tax)
    {
        if (writing.Estimate.Price.Draft.Terms.Exemption is { } exemption)
            return "not charged: " + exemption.Reason;
        var on = tax.Tax!.On.Length == Tax.Everything.Length ? "the price" : TaxPass.InWords(tax.Tax.On);
        return $"{writing.Number(Rounding.Text(tax.Tax.Rate))} % on {on}, {writing.Money(tax.Taxed.V)}";
    }
}
