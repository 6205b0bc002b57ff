using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>An invoice or a credit note as it is read, made of the same blocks as a proposal (architecture decision 20).</summary>
public static class InvoicePaper
{
    /// <summary>The document of one.</summary>
    /// <param name="invoice">The invoice or the credit note.</param>
    /// <param name="before">What was billed before it.</param>
    /// <param name="head">The head of the accepted proposal: for whom, where.</param>
    /// <param name="reference">Number of the job, and what was accepted when.</param>
    /// <param name="brand">How days and numbers are written.</param>
    /// <param name="words">What stands at its end; empty for nothing.</param>
    public static Document Of(
        Invoice invoice,
        BilledJob before,
        Letterhead head,
        string reference,
        Brand brand,
        string words
    )
    {
        var paper = new Writer(invoice, before, brand);
        var kind = invoice.Credits is null ? "Invoice" : "Credit note";
        return new(
            head with
            {
                Title = $"{kind} {invoice.Number}",
                Subtitle = $"{head.Title} · {reference}",
                Reference = $"{kind} {invoice.Number} · {brand.Writes.Day(invoice.Issued)}",
                Validity = invoice.Credits is null ? $"due {brand.Writes.Day(invoice.Due)}" : "",
            },
            [
                Block(1, BlockKind.Price, [.. paper.Sums()]),
                Block(2, BlockKind.Price, invoice.Credits is null ? [.. paper.Stands()] : []),
                Block(3, BlockKind.Letter, [.. paper.Payable(), .. Paragraphs(words)]),
            ]
        );
    }

    private static IEnumerable<Element> Paragraphs(string words) =>
        words.Split('\n').Where(w => w.Trim().Length > 0).Select(w => Writing.Plain(w.Trim()));

    private static Block Block(int number, BlockKind kind, ImmutableArray<Element> made) =>
        new(DerivedId.Of($"invoice/{number}"), kind, "", false, false, false, WordsOf.Nobody, [], made);

    private sealed record Writer(Invoice Invoice, BilledJob Before, Brand Brand)
    {
        private AgreedContract Agreed => Before.Agreed;

        private Part Part => Invoice.Part;

        private string Money(decimal amount) => Brand.Writes.Number(Shown.Money(amount, Agreed.Places));

        private PriceRow Row(RowKind kind, string label, string detail, decimal? amount) =>
            new(kind, label, detail, amount, null) { Shown = amount is { } of ? Money(of) : "" };

        private string TaxOf(int category)
        {
            var of = Agreed.Categories[category];
            return of.Taxes.IsEmpty
                ? of.Reason
                : string.Join(", ", of.Taxes.Select(t => $"{t.Name} {Brand.Writes.Number(Shown.Typed(t.Rate))} %"));
        }

        /// <summary>A row for each category in which something is.</summary>
        private IEnumerable<PriceRow> Rows(string label, ByCategory of)
        {
            for (var i = 0; i < Agreed.Categories.Length; i++)
                if (of[i] != 0)
                    yield return Row(RowKind.Part, label, TaxOf(i), of[i]);
        }

        /// <summary>What is billed, its taxes, and what it comes to.</summary>
        public IEnumerable<Element> Sums()
        {
            var (before, agreed) = (Before, Agreed);
            var rows = ImmutableArray.CreateBuilder<PriceRow>();
            if (Invoice.Credits is { } credits)
                rows.Add(
                    Row(
                        RowKind.Group,
                        $"Credits {(Invoice.InPart ? "a part of " : "")}invoice {before.Invoices.First(i => i.Id == credits).Number}{(Invoice.InPart ? "" : " whole")}",
                        Invoice.Reason,
                        null
                    )
                );
            rows.AddRange(Rows(Invoice.Label, Part.Work));
            rows.AddRange(Rows($"{Invoice.Label}, on account", Part.OnAccount));
            var accounts = string.Join(
                ", ",
                before.Standing.Where(i => i.Part.OnAccount.Sum != 0).Select(i => i.Number)
            );
            for (var i = 0; i < agreed.Categories.Length; i++)
                if (Part.Used[i] != 0)
                    rows.Add(
                        Row(
                            RowKind.Part,
                            Part.Used[i] > 0 == Invoice.Credits is null
                                ? $"Used of what was billed on account ({accounts})"
                                : "Used before of what was credited since",
                            TaxOf(i),
                            -Part.Used[i]
                        )
                    );
            rows.Add(Row(RowKind.Subtotal, "Before tax", "", Part.Net.Sum));
            foreach (var tax in agreed.Categories.SelectMany(c => c.Taxes).DistinctBy(t => t.Id))
            {
                var net = Part.Net;
                var on = Enumerable
                    .Range(0, agreed.Categories.Length)
                    .Where(i => agreed.Categories[i].Taxes.Any(t => t.Id == tax.Id))
                    .Sum(i => net[i]);
                if (on != 0)
                    rows.Add(
                        Row(
                            RowKind.Tax,
                            $"{tax.Name} {Brand.Writes.Number(Shown.Typed(tax.Rate))} %",
                            $"on {Money(on)}",
                            Rounding.Money(on * tax.Rate / 100m, agreed.Places)
                        )
                    );
            }
            if (Part.Rounding != 0)
                rows.Add(Row(RowKind.Tax, "Rounding", "of what was agreed, without tax", Part.Rounding));
            var held = Invoice.Credits is null && Part.Retained != 0;
            rows.Add(
                Row(
                    RowKind.Total,
                    Invoice.Credits is not null ? "Credited"
                        : held ? "Total"
                        : "To be paid",
                    "with tax",
                    Part.Total
                )
            );
            if (held)
            {
                rows.Add(Row(RowKind.Part, "Retained", "payable when it is released", Part.Retained));
                rows.Add(Row(RowKind.Total, "Payable now", "", Part.PayableNow));
            }
            yield return new PriceTable(agreed.Currency, rows.ToImmutable());
            if (
                Invoice is { Credits: null, Bills: { By: BillsBy.Step, Step: { } step } }
                && agreed.Steps[step].Total is var printed
                && printed != Part.Total
                && Part.Net.Sum == agreed.Steps[step].Net
            )
                yield return Writing.Plain(
                    $"The payment plan says {Money(printed)} with tax for this step. Tax is reckoned on each invoice, and differs by its cents."
                );
        }

