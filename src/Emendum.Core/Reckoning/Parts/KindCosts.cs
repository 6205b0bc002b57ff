using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>What the parts of one kind come to in one job: where their amounts add up, what that costs, and which line bears how much of it.
/// What holds of the kind before that stands in <c>Book/Parts</c>.</summary>
internal abstract class KindCosts
{
    /// <summary>All kinds for one job, in the order of <see cref="Book.ComponentKind"/>.</summary>
    public static ImmutableArray<KindCosts> All() =>
        [new LabourCosts(), new MaterialCosts(), new EquipmentCosts(), new SubcontractCosts(), new ChargeCosts()];

    /// <summary>Where the amounts of a part add up, for all lines of a work item that work alike.</summary>
    public abstract Sum SumOf(CompiledItem.Part part);

    /// <summary>Takes what comes once for a work item.</summary>
    public virtual void Once(CompiledItem item, CompiledItem.Part part, Val amount) => SumOf(part).Add(amount);

    /// <summary>After the last line of a work item and what comes once for it.</summary>
    public virtual void EndItem(CompiledItem item, Job job, Trace trace) { }

    /// <summary>After the last work item, when it is known how long the job takes.</summary>
    public abstract void End(CostsDraft costs, Trace trace);

    /// <summary>Gives each line what it bears. Every cost of the kind that is of a line or work item goes to lines.</summary>
    public abstract void Share(LineShares lines);
}

/// <summary>What a job costs, while the kinds are closed one after another.</summary>
internal sealed class CostsDraft(Duration duration, IReadOnlyDictionary<Guid, Book.BookEntry> book)
{
    public Duration Duration => duration;
    public IReadOnlyDictionary<Guid, Book.BookEntry> Book => book;
    public ImmutableArray<Mixed> Mixed { get; set; } = [];
    public ImmutableArray<RoleCost>.Builder Roles { get; } = ImmutableArray.CreateBuilder<RoleCost>();
    public ImmutableArray<Purchase> Buying { get; set; } = [];
    public ImmutableArray<EquipmentCost>.Builder Equipment { get; } = ImmutableArray.CreateBuilder<EquipmentCost>();
    public ImmutableArray<SubcontractCost>.Builder Subcontracts { get; } =
        ImmutableArray.CreateBuilder<SubcontractCost>();
    public ImmutableArray<ChargeCost>.Builder Charges { get; } = ImmutableArray.CreateBuilder<ChargeCost>();
}

/// <summary>The parts of one work item for which something is reckoned by itself, each with its amount so far; in the order they came.</summary>
internal sealed class OwnParts
{
    private readonly OrderedDictionary<Guid, (CompiledItem.Part Part, Sum Amount)> parts = [];

    /// <summary>Where the amounts of a part add up. Cells with another product have the same part under the same id.</summary>
    public Sum SumOf(CompiledItem.Part part)
    {
        if (!parts.TryGetValue(part.Id, out var own))
            parts.Add(part.Id, own = (part, new()));
        return own.Amount;
    }

    /// <summary>Gives the parts up, for the next work item to begin with none.</summary>
    public (CompiledItem.Part Part, Sum Amount)[] Take()
    {
        if (parts.Count == 0)
            return [];
        (CompiledItem.Part, Sum)[] taken = [.. parts.Values];
        parts.Clear();
        return taken;
    }
}
