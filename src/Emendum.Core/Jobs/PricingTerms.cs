using Emendum.Core.Book;
using Emendum.Core.Figures;

namespace Emendum.Core.Jobs;

/// <summary>How the price follows from the cost (estimating model §7). The others come with later work.</summary>
public enum PriceBasis
{
    Markup,
    TargetMargin,
}

/// <summary>Whether material costs what is bought or what is needed.</summary>
public enum MaterialCost
{
    Purchase,
    Need,
}

/// <summary>What the tax falls on.</summary>
public enum TaxOn
{
    Price,
    Materials,
    Nothing,
}

/// <summary>The terms a job is priced by; percents are of 100.</summary>
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
    string TaxName,
    decimal TaxRate,
    TaxOn TaxOn,
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
        "Sales tax",
        7,
        TaxOn.Materials,
        40,
        50
    )
    {
        SubcontractMarkup = 10,
    };

    /// <summary>Markup on work bought from other firms.</summary>
    public decimal SubcontractMarkup { get; init; }

    /// <summary>Markup on fixed charges and travel.</summary>
    public decimal FixedMarkup { get; init; }

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
        void Percent(decimal value, string field, string words, decimal below = 1000m)
        {
            if (value < 0 || value >= below)
                throw RefusedException.Of(field, $"{words} is 0 to under {below:0} percent.");
        }
        Percent(LabourMarkup, "labourMarkup", "Markup on labour");
        Percent(MaterialMarkup, "materialMarkup", "Markup on materials");
        Percent(EquipmentMarkup, "equipmentMarkup", "Markup on equipment");
        Percent(SubcontractMarkup, "subcontractMarkup", "Markup on subcontracts");
        Percent(FixedMarkup, "fixedMarkup", "Markup on fixed charges");
        Percent(Overhead, "overhead", "Overhead");
        Percent(Contingency, "contingency", "Contingency");
        Percent(Profit, "profit", "Profit");
        Percent(TargetMargin, "targetMargin", "A margin", 100m);
        Percent(TaxRate, "taxRate", "Tax", 100m);
        Percent(FloorMargin, "floorMargin", "A margin", 100m);
        Percent(GoalMargin, "goalMargin", "A margin", 100m);
        if (TaxName.Length > 60)
            throw RefusedException.Of("taxName", "A tax name is at most 60 characters.");
    }
}
