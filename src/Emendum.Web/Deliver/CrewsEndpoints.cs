using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Emendum.Web.Outside;

namespace Emendum.Web.Deliver;

/// <summary>Days off as they are typed.</summary>
/// <param name="From">The first, like 2027-01-31.</param>
/// <param name="To">The last; empty for one day.</param>
/// <param name="Why">Why; empty where nobody says.</param>
public sealed record DaysOffTyped(string From, string To, string Why);

/// <summary>When somebody works, as it is typed.</summary>
/// <param name="Week">The hours of each day, Monday first: <c>8–12, 12:30–16:30</c>; empty for none.</param>
/// <param name="Off">Days off.</param>
public sealed record WorkingTimeTyped(ImmutableArray<string> Week, ImmutableArray<DaysOffTyped> Off)
{
    internal static WorkingTimeTyped Of(WorkingTime time) =>
        new(
            [.. time.Week.Select(WorkSpan.Written)],
            [
                .. time.Off.Select(o => new DaysOffTyped(
                    Day.Written(o.From),
                    o.To == o.From ? "" : Day.Written(o.To),
                    o.Why
                )),
            ]
        );

    internal WorkingTime Time() =>
        new(
            [.. (Week.IsDefault ? [] : Week).Select(WorkSpan.Read)],
            [
                .. (Off.IsDefault ? [] : Off).Select(o => new DaysOff(
                    Typed.Day(o.From, "off"),
                    Typed.Day(o.To.Trim().Length > 0 ? o.To : o.From, "off"),
                    o.Why.Trim()
                )),
            ]
        );
}

/// <summary>A crew as it is typed.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Size">How many people.</param>
/// <param name="Time">When they work.</param>
/// <param name="IsOtherFirm">Whether it is another firm.</param>
/// <param name="Mail">E-mail address; empty for none.</param>
/// <param name="Phone">Telephone; empty for none.</param>
public sealed record CrewTyped(
    Guid Id,
    string Name,
    string Size,
    WorkingTimeTyped Time,
    bool IsOtherFirm,
    string Mail,
    string Phone
);

/// <summary>The crews as they are typed.</summary>
/// <param name="Firm">When the firm works.</param>
/// <param name="All">The crews.</param>
public sealed record CrewsTyped(WorkingTimeTyped Firm, ImmutableArray<CrewTyped> All)
{
    internal static CrewsTyped Of(Crews crews) =>
        new(
            WorkingTimeTyped.Of(crews.Firm),
            [
                .. crews.All.Select(c => new CrewTyped(
                    c.Id,
                    c.Name,
                    c.Size.ToString(CultureInfo.InvariantCulture),
                    WorkingTimeTyped.Of(c.Time),
                    c.IsOtherFirm,
                    c.Mail,
                    c.Phone
                )),
            ]
        );

    /// <summary>They, checked.</summary>
    /// <exception cref="RefusedException">Something cannot be read, or cannot be.</exception>
    internal Crews Crews()
    {
        var crews = new Crews(
            Firm.Time(),
            [
                .. (All.IsDefault ? [] : All).Select(c => new Crew(
                    c.Id,
                    c.Name.Trim(),
                    int.TryParse(c.Size.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var size)
                        ? size
                        : throw RefusedException.Of("size", "A crew has 1 to 200 people."),
                    c.Time.Time()
                )
                {
                    IsOtherFirm = c.IsOtherFirm,
                    Mail = c.Mail.Trim(),
                    Phone = c.Phone.Trim(),
                }),
            ]
        );
        crews.Check();
        return crews;
    }
}

/// <summary>A crew's calendar that somebody can ask for.</summary>
/// <param name="Crew">The crew.</param>
/// <param name="Words">How many addresses stand, and when the last was made.</param>
public sealed record CalendarsOfCrew(Guid Crew, string Words);

/// <summary>The calendars that stand.</summary>
/// <param name="Crews">Crews that have one.</param>
/// <param name="Outside">Whether somebody outside can ask for one.</param>
public sealed record CalendarsView(IReadOnlyList<CalendarsOfCrew> Crews, bool Outside);

/// <summary>Makes an address of a crew's calendar.</summary>
/// <param name="Id">Its id.</param>
public sealed record MakeCalendar(Guid Id);

/// <summary>What other crews, or days off, would move.</summary>
/// <param name="Moves">The tasks, by their jobs.</param>
/// <param name="More">How many more there are; empty for none.</param>
public sealed record CrewsMoves(IReadOnlyList<ShiftView> Moves, string More);

/// <summary>The firm's crews, and their calendars.</summary>
public static class CrewsEndpoints
{
    /// <summary>Most moves that are listed.</summary>
    private const int MostListed = 40;

