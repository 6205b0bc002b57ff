namespace Emendum.Core.Pricing;

/// <summary>How the price follows from the cost (estimating model §7). The others come with later work.</summary>
public enum PriceBasis { Markup, TargetMargin }

/// <summary>Whether material costs what is bought or what is needed.</summary>
public enum MaterialCost { Purchase, Need }

/// <summary>What the tax falls on.</summary>
public enum TaxOn { Price, Materials, Nothing }

/// <summary>The terms a job is priced by; percents are of 100.</summary>
public sealed record PricingTerms(
    PriceBasis Basis, MaterialCost MaterialCost, decimal LabourMarkup, decimal MaterialMarkup, decimal EquipmentMarkup,
    decimal Overhead, decimal Contingency, decimal Profit, decimal TargetMargin,
    string TaxName, decimal TaxRate, TaxOn TaxOn, int CrewSize, decimal HoursPerDay, decimal FloorMargin, decimal GoalMargin)
{
    /// <summary>Checks that each term is one that can be priced with.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        void Percent(decimal value, string field, string words, decimal below = 1000m)
        {
            if (value < 0 || value >= below) throw RefusedException.Of(field, $"{words} is 0 to under {below:0} percent.");
        }
        Percent(LabourMarkup, "labourMarkup", "Markup on labour");
        Percent(MaterialMarkup, "materialMarkup", "Markup on materials");
        Percent(EquipmentMarkup, "equipmentMarkup", "Markup on equipment");
        Percent(Overhead, "overhead", "Overhead");
        Percent(Contingency, "contingency", "Contingency");
        Percent(Profit, "profit", "Profit");
        Percent(TargetMargin, "targetMargin", "A margin", 100m);
        Percent(TaxRate, "taxRate", "Tax", 100m);
        Percent(FloorMargin, "floorMargin", "A margin", 100m);
        Percent(GoalMargin, "goalMargin", "A margin", 100m);
        if (CrewSize is < 1 or > 999) throw RefusedException.Of("crewSize", "A crew is 1 to 999 people.");
        if (HoursPerDay is <= 0 or > 24) throw RefusedException.Of("hoursPerDay", "A working day is more than 0 and at most 24 hours.");
        if (TaxName.Length > 60) throw RefusedException.Of("taxName", "A tax name is at most 60 characters.");
    }
}
