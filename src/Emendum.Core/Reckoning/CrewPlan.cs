using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>
/// How long the work takes: one crew goes through the work items in job order, taking the first that may begin. Work begins when what it waits for is done and dry;
/// each of several coats waits for the one before. The crew works its hours each day from its start; drying goes on round the clock. When nothing may begin before the
/// day is over the crew goes home, and coming back for that is a return visit, unless it could begin again the next morning without having lost working time.
/// </summary>
public static class CrewPlan
{
    /// <summary>Work in a plan.</summary>
    /// <param name="Span">Hours of the whole crew, for each coat.</param>
    /// <param name="Coats">In how many goes.</param>
    /// <param name="Waits">Positions of the work it waits for.</param>
    /// <param name="Drying">Hours after each go.</param>
    public readonly record struct Piece(decimal Span, int Coats, ImmutableArray<int> Waits, decimal Drying);

    /// <summary>Days begun from the first hour of work to the last, and return visits. Each go and each wait is looked at once.</summary>
    public static (int Days, int Returns) Work(IReadOnlyList<Piece> steps, decimal hoursPerDay)
    {
        var left = new int[steps.Count];
        var readyAt = new decimal[steps.Count];
        var unfinished = new int[steps.Count];
        var waitedForBy = new List<int>?[steps.Count];
        // What may begin now, in order; what may begin later, the earliest first; what is done, to be told to what waits for it.
        var now = 0m;
        var ready = new SortedSet<int>();
        var later = new PriorityQueue<int, (decimal At, int Order)>();
        var finished = new Queue<(int Piece, decimal Dry)>();
        for (var i = 0; i < steps.Count; i++)
        {
            left[i] = steps[i].Span == 0 ? 0 : steps[i].Coats;
            unfinished[i] = steps[i].Waits.Length;
            foreach (var wait in steps[i].Waits)
                (waitedForBy[wait] ??= []).Add(i);
        }
        for (var i = 0; i < steps.Count; i++)
        {
            // Work of no hours is done before anybody comes, whatever it waits for.
            if (left[i] == 0)
                finished.Enqueue((i, 0));
            else if (unfinished[i] == 0)
                ready.Add(i);
        }
        Tell();
        var (end, returns) = (0m, 0);
        while (true)
        {
            while (later.TryPeek(out var due, out var when) && when.At <= now)
            {
                later.Dequeue();
                ready.Add(due);
            }
            if (ready.Count == 0)
            {
                if (!later.TryPeek(out _, out var first))
                    break;
                var (evening, resumes) = (Evening(now), Working(first.At));
                if (
                    resumes > evening
                    && !(Rounding.ForCompare(now) >= Rounding.ForCompare(evening) && resumes <= Morning(now) + 24)
                )
                    returns++;
                // By then more may have become ready: the first in order goes on.
                now = resumes;
                continue;
            }
            var next = ready.Min;
            ready.Remove(next);
            now = Worked(Working(now), steps[next].Span);
            end = now;
            readyAt[next] = Rounding.Figure(now + steps[next].Drying);
            if (--left[next] > 0)
                Wait(next);
            else
            {
                finished.Enqueue((next, readyAt[next]));
                Tell();
            }
        }
        return (end == 0 ? 0 : (int)decimal.Floor(Rounding.ForCompare(end - 0.000000001m) / 24m) + 1, returns);

        // Time since the first morning; a day is 24 hours of which the first are worked.
        decimal Morning(decimal time) => decimal.Floor(Rounding.ForCompare(time) / 24m) * 24m;
        decimal Evening(decimal time) => Morning(time) + hoursPerDay;
        // The time itself within working hours, else the next morning.
        decimal Working(decimal time) =>
            Rounding.ForCompare(time) < Rounding.ForCompare(Evening(time)) ? time : Morning(time) + 24m;
        decimal Worked(decimal from, decimal span)
        {
            var today = Evening(from) - from;
            if (Rounding.ForCompare(span) <= Rounding.ForCompare(today))
                return Rounding.Figure(from + span);
            // What is left of today, whole days, and a last one of which something or all is worked.
            var rest = span - today;
            var whole = Rounding.Ceiling(rest / hoursPerDay) - 1;
            return Rounding.Figure(Morning(from) + 24m * (whole + 1) + rest - whole * hoursPerDay);
        }
        void Wait(int step)
        {
            if (readyAt[step] <= now)
                ready.Add(step);
            else
                later.Enqueue(step, (readyAt[step], step));
        }
        void Tell()
        {
            while (finished.TryDequeue(out var done))
                foreach (var waiting in waitedForBy[done.Piece] ?? [])
                {
                    readyAt[waiting] = decimal.Max(readyAt[waiting], done.Dry);
                    if (--unfinished[waiting] == 0 && left[waiting] > 0)
                        Wait(waiting);
                }
        }
    }

    /// <summary>The plan of a job from the labour hours of its work items.</summary>
    internal static Duration Of(Job job, List<(CompiledItem Item, Val Hours)> items, Trace trace)
    {
        var (crew, day) = ((decimal)job.Crew.Size, job.Crew.HoursPerDay);
        var at = new Dictionary<Guid, int>();
        for (var i = 0; i < items.Count; i++)
            at[items[i].Item.Item.Id] = i;
        var hours = items
            .Select(i =>
                trace.Make(
                    i.Hours,
                    "h",
                    trace.On ? $"{i.Item.Item.Name}: labour" : "",
                    new("work", i.Item.Item.Id, "hours")
                )
            )
            .ToArray();
        var steps = new Piece[items.Count];
        for (var i = 0; i < steps.Length; i++)
        {
            var item = items[i].Item;
            var coats = item.Drying > 0 ? item.Item.Coats : 1;
            steps[i] = new(
                Rounding.Figure(hours[i].V / (crew * coats)),
                coats,
                [.. item.Item.WaitsFor.Where(at.ContainsKey).Select(w => at[w])],
                item.Drying
            );
        }
        var (days, returns) = Work(steps, day);
        Val Planned(decimal value, string gives) =>
            new(
                value,
                !trace.On
                    ? null
                    : new Plan(
                        [.. steps.Select((s, i) => new PlanPiece(hours[i].HowOrConstant, s.Coats, s.Waits, s.Drying))],
                        trace.Crew(crew, "", "crew", "size").How!,
                        trace.Crew(day, "h", "hours a day", "hoursPerDay").How!,
                        gives
                    )
            );
        return new(
            trace.Total(Planned(days, "days"), "days", "Duration", new("totals", "duration")),
            trace.Total(Planned(returns, "returns"), "", "Return visits", new("totals", "returnVisits"))
        );
    }
}
