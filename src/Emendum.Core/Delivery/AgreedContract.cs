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

    /// <summary>Whether the same taxes fall on both, or none for the same cause.</summary>
    public bool IsLike(AgreedCategory other) =>
        Code == other.Code && Taxes.Select(t => (t.Id, t.Rate)).SequenceEqual(other.Taxes.Select(t => (t.Id, t.Rate)));
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
    /// <summary>Changes that were accepted since, in order.</summary>
    public ImmutableArray<AgreedChange> Changes { get; init; } = [];

    /// <summary>The contract year of a round as it was agreed; null where it is none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public AgreedRound? Round { get; init; }

    /// <summary>How that year stands; null where nobody asks. No part of what was agreed.</summary>
    [JsonIgnore]
    public RoundYear? Year { get; init; }

    /// <summary>The tax categories of a price that is not nothing in them, with what is in each; by their number in it.</summary>
    internal static IEnumerable<(int Number, AgreedCategory Category)> CategoriesOf(Price price) =>
        price
            .Portions.GroupBy(p => p.Tax.Number)
            .Select(g => (g.First().Tax, Amount: g.Sum(p => p.Amount.V)))
            .Where(c => c.Amount != 0)
            .Select(c => (c.Tax.Number, new AgreedCategory(c.Tax.Code, c.Tax.Taxes, c.Tax.Reason, c.Amount)));

    /// <summary>That of an estimate that was agreed.</summary>
    public static AgreedContract Of(Estimate agreed)
    {
        var price = agreed.Price;
        var contract = new AgreedContract(
            [.. CategoriesOf(price).Select(c => c.Category)],
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
        return contract.IsRound ? AgreedRound.With(contract, agreed) : contract;
    }

    /// <summary>The contract as it stands.</summary>
    [JsonIgnore]
    public Contract Contract =>
        new(TaxCategories, new([.. Categories.Select(c => c.Amount)]), Total, RoundsAfterTax, Places)
        {
            Changes = [.. Changes.Select(c => new ContractChange(c.Amounts, c.Total)), .. Settled],
        };

    /// <summary>What visits that are left out, and events that came more or less often than was expected, do to the contract sum of a round (M30).</summary>
    private IEnumerable<ContractChange> Settled
    {
        get
        {
            if (Year is null || Year.Settles(Categories.Length) is not { } amounts || amounts.Amounts.All(a => a == 0))
                yield break;
            yield return new(amounts, amounts.Sum + amounts.Tax(TaxCategories, Places));
        }
    }

    private ImmutableArray<TaxCategory> TaxCategories =>
        [.. Categories.Select((c, i) => new TaxCategory(i, c.Code, c.Taxes))];

    /// <summary>It with one change more: tax categories that it brings in come after those that are there.</summary>
    /// <param name="change">The change.</param>
    /// <param name="accepted">The firm's day of its acceptance.</param>
    public AgreedContract With(ChangeOrder change, DateOnly accepted)
    {
        var (categories, amounts) = Placed(change.Categories);
        return this with
        {
            Categories = categories,
            Changes = Changes.Add(
                new(change.Revision, change.Number, change.Title, accepted, amounts, change.Total)
                {
                    WithStep = change.WithStep,
                }
            ),
        };
    }

    /// <summary>Amounts in the order of this contract's tax categories, with those that it does not have yet after them.</summary>
    /// <param name="of">Amounts by category.</param>
    /// <returns>The categories; those that are new have nothing of what was signed.</returns>
    internal (ImmutableArray<AgreedCategory> Categories, ByCategory Amounts) Placed(ImmutableArray<AgreedCategory> of)
    {
        var categories = Categories.ToList();
        var amounts = new decimal[Categories.Length + of.Length];
        foreach (var one in of)
        {
            var at = categories.FindIndex(c => c.IsLike(one));
            if (at < 0)
            {
                at = categories.Count;
                categories.Add(one with { Amount = 0 });
            }
            amounts[at] += one.Amount;
        }
        return ([.. categories], new([.. amounts.Take(categories.Count)]));
    }
}

/// <summary>A change that was accepted, as invoices know it.</summary>
/// <param name="Revision">Its id.</param>
/// <param name="Number">Its number in the job, from 1.</param>
/// <param name="Title">What it is about.</param>
/// <param name="Accepted">The firm's day of its acceptance.</param>
/// <param name="Amounts">Before tax, by the contract's categories; less than nothing for what is dropped.</param>
/// <param name="Total">With its own tax, as it was signed.</param>
public sealed record AgreedChange(
    Guid Revision,
    int Number,
    string Title,
    DateOnly Accepted,
    ByCategory Amounts,
    decimal Total
)
{
    /// <summary>Number, from 0, of the step of the payment plan that bills it, too (M6); null where it is billed on its own, or with the last.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? WithStep { get; init; }
}
