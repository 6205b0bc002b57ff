using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;

namespace Emendum.Core.Reckoning;

/// <summary>Hours and cost of one role.</summary>
public sealed record RoleLine(LabourRole Role, Val Hours, Val LoadedCost, Val Cost);

/// <summary>What is needed and bought of one material and colour.</summary>
/// <param name="Material">The material.</param>
/// <param name="Colour">Its colour, or empty.</param>
/// <param name="Key">Ending of its figures' area.</param>
/// <param name="Need">Need with waste.</param>
/// <param name="Required">With spare and least order; what the packs must cover.</param>
/// <param name="Packs">How many of each pack.</param>
/// <param name="Bought">Quantity bought.</param>
/// <param name="Leftover">Bought less needed.</param>
/// <param name="BoughtCost">What the packs cost.</param>
/// <param name="NeedCost">Need · cost of the packs ÷ quantity bought.</param>
/// <param name="Delivery">Delivery charged with it.</param>
public sealed record BuyLine(
    Material Material,
    string Colour,
    string Key,
    Val Need,
    Val Required,
    decimal[] Packs,
    Val Bought,
    Val Leftover,
    Val BoughtCost,
    Val NeedCost,
    Val Delivery
)
{
    /// <summary>What counts as cost under the job's terms, with delivery.</summary>
    public Val Cost(MaterialCost by) => by == MaterialCost.Purchase ? WithDelivery(BoughtCost) : WithDelivery(NeedCost);

    private Val WithDelivery(Val cost) => Delivery.V == 0 ? cost : cost + Delivery;
}

/// <summary>Equipment: its hours, what is paid for, and the cost.</summary>
/// <param name="Equipment">The equipment.</param>
/// <param name="Hours">Hours it is used.</param>
/// <param name="Units">Hours, days or visits paid for.</param>
/// <param name="Cost">Money.</param>
/// <param name="ByItem">Cost by work item, where days or visits were rounded up for each.</param>
public sealed record EquipmentLine(
    Equipment Equipment,
    Val Hours,
    Val Units,
    Val Cost,
    ImmutableArray<(CompiledItem Item, Val Cost)> ByItem
);

/// <summary>Work bought from another firm.</summary>
public sealed record SubcontractLine(
    Subcontract Subcontract,
    Val Amount,
    Val Cost,
    ImmutableArray<(CompiledItem Item, Val Cost)> Lumps
);

/// <summary>A fixed charge of one work item, or of the way to the site.</summary>
public sealed record ChargeLine(string Name, CompiledItem? Item, CompiledItem.Part? Part, Val Amount, Val Cost);

/// <summary>What has a price without a cost: a price-only item with its quantity in the job, or (no entry) the allowance of one line.</summary>
public sealed record PricedLine(CompiledItem Item, PriceOnlyItem? Entry, Line? Line, Val Quantity, Val Price)
{
    /// <summary>Whether the line is priced by it.</summary>
    public bool Prices(Line line) =>
        Line is null ? ReferenceEquals(line.OfItem, Item) && line.Ours : ReferenceEquals(line, Line);
}

/// <summary>How long it takes: days from first to last, and how often the crew comes back.</summary>
public sealed record Duration(Val Days, Val ReturnVisits);

/// <summary>Everything reckoned of a job. Whatever a screen, a document or a file shows comes from here.</summary>
public sealed class Reckoning
{
    /// <summary>What was reckoned.</summary>
    public required Job Job { get; init; }

    /// <summary>Measures by place.</summary>
    public required Dictionary<Guid, PlaceMeasures> Measures { get; init; }

    /// <summary>Work items looked up, in job order.</summary>
    public required CompiledItem[] Items { get; init; }

    /// <summary>Included cells, by work item and then place in job order.</summary>
    public required Line[] Lines { get; init; }

    /// <summary>The same by position: work item × places + place; null where nothing is done. Alternates stand here too.</summary>
    public required Line?[] Grid { get; init; }

    /// <summary>Labour by role, in order of first use.</summary>
    public required ImmutableArray<RoleLine> Roles { get; init; }

    /// <summary>Materials, in order of first use.</summary>
    public required ImmutableArray<BuyLine> Buying { get; init; }

    /// <summary>Equipment, in order of first use.</summary>
    public required ImmutableArray<EquipmentLine> Equipment { get; init; }

    /// <summary>Subcontracts, in order of first use.</summary>
    public required ImmutableArray<SubcontractLine> Subcontracts { get; init; }

    /// <summary>Fixed charges, the way to the site last.</summary>
    public required ImmutableArray<ChargeLine> Charges { get; init; }

    /// <summary>Price-only items and allowances.</summary>
    public required ImmutableArray<PricedLine> Priced { get; init; }

    /// <summary>What comes once for a work item: its part and amount.</summary>
    public required ImmutableArray<(CompiledItem Item, CompiledItem.Part Part, Val Amount)> Once { get; init; }

    /// <summary>Labour hours of the work, without set-up and travel.</summary>
    public required Val Worked { get; init; }

    /// <summary>Labour hours of the job.</summary>
    public required Val Hours { get; init; }

    /// <summary>Days for the crew.</summary>
    public required Val CrewDays { get; init; }

    /// <summary>How long it takes.</summary>
    public required Duration Duration { get; init; }

    /// <summary>Floor of all places.</summary>
    public required Val FloorArea { get; init; }

    /// <summary>The price.</summary>
    public required Price Price { get; init; }

    private Dictionary<Guid, int>? itemAt,
        placeAt;

    /// <summary>The line of an included or alternate cell, or null.</summary>
    public Line? At(CellKey key) => Position(key) is { } at ? Grid[at] : null;

    /// <summary>Where a cell stands in <see cref="Grid"/>; null when the job has no such work or place.</summary>
    public int? Position(CellKey key)
    {
        itemAt ??= Positions(Items.Length, i => Items[i].Item.Id);
        placeAt ??= Positions(Job.Places.Length, i => Job.Places[i].Id);
        return itemAt.TryGetValue(key.Work, out var item) && placeAt.TryGetValue(key.Place, out var place)
            ? item * Job.Places.Length + place
            : null;
    }

    private static Dictionary<Guid, int> Positions(int count, Func<int, Guid> id)
    {
        var positions = new Dictionary<Guid, int>(count);
        for (var i = 0; i < count; i++)
            positions.Add(id(i), i);
        return positions;
    }
}
