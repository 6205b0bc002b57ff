using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Work;

namespace Emendum.Web.Jobs;

/// <summary>What differs on screen between a job and what it was some edits before: which things, not how.</summary>
/// <param name="Reload">That is too much to be listed.</param>
/// <param name="Head">Something that is of the job and of nothing in it.</param>
/// <param name="PlaceOrder">Which places there are, or their order.</param>
/// <param name="WorkOrder">Which work there is, or its order.</param>
/// <param name="Places">Places that are there or were.</param>
/// <param name="Work">Work items that are there or were.</param>
/// <param name="Cells">Cells that are there or were.</param>
public sealed record Touched(
    bool Reload,
    bool Head,
    bool PlaceOrder,
    bool WorkOrder,
    ImmutableHashSet<Guid> Places,
    ImmutableHashSet<Guid> Work,
    ImmutableHashSet<CellKey> Cells
)
{
    /// <summary>Most cells that are listed before the job is to be loaded anew.</summary>
    public const int MostCells = 200;

    /// <summary>Nothing.</summary>
    public static readonly Touched Nothing = new(false, false, false, false, [], [], []);

    /// <summary>Too much to be listed.</summary>
    public static readonly Touched TooMuch = Nothing with { Reload = true };

    /// <summary>What differs between two estimates of a job.</summary>
    /// <param name="before">The earlier.</param>
    /// <param name="after">The later.</param>
    /// <param name="only">The cells in which they differ, where they differ in nothing else.</param>
    public static Touched Between(Estimate before, Estimate after, IReadOnlyCollection<CellKey>? only)
    {
        var (old, now) = (before.Job, after.Job);
        if (old.Pricing.MaterialCost != now.Pricing.MaterialCost || old.Units != now.Units)
            return TooMuch;
        // Where only the price is another, nothing was reckoned anew.
        if (ReferenceEquals(before.Reckoned.Costs, after.Reckoned.Costs) && ReferenceEquals(old.Cells, now.Cells))
            only = [];
        var (places, work) = (ImmutableHashSet.CreateBuilder<Guid>(), ImmutableHashSet.CreateBuilder<Guid>());
        var cells = ImmutableHashSet.CreateBuilder<CellKey>();
        if (only is null)
        {
            foreach (var place in now.Places)
                if (
                    !before.Reckoned.Measures.TryGetValue(place.Id, out var was)
                    || !ReferenceEquals(was, after.Reckoned.Measures[place.Id])
                )
                    places.Add(place.Id);
            var items = before.Reckoned.Items.ToDictionary(i => i.Item.Id);
            foreach (var item in after.Reckoned.Items)
                if (!items.TryGetValue(item.Item.Id, out var was) || !ReferenceEquals(was, item))
                    work.Add(item.Item.Id);
        }
        // A work item is shown with the name of its section.
        if (old.Sections != now.Sections)
            work.UnionWith(now.Work.Select(w => w.Id));
        foreach (var key in only ?? now.Cells.Keys.Concat(old.Cells.Keys.Where(k => !now.Cells.ContainsKey(k))))
        {
            if (Same(before, after, key))
                continue;
            places.Add(key.Place);
            work.Add(key.Work);
            cells.Add(key);
            if (cells.Count > MostCells)
                return TooMuch;
        }
        return new(
            false,
            !SameHead(old, now),
            !SameOrder(old.Places, now.Places, p => p.Id),
            !SameOrder(old.Work, now.Work, w => w.Id),
            places.ToImmutable(),
            work.ToImmutable(),
            cells.ToImmutable()
        );
    }

    private static bool Same(Estimate before, Estimate after, CellKey key)
    {
        var (was, now) = (before.Job.Cells.GetValueOrDefault(key), after.Job.Cells.GetValueOrDefault(key));
        return ReferenceEquals(was, now)
            && (now is null || ReferenceEquals(after.Reckoned.At(key), before.Reckoned.At(key)));
    }

    private static bool SameHead(Job old, Job now) =>
        old.Info == now.Info
        && old.Deduct == now.Deduct
        && old.Conditions == now.Conditions
        && old.Pace == now.Pace
        && old.Sections == now.Sections
        && old.Crew == now.Crew
        && old.Pricing == now.Pricing
        && old.Policy == now.Policy
        && old.Variants == now.Variants
        && old.Rhythms == now.Rhythms
        && old.Round == now.Round
        && old.Proposal == now.Proposal
        && old.Blocks == now.Blocks;

    private static bool SameOrder<T>(ImmutableArray<T> a, ImmutableArray<T> b, Func<T, Guid> id) =>
        a == b || (a.Length == b.Length && a.Select(id).SequenceEqual(b.Select(id)));

    /// <summary>What differs after both.</summary>
    public Touched With(Touched later)
    {
        if (Reload || later.Reload)
            return TooMuch;
        var both = new Touched(
            false,
            Head || later.Head,
            PlaceOrder || later.PlaceOrder,
            WorkOrder || later.WorkOrder,
            Places.Union(later.Places),
            Work.Union(later.Work),
            Cells.Union(later.Cells)
        );
        return both.Cells.Count > MostCells ? TooMuch : both;
    }
}

/// <summary>What the last edits of an open job have touched, by version, so that whoever holds an earlier version can be told what has changed since. Immutable.</summary>
public sealed class LastTouched
{
    /// <summary>Most edits that are remembered.</summary>
    public const int Most = 400;

    private readonly ImmutableList<Touched> edits;
    private readonly long last;

    private LastTouched(ImmutableList<Touched> edits, long last) => (this.edits, this.last) = (edits, last);

    /// <summary>A job just opened at a version: what was before is not known.</summary>
    public static LastTouched At(long version) => new([], version);

    /// <summary>With one edit more.</summary>
    public LastTouched With(Touched edit)
    {
        // Who holds a version from before one that is too much to list loads the job anew: what lies before it is of no use.
        var kept = edit.Reload ? [] : edits.Add(edit);
        return new(kept.Count > Most ? kept.RemoveAt(0) : kept, last + 1);
    }

    /// <summary>What has changed since a version.</summary>
    public Touched Since(long version)
    {
        if (version > last || version < last - edits.Count)
            return Touched.TooMuch;
        var all = Touched.Nothing;
        for (var i = edits.Count - (int)(last - version); i < edits.Count; i++)
            all = all.With(edits[i]);
        return all;
    }
}
