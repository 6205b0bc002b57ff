using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>
/// On which days of its first year work comes back. The year is the twelve months from that of the first day. Weekly work and what divides or multiplies it falls on every so many days from the first day, monthly work on
/// the same day of the month, other work evenly over the working days of its months; what would fall on a weekend or a day off moves to the next working day. What is done instead of other work, or on its visit,
/// falls on one of its days.
/// </summary>
public sealed class RoundDays
{
    private readonly Job job;
    private readonly DateOnly start;
    private readonly HashSet<DateOnly> off;
    private readonly Dictionary<Guid, List<DateOnly>> days = [];

    private RoundDays(Job job)
    {
        (this.job, start) = (job, job.Round.StartIn(job));
        off = [.. job.Round.DaysOff.Select(Day.Of)];
        First = new(start.Year, start.Month, 1);
        foreach (var rhythm in job.Rhythms)
            days.Add(rhythm.Id, Own(rhythm));
        foreach (var rhythm in job.Rhythms.Where(r => !RhythmTimes.HasVisit(job, r)))
            if (Visited(rhythm) is { } visit)
                days[rhythm.Id] = TakenFrom([.. days[visit.Id]], days[rhythm.Id], leaves: true);
        foreach (var rhythm in job.Rhythms.Where(r => r.Instead is null))
            TakeFrom(rhythm);
    }

    /// <summary>First day of the first month.</summary>
    public DateOnly First { get; }

    /// <summary>The days of a job's rhythms.</summary>
    public static RoundDays Of(Job job) => new(job);

    /// <summary>Days of a rhythm, without those on which something is done instead; of an event, none: nobody knows them.</summary>
    public ImmutableArray<DateOnly> Of(Rhythm rhythm) => [.. days[rhythm.Id]];

    /// <summary>How often it comes in each of the twelve months.</summary>
    public int[] ByMonth(Rhythm rhythm) => Counted(days[rhythm.Id]);

    /// <summary>In how many of the twelve months an event is expected how often.</summary>
    public int[] ByMonth(Rhythm rhythm, EventBand band) => Counted(Evenly(rhythm, band.Expected));

    /// <summary>Positions, 0 to 11, of some months of the year (1 to 12; all where none is named), in the order in which they come.</summary>
    public int[] Positions(ImmutableArray<int> months) =>
        [.. Enumerable.Range(0, 12).Where(n => months.IsEmpty || months.Contains(First.AddMonths(n).Month))];

    private int[] Counted(IEnumerable<DateOnly> of)
    {
        var counts = new int[12];
        foreach (var day in of)
            counts[Math.Clamp((day.Year - First.Year) * 12 + day.Month - First.Month, 0, 11)]++;
        return counts;
    }

    private bool Works(DateOnly day) =>
        day.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday) && !off.Contains(day);

    private DateOnly Moved(DateOnly day)
    {
        while (!Works(day))
            day = day.AddDays(1);
        return day;
    }

    /// <summary>The days of a rhythm by itself.</summary>
    private List<DateOnly> Own(Rhythm rhythm)
    {
        var count = RhythmTimes.Stated(job, rhythm);
        return rhythm.Kind switch
        {
            RhythmKind.Event => [],
            RhythmKind.WorkingDays => [.. Working(rhythm, start).Take(count)],
            _ when rhythm.Months.IsEmpty && count >= 13 && (count % 52 == 0 || 52 % count == 0) => InStep(
                count,
                n => start.AddDays((int)((long)n * 364 / count))
            ),
            _ when rhythm.Months.IsEmpty && 12 % count == 0 => InStep(count, n => start.AddMonths(n * 12 / count)),
            _ => Evenly(rhythm, count),
        };
    }

    /// <summary>Takes the days of what is done instead of a rhythm from it, after its own have been taken from another.</summary>
    private void TakeFrom(Rhythm rhythm)
    {
        foreach (var instead in job.Rhythms.Where(r => r.Instead == rhythm.Id))
        {
            days[instead.Id] = TakenFrom(days[rhythm.Id], days[instead.Id], leaves: false);
            TakeFrom(instead);
        }
    }

    private Rhythm? Visited(Rhythm rhythm) => Visited(job, rhythm);

    /// <summary>On whose visits a rhythm is done that has none of its own: the job's usual rhythm, or the most frequent that the crew comes for; null where there is none.</summary>
    public static Rhythm? Visited(Job job, Rhythm rhythm) =>
        job.Round.Usual is { } usual && job.Rhythm(usual) is { Kind: not RhythmKind.Event } of && of.Id != rhythm.Id
            ? of
            : job
                .Rhythms.Where(r => r.Kind != RhythmKind.Event && RhythmTimes.HasVisit(job, r))
                .MaxBy(r => RhythmTimes.Stated(job, r));

    private List<DateOnly> InStep(int count, Func<int, DateOnly> day) =>
        [.. Enumerable.Range(0, count).Select(n => count > Rhythm.WorkingDays ? day(n) : Moved(day(n)))];

    /// <summary>Working days of its months from a day on, year after year.</summary>
    private IEnumerable<DateOnly> Working(Rhythm rhythm, DateOnly from)
    {
        for (var day = from; day < from.AddYears(3); day = day.AddDays(1))
            if (rhythm.In(day.Month) && Works(day))
                yield return day;
    }

    private List<DateOnly> Evenly(Rhythm rhythm, int count)
    {
        var end = First.AddMonths(12);
        DateOnly[] open = [.. Working(rhythm, start).TakeWhile(d => d < end)];
        if (open.Length == 0)
            open = [.. Working(rhythm, First).TakeWhile(d => d < end)];
        if (open.Length == 0)
            open = [First];
        return [.. Enumerable.Range(0, count).Select(n => open[(int)((2L * n + 1) * open.Length / (2L * count))])];
    }

    /// <summary>Days of another rhythm, each the first from a wished one on, else the last before it; none twice. <paramref name="leaves"/>: the other keeps them.</summary>
    private static List<DateOnly> TakenFrom(List<DateOnly> of, List<DateOnly> wished, bool leaves)
    {
        var taken = new List<DateOnly>(wished.Count);
        foreach (var wish in wished)
        {
            if (of.Count == 0)
            {
                taken.Add(wish);
                continue;
            }
            var at = of.FindIndex(d => d >= wish);
            if (at < 0)
                at = of.Count - 1;
            taken.Add(of[at]);
            // Where the other is not done instead, two may fall on one visit.
            if (!leaves)
                of.RemoveAt(at);
        }
        return taken;
    }
}
