using Emendum.Core.Places;

namespace Emendum.Core.Checks;

/// <summary>A place was listed with its work, and nobody has measured it yet.</summary>
internal static class NotMeasuredYet
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        var waiting = job.Reckoned.Lines.Where(l => l.IsNothing).Select(l => l.Measures.Place.Id).ToHashSet();
        foreach (var place in job.Job.Places.Where(p => p.Shape is Unmeasured && waiting.Contains(p.Id)))
            yield return job.Found(
                $"notMeasured/{place.Id}",
                "Not measured yet",
                $"{place.Name} has work, and is still to be measured.",
                "Until then there is nothing of that work in hours, goods and price, and nobody is promised it.",
                place.Id
            );
    }
}
