using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A change order as it is read, made of the same blocks as a proposal (architecture decision 20), and what it is kept by as a revision.</summary>
public static class ChangePaper
{
    /// <summary>The document of one.</summary>
    /// <param name="change">The change order.</param>
    /// <param name="contract">The contract before it.</param>
    /// <param name="head">The head of the accepted proposal: for whom, where.</param>
    /// <param name="reference">Number of the job, and what was accepted when.</param>
    /// <param name="brand">How days and numbers are written.</param>
    /// <param name="words">What the firm says about it; empty for nothing.</param>
    /// <param name="today">The firm's day.</param>
    /// <param name="until">The last day on which it can be accepted; null for no end.</param>
    public static Document Of(
        ChangeOrder change,
        AgreedContract contract,
        Letterhead head,
        string reference,
        Brand brand,
        string words,
        DateOnly today,
        DateOnly? until
    )
    {
        var paper = new Writer(change, contract, brand);
        return new(
            head with
            {
                Title = $"Change order {change.Number}: {change.Title}",
                Subtitle = $"{head.Title} · {reference}",
                Reference = $"Change order {change.Number} · {brand.Writes.Day(today)}",
                Validity = until is { } day ? $"Prices hold until {brand.Writes.Day(day)}" : "",
            },
            [
                Block(1, BlockKind.Letter, "", [.. Paragraphs(words)]),
                Block(2, BlockKind.Price, "What changes", [paper.Changes()]),
                Block(3, BlockKind.Price, "The contract sum", [paper.Sums()]),
                Block(
                    4,
                    BlockKind.Signatures,
                    "",
                    [
                        Writing.Plain(
                            "With the signature this change becomes part of the contract; everything else in it stays as it was agreed."
                        ),
                        new Signature(head.Customer.Length > 0 ? head.Customer : "The customer", "Date, signature"),
                        new Signature(head.Firm.Length > 0 ? head.Firm : "The firm", "Date, signature"),
                    ]
                ),
            ]
        );
    }

    /// <summary>What it is compared and listed by.</summary>
    public static RevisionFigures Figures(ChangeOrder change, int places) =>
        new(
            [.. change.Lines.Select(l => new RevisionLine(l.Work, l.Place, l.Name, l.At, 0, "", 0, l.Says, l.Amount))],
            [.. change.Steps.Select(s => new RevisionStep(s.Label, s.Label, "", s.Amount))],
            change.Net,
            change.Total,
            change.Hours,
            null,
            places
        );

    private static IEnumerable<Element> Paragraphs(string words) =>
        words.Split('\n').Where(w => w.Trim().Length > 0).Select(w => Writing.Plain(w.Trim()));

    private static Block Block(int number, BlockKind kind, string title, ImmutableArray<Element> made) =>
        new(DerivedId.Of($"change/{number}"), kind, title, title.Length > 0, false, false, WordsOf.Nobody, [], made);

    private sealed record Writer(ChangeOrder Change, AgreedContract Contract, Brand Brand)
    {
        private string Money(decimal amount) => Brand.Writes.Number(Shown.Money(amount, Contract.Places));

        private PriceRow Row(RowKind kind, string label, string detail, decimal? amount) =>
            new(kind, label, detail, amount, null) { Shown = amount is { } of ? Money(of) : "" };

        /// <summary>What is added, dropped and repriced, each with its money; its taxes, and what it comes to.</summary>
        public PriceTable Changes()
        {
            var rows = ImmutableArray.CreateBuilder<PriceRow>();
            (string Title, ChangeKind Kind)[] groups =
            [
                ("Added", ChangeKind.Added),
                ("More or less, at the price of a unit", ChangeKind.Remeasured),
                ("Done otherwise", ChangeKind.Repriced),
                ("Not done any more", ChangeKind.Dropped),
            ];
            foreach (var (title, kind) in groups)
            {
                var lines = Change.Lines.Where(l => l.Kind == kind && !l.Hidden).ToList();
                if (lines.Count == 0)
                    continue;
                rows.Add(Row(RowKind.Group, title, "", null));
                foreach (var line in lines)
                    rows.Add(Row(RowKind.Part, line.Name, $"{line.At}: {Brand.Writes.Number(line.Says)}", line.Amount));
            }
            var hidden = Change.Lines.Where(l => l.Hidden).Sum(l => l.Amount);
            if (hidden != 0)
                rows.Add(Row(RowKind.Part, "Other work", "", hidden));
            foreach (var step in Change.Steps)
                rows.Add(
                    Row(
                        RowKind.Part,
                        step.Label,
                        step.Label == ChangeMaking.GoodsStay
                            ? string.Join("; ", Change.Goods.Select(g => $"{g.Name}, {g.Amount}"))
                            : "",
                        step.Amount
                    )
                );
            rows.Add(Row(RowKind.Subtotal, "This change, before tax", "", Change.Net));
            var amounts = new ByCategory([.. Change.Categories.Select(c => c.Amount)]);
            foreach (var tax in Change.Categories.SelectMany(c => c.Taxes).DistinctBy(t => t.Id))
            {
                var on = Change.Categories.Where(c => c.Taxes.Any(t => t.Id == tax.Id)).Sum(c => c.Amount);
                rows.Add(
                    Row(
                        RowKind.Tax,
                        $"{tax.Name} {Brand.Writes.Number(Shown.Typed(tax.Rate))} %",
                        amounts.Amounts.Length > 1 ? $"on {Money(on)}" : "",
                        Rounding.Money(on * tax.Rate / 100m, Contract.Places)
                    )
                );
            }
            rows.Add(Row(RowKind.Total, Change.Total < 0 ? "Taken off" : "This change", "with tax", Change.Total));
            return new(Contract.Currency, rows.ToImmutable());
        }

        /// <summary>The contract sum before and after.</summary>
        public PriceTable Sums()
        {
            var (signed, earlier) = (
                Contract.Categories.Sum(c => c.Amount),
                Contract.Changes.Select(c => (c.Number, Amount: c.Amounts.Sum)).ToList()
            );
            var rows = ImmutableArray.CreateBuilder<PriceRow>();
            rows.Add(Row(RowKind.Part, "As signed", "before tax", signed));
            foreach (var (number, amount) in earlier)
                rows.Add(Row(RowKind.Part, $"Change order {number}", "accepted", amount));
            rows.Add(Row(RowKind.Part, $"Change order {Change.Number}", "this one", Change.Net));
            rows.Add(
                Row(RowKind.Subtotal, "Contract sum", "before tax", signed + earlier.Sum(e => e.Amount) + Change.Net)
            );
            return new(Contract.Currency, rows.ToImmutable());
        }
    }
}
