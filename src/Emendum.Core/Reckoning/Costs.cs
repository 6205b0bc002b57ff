using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Hours and cost of one role.</summary>
public sealed record RoleCost(LabourRole Role, Total Hours, Total LoadedCost, Total Cost);

/// <summary>What is needed and bought of one material and colour.</summary>
/// <param name="Material">The material.</param>
/// <param name="Colour">Its colour, or empty.</param>
/// <param name="Need">Need with waste.</param>
/// <param name="Required">With spare and least order; what the packs must cover.</param>
/// <param name="Packs">How many of each pack.</param>
/// <param name="Bought">Quantity bought.</param>
/// <param name="Leftover">Bought less needed.</param>
/// <param name="BoughtCost">What the packs cost.</param>
/// <param name="NeedCost">Need · cost of the packs ÷ quantity bought.</param>
/// <param name="Delivery">Delivery charged with it.</param>
public sealed record Purchase(
    Material Material,
    string Colour,
    Total Need,
    Val Required,
    PackChoice Packs,
    Total Bought,
    Total Leftover,
    Total BoughtCost,
    Total NeedCost,
    Total? Delivery
)
{
    /// <summary>What counts as cost under the job's terms, with delivery.</summary>
    public Val Cost(MaterialCost by) => by == MaterialCost.Purchase ? WithDelivery(BoughtCost) : WithDelivery(NeedCost);

    /// <summary>What is bought, in packs, and how far it may be from the cheapest where that could not be told.</summary>
    public string PacksInWords =>
        PacksAlone + (Packs.Above == 0 ? "" : $" (at most {Shown.Money(Packs.Above)} above the cheapest)");

    /// <summary>What is bought, in packs, and nothing about money.</summary>
    public string PacksAlone =>
        string.Join(
            " + ",
            Packs
                .Counts.Select((n, i) => (n, Pack: Material.Packs[i]))
                .Where(x => x.n > 0)
                // What is sold loose is said by its quantity: 4 yd³ by the yard.
                .Select(x =>
                    x.Pack.Name.StartsWith("by the ", StringComparison.Ordinal)
                        ? $"{Rounding.Text(x.n * x.Pack.Size)} {Material.Unit} {x.Pack.Name}"
                        : $"{Rounding.Text(x.n)} × {x.Pack.Name}"
                )
        );

    private Val WithDelivery(Val cost) => Delivery is null ? cost : cost + Delivery;
}

/// <summary>Equipment: its hours, what is paid for, and the cost.</summary>
/// <param name="Equipment">The equipment.</param>
/// <param name="Hours">Hours it is used.</param>
/// <param name="Units">Hours, days or visits paid for.</param>
/// <param name="Cost">Money.</param>
/// <param name="ByItem">Cost by work item, where days or visits were rounded up for each.</param>
public sealed record EquipmentCost(
    Equipment Equipment,
    Total Hours,
    Total Units,
    Total Cost,
    ImmutableArray<(CompiledItem Item, Val Cost)> ByItem
);

/// <summary>Work bought from another firm.</summary>
/// <param name="Subcontract">The subcontract.</param>
/// <param name="Amount">How much, or how many pieces of work for a lump sum each.</param>
/// <param name="Cost">Money.</param>
/// <param name="ByItem">Cost by work item of what is no line's own: lump sums, and what comes once.</param>
public sealed record SubcontractCost(
    Subcontract Subcontract,
    Total Amount,
    Total Cost,
    ImmutableArray<(CompiledItem Item, Val Cost)> ByItem
);

/// <summary>A fixed charge of one work item, or of the way to the site.</summary>
public sealed record ChargeCost(string Name, CompiledItem? Item, CompiledItem.Part? Part, Total Amount, Total Cost);

/// <summary>How long it takes: days from first to last, and how often the crew comes back.</summary>
public sealed record Duration(Total Days, Total ReturnVisits);

/// <summary>What a job takes and costs, before anybody thinks of a price (architecture decision 23).</summary>
public sealed class Costs
{
    /// <summary>Labour by role, in order of first use.</summary>
    public required ImmutableArray<RoleCost> Roles { get; init; }

    /// <summary>Materials, in order of first use.</summary>
    public required ImmutableArray<Purchase> Buying { get; init; }

    /// <summary>What is mixed on the spot, in order of first use; its parts are among what is bought.</summary>
    public required ImmutableArray<Mixed> Mixed { get; init; }

    /// <summary>Equipment, in order of first use.</summary>
    public required ImmutableArray<EquipmentCost> Equipment { get; init; }

    /// <summary>Subcontracts, in order of first use.</summary>
    public required ImmutableArray<SubcontractCost> Subcontracts { get; init; }

    /// <summary>Firms whose quotes are taken, in the job's order.</summary>
    public ImmutableArray<QuoteCost> Quotes { get; init; } = [];

    /// <summary>Fees and fixed charges, the way to the site last.</summary>
    public required ImmutableArray<ChargeCost> Charges { get; init; }

    /// <summary>What comes once for a work item: its part and amount.</summary>
    public required ImmutableArray<(CompiledItem Item, CompiledItem.Part Part, Val Amount)> Once { get; init; }

    /// <summary>Labour hours of the work, without set-up and travel.</summary>
    public required Total Worked { get; init; }

    /// <summary>Labour hours of the job.</summary>
    public required Total Hours { get; init; }

    /// <summary>Days for the crew.</summary>
    public required Total CrewDays { get; init; }

    /// <summary>How long it takes.</summary>
    public required Duration Duration { get; init; }

    /// <summary>Floor of all places.</summary>
    public required Total FloorArea { get; init; }

    /// <summary>Cost of each class, not rounded.</summary>
    public ByClass<Val> ByClass(CostRules rules) =>
        new(of =>
            of == CostClass.Material
                ? Sum.Of(Buying.Select(rules.Goods))
                : rules.Other(
                    of,
                    Sum.Of(
                        of switch
                        {
                            CostClass.Labour => Roles.Select(r => r.Cost.Value),
                            CostClass.Equipment => Equipment.Select(e => e.Cost.Value),
                            CostClass.Subcontract => Subcontracts
                                .Select(s => s.Cost.Value)
                                .Concat(Quotes.Select(q => q.Cost.Value)),
                            _ => Charges.Select(c => c.Cost.Value),
                        }
                    )
                )
        );
}
