using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Checks;

/// <summary>A crew works without the machine its entry has, or for days without any.</summary>
internal static class NoEquipment
{
    public static IEnumerable<Finding> In(CheckedJob job) => LeftOut(job).Concat(NoneAtAll(job));

    private static IEnumerable<Finding> LeftOut(CheckedJob job)
    {
        foreach (var item in job.Reckoned.Items)
        {
            if (item.Entry is not Assembly assembly)
                continue;
            var left = assembly
                .Components.Where(c =>
                    c.Kind == ComponentKind.Equipment
                    && (c.Crew is not null || c.Optional)
                    && !item.Parts.Concat(item.Once).Any(p => p.Kind.Class == CostClass.Equipment)
                )
                .ToArray();
            if (left.Length == 0 || !job.Reckoned.Lines.Any(l => ReferenceEquals(l.OfItem, item) && l.Hours.V > 0))
                continue;
            yield return job.Found(
                $"equipment/{item.Item.Id}",
                "No equipment where a crew works",
                $"{job.Named(item)} is worked without {string.Join(" or ", left.Select(c => c.Name))}.",
                "Its entry has equipment for it, which this job does not take.",
                work: item.Item.Id
            );
        }
    }

    /// <summary>Without any machine, ladder or van for a whole crew's day, something was probably forgotten.</summary>
    private static IEnumerable<Finding> NoneAtAll(CheckedJob job)
    {
        var (costs, crew) = (job.Reckoned.Costs, job.Job.Crew);
        if (costs.Worked.V >= crew.Size * crew.HoursPerDay && costs.Equipment.All(e => e.Cost.V == 0))
            yield return job.Found(
                "equipment",
                "No equipment where a crew works",
                $"The crew works {Rounding.Text(decimal.Round(costs.CrewDays.V, 1))} days, and no equipment is in the cost.",
                "Access, machines, lights and vans are easily forgotten. Set this aside when they are in overhead."
            );
    }
}
