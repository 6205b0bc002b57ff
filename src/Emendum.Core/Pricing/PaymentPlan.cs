using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Core.Pricing;

/// <summary>A payment step with what it comes to.</summary>
/// <param name="Step">The step.</param>
/// <param name="BeforeTax">Its part of the price before tax.</param>
/// <param name="Total">Its part of what the customer pays.</param>
public sealed record PricedStep(PaymentStep Step, Total BeforeTax, Total Total);

/// <summary>
/// The price in payment steps (delivery.md M3 and M5). A step in money is what the customer pays with it, or the largest sum before tax whose total is not above that; the others share what is left by their percents,
/// by largest remainder, and print as parts of what is signed. So the steps always come to the price and to the total.
/// </summary>
public static class PaymentPlan
{
    /// <summary>Start of the paths of its figures.</summary>
    public const string Area = "payment";

    /// <summary>The steps; empty where there are none, and for work that comes back, which the year's billing pays.</summary>
    public static ImmutableArray<PricedStep> Of(Estimate estimate, Trace trace)
    {
        var (price, steps) = (estimate.Price, estimate.Job.Pricing.Payment);
        if (steps.IsEmpty || !price.Occurrences.IsEmpty)
            return [];
        var places = estimate.MoneyPlaces;
        var open = new Open(price, places, trace);
        var (nets, totals) = (new Val[steps.Length], new Val[steps.Length]);
        for (var i = 0; i < steps.Length; i++)
            if (steps[i].Amount is { } amount)
                (nets[i], totals[i]) = open.Take(steps[i], amount, i + 1);
        var others = Enumerable.Range(0, steps.Length).Where(i => steps[i].Amount is null).ToArray();
        if (others.Length > 0)
        {
            var weights = Weights(others, steps, price, nets, trace);
            var ofNet = Shares.Of(
                Less(price.BeforeTax, steps, nets),
                weights,
                "payment steps before tax",
                places,
                trace
            );
            var ofTotal = Shares.Of(Less(price.Total, steps, totals), weights, "payment steps with tax", places, trace);
            for (var n = 0; n < others.Length; n++)
                (nets[others[n]], totals[others[n]]) = (ofNet[n], ofTotal[n]);
        }
        Total Made(Val value, int i, string label, string leaf) =>
            trace.Total(value, "", trace.On ? $"{steps[i].When}: {label}" : "", new(Area, $"{i + 1}/{leaf}"));
        return
        [
            .. steps.Select(
                (step, i) =>
                    new PricedStep(
                        step,
                        Made(nets[i], i, "before tax", "beforeTax"),
                        Made(totals[i], i, "with tax", "total")
                    )
            ),
        ];
    }

    private static Val Less(Total whole, ImmutableArray<PaymentStep> steps, Val[] taken)
    {
        var left = whole.Value;
        for (var i = 0; i < steps.Length; i++)
            if (steps[i].Amount is not null)
                left -= taken[i];
        return left;
    }

    /// <summary>What each step that is not money counts for: its percent of the price, or an equal part of what percents and money leave.</summary>
    private static Val[] Weights(int[] others, ImmutableArray<PaymentStep> steps, Price price, Val[] nets, Trace trace)
    {
        Val OfPercent(int i) =>
            price.BeforeTax * trace.Term(steps[i].Percent!.Value, "%", steps[i].When, "payment") / 100m;
        var left = Less(price.BeforeTax, steps, nets);
        var rest = 0;
        foreach (var i in others)
            if (steps[i].Percent is null)
                rest++;
            else
                left -= OfPercent(i);
        // Money may come to more than is left of the price: then nothing is.
        var each = rest == 0 ? 0m : Val.Max(left, 0m) / rest;
        return [.. others.Select(i => steps[i].Percent is null ? each : OfPercent(i))];
    }

    /// <summary>What is open of the price in each tax category while steps in money take of it.</summary>
    private sealed class Open
    {
        private readonly (TaxCategory Tax, Val Amount)[] categories;
        private readonly int places;
        private readonly Trace trace;

        public Open(Price price, int places, Trace trace)
        {
            (this.places, this.trace) = (places, trace);
            categories =
            [
                .. price
                    .Portions.GroupBy(p => p.Tax.Number)
                    .Select(g => (g.First().Tax, Sum.Of(g.Select(p => p.Amount))))
                    .Where(c => c.Item2.V > 0),
            ];
        }

        /// <summary>Takes the largest sum that is not above an amount, and not above what is open: before tax, and with it.</summary>
        public (Val Net, Val Total) Take(PaymentStep step, decimal amount, int number)
        {
            var open = categories.Sum(c => c.Amount.V);
            var cent = Cent();
            var net = decimal.Min(Rounding.Money(amount, places), open);
            if (!step.BeforeTax && open > 0)
            {
                // Near enough to begin with: each category bears its tax.
                var taxed = categories.Sum(c => c.Amount.V * (100m + c.Tax.Rate) / 100m);
                net = decimal.Min(decimal.Floor(amount * open / taxed / cent) * cent, open);
                while (net + cent <= open && WithTax(net + cent) <= amount)
                    net += cent;
                while (net > 0 && WithTax(net) > amount)
                    net -= cent;
            }
            var value = trace.Term(
                net,
                "",
                step.BeforeTax
                    ? step.When
                    : $"{step.When}: largest sum before tax that comes to at most {Shown.Money(amount, places)} with it",
                Area
            );
            var shares = Shared(value, $"payment step {number} by tax category", trace);
            var total = WithTax(value, shares);
            for (var i = 0; i < categories.Length; i++)
                categories[i].Amount -= shares[i];
            return (value, total);
        }

        private decimal Cent()
        {
            var cent = 1m;
            for (var i = 0; i < places; i++)
                cent /= 10;
            return cent;
        }

        /// <summary>A sum over the categories by what is open in each.</summary>
        private Val[] Shared(Val net, string name, Trace how) =>
            Shares.Of(net, [.. categories.Select(c => c.Amount)], name, places, how);

        /// <summary>What a sum before tax comes to with it, while it is only tried.</summary>
        private decimal WithTax(decimal net) => WithTax(net, Shared(net, "", Trace.Silent)).V;

        /// <summary>A sum with the tax of each category that it is shared over.</summary>
        private Val WithTax(Val net, Val[] shares)
        {
            var total = net;
            foreach (var tax in categories.SelectMany(c => c.Tax.Taxes).DistinctBy(t => t.Id))
            {
                var on = new Sum();
                for (var i = 0; i < categories.Length; i++)
                    if (categories[i].Tax.Taxes.Any(t => t.Id == tax.Id))
                        on.Add(shares[i]);
                total += (on.Total * trace.Term(tax.Rate, "%", tax.Name, "taxes") / 100m).Money(places);
            }
            return total;
        }
    }
}
