using System.Collections.Immutable;
using Emendum.Core.Jobs;

namespace Emendum.Core.Delivery;

/// <summary>How far a task is, read from what happened on site.</summary>
/// <param name="IsBegun">Whether hours were booked on it, or something of it is done: it keeps its start (T8).</param>
/// <param name="Percent">How much of it is done; nothing of one that was written by hand.</param>
/// <param name="Pieces">How many lines of the work order it is made of.</param>
/// <param name="PiecesDone">How many of them are done.</param>
public sealed record TaskProgress(bool IsBegun, decimal Percent, int Pieces, int PiecesDone)
{
    /// <summary>Whether all of it is done.</summary>
    public bool IsDone => Pieces > 0 && PiecesDone == Pieces;

    /// <summary>Lines of a work order that a task is made of: its work items, where it is done.</summary>
    public static IEnumerable<OrderedLine> LinesOf(WorkOrder order, PlannedTask task) =>
        order.Lines.Where(l => l.Group == task.At && task.Work.Contains(l.Work));

    /// <summary>How far some tasks are.</summary>
    /// <param name="tasks">The tasks.</param>
    /// <param name="log">What happened.</param>
    public static IReadOnlyDictionary<Guid, TaskProgress> Of(ImmutableArray<PlannedTask> tasks, SiteLog log)
    {
        var (visits, visited) = (log.LastOfVisits, log.Standing.Select(h => h.Visit).OfType<Guid>().ToHashSet());
        var byWork = log.Order.Lines.ToLookup(l => (l.Work, l.Group));
        var booked = log.Standing.Where(h => h.Work is not null).ToLookup(h => h.Work!.Value, h => h.Place);
        return tasks.ToDictionary(
            t => t.Id,
            t =>
            {
                if (t.Visit is not null)
                {
                    var isDone = visits.GetValueOrDefault(t.Id) is { Said: VisitSaid.Done };
                    return new TaskProgress(isDone || visited.Contains(t.Id), isDone ? 100 : 0, 1, isDone ? 1 : 0);
                }
                var lines = t.Work.SelectMany(w => byWork[(w, t.At)]).ToList();
                var (hours, percents) = (lines.Sum(l => l.Hours), lines.ConvertAll(log.PercentOf));
                var percent =
                    lines.Count == 0 ? 0
                    : hours > 0 ? lines.Sum(l => l.Hours * log.PercentOf(l)) / hours
                    : percents.Average();
                // Hours on a work item that name no place are of all places where it is done.
                var worked = lines.Exists(l => booked[l.Work].Any(place => place is null || place == l.Place));
                return new TaskProgress(
                    worked || percent > 0,
                    percent,
                    lines.Count,
                    percents.Count(done => done == 100)
                );
            }
        );
    }
}
