using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>A price while it is made: a basis begins it, and each pass returns it with a step more (architecture decision 24).</summary>
/// <param name="Terms">How it is made.</param>
/// <param name="Costs">What it is made from.</param>
/// <param name="Priced">What has a price without a cost.</param>
/// <param name="Trace">Records how, or is silent.</param>
public sealed record PriceDraft(PricingTerms Terms, Costs Costs, ImmutableArray<OwnPrice> Priced, Trace Trace)
{
    /// <summary>The steps so far.</summary>
    public ImmutableArray<PriceStep> Steps { get; init; } = [];

    /// <summary>Costs by class with what the basis puts on each.</summary>
    public required ByClass<ClassPrice> Classes { get; init; }

    /// <summary>Σ class costs.</summary>
    public required Total Direct { get; init; }

    /// <summary>What the costs have come to so far.</summary>
    public Val OfCosts { get; init; }

    /// <summary>What has a price of its own has come to so far.</summary>
    public Val OfPriced { get; init; }

    /// <summary>What of the price has been taxed.</summary>
    public Total? Taxable { get; init; }

    /// <summary>An amount that stands in the build-up: rounded where it is made (docs/decisions/001-cents.md).</summary>
    public Total Money(Val value, string label, string leaf) =>
        Trace.Total(value.Money(), "", label, new("price", leaf));

    /// <summary>The draft with a step that adds to what the costs come to.</summary>
    public PriceDraft OnCosts(string key, string label, string note, StepKind kind, Total amount) =>
        this with
        {
            Steps = Steps.Add(new(key, label, note, kind, amount, [new(PriceBody.Costs, amount)])),
        };

    /// <summary>A number of percent in words.</summary>
    public static string Percent(decimal percent) => Rounding.Text(percent) + " %";

    /// <summary>An amount of money in words.</summary>
    public static string Words(Val amount) => amount.V.ToString("#,0.00", CultureInfo.InvariantCulture);
}
