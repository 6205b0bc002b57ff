using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>How often work comes.</summary>
public static class RhythmTimes
{
    /// <summary>The rhythm of a piece of work; null where it is done once.</summary>
    public static Rhythm? Of(Job job, WorkItem item) =>
        job.Rhythms.IsEmpty ? null
        : (item.Rhythm ?? job.Round.Usual) is { } id ? job.Rhythm(id)
        : null;

    /// <summary>Whether any of a job's work comes back.</summary>
    public static bool ComesBack(Job job) =>
        !job.Rhythms.IsEmpty
        && job.Cells.Any(c =>
            c.Value.State == CellState.Included && job.Item(c.Key.Work) is { } item && Of(job, item) is not null
        );

    /// <summary>How often a rhythm comes in a year, as it is stated; what an event brings is what is expected.</summary>
    public static int Stated(Job job, Rhythm rhythm) =>
        rhythm.Kind switch
        {
            RhythmKind.WorkingDays => int.Max(0, Working(rhythm) - Off(job, rhythm)),
            RhythmKind.Event => rhythm.Bands.Sum(b => b.Expected),
            _ => rhythm.Times,
        };

    /// <summary>Working days of its months, as many as a year of 260 has in so many.</summary>
    public static int Working(Rhythm rhythm) =>
        (int)decimal.Round(Rhythm.WorkingDays * rhythm.MonthCount / 12m, MidpointRounding.AwayFromZero);

    /// <summary>The days off that fall on them.</summary>
    public static int Off(Job job, Rhythm rhythm) => job.Round.OffWork.Count(d => rhythm.In(d.Month));

    /// <summary>The same less what is done instead of it: each of those by its own times as stated (260, 52 instead, 4 instead of those: 208 + 48 + 4).</summary>
    public static int Left(Job job, Rhythm rhythm) =>
        Stated(job, rhythm) - job.Rhythms.Where(r => r.Instead == rhythm.Id).Sum(r => Stated(job, r));

    /// <summary>Whether the crew comes for it: it needs a visit of its own, takes the place of one, or is the job's usual.</summary>
    public static bool HasVisit(Job job, Rhythm rhythm) =>
        rhythm.OwnVisit
        || rhythm.Instead is not null
        || rhythm.Kind == RhythmKind.Event
        || job.Round.Usual == rhythm.Id;

    /// <summary>As often as it would come in a whole year: seasonal work is as frequent as it is in its months.</summary>
    public static decimal AYear(Job job, Rhythm rhythm) => Stated(job, rhythm) * 12m / rhythm.MonthCount;
}
