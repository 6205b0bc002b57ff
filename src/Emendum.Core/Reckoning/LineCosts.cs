using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>The cost of every line, by class. What was bought is shared to lines by need, in whole cents by largest remainder; what was rounded up or comes once for a work item,
/// by hours. Leftovers are in what was bought, and never a line. Made only for the view that shows it (architecture decision 10).</summary>
public sealed class LineCosts
{
    private LineCosts(ByClass<Val>[] lines, Val[] free) => (Lines, Free) = (lines, free);

    /// <summary>Cost of each line of the reckoning, by class.</summary>
    public ByClass<Val>[] Lines { get; }

    /// <summary>What of each line's goods no charged tax falls on.</summary>
    public Val[] Free { get; }

    /// <summary>Shares every cost to the lines that brought it. Travel is of the whole job and of no line.</summary>
    public static LineCosts Of(Reckoned reckoned, Trace trace) =>
        Of(reckoned, CostRules.Of(reckoned.Job, trace), trace);

    /// <summary>The same by other rules.</summary>
    public static LineCosts Of(Reckoned reckoned, CostRules rules, Trace trace)
    {
        if (!reckoned.Occurrences.IsEmpty)
            return InYear(reckoned, rules, trace);
        var shares = new LineShares(reckoned, rules, trace);
        foreach (var kind in KindCosts.All())
            kind.Share(shares);
        QuoteCosts.Share(shares, reckoned.Lines);
        return new(shares.Sums(), shares.Free());
    }

    /// <summary>The cost of every line in the first year: that of each occurrence by its own rules, as often as it comes.</summary>
    private static LineCosts InYear(Reckoned reckoned, CostRules rules, Trace trace)
    {
        var sums = Array.ConvertAll(reckoned.Lines, _ => new ByClass<Sum>(_ => new()));
        var free = Array.ConvertAll(reckoned.Lines, _ => new Sum());
        foreach (var of in reckoned.Occurrences)
        {
            var within = trace.Under(Occurrence.Within(of.Id));
            var own = CostRules.Of(of.Reckoned.Job, within);
            var costs = Of(of.Reckoned, rules.Hour is { } hour ? own.WithHours(hour) : own, within);
            for (var i = 0; i < of.LineAt.Length; i++)
            {
                foreach (var (at, cost) in costs.Lines[i])
                    if (cost.V != 0)
                        sums[of.LineAt[i]][at].Add(of.InYear(cost));
                if (costs.Free[i].V != 0)
                    free[of.LineAt[i]].Add(of.InYear(costs.Free[i]));
            }
        }
        return new(
            Array.ConvertAll(sums, line => new ByClass<Val>(of => line[of].Total)),
            Array.ConvertAll(free, sum => sum.Total)
        );
    }
}

/// <summary>The lines of a job while each kind of part gives them what they bear.</summary>
internal sealed class LineShares
{
    private readonly Line[] lines;
    private readonly ByClass<Sum>[] sums;
    private readonly Dictionary<int, Sum> free = [];
    private readonly ILookup<object, int> ours;
    private readonly List<(int Line, CompiledItem.Part Part, Val Amount)>[] taken;

    public LineShares(Reckoned reckoned, CostRules rules, Trace trace)
    {
        (lines, Costs, Trace, Rules) = (reckoned.Lines, reckoned.Costs, trace, rules);
        sums = Array.ConvertAll(lines, _ => new ByClass<Sum>(_ => new()));
        ours = Enumerable
            .Range(0, lines.Length)
            .Where(n => lines[n].Ours)
            .ToLookup<int, object>(n => lines[n].OfItem, ReferenceEqualityComparer.Instance);
        taken = Array.ConvertAll(Enum.GetValues<ComponentKind>(), _ => new List<(int, CompiledItem.Part, Val)>());
        for (var n = 0; n < lines.Length; n++)
        {
            var line = lines[n];
            for (var i = 0; i < line.Amounts.Length; i++)
                if (line.Item.Parts[i] is var part && line.Costs(part))
                    taken[(int)part.Kind.Kind].Add((n, part, line.Amounts[i]));
        }
    }

    /// <summary>What the job costs.</summary>
    public Costs Costs { get; }

    /// <summary>At what things count.</summary>
    public CostRules Rules { get; }

    public Trace Trace { get; }

    /// <summary>What lines take of one kind, as far as it is our cost: position of the line, part, amount.</summary>
    public IReadOnlyList<(int Line, CompiledItem.Part Part, Val Amount)> Of(ComponentKind kind) => taken[(int)kind];

    /// <summary>What comes once for a work item of one kind.</summary>
    public IEnumerable<(CompiledItem Item, CompiledItem.Part Part, Val Amount)> Once(ComponentKind kind) =>
        Costs.Once.Where(o => o.Part.Kind.Kind == kind);

    /// <summary>A line bears a cost of a part.</summary>
    public void Add(int line, CompiledItem.Part part, Val cost) => Add(line, part.Kind.Class, cost);

    /// <summary>A line bears a cost.</summary>
    public void Add(int line, CostClass of, Val cost) => sums[line][of].Add(cost);

    /// <summary>A line bears a cost of goods; <paramref name="isFree"/> where no charged tax falls on them.</summary>
    public void AddGoods(int line, Val cost, bool isFree)
    {
        Add(line, CostClass.Material, cost);
        if (!isFree)
            return;
        if (!free.TryGetValue(line, out var sum))
            free.Add(line, sum = new());
        sum.Add(cost);
    }

    /// <summary>The lines of a work item bear a cost by their hours; where those are typed in all, by their quantities; where there are none, in as many equal parts as there are lines.</summary>
    public void AddByHours(CompiledItem item, CostClass of, Val cost) =>
        ByHours(item, cost, (at, part) => Add(at, of, part));

    /// <summary>The same for goods.</summary>
    public void AddGoodsByHours(CompiledItem item, Val cost, bool isFree) =>
        ByHours(item, cost, (at, part) => AddGoods(at, part, isFree));

    private void ByHours(CompiledItem item, Val cost, Action<int, Val> add)
    {
        var at = ours[item].ToArray();
        var by = Array.ConvertAll(at, n => item.Item.Labour is null ? lines[n].Hours : lines[n].Quantity);
        var all = Sum.Of(by);
        for (var i = 0; i < at.Length; i++)
            add(at[i], all.V == 0 ? cost / at.Length : cost * by[i] / all);
    }

    /// <summary>What each line bears, by class.</summary>
    public ByClass<Val>[] Sums() =>
        Array.ConvertAll(
            sums,
            line => new ByClass<Val>(of => of == CostClass.Material ? line[of].Total : Rules.Other(of, line[of].Total))
        );

    /// <summary>What of each line's goods no charged tax falls on.</summary>
    public Val[] Free()
    {
        var all = new Val[lines.Length];
        foreach (var (line, sum) in free)
            all[line] = sum.Total;
        return all;
    }
}
