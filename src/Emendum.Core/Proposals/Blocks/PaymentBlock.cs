namespace Emendum.Core.Proposals;

/// <summary>Payment steps, as parts of what the customer pays.</summary>
internal static class PaymentBlock
{
    public static IEnumerable<Element> Of(Writing writing)
    {
        if (writing.Steps.IsEmpty)
            return [];
        var total = writing.Estimate.Price.Total;
        return
        [
            writing.Table(
                [.. Rows(writing), writing.Row(RowKind.Total, "Together, with tax", "", total.V, total.Path)]
            ),
        ];
    }

    /// <summary>A row for each step.</summary>
    public static IEnumerable<PriceRow> Rows(Writing writing) =>
        writing.Steps.Select(s =>
            writing.Row(
                RowKind.Part,
                s.Step.When,
                s.Step.Percent is { } percent ? $"{writing.Number(Quantities.Rounding.Text(percent))} %" : "",
                s.Total.V,
                s.Total.Path
            )
        );
}
