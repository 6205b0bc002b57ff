using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Checks;

/// <summary>Work that names a hazard is done somewhere, and nobody has said whether it is there.</summary>
internal static class HazardNotAnswered
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        var done = job.Job.Cells.Where(c => c.Value.State != CellState.Excluded).Select(c => c.Key.Work).ToHashSet();
        foreach (var item in job.Reckoned.Items)
            if (
                item.Entry is Assembly { Hazard.Length: > 0 } assembly
                && item.Item.HazardAnswer.Length == 0
                && done.Contains(item.Item.Id)
            )
                yield return job.Found(
                    $"hazard/{item.Item.Id}",
                    "Hazard not answered",
                    $"{job.Named(item)}: {assembly.Hazard}",
                    "It must be answered before the work starts; the answer can change what it costs.",
                    work: item.Item.Id
                );
    }
}
