using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Delivery;

/// <summary>Makes the tasks of an estimate that was agreed: section × building, floor or phase (estimating model §13).</summary>
public static class TaskMaking
{
    /// <summary>The tasks, in the work's order, not laid out yet. Set-up and travel, and labour that comes once for a work item, are shared in by hours (T1); work that waits for other work waits for its task in the same place, else for all of them, and for what dries there.</summary>
    /// <param name="agreed">The estimate with what was chosen taken.</param>
    /// <param name="crew">Who does the work of a section, by its name.</param>
    /// <param name="from">From when.</param>
    public static ImmutableArray<PlannedTask> Of(Estimate agreed, Func<string, Guid> crew, DateTime from)
    {
        // Of a round, tasks are made of what is done once; what comes back is its visits.
        if (!agreed.Price.Occurrences.IsEmpty)
        {
            var once = agreed.Price.Occurrences.FirstOrDefault(o => o.Occurrence.Rhythm is null);
            return
            [
                .. once is null ? [] : Of(agreed.Job, once.Occurrence.Reckoned, crew, from),
                .. Visits(agreed, crew),
            ];
        }
        return Of(agreed.Job, agreed.Reckoned, crew, from);
    }

    /// <summary>The visits of a round, each on the day that its rhythm lays it; what is done on another's visit waits for that.</summary>
    private static IEnumerable<PlannedTask> Visits(Estimate agreed, Func<string, Guid> crew)
    {
        var (job, all) = (agreed.Job, OrderedVisits.Of(agreed));
        if (all.Sum(v => v.Days.Length) > PlannedTask.Most)
            throw RefusedException.Of(
                "task",
                $"The year has {all.Sum(v => v.Days.Length):N0} visits; a schedule holds at most {PlannedTask.Most:N0} tasks."
            );
        foreach (var kind in all)
        {
            var by = crew(kind.Work.IsEmpty ? "" : job.SectionOf(job.Item(kind.Work[0])!));
            var host = all.FirstOrDefault(v => v.Id == kind.On);
            foreach (var visit in kind.Days)
                yield return new(visit.Id, kind.Name, "", by, kind.Hours, visit.Day.ToDateTime(default))
                {
                    Visit = kind.Id,
                    Work = kind.Work,
                    Links = host?.Days.FirstOrDefault(d => d.Day == visit.Day) is { } on
                        ? [new TaskLink(on.Id, 0, 0)]
                        : [],
                };
        }
    }

    private static ImmutableArray<PlannedTask> Of(Job job, Reckoned reckoned, Func<string, Guid> crew, DateTime from)
    {
        var lines = reckoned
            .Lines.Where(l => !l.IsNothing && l.Supply != Supply.Customer)
            .Select(l =>
                (
                    Section: job.SectionOf(l.OfItem.Item),
                    l.Measures.Place.Group,
                    Work: l.OfItem.Item.Id,
                    Hours: l.Hours.V,
                    l.OfItem.Drying,
                    Waits: l.Cell.Of(l.OfItem.Item).WaitsFor
                )
            )
            .ToList();
        var each = reckoned.EachTime.Where(o => o.Part.Kind.IsLabour).ToLookup(o => o.Item.Item.Id, o => o.Amount.V);
        var ofWork = lines
            .GroupBy(l => l.Work)
            .ToDictionary(g => g.Key, g => (Hours: g.Sum(l => l.Hours), Lines: g.Count()));
        // What comes once for a work item goes with its lines, by hours, and where they have none by their number.
        decimal With(Guid work, decimal hours) =>
            hours + each[work].Sum() * (ofWork[work].Hours > 0 ? hours / ofWork[work].Hours : 1m / ofWork[work].Lines);
        var grouped = lines
            .GroupBy(l => (l.Section, l.Group))
            .Select(g => (g.Key.Section, g.Key.Group, Hours: g.Sum(l => With(l.Work, l.Hours)), Lines: g.ToList()))
            .ToList();
        var worked = grouped.Sum(g => g.Hours);
        var setUp = reckoned.Costs.Hours.V - reckoned.Costs.Worked.V;
        Guid IdOf(string section, string group) => DerivedId.Of($"{job.Id}/task/{section}/{group}");
        return WithoutRings(
            [
                .. grouped.Select(g => new PlannedTask(
                    IdOf(g.Section, g.Group),
                    g.Section.Length > 0 ? g.Section : "Work",
                    g.Group,
                    crew(g.Section),
                    Rounding.Kept(worked == 0 ? 0 : g.Hours + setUp * g.Hours / worked),
                    from
                )
                {
                    Work = [.. g.Lines.Select(l => l.Work).Distinct()],
                    Links =
                    [
                        .. g
                            .Lines.SelectMany(l => l.Waits)
                            .Distinct()
                            .SelectMany(w => Before(w, g.Group))
                            .Where(b => (b.Section, b.Group) != (g.Section, g.Group))
                            .GroupBy(b => IdOf(b.Section, b.Group))
                            .Select(b => new TaskLink(b.Key, 0, b.Max(x => x.Drying)))
                            .Take(PlannedTask.MostLinks),
                    ],
                }),
            ]
        );

        IEnumerable<(string Section, string Group, decimal Drying)> Before(Guid work, string group)
        {
            var all = lines.Where(l => l.Work == work).Select(l => (l.Section, l.Group, l.Drying)).Distinct().ToList();
            var here = all.Where(l => l.Group == group).ToList();
            return here.Count > 0 ? here : all;
        }
    }

    /// <summary>Two sections may wait for each other, item by item: of such a ring the link that closes it is left out, in the work's order.</summary>
    private static ImmutableArray<PlannedTask> WithoutRings(ImmutableArray<PlannedTask> tasks)
    {
        var kept = tasks.ToDictionary(t => t.Id, _ => new List<TaskLink>());
        foreach (var task in tasks)
        foreach (var link in task.Links)
            if (!WaitsFor(link.After, task.Id))
                kept[task.Id].Add(link);
        return [.. tasks.Select(t => t with { Links = [.. kept[t.Id]] })];

        bool WaitsFor(Guid one, Guid other)
        {
            var (open, seen) = (new Stack<Guid>([one]), new HashSet<Guid>());
            while (open.TryPop(out var at))
                if (at == other)
                    return true;
                else if (seen.Add(at))
                    foreach (var link in kept[at])
                        open.Push(link.After);
            return false;
        }
    }
}
