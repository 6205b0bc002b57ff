using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;

namespace Emendum.Core.Proposals;

/// <summary>What comes back, how often and at what price, and what a year and a month of it come to.</summary>
internal static class YearBlock
{
    public static IEnumerable<Element> Of(Writing writing)
    {
        if (writing.OfYear is not { } year)
            yield break;
        var (price, terms) = (writing.Estimate.Price, writing.Job.Round);
        var steps = price.Steps.TakeWhile(s => s.Key != YearPass.Key);
        yield return writing.Table(
            [
                .. steps.Select(s =>
                    writing.Row(
                        s.IsDiscount ? RowKind.Discount : RowKind.Part,
                        s.Label,
                        s.Key == SuppliesPass.Key ? "" : writing.Number(s.Note),
                        s.Amount.V,
                        s.Amount.Path
                    )
                ),
                writing.Row(RowKind.Subtotal, "A year, before tax", "", year.OfYear.V, year.OfYear.Path),
            ]
        );
        var words = terms.Billing switch
        {
            RoundBilling.Level when year.Last.V == year.Month.V => $"Billed at {writing.Money(year.Month.V)} a month.",
            RoundBilling.Level =>
                $"Billed at {writing.Money(year.Month.V)} a month, in the twelfth {writing.Money(year.Last.V)}.",
            RoundBilling.OverMonths => "Billed by the month, seasonal work over its months.",
            _ => "Billed by the month, for what was done in it.",
        };
        if (year.FirstDay is { } first)
            words += $" It begins on {writing.Day(first)}.";
        if (year.Once is { } once)
            words += $" What is done once, at the start, is {writing.Money(once.Price.V)}.";
        if (terms.Rise != 0)
            words +=
                $" Each year after is {writing.Number(Rounding.Text(decimal.Abs(terms.Rise)))} % {(terms.Rise > 0 ? "dearer" : "less")} than the one before.";
        yield return Writing.Plain(words);
    }
}
