using System.Collections.Immutable;
using Emendum.Core.Delivery;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reports;
using Emendum.Storage;

namespace Emendum.Web;

/// <summary>How the made-up firm has planned its reading gallery: two crew leads of its own and another firm for the floor, paint that dries before the next comes.</summary>
/// <param name="database">Where it goes.</param>
/// <param name="agreed">What was agreed of the gallery.</param>
/// <param name="firm">The firm's day.</param>
internal sealed class DemoSchedule(Database database, Estimate agreed, FirmDay firm)
{
    private static readonly Crew Wyn = Of(1, "Wyn", 1) with { Mail = "wyn@larkspurpell.example" },
        Idris = Of(2, "Idris", 1) with { Phone = "+353 1 555 0142" },
        Floor = Of(3, "The floor layer", 2) with { Mail = "floors@quaylane.example", IsOtherFirm = true };

    private static Crew Of(int number, string name, int size) =>
        new(new($"01930000-0000-7000-8000-0000000008{number:00}"), name, size, WorkingTime.Usual);

    /// <summary>Writes it, as it was planned at a moment.</summary>
    /// <param name="from">The day from which it was laid out.</param>
    /// <param name="at">When (UTC).</param>
    /// <param name="by">By whom.</param>
    public void Write(DateOnly from, DateTime at, string by)
    {
        var crews = new Crews(WorkingTime.Usual, [Wyn, Idris, Floor]);
        new SettingStore(database).Put(Crews.Setting, crews);
        var begins = from.ToDateTime(default);
        var made = TaskMaking.Of(
            agreed,
            section =>
                section switch
                {
                    "Ceilings" or "Walls" => Wyn.Id,
                    "Floors" => Floor.Id,
                    _ => Idris.Id,
                },
            begins
        );
        var laid = TaskPlan.FirstLaid(
            [.. made.Select(t => t with { Links = [.. t.Links, .. Waits(t, made)] }), HandOver(made, begins)],
            crews.All,
            crews.Firm,
            firm.Clock(),
            begins
        );
        var jobs = new JobStore(database);
        var opened = jobs.Open(agreed.Job.Id)!;
        var (job, changes) = Commands.Apply(opened.Job, TaskEdit.Command(opened.Job.Tasks, laid.Settled), _ => null);
        jobs.Commit(
            [
                (
                    job,
                    new(
                        opened.Version + 1,
                        Guid.CreateVersion7(),
                        null,
                        "changeTasks",
                        new(by, Guid.Empty),
                        JobStore.Utc(at),
                        null,
                        changes
                    )
                ),
            ],
            JobGlance.Of(Estimate.Of(job, Trace.Silent))
        );
        var told = PublishedTask.Of(laid);
        new ScheduleStore(database).Publish(
            Guid.CreateVersion7(),
            job.Id,
            _ =>
                (
                    new(
                        default,
                        0,
                        job.Id,
                        job.Info.Name,
                        "",
                        told,
                        [.. crews.All.Select(c => $"{c.Name}: by word")],
                        at,
                        by
                    ),
                    []
                )
        );
    }

    /// <summary>Written by hand: the shelves go back when the floor holds.</summary>
    private static PlannedTask HandOver(ImmutableArray<PlannedTask> all, DateTime from) =>
        new(new("01930000-0000-7000-8000-000000000820"), "Shelves back, hand over", "", Idris.Id, 5, from)
        {
            Links = [.. all.Where(t => t.Name == "Floors").Select(t => new TaskLink(t.Id, 0, 24))],
        };

    /// <summary>Walls wait until ceilings are dry, woodwork for walls, and the floor for woodwork.</summary>
    private static IEnumerable<TaskLink> Waits(PlannedTask task, ImmutableArray<PlannedTask> all)
    {
        var (before, drying) = task.Name switch
        {
            "Walls" => ("Ceilings", 4m),
            "Woodwork" => ("Walls", 16m),
            "Floors" => ("Woodwork", 24m),
            _ => ("", 0m),
        };
        return all.Where(t => t.Name == before && t.At == task.At && task.Links.All(l => l.After != t.Id))
            .Select(t => new TaskLink(t.Id, 0, drying));
    }
}
