namespace Emendum.Core.Jobs;

/// <summary>What must hold in a whole job, however it came in. Each part checks itself (<c>Parts</c>).</summary>
public static class JobRules
{
    /// <summary>Most places of one job.</summary>
    public const int MostPlaces = 5000;

    /// <summary>Most work items of one job.</summary>
    public const int MostWork = 2000;

    /// <summary>Most cells of one job's grid, empty ones too: places times work.</summary>
    public const int MostCells = 1_000_000;

    /// <summary>Checks ids, references, places, entries and terms.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public static void Check(Job job)
    {
        if (job.Id == Guid.Empty)
            throw RefusedException.Of("id", "The job has no id.");
        Size(job);
        JobParts.Check(job);
    }

    /// <summary>Checks names and addresses.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public static void Info(JobInfo info) => InfoPart.Check(info);

    /// <summary>Checks that a job is of a size that can be worked with.</summary>
    public static void Size(Job job)
    {
        if (job.Places.Length > MostPlaces)
            throw RefusedException.Of("places", $"A job takes at most {MostPlaces:N0} places.");
        if (job.Work.Length > MostWork)
            throw RefusedException.Of("work", $"A job takes at most {MostWork:N0} pieces of work.");
        if ((long)job.Places.Length * job.Work.Length > MostCells)
            throw RefusedException.Of(
                "places",
                $"{job.Places.Length:N0} places and {job.Work.Length:N0} pieces of work make a grid of more than {MostCells:N0} cells. Make two jobs of it."
            );
    }
}
