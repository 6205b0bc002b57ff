using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Storage;

namespace Emendum.Web.Deliver;

/// <summary>A day of the strip.</summary>
/// <param name="Day">Like 2027-01-31.</param>
/// <param name="Name">As it is read: <c>Mon 1</c>.</param>
/// <param name="Month">The month, on its first day and, unless it is about to end, on the first day of the strip; empty otherwise.</param>
/// <param name="IsWeek">Whether a week begins.</param>
/// <param name="IsOff">Whether the firm does not work.</param>
/// <param name="Why">Why, where somebody has said.</param>
public sealed record StripDay(string Day, string Name, string Month, bool IsWeek, bool IsOff, string Why);

/// <summary>A stretch of the strip, in thousandths of a day from its first: a day is its hours of work.</summary>
public sealed record StripSpan(int From, int To);

/// <summary>A piece of tape: a task.</summary>
/// <param name="Task">The task.</param>
/// <param name="Job">Its job; null for the one that is shown.</param>
/// <param name="Name">What it says.</param>
/// <param name="Under">Who does it; on a crew's line where.</param>
/// <param name="Span">Where it lies.</param>
/// <param name="Lane">In which lane of its line, from 0.</param>
/// <param name="IsDone">Whether all of it is done.</param>
/// <param name="IsBegun">Whether it has begun: it keeps its start.</param>
/// <param name="IsPinned">Whether its start is a promise.</param>
/// <param name="Clashes">Whether its crew is asked for more hours than it has on a day of it.</param>
/// <param name="Dries">How long nobody goes there afterwards; null for not at all.</param>
/// <param name="DriesFor">That in words.</param>
/// <param name="Was">Where it lay before, where that is shown; null otherwise.</param>
/// <param name="Says">All of that in a sentence.</param>
public sealed record StripPiece(
    Guid Task,
    Guid? Job,
    string Name,
    string Under,
    StripSpan Span,
    int Lane,
    bool IsDone,
    bool IsBegun,
    bool IsPinned,
    bool Clashes,
    StripSpan? Dries,
    string DriesFor,
    StripSpan? Was,
    string Says
);

/// <summary>A line of the strip: a place, or a crew.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Note">How it stands, in a few words.</param>
/// <param name="Lanes">How many pieces lie over each other at most.</param>
/// <param name="Off">Days on which the crew is off, of a crew's line.</param>
/// <param name="Pieces">Its pieces, by when they begin.</param>
public sealed record StripRow(
    string Name,
    string Note,
    int Lanes,
    IReadOnlyList<StripSpan> Off,
    IReadOnlyList<StripPiece> Pieces
);

/// <summary>The strip: days along, places or crews down.</summary>
/// <param name="ByCrew">Whether its lines are crews, with the tasks of all jobs.</param>
/// <param name="Says">Which days are seen, in words.</param>
/// <param name="From">The first of them.</param>
/// <param name="Earlier">The first day a week earlier.</param>
/// <param name="Later">The first day a week later.</param>
/// <param name="Now">Where now is, in thousandths of a day; null where it is not on it.</param>
/// <param name="Days">The days.</param>
/// <param name="Rows">The lines.</param>
/// <param name="Outside">How many tasks of this job lie before or after, in words; empty for none.</param>
public sealed record StripView(
    bool ByCrew,
    string Says,
    string From,
    string Earlier,
    string Later,
    int? Now,
    IReadOnlyList<StripDay> Days,
    IReadOnlyList<StripRow> Rows,
    string Outside
);

