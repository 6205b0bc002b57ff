using System.Collections.Immutable;
using System.Globalization;

namespace Emendum.Core.Delivery;

/// <summary>A stretch of a working day.</summary>
/// <param name="From">When it begins.</param>
/// <param name="To">When it ends, the same day; a closing moment is never a start (rule T2).</param>
public sealed record WorkSpan(TimeOnly From, TimeOnly To)
{
    /// <summary>Most stretches of a day.</summary>
    public const int Most = 8;

    private static readonly string[] Forms = ["H:mm", "%H"];

    /// <summary>The hours of a day as they are written: <c>8–12, 12:30–16:30</c>; nothing for none.</summary>
    /// <param name="text">As typed.</param>
    /// <exception cref="RefusedException">It cannot be read, or one does not follow the other.</exception>
    public static ImmutableArray<WorkSpan> Read(string text)
    {
        var spans = ImmutableArray.CreateBuilder<WorkSpan>();
        foreach (var part in text.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var ends = part.Split(['–', '-'], StringSplitOptions.TrimEntries);
            if (ends.Length != 2 || !Clock(ends[0], out var from) || !Clock(ends[1], out var to))
                throw RefusedException.Of("week", "Write hours like 8–16, or 8–12, 12:30–16:30; nothing for no work.");
            spans.Add(new(from, to));
        }
        var read = spans.ToImmutable();
        Check(read);
        return read;
    }

    /// <summary>A time of day as it is typed: <c>8</c>, <c>8:30</c>.</summary>
    public static bool Clock(string text, out TimeOnly at) =>
        TimeOnly.TryParseExact(text.Trim(), Forms, CultureInfo.InvariantCulture, DateTimeStyles.None, out at);

    /// <summary>The hours of a day as <see cref="Read"/> reads them.</summary>
    public static string Written(ImmutableArray<WorkSpan> day) =>
        string.Join(", ", day.Select(s => $"{Written(s.From)}–{Written(s.To)}"));

    /// <summary>A time of day as it is read.</summary>
    public static string Written(TimeOnly at) => at.ToString("H:mm", CultureInfo.InvariantCulture);

    internal static void Check(ImmutableArray<WorkSpan> day)
    {
        if (day.Length > Most)
            throw RefusedException.Of("week", $"A day has at most {Most} stretches of work.");
        for (var i = 0; i < day.Length; i++)
            if (day[i].To <= day[i].From || (i > 0 && day[i].From < day[i - 1].To))
                throw RefusedException.Of("week", "The hours of a day follow each other, each after the one before.");
    }
}

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

    /// <summary>Beyond it nothing is planned, whatever waits for whatever.</summary>
    private static readonly DateOnly Last = new(2300, 1, 1);

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
            WorkSpan.Check(day);
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
        for (var (day, n) = (DateOnly.FromDateTime(moment), 0); n < MostDays && day < Last; day = day.AddDays(1), n++)
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
        for (var (day, n) = (DateOnly.FromDateTime(from), 0); n < MostDays && day < Last; day = day.AddDays(1), n++)
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

    /// <summary>The same time so many days of work later, or earlier where it is less than nothing; what is no time of work there is the next that is.</summary>
    /// <exception cref="RefusedException">Nobody works for years.</exception>
    public DateTime Days(DateTime from, int days)
    {
        var (day, left) = (DateOnly.FromDateTime(from), Math.Abs(days));
        for (var n = 0; left > 0; n++)
        {
            if (n > MostDays || day >= Last || day.Year < 1900)
                throw NobodyWorks();
            day = day.AddDays(Math.Sign(days));
            if (!On(day).IsEmpty)
                left--;
        }
        return Next(day.ToDateTime(TimeOnly.FromDateTime(from)));
    }

    /// <summary>Where a moment stands on a tape of days: whole days since the first, and how much of that day's work is over then; on a day without work, how much of the day.</summary>
    public decimal OnTape(DateOnly first, DateTime moment)
    {
        var day = DateOnly.FromDateTime(moment);
        var (midnight, hours) = (day.ToDateTime(default), HoursOn(day));
        var part = hours > 0 ? On(day, midnight, moment) / hours : Hours(moment - midnight) / 24m;
        return day.DayNumber - first.DayNumber + part;
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
        RefusedException.Of(
            "off",
            "Nobody works then for ten years, or it ends centuries away: look at hours and days off."
        );
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
