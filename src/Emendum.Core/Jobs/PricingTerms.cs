using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Whether material costs what is bought or what is needed.</summary>
public enum MaterialCost
{
    Purchase,
    Need,
}

/// <summary>The terms a job is priced by; percents are of 100, money in the job's currency.</summary>
public sealed record PricingTerms(
    PriceBasis Basis,
    MaterialCost MaterialCost,
    decimal LabourMarkup,
    decimal MaterialMarkup,
    decimal EquipmentMarkup,
    decimal Overhead,
    decimal Contingency,
    decimal Profit,
    decimal TargetMargin,
    ImmutableArray<Tax> Taxes,
    decimal FloorMargin,
    decimal GoalMargin
)
{
    /// <summary>Terms a job starts with.</summary>
    public static readonly PricingTerms Starting = new(
        PriceBasis.Markup,
        MaterialCost.Purchase,
        30,
        25,
        15,
        14,
        3,
        18,
        45,
        [new(Tax.First, "Sales tax", 7, [TaxOn.Material, TaxOn.PriceOnly], TaxWay.Charged)],
        40,
        50
    )
    {
        SubcontractMarkup = 10,
    };

    /// <summary>Most discounts, fees, taxes or rows of brackets.</summary>
    public const int Most = 20;

    /// <summary>Markup on work bought from other firms.</summary>
    public decimal SubcontractMarkup { get; init; }

    /// <summary>Markup on fixed charges and travel.</summary>
    public decimal FixedMarkup { get; init; }

    /// <summary>Charge rate per hour of roles that have none of their own; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? SellRate { get; init; }

    /// <summary>The price, where it is a fixed one.</summary>
    public decimal FixedPrice { get; init; }

    /// <summary>How pieces are reckoned under a fixed price, and how it is shared to lines.</summary>
    public PriceBasis UsualBasis { get; init; }

    /// <summary>Whether contingency is an amount of its own to the customer; otherwise it is spread over the lines.</summary>
    public bool ShowContingency { get; init; }

    /// <summary>One percent on the whole built price, by how large the job is; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Brackets? Brackets { get; init; }

    /// <summary>Least charge of a line at each of its ×n places; 0 for none.</summary>
    public decimal LeastPlace { get; init; }

    /// <summary>Least charge of a line; 0 for none.</summary>
    public decimal LeastLine { get; init; }

    /// <summary>Least charge of the job; 0 for none.</summary>
    public decimal LeastJob { get; init; }

    /// <summary>What is taken off, in order, each from what is left.</summary>
    public ImmutableArray<Discount> Discounts { get; init; } = [];

    /// <summary>Whether the list price is raised so that what is left after the discounts is the intended price.</summary>
    public bool RaiseList { get; init; }

    /// <summary>What is added to the price, or below zero taken off it, where no other term could move.</summary>
    public decimal Adjustment { get; init; }

    /// <summary>Why.</summary>
    public string AdjustmentReason { get; init; } = "";

    /// <summary>Costs that are a percent of the price.</summary>
    public ImmutableArray<Fee> Fees { get; init; } = [];

    /// <summary>To what the price is rounded; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public PriceRounding? Rounding { get; init; }

    /// <summary>The price before it is rounded, when somebody typed it: as long as it is that, it is not rounded.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? Typed { get; init; }

    /// <summary>When what part of the price is paid; empty where nobody has said. Of work that comes back the year's billing says it.</summary>
    public ImmutableArray<PaymentStep> Payment { get; init; } = [];

    /// <summary>Why no tax is charged to this customer; null where it is.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Exemption? Exemption { get; init; }

    /// <summary>The terms of a section that is priced in its own way.</summary>
    public PricingTerms For(OwnBasis own) =>
        this with
        {
            Basis = own.Basis,
            FixedPrice = own.FixedPrice ?? 0,
            SellRate = own.SellRate ?? SellRate,
            TargetMargin = own.TargetMargin ?? TargetMargin,
            Profit = own.Profit ?? Profit,
        };

    /// <summary>Markup on a class of cost, percent, as it stands in the terms.</summary>
    public Val MarkupOn(CostClass of, Trace trace) =>
        trace.Term(Markup(of), "%", "markup on " + of.Name(), of.Name() + "Markup");

    /// <summary>Markup on a class of cost, percent.</summary>
    public decimal Markup(CostClass of) =>
        of switch
        {
            CostClass.Labour => LabourMarkup,
            CostClass.Material => MaterialMarkup,
            CostClass.Equipment => EquipmentMarkup,
            CostClass.Subcontract => SubcontractMarkup,
            _ => FixedMarkup,
        };

    /// <summary>Checks that each term is one that can be priced with.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        Percent(LabourMarkup, "labourMarkup", "Markup on labour");
        Percent(MaterialMarkup, "materialMarkup", "Markup on materials");
        Percent(EquipmentMarkup, "equipmentMarkup", "Markup on equipment");
        Percent(SubcontractMarkup, "subcontractMarkup", "Markup on subcontracts");
        Percent(FixedMarkup, "fixedMarkup", "Markup on fixed charges");
        Percent(Overhead, "overhead", "Overhead");
        Percent(Contingency, "contingency", "Contingency");
        CheckProfit(Profit, "profit");
        CheckMargin(TargetMargin, "targetMargin");
        Percent(FloorMargin, "floorMargin", "A margin", 100m);
        Percent(GoalMargin, "goalMargin", "A margin", 100m);
        NotBelowZero(SellRate ?? 0, "sellRate", "A charge rate");
        NotBelowZero(FixedPrice, "fixedPrice", "A fixed price");
        NotBelowZero(LeastPlace, "leastPlace", "A least charge");
        NotBelowZero(LeastLine, "leastLine", "A least charge");
        NotBelowZero(LeastJob, "leastJob", "A least charge");
        if (UsualBasis == PriceBasis.Fixed)
            throw RefusedException.Of("usualBasis", "Pieces of a fixed price are reckoned some other way.");
        if (AdjustmentReason.Length > 200)
            throw RefusedException.Of("adjustmentReason", "A reason is at most 200 characters.");
        AtMost(Taxes.Length, "taxes", "taxes");
        AtMost(Discounts.Length, "discounts", "discounts");
        AtMost(Fees.Length, "fees", "fees");
        if (Taxes.Select(t => t.Id).Distinct().Count() != Taxes.Length)
            throw RefusedException.Of("taxes", "A tax stands twice.");
        foreach (var tax in Taxes)
            tax.Check();
        foreach (var discount in Discounts)
            discount.Check(RaiseList);
        foreach (var fee in Fees)
            fee.Check();
        if (Fees.Sum(f => f.Percent) >= 90)
            throw RefusedException.Of("fees", "All fees together are under 90 percent of the price.");
        Brackets?.Check();
        Rounding?.Check();
        Exemption?.Check();
        PaymentStep.Check(Payment);
    }

    /// <summary>Checks a profit markup: below zero it is a loss, and shown as one.</summary>
    internal static void CheckProfit(decimal percent, string field)
    {
        if (percent is <= -100m or >= 1000m)
            throw RefusedException.Of(field, "Profit is over −100 to under 1000 percent.");
    }

    /// <summary>Checks a margin that a price is made from.</summary>
    internal static void CheckMargin(decimal percent, string field)
    {
        if (percent is < -1000m or >= 100m)
            throw RefusedException.Of(
                field,
                percent >= 100m
                    ? "A margin is under 100 percent: at 100 the whole price would be profit, whatever the cost, and no price is high enough for that."
                    : "A margin is −1000 to under 100 percent."
            );
    }

    private static void Percent(decimal value, string field, string words, decimal below = 1000m)
    {
        if (value < 0 || value >= below)
            throw RefusedException.Of(field, $"{words} is 0 to under {below:0} percent.");
    }

    /// <summary>Refuses money below zero.</summary>
    internal static void NotBelowZero(decimal value, string field, string words)
    {
        if (value < 0)
            throw RefusedException.Of(field, $"{words} is not below zero.");
    }

    /// <summary>Refuses a list that is too long.</summary>
    internal static void AtMost(int count, string field, string words)
    {
        if (count > Most)
            throw RefusedException.Of(field, $"At most {Most} {words}.");
    }
}