/// <summary>Lays tasks on a strip of days.</summary>
/// <param name="plan">The plan of the job.</param>
/// <param name="before">The plan as it was, for where pieces lay; null where nothing is shown of that.</param>
/// <param name="progress">How far its tasks are.</param>
/// <param name="others">Tasks of other jobs.</param>
/// <param name="clashes">Crews that are asked for too much.</param>
internal sealed class ScheduleStrip(
    TaskPlan plan,
    TaskPlan? before,
    IReadOnlyDictionary<Guid, TaskProgress> progress,
    IReadOnlyList<OtherTasks> others,
    IReadOnlyList<CrewClash> clashes
)
{
    /// <summary>Days that are seen at a time: three weeks.</summary>
    private const int Days = 21;

    /// <summary>Most pieces of a strip.</summary>
    private const int MostPieces = 2000;

    private const int Thousandths = 1000;

    private readonly HashSet<Guid> clashing = [.. clashes.SelectMany(c => c.Tasks)];

    private readonly ILookup<Guid, TaskLink> waiting = plan
        .Tasks.SelectMany(t => t.Links.Select(l => (l.After, Link: l)))
        .ToLookup(x => x.After, x => x.Link);

    /// <summary>The first day that is seen where nobody asks for one: this week, or where the job has nothing then the week in which it next has, or last had.</summary>
    internal static DateOnly Usual(TaskPlan plan, DateOnly today)
    {
        var monday = Monday(today);
        var times = plan.Times.ToList();
        if (
            times.Count == 0
            || times.Exists(t =>
                DateOnly.FromDateTime(t.End) >= monday && DateOnly.FromDateTime(t.Start) < monday.AddDays(Days)
            )
        )
            return monday;
        var next = times.Where(t => DateOnly.FromDateTime(t.Start) >= monday).Select(t => t.Start).ToList();
        return Monday(DateOnly.FromDateTime(next.Count > 0 ? next.Min() : times.Max(t => t.Start)));
    }

    private static DateOnly Monday(DateOnly day) => day.AddDays(-(((int)day.DayOfWeek + 6) % 7));

    /// <summary>The strip.</summary>
    /// <param name="first">Its first day.</param>
    /// <param name="byCrew">Whether by crew, over all jobs.</param>
    /// <param name="now">Now, local time.</param>
    internal StripView Of(DateOnly first, bool byCrew, DateTime now)
    {
        var last = first.AddDays(Days - 1);
        var (before, after) = (0, 0);
        foreach (var time in plan.Times)
        {
            before += DateOnly.FromDateTime(time.End) < first ? 1 : 0;
            after += DateOnly.FromDateTime(time.Start) > last ? 1 : 0;
        }
        var outside = string.Join(
            ", ",
            new[] { before > 0 ? $"{before} before" : "", after > 0 ? $"{after} after these weeks" : "" }.Where(w =>
                w.Length > 0
            )
        );
        return new(
            byCrew,
            $"three weeks from {ScheduleNotice.Day(first.ToDateTime(default))} {first.Year}",
            Day.Written(first),
            Day.Written(first.AddDays(-7)),
            Day.Written(first.AddDays(7)),
            DateOnly.FromDateTime(now) is var today && today >= first && today <= last
                ? Thousandth(plan.Firm.OnTape(first, now))
                : null,
            [.. Enumerable.Range(0, Days).Select(n => DayOf(first, first.AddDays(n)))],
            byCrew ? [.. ByCrew(first)] : [.. ByPlace(first)],
            outside
        );
    }

    private StripDay DayOf(DateOnly first, DateOnly day) =>
        new(
            Day.Written(day),
            day.ToString("ddd d", System.Globalization.CultureInfo.InvariantCulture),
            // A month that ends at once is not named: its name would lie over the next.
            (day == first && day.AddDays(2).Month == day.Month)
            || day.Day == 1
                ? day.ToString("MMMM", System.Globalization.CultureInfo.InvariantCulture)
                : "",
            day.DayOfWeek == DayOfWeek.Monday,
            plan.Firm.On(day).IsEmpty,
            plan.Firm.Off.FirstOrDefault(o => o.From <= day && day <= o.To)?.Why ?? ""
        );

    private IEnumerable<StripRow> ByPlace(DateOnly first) =>
        plan
            .Times.GroupBy(t => t.Task.At)
            .Select(at =>
                Row(
                    at.Key.Length > 0 ? at.Key : "Whole job",
                    NoteOf([.. at]),
                    [],
                    [.. at.Select(t => Piece(first, t, plan.CrewOf(t.Task).Name))]
                )
            );

    private IEnumerable<StripRow> ByCrew(DateOnly first)
    {
        var here = plan.Times.ToLookup(t => t.Task.Crew);
        var there = others.SelectMany(o => o.Times.Select(t => (o.Of, Time: t))).ToLookup(x => x.Time.Task.Crew);
        foreach (var crew in plan.Crews)
        {
            var pieces = here[crew.Id]
                .Select(t => Piece(first, t, t.Task.At))
                .Concat(there[crew.Id].Select(x => Other(first, x.Of, x.Time, crew)))
                .Take(MostPieces)
                .ToList();
            var clash = clashes.Count(c => c.Crew == crew.Id);
            yield return Row(
                crew.Name,
                clash > 0
                    ? $"asked too much on {Counted.Of(clash, "day")}"
                    : $"{Counted.Of(crew.Size, "person", "people")}",
                [
                    .. Enumerable
                        .Range(0, Days)
                        .Where(n => crew.Time.On(first.AddDays(n)).IsEmpty && !plan.Firm.On(first.AddDays(n)).IsEmpty)
                        .Select(n => new StripSpan(n * Thousandths, (n + 1) * Thousandths)),
                ],
                pieces
            );
        }
    }

    /// <summary>How the tasks at a place stand.</summary>
    private string NoteOf(List<TaskTime> times)
    {
        var done = times.Count(t => progress.GetValueOrDefault(t.Task.Id)?.IsDone == true);
        if (done == times.Count)
            return "all done";
        var open = times.Where(t => progress.GetValueOrDefault(t.Task.Id)?.IsDone != true).ToList();
        var begins = open.Exists(t => progress.GetValueOrDefault(t.Task.Id)?.IsBegun == true)
            ? $"ends {ScheduleNotice.Day(open.Max(t => t.End))}"
            : $"begins {ScheduleNotice.Day(open.Min(t => t.Start))}";
        return done > 0 ? $"{done} of {times.Count} done, {begins}" : begins;
    }

    private StripPiece Piece(DateOnly first, TaskTime time, string under)
    {
        var (task, crew) = (time.Task, plan.CrewOf(time.Task));
        var how = progress.GetValueOrDefault(task.Id);
        var drying = waiting[task.Id].Select(l => l.Drying).DefaultIfEmpty().Max();
        var was =
            before?.Times.FirstOrDefault(t => t.Task.Id == task.Id) is { } old
            && (old.Start, old.End) != (time.Start, time.End)
                ? Clipped(first, old, before.CrewOf(old.Task))
                : null;
        return new(
            task.Id,
            null,
            task.Name,
            under,
            Span(first, time, crew),
            0,
            how?.IsDone == true,
            how?.IsBegun == true,
            task.Pin is not null,
            clashing.Contains(task.Id),
            drying > 0
                ? Clip(crew.Time.OnTape(first, time.End), plan.Firm.OnTape(first, plan.Clock.After(time.End, drying)))
                : null,
            drying > 0 ? $"dries {Shown.Typed(drying)} h" : "",
            was,
            Says(time, crew, how, drying)
        );
    }

    private StripPiece Other(DateOnly first, TasksOfJob of, TaskTime time, Crew crew) =>
        new(
            time.Task.Id,
            of.Job,
            time.Task.Name,
            of.Name,
            Span(first, time, crew),
            0,
            false,
            false,
            time.Task.Pin is not null,
            clashing.Contains(time.Task.Id),
            null,
            "",
            null,
            $"{of.Name}: {time.Task.Called}, {ScheduleNotice.Span(time.Start, time.End)}"
        );

    private static string Says(TaskTime time, Crew crew, TaskProgress? how, decimal drying) =>
        string.Join(
            "; ",
            new[]
            {
                $"{time.Task.Called}: {crew.Name}, {ScheduleNotice.Span(time.Start, time.End)}",
                how is { IsDone: true } ? "done"
                : how is { IsBegun: true } ? $"begun, {Shown.Fine(decimal.Round(how.Percent))} % done"
                : "",
                time.PinMissed > 0 ? $"pin missed by {Counted.Of(time.PinMissed, "day")}"
                : time.Task.Pin is not null ? "pinned"
                : "",
                drying > 0 ? $"dries {Shown.Typed(drying)} h" : "",
            }.Where(w => w.Length > 0)
        );

    private static StripRow Row(
        string name,
        string note,
        IReadOnlyList<StripSpan> off,
        IReadOnlyList<StripPiece> pieces
    )
    {
        var (lanes, laid) = (new List<int>(), new List<StripPiece>(pieces.Count));
        foreach (var piece in pieces.Where(IsSeen).OrderBy(p => p.Span.From).ThenBy(p => p.Span.To))
        {
            var lane = lanes.FindIndex(end => end <= piece.Span.From);
            if (lane < 0)
            {
                lane = lanes.Count;
                lanes.Add(0);
            }
            lanes[lane] = Math.Max(piece.Span.To, piece.Dries?.To ?? 0);
            laid.Add(piece with { Lane = lane });
        }
        return new(name, note, Math.Max(1, lanes.Count), off, laid);
    }

    private static bool IsSeen(StripPiece piece) =>
        Math.Max(piece.Span.To, piece.Was?.To ?? 0) >= 0
        && Math.Min(piece.Span.From, piece.Was?.From ?? int.MaxValue) < Days * Thousandths;

    /// <summary>A task that takes no time is seen all the same.</summary>
    private static StripSpan Span(DateOnly first, TaskTime time, Crew crew)
    {
        var (from, to) = (crew.Time.OnTape(first, time.Start), crew.Time.OnTape(first, time.End));
        return new(Thousandth(from), Thousandth(Math.Max(to, from + 0.05m)));
    }

    private static StripSpan? Clipped(DateOnly first, TaskTime time, Crew crew) =>
        Span(first, time, crew) is { To: > 0, From: < Days * Thousandths } span ? span : null;

    private static StripSpan? Clip(decimal from, decimal to) =>
        to > from ? new(Thousandth(from), Thousandth(to)) : null;

    private static int Thousandth(decimal days) =>
        (int)Math.Clamp(decimal.Round(days * Thousandths, MidpointRounding.AwayFromZero), -1_000_000, 1_000_000);
}

/// <summary>Tasks of another job, with when they are done.</summary>
internal sealed record OtherTasks(TasksOfJob Of, ImmutableArray<TaskTime> Times);
