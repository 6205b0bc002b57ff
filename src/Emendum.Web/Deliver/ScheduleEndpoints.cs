using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Web.Deliver;

/// <summary>Which strip is seen.</summary>
/// <param name="From">Its first day, like 2027-01-31; empty for the usual one.</param>
/// <param name="ByCrew">Whether by crew, with all jobs.</param>
public sealed record StripAsked(string From, bool ByCrew);

/// <summary>Who does the work of a section.</summary>
public sealed record SectionCrew(string Section, Guid Crew);

/// <summary>Lays the work order out.</summary>
/// <param name="Strip">Which strip is seen.</param>
/// <param name="From">From which day, like 2027-01-31.</param>
/// <param name="Crews">Who does which section.</param>
public sealed record LayOutTasks(StripAsked Strip, string From, ImmutableArray<SectionCrew> Crews);

/// <summary>Moves a task.</summary>
/// <param name="Strip">Which strip is seen.</param>
/// <param name="Task">The task.</param>
/// <param name="Day">To which day, like 2027-01-31, at its time of day; empty where it is moved by days.</param>
/// <param name="By">By how many days of its crew's work; less than nothing for earlier.</param>
public sealed record MoveTask(StripAsked Strip, Guid Task, string Day, int By);

/// <summary>A link as it is typed.</summary>
/// <param name="After">The task before.</param>
/// <param name="Lead">Working hours between; empty for none.</param>
/// <param name="Drying">Real hours between; empty for none.</param>
public sealed record LinkTyped(Guid After, string Lead, string Drying);

/// <summary>A task as it is typed.</summary>
/// <param name="Name">What is done.</param>
/// <param name="At">Where; of one that is made of the work order it stays.</param>
/// <param name="Crew">Who does it.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="Day">On which day it begins, like 2027-01-31.</param>
/// <param name="Clock">At what time, like 8:00.</param>
/// <param name="IsPinned">Whether that is a promise.</param>
/// <param name="Links">What it waits for.</param>
public sealed record TaskTyped(
    string Name,
    string At,
    Guid Crew,
    string Hours,
    string Day,
    string Clock,
    bool IsPinned,
    ImmutableArray<LinkTyped> Links
)
{
    /// <summary>The task.</summary>
    /// <param name="old">As it stands; null for a new one.</param>
    /// <param name="id">Its id.</param>
    /// <exception cref="RefusedException">Something cannot be read.</exception>
    internal PlannedTask Task(PlannedTask? old, Guid id)
    {
        var start = Typed
            .Day(Day, "day")
            .ToDateTime(
                WorkSpan.Clock(Clock, out var clock)
                    ? clock
                    : throw RefusedException.Of("clock", "Write the time like 8:00.")
            );
        var hours = Typed.Number(Hours, "hours") ?? 0;
        return new PlannedTask(
            id,
            Name.Trim(),
            old is { Work.IsEmpty: false } ? old.At : At.Trim(),
            Crew,
            // What was read rounded and not typed over stays as exact as it was.
            old is not null
            && decimal.Round(old.Hours, 2) == hours
                ? old.Hours
                : hours,
            start
        )
        {
            Rank = old?.Rank ?? "",
            Work = old?.Work ?? [],
            Visit = old?.Visit,
            IsBegun = old?.IsBegun ?? false,
            Pin = IsPinned ? old?.Pin ?? start : null,
            Links =
            [
                .. (Links.IsDefault ? [] : Links).Select(l => new TaskLink(
                    l.After,
                    Typed.Number(l.Lead, "links") ?? 0,
                    Typed.Number(l.Drying, "links") ?? 0
                )),
            ],
        };
    }
}

/// <summary>Makes a task another.</summary>
public sealed record SetTask(StripAsked Strip, Guid Task, TaskTyped Typed);

/// <summary>Adds a task by hand.</summary>
/// <param name="Strip">Which strip is seen.</param>
/// <param name="Id">Its id.</param>
/// <param name="Typed">What it is.</param>
public sealed record AddTask(StripAsked Strip, Guid Id, TaskTyped Typed);

/// <summary>Takes a task away.</summary>
public sealed record RemoveTask(StripAsked Strip, Guid Task);

/// <summary>Takes what change orders did to the work order over into the plan.</summary>
/// <param name="Strip">Which strip is seen.</param>
public sealed record FollowChanges(StripAsked Strip);

/// <summary>Tells those whom it concerns.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Version">The job's version that was seen.</param>
public sealed record PublishSchedule(Guid Id, long Version);

/// <summary>The schedule of a job. What is asked here about tasks changes nothing: it says what would be, and the command that does it.</summary>
public static class ScheduleEndpoints
{
    /// <summary>Maps it.</summary>
    public static void MapSchedule(this IEndpointRouteBuilder deliver)
    {
        var schedule = deliver.MapGroup("/schedule");
        schedule.MapGet(
            "/",
            (Guid id, string? from, bool? byCrew, Scheduling of) => of.View(id, new(from ?? "", byCrew is true))
        );
        schedule.MapPost("/lay-out", (Guid id, LayOutTasks lay, Scheduling of) => of.LayOut(id, lay));
        schedule.MapPost("/move", (Guid id, MoveTask move, Scheduling of) => of.Move(id, move));
        schedule.MapPost("/set", (Guid id, SetTask set, Scheduling of) => of.Set(id, set));
        schedule.MapPost("/add", (Guid id, AddTask add, Scheduling of) => of.Add(id, add));
        schedule.MapPost("/remove", (Guid id, RemoveTask remove, Scheduling of) => of.Remove(id, remove));
        schedule.MapPost("/follow", (Guid id, FollowChanges follow, Scheduling of) => of.Follow(id, follow));
        schedule.MapPost("/publish", (Guid id, PublishSchedule publish, Scheduling of) => of.Publish(id, publish));
        schedule
            .MapGet("/calendar.ics", (Guid id, Scheduling of) => of.Calendar(id))
            .Produces<byte[]>(200, "text/calendar");
        schedule
            .MapGet("/work-order.pdf", (Guid id, Guid crew, string day, Scheduling of) => of.WorkOrder(id, crew, day))
            .Produces<byte[]>(200, "application/pdf");
        schedule
            .MapGet("/schedule.xlsx", (Guid id, Scheduling of) => of.Workbook(id))
            .Produces<byte[]>(200, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet");
    }
}
