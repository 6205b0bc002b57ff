using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;

namespace Emendum.Core.Delivery;

/// <summary>A tax category of what was agreed, with what is in it.</summary>
/// <param name="Code">As EN 16931 has it.</param>
/// <param name="Taxes">Taxes charged.</param>
/// <param name="Reason">Why none is; empty where it is.</param>
/// <param name="Amount">Before tax, without rounding after tax.</param>
public sealed record AgreedCategory(string Code, ImmutableArray<Tax> Taxes, string Reason, decimal Amount)
{
    /// <summary>Percent of all its taxes together.</summary>
    [JsonIgnore]
    public decimal Rate => Taxes.Sum(t => t.Rate);
}

/// <summary>A step of the payment plan as it was agreed.</summary>
/// <param name="When">When it is paid.</param>
/// <param name="Net">Before tax.</param>
/// <param name="Total">With tax, as it was printed.</param>
public sealed record AgreedStep(string When, decimal Net, decimal Total);

/// <summary>What was agreed in money, by tax category, frozen with the acceptance (rule M1).</summary>
/// <param name="Categories">Tax categories.</param>
/// <param name="Total">With tax, and with its rounding: what was signed.</param>
/// <param name="RoundsAfterTax">Whether the total was rounded after tax (M2).</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Places">Places of the currency.</param>
/// <param name="Steps">The payment plan; empty for none.</param>
/// <param name="IsRound">Whether it is the year of a round, which is billed by the month.</param>
public sealed record AgreedContract(
    ImmutableArray<AgreedCategory> Categories,
    decimal Total,
    bool RoundsAfterTax,
    string Currency,
    int Places,
    ImmutableArray<AgreedStep> Steps,
    bool IsRound
)
{
    /// <summary>That of an estimate that was agreed.</summary>
    public static AgreedContract Of(Estimate agreed)
    {
        var price = agreed.Price;
        return new(
            [
                .. price
                    .Portions.GroupBy(p => p.Tax.Number)
                    .Select(g => (g.First().Tax, Amount: g.Sum(p => p.Amount.V)))
                    .Where(c => c.Amount != 0)
                    .Select(c => new AgreedCategory(c.Tax.Code, c.Tax.Taxes, c.Tax.Reason, c.Amount)),
            ],
            price.Total.V,
            agreed.Job.Pricing.Rounding is { AfterTax: true },
            agreed.Job.Info.Currency,
            agreed.MoneyPlaces,
            [
                .. PaymentPlan
                    .Of(agreed, Trace.Silent)
                    .Select(s => new AgreedStep(s.Step.When, s.BeforeTax.V, s.Total.V)),
            ],
            !price.Occurrences.IsEmpty
        );
    }

    /// <summary>The contract as it stands.</summary>
    [JsonIgnore]
    public Contract Contract =>
        new(
            [.. Categories.Select((c, i) => new TaxCategory(i, c.Code, c.Taxes))],
            new([.. Categories.Select(c => c.Amount)]),
            Total,
            RoundsAfterTax,
            Places
        );
}
