namespace Emendum.Core.Checks;

/// <summary>Work was taken from the Book and is nowhere.</summary>
internal static class WorkWithoutPlace
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        var used = job.Job.Cells.Keys.Select(k => k.Work).ToHashSet();
        foreach (var item in job.Reckoned.Items.Where(i => !used.Contains(i.Item.Id)))
            yield return job.Found(
                $"nowhere/{item.Item.Id}",
                "Work without a place",
                $"{job.Named(item)} is in no place.",
                "It adds nothing to the price. Include it somewhere, or take it out.",
                work: item.Item.Id
            );
    }
}
