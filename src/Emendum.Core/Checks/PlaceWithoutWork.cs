namespace Emendum.Core.Checks;

/// <summary>A place was measured, and nothing is said of it.</summary>
internal static class PlaceWithoutWork
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        var worked = job.Job.Cells.Keys.Select(k => k.Place).ToHashSet();
        foreach (var place in job.Job.Places.Where(p => !worked.Contains(p.Id)))
            yield return job.Found(
                $"noWork/{place.Id}",
                "Place without work",
                $"{place.Name} is measured, and no work is said for it.",
                "Include work there, say what is excluded, or remove the place.",
                place.Id
            );
    }
}
