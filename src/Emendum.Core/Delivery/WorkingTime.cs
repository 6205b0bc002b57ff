using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Delivery;

/// <summary>A stretch of a working day.</summary>
/// <param name="From">When it begins.</param>
/// <param name="To">When it ends, the same day; a closing moment is never a start (rule T2).</param>
public sealed record WorkSpan(TimeOnly From, TimeOnly To);

/// <summary>Days on which nobody works.</summary>
/// <param name="From">The first.</param>
/// <param name="To">The last.</param>
/// <param name="Why">Why; empty where nobody says.</param>
public sealed record DaysOff(DateOnly From, DateOnly To, string Why);

/// <summary>When somebody works: the hours of a week, and days off. Times are local, as the clock on the wall has them.</summary>
/// <param name="Week">The stretches of each day, Monday first, in order and apart.</param>
/// <param name="Off">Days off.</param>
public sealed record WorkingTime(ImmutableArray<ImmutableArray<WorkSpan>> Week, ImmutableArray<DaysOff> Off)
{
    /// <summary>Most days that are looked through for a working moment: who does not work for that long does not work.</summary>
    private const int MostDays = 3_660;

    /// <summary>Monday to Friday, 8 to 16 (common practice).</summary>
    public static readonly WorkingTime Usual = new(
        [.. Enumerable.Range(0, 7).Select(d => d < 5 ? Whole : ImmutableArray<WorkSpan>.Empty)],
        []
    );

    private static ImmutableArray<WorkSpan> Whole => [new(new(8, 0), new(16, 0))];

    /// <summary>Refuses what is no working time.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (Week.Length != 7)
            throw RefusedException.Of("week", "A week has seven days.");
        foreach (var day in Week)
            for (var i = 0; i < day.Length; i++)
                if (day[i].To <= day[i].From || (i > 0 && day[i].From < day[i - 1].To) || day.Length > 8)
                    throw RefusedException.Of(
                        "week",
                        "The hours of a day follow each other, each after the one before."
                    );
        if (Week.All(d => d.IsEmpty))
            throw RefusedException.Of("week", "Say on which days they work.");
        if (Off.Length > 500 || Off.Any(o => o.To < o.From || o.To.DayNumber - o.From.DayNumber > 400))
            throw RefusedException.Of("off", "Days off are at most 500 stretches, each from a day to a later one.");
        if (Off.Any(o => o.Why.Length > 200))
            throw RefusedException.Of("off", "At most 200 characters.");
    }

    /// <summary>The stretches of a day; none of a day off.</summary>
    public ImmutableArray<WorkSpan> On(DateOnly day) =>
        Off.Any(o => o.From <= day && day <= o.To) ? [] : Week[((int)day.DayOfWeek + 6) % 7];

    /// <summary>Working hours of a day.</summary>
    public decimal HoursOn(DateOnly day) => On(day).Sum(s => Hours(s.To - s.From));

    /// <summary>The first moment from then on at which somebody works.</summary>
    /// <exception cref="RefusedException">Nobody works for years.</exception>
    public DateTime Next(DateTime moment)
    {
        for (var (day, n) = (DateOnly.FromDateTime(moment), 0); n < MostDays; day = day.AddDays(1), n++)
            foreach (var span in On(day))
                if (day.ToDateTime(span.To) > moment)
                    return Later(moment, day.ToDateTime(span.From));
        throw NobodyWorks();
    }

    /// <summary>When so many working hours from a moment on are over: a closing moment can be an end (T1).</summary>
    /// <param name="from">From when.</param>
    /// <param name="hours">How many; none is over at once.</param>
    /// <exception cref="RefusedException">Nobody works for years.</exception>
    public DateTime After(DateTime from, decimal hours)
    {
        var left = Time(hours);
        if (left <= TimeSpan.Zero)
            return from;
        for (var (day, n) = (DateOnly.FromDateTime(from), 0); n < MostDays; day = day.AddDays(1), n++)
            foreach (var span in On(day))
            {
                var (begin, end) = (Later(from, day.ToDateTime(span.From)), day.ToDateTime(span.To));
                if (end <= begin)
                    continue;
                if (end - begin >= left)
                    return begin + left;
                left -= end - begin;
            }
        throw NobodyWorks();
    }

    /// <summary>Working hours between two moments of one day or of several.</summary>
    public decimal Between(DateTime from, DateTime to)
    {
        var sum = 0m;
        for (var day = DateOnly.FromDateTime(from); day.ToDateTime(default) < to; day = day.AddDays(1))
            sum += On(day, from, to);
        return sum;
    }

    /// <summary>Working hours of a day that lie between two moments.</summary>
    public decimal On(DateOnly day, DateTime from, DateTime to) =>
        On(day)
            .Sum(s =>
            {
                var (begin, end) = (Later(from, day.ToDateTime(s.From)), Earlier(to, day.ToDateTime(s.To)));
                return end > begin ? Hours(end - begin) : 0;
            });

    private static DateTime Later(DateTime a, DateTime b) => a > b ? a : b;

    private static DateTime Earlier(DateTime a, DateTime b) => a < b ? a : b;

    private static decimal Hours(TimeSpan of) => (decimal)of.Ticks / TimeSpan.TicksPerHour;

    /// <summary>Hours as a stretch of time, to the whole minute: nobody begins within one.</summary>
    private static TimeSpan Time(decimal hours) =>
        TimeSpan.FromMinutes((double)decimal.Round(hours * 60m, MidpointRounding.AwayFromZero));

    private static RefusedException NobodyWorks() =>
        RefusedException.Of("off", "Nobody works then for ten years: look at the days off.");
}

/// <summary>How the local clock goes against real time, for what dries through nights and changes of the clock (T2).</summary>
/// <param name="ToReal">A local moment as a real one.</param>
/// <param name="ToLocal">A real moment as a local one.</param>
public sealed record LocalClock(Func<DateTime, DateTime> ToReal, Func<DateTime, DateTime> ToLocal)
{
    /// <summary>A clock that is never changed.</summary>
    public static readonly LocalClock Steady = new(t => t, t => t);

    /// <summary>The local moment so many real hours later.</summary>
    public DateTime After(DateTime local, decimal hours) =>
        hours == 0 ? local : ToLocal(ToReal(local) + TimeSpan.FromMinutes((double)decimal.Round(hours * 60m)));
}

/// <summary>People who work together, or another firm.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Size">How many people.</param>
/// <param name="Time">When they work.</param>
public sealed record Crew(Guid Id, string Name, int Size, WorkingTime Time)
{
    /// <summary>Most crews of a firm.</summary>
    public const int Most = 100;

    /// <summary>Whether it is another firm.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsOtherFirm { get; init; }

    /// <summary>Refuses what is no crew.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > HoursFact.MostOfPerson || Name.Any(char.IsControl))
            throw RefusedException.Of("name", $"A crew has a name of at most {HoursFact.MostOfPerson} characters.");
        if (Size is < 1 or > 200)
            throw RefusedException.Of("size", "A crew has 1 to 200 people.");
        Time.Check();
    }
}