    /// <summary>Maps them.</summary>
    public static void MapCrews(this IEndpointRouteBuilder app)
    {
        var crews = app.MapGroup("/api/company/crews");
        crews.MapGet("/", (SettingStore settings) => CrewsTyped.Of(settings.Get(Crews.Setting, Crews.Starting)));
        crews.MapPut("/", Keep);
        crews.MapPost("/moves", Moves);
        crews.MapGet("/calendars", Calendars);
        crews.MapPost(
            "/{crew:guid}/calendar",
            (
                Guid crew,
                MakeCalendar make,
                SettingStore settings,
                ScheduleStore schedules,
                OutsideAddress outside,
                TimeProvider time
            ) => Make(crew, make, settings, schedules, outside, time)
        );
        crews.MapPost(
            "/{crew:guid}/calendar/revoke",
            (Guid crew, ScheduleStore schedules, OutsideAddress outside, FirmDay day, TimeProvider time) =>
            {
                schedules.RevokeCalendars(crew, time.GetUtcNow().UtcDateTime);
                return Calendars(schedules, outside, day);
            }
        );
    }

    private static CrewsTyped Keep(Save<CrewsTyped> save, SettingStore settings, ScheduleStore schedules, FirmDay day)
    {
        save.Now.Crews();
        return CrewsTyped.Of(
            settings.Change<Crews>(
                Crews.Setting,
                stands =>
                {
                    var before = stands ?? Crews.Starting;
                    var now = save.Onto(CrewsTyped.Of(before)).Crews();
                    foreach (var gone in before.All.Where(c => now.All.All(n => n.Id != c.Id)))
                        if (Task(schedules, gone.Id, day) is { } task)
                            throw RefusedException.Of("all", $"{gone.Name} has work still: {task}.");
                    return now;
                }
            )
        );
    }

    /// <summary>A task to come of a crew; null where it has none.</summary>
    private static string? Task(ScheduleStore schedules, Guid crew, FirmDay day) =>
        schedules
            .Tasks(day.Today.ToDateTime(default), null)
            .SelectMany(j => j.Tasks.Where(t => t.Crew == crew).Select(t => $"{t.Called} ({j.Name})"))
            .FirstOrDefault();

    /// <summary>What it would move, in all jobs, before it is kept (T6, T8).</summary>
    private static CrewsMoves Moves(CrewsTyped typed, SettingStore settings, ScheduleStore schedules, FirmDay day)
    {
        var (before, now) = (settings.Get(Crews.Setting, Crews.Starting), typed.Crews());
        var clock = day.Clock();
        var moves = new List<ShiftView>();
        foreach (var job in schedules.Tasks(day.Today.ToDateTime(default), null))
        {
            var named = job.Tasks.Select(t => t.Crew).ToList();
            var was = TaskPlan.Of(job.Tasks, before.For(named), before.Firm, clock);
            var then = TaskPlan.Of(was.Settled, now.For(named), now.Firm, clock);
            var move = TaskMove.Of(was, then, []);
            moves.AddRange(
                move.Pushed.Select(ShiftView.Of).Select(s => s with { Called = $"{s.Called} ({job.Name})" })
            );
        }
        return new(
            [.. moves.Take(MostListed)],
            moves.Count > MostListed ? $"and {Counted.Of(moves.Count - MostListed, "more task")}" : ""
        );
    }

    private static CalendarsView Calendars(ScheduleStore schedules, OutsideAddress outside, FirmDay day)
    {
        var moment = day.Moments();
        return new(
            [
                .. schedules
                    .Calendars()
                    .GroupBy(c => c.Crew)
                    .Select(g => new CalendarsOfCrew(
                        g.Key,
                        $"{Counted.Of(g.Count(), "address", "addresses")}, the last made {moment(g.Max(c => c.Made))}"
                    )),
            ],
            outside.IsThere
        );
    }

    private static LinkMade Make(
        Guid crew,
        MakeCalendar make,
        SettingStore settings,
        ScheduleStore schedules,
        OutsideAddress outside,
        TimeProvider time
    )
    {
        if (settings.Get(Crews.Setting, Crews.Starting).All.All(c => c.Id != crew))
            throw new NotThereException("That crew is not here any more.");
        if (make.Id == Guid.Empty)
            throw RefusedException.Of("id", "It needs an id.");
        var token = Token.New();
        var address = outside.OfCalendar(token);
        if (!schedules.AddCalendar(new(make.Id, crew, time.GetUtcNow().UtcDateTime), Token.HashOf(token)))
            throw RefusedException.Of("crew", "That address was made before, and is said only once. Make another one.");
        return new(address);
    }
}