        /// <summary>How the contract stands with it, before tax; of work done to date as a valuation statement (M23).</summary>
        public IEnumerable<Element> Stands()
        {
            var billing = Before.Billing;
            var sum = billing.Contract.Sum.Sum;
            yield return new PriceTable(
                Agreed.Currency,
                Invoice.Bills.By is BillsBy.Percent or BillsBy.Done
                    ? [.. Valued(Valuation.Of(billing, Part), sum)]
                    :
                    [
                        Row(RowKind.Group, "How the contract stands, before tax", "", null),
                        Row(
                            RowKind.Part,
                            "Contract sum",
                            Agreed.Changes.IsEmpty ? "" : $"with {Counted.Of(Agreed.Changes.Length, "change order")}",
                            sum
                        ),
                        Row(RowKind.Part, "Billed before", "", billing.Billed.Sum),
                        Row(RowKind.Part, "This invoice", "", Part.Net.Sum),
                        Row(RowKind.Part, "Not billed yet", "", sum - billing.Billed.Sum - Part.Net.Sum),
                    ]
            );
        }

        private IEnumerable<PriceRow> Valued(Valuation valued, decimal sum)
        {
            yield return Row(RowKind.Group, "Valuation statement", "before tax where nothing else is said", null);
            yield return Row(RowKind.Part, "Contract sum", "", sum);
            yield return Row(RowKind.Part, "Value of work to date", "", valued.Value);
            yield return Row(RowKind.Part, "Previous", "", valued.Previous);
            yield return Row(RowKind.Part, "This period", "", valued.Period);
            if (valued.Used != 0)
                yield return Row(RowKind.Part, "Used from what was billed on account", "", valued.Used);
            yield return Row(RowKind.Part, "Net", "", valued.Net);
            yield return Row(RowKind.Part, "Tax", "", valued.Tax);
            if (valued.RetainedToDate != 0)
            {
                yield return Row(RowKind.Part, "Retained to date", "", valued.RetainedToDate);
                yield return Row(RowKind.Part, "Of it now", "", valued.RetainedNow);
            }
            yield return Row(RowKind.Part, "Payable", "with tax", valued.Payable);
            yield return Row(RowKind.Part, "Balance", "contract sum less value", valued.Balance);
        }

        /// <summary>When it was supplied, and until when it is to be paid.</summary>
        public IEnumerable<Element> Payable()
        {
            if (Invoice.Credits is null)
            {
                if (Invoice is { EarlyUntil: { } until, EarlyPercent: var percent })
                {
                    var (saved, net, tax) = LateAndEarly.Discount(Part, percent, Agreed.Places);
                    yield return Writing.Plain(
                        $"Paid until {Brand.Writes.Day(until)} it is {Money(Part.PayableNow - saved)}: {Brand.Writes.Number(Shown.Typed(percent))} % off, {Money(saved)} ({Money(net)} and tax {Money(tax)})."
                    );
                }
                yield return Writing.Plain(
                    $"Day of supply {Brand.Writes.Day(Invoice.Supplied)}. Please pay by {Brand.Writes.Day(Invoice.Due)} and name the invoice {Invoice.Number}."
                );
            }
        }
    }
}
