using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A purchase order as its supplier reads it, made of the same blocks as a proposal (architecture decision 20).</summary>
public static class OrderPaper
{
    /// <summary>The document of one.</summary>
    /// <param name="order">The order.</param>
    /// <param name="head">The head of the accepted proposal: the firm, and the title of the job.</param>
    /// <param name="reference">Number of the job.</param>
    /// <param name="brand">How days and numbers are written.</param>
    /// <param name="words">What stands at its end; empty for nothing.</param>
    public static Document Of(PurchaseOrder order, Letterhead head, string reference, Brand brand, string words)
    {
        string Number(string of) => brand.Writes.Number(of);
        string Money(decimal amount) => Number(Shown.Money(amount, order.Places));
        PriceRow Row(RowKind kind, string label, string detail, decimal? amount) =>
            new(kind, label, detail, amount, null) { Shown = amount is { } of ? Money(of) : "" };
        var rows = order.Lines.Select(line =>
            Row(
                RowKind.Part,
                line.Goods.Named(line.Name),
                string.Join(
                    " · ",
                    new[]
                    {
                        $"{Number(Shown.Typed(line.Count))} × {line.Pack}",
                        line.Code.Length > 0 ? $"your no. {line.Code}" : "",
                        $"{Money4(line.Price)} each",
                    }.Where(s => s.Length > 0)
                ),
                line.Amount
            )
        );
        string Money4(decimal price) =>
            decimal.Round(price, order.Places) == price ? Money(price) : Number(Shown.Typed(price));
        IEnumerable<string> said =
        [
            order.DeliverTo.Length > 0 ? $"Deliver to: {order.DeliverTo}." : "",
            order.Wanted is { } day ? $"Wanted by {brand.Writes.Day(day)}." : "",
            order.Supplier.Account.Length > 0 ? $"Our account with you: {order.Supplier.Account}." : "",
            $"Please name the order {order.Number} on everything that belongs to it.",
            .. order.Words.Split('\n'),
            .. words.Split('\n'),
        ];
        return new(
            head with
            {
                Customer = order.Supplier.Name,
                CustomerAddress = order.Supplier.Address,
                Title = $"Purchase order {order.Number}",
                Subtitle = $"{head.Title} · {reference}",
                Reference = $"Purchase order {order.Number} · {brand.Writes.Day(order.Placed)}",
                Validity = order.Wanted is { } by ? $"wanted by {brand.Writes.Day(by)}" : "",
            },
            [
                Block(
                    1,
                    BlockKind.Price,
                    [
                        new PriceTable(
                            order.Currency,
                            [
                                .. rows,
                                .. order.Delivery == 0
                                    ? (PriceRow[])[]
                                    : [Row(RowKind.Part, "Delivery", "", order.Delivery)],
                                Row(RowKind.Total, "In all", "as the prices stand: tax as you charge it", order.Total),
                            ]
                        ),
                    ]
                ),
                Block(
                    2,
                    BlockKind.Letter,
                    [.. said.Select(s => s.Trim()).Where(s => s.Length > 0).Select(s => Writing.Plain(s))]
                ),
            ]
        );
    }

    private static Block Block(int number, BlockKind kind, ImmutableArray<Element> made) =>
        new(DerivedId.Of($"order/{number}"), kind, "", false, false, false, WordsOf.Nobody, [], made);
}
