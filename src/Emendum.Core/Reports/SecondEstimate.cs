using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reports;

/// <summary>How another estimator goes about the same job.</summary>
/// <param name="Book">Another Book: an entry of the job as it stands there, or null where it is not; null for the job's own.</param>
/// <param name="Harder">By how many levels they find all work that has levels harder; below zero easier.</param>
/// <param name="Slower">By how many percent they give all labour more time; below zero less.</param>
public sealed record SecondEstimator(Func<Guid, BookEntry?>? Book, int Harder, decimal Slower)
{
    /// <summary>Checks it.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public void Check()
    {
        if (Harder is < -5 or > 5)
            throw RefusedException.Of("harder", "Work is at most five levels harder, or easier.");
        if (Slower is < -80 or > 400)
            throw RefusedException.Of("slower", "All labour takes −80 to +400 percent more.");
    }

    /// <summary>The job as they have it.</summary>
    /// <exception cref="RefusedException">It cannot be theirs.</exception>
    public Job Theirs(Job job)
    {
        Check();
        if (Book is { } book)
            job = WithBook(job, book);
        if (Harder != 0)
            job = WithDifficulty(job);
        if (Slower != 0)
            job = Commands
                .Apply(
                    job,
                    new SetPace(
                        job.Pace,
                        new(
                            decimal.Round((job.Pace?.Factor ?? 1m) * (100 + Slower) / 100, 6),
                            "another estimator's pace"
                        )
                    ),
                    _ => null
                )
                .Job;
        return job;
    }

    private static Job WithBook(Job job, Func<Guid, BookEntry?> book)
    {
        ImmutableArray<Guid> others =
        [
            .. job
                .Book.Values.Where(e => book(e.Id) is { } other && other.GetType() == e.GetType())
                .Select(e => e.Id)
                .Order(),
        ];
        return Commands.Apply(job, new TakeFromBook(others, null), book).Job;
    }

    private Job WithDifficulty(Job job)
    {
        string? Moved(Guid work, string? difficulty) =>
            difficulty is not null && job.Book[job.Item(work)!.Entry] is WorkEntry { Levels.Length: > 0 } entry
                ? LevelFrom(entry, difficulty)
                : difficulty;
        var cells = job.Cells.ToBuilder();
        foreach (var (key, cell) in job.Cells)
            if (cell.Difficulty is { } own)
                cells[key] = cell with { Difficulty = Moved(key.Work, own) };
        return job with
        {
            Work = [.. job.Work.Select(w => w with { Difficulty = Moved(w.Id, w.Difficulty)! })],
            Cells = cells.ToImmutable(),
        };
    }

    /// <summary>The level so many above, or below, by their factors; work without a level counts as one of factor 1.</summary>
    private string LevelFrom(WorkEntry entry, string name)
    {
        var levels = entry.Levels.OrderBy(l => l.Factor).ToArray();
        for (var step = 0; step < Math.Abs(Harder); step++)
        {
            var factor = levels.FirstOrDefault(l => l.Name == name)?.Factor ?? 1m;
            var next =
                Harder > 0
                    ? Array.Find(levels, l => l.Factor > factor)
                    : Array.FindLast(levels, l => l.Factor < factor);
            if (next is null)
                break;
            name = next.Name;
        }
        return name;
    }
}

/// <summary>A figure of ours, of theirs, and by how much theirs is more.</summary>
public sealed record TwoFigures(Total Ours, Total Theirs, Total More);

/// <summary>What two estimators say of one piece of work.</summary>
public sealed record TwoOfWork(WorkItem Item, TwoFigures Hours, TwoFigures Cost, TwoFigures Price);

/// <summary>Would two estimators agree: the same job as another would have it, with what differs, the largest difference in price first.</summary>
public sealed record SecondEstimate(
    Estimate Theirs,
    TwoFigures Hours,
    TwoFigures Cost,
    TwoFigures Price,
    ImmutableArray<TwoOfWork> Work
)
{
    /// <summary>Compares with what another estimator makes of it. <paramref name="within"/> begins the paths.</summary>
    /// <exception cref="RefusedException">The job cannot be reckoned their way.</exception>
    public static SecondEstimate Of(Estimate ours, SecondEstimator second, Trace trace, string within) =>
        Of(ours, second.Theirs(ours.Job), trace, within);

    /// <summary>Compares with another job of the same places. <paramref name="within"/> begins the paths.</summary>
    /// <exception cref="RefusedException">That cannot be reckoned.</exception>
    public static SecondEstimate Of(Estimate ours, Job job, Trace trace, string within)
    {
        var theirs = trace.On ? Estimate.Of(job, trace.Within(within + "theirs/")) : ours.If(job);
        if (trace.On)
            ours = Estimate.Of(ours.Job, trace.Within(within + "ours/"));
        var made = trace.Within(within);
        TwoFigures Two(Val a, Val b, string unit, string label, FigurePath path)
        {
            Total One(Val value, string what, string leaf) =>
                made.Total(value, unit, trace.On ? $"{label}: {what}" : "", path with { Leaf = path.Leaf + leaf });
            var (first, other) = (One(a, "ours", "/ours"), One(b, "theirs", "/theirs"));
            return new(first, other, One(other - first, "theirs less ours", ""));
        }
        var (sums, otherSums) = (
            Of(ours, trace.Within(within + "ours/")),
            Of(theirs, trace.Within(within + "theirs/"))
        );
        TwoOfWork OfWork(WorkItem item)
        {
            TwoFigures Both(
                Func<(Subtotals Hours, LineMoney Money), Dictionary<Guid, Total>> of,
                string unit,
                string leaf
            )
            {
                Val Amount((Subtotals, LineMoney) sums) =>
                    of(sums).TryGetValue(item.Id, out var total) ? total.Value : 0m;
                return Two(Amount(sums), Amount(otherSums), unit, $"{item.Name}, {leaf}", new("work", item.Id, leaf));
            }
            return new(
                item,
                Both(s => s.Hours.ItemHours, "h", "hours"),
                Both(s => s.Money.ItemCost, "", "cost"),
                Both(s => s.Money.ItemPrice, "", "price")
            );
        }
        return new(
            theirs,
            Two(ours.Reckoned.Costs.Hours, theirs.Reckoned.Costs.Hours, "h", "Labour", new("job", "hours")),
            Two(ours.Price.Readouts.Cost, theirs.Price.Readouts.Cost, "", "Cost", new("job", "cost")),
            Two(ours.Price.BeforeTax, theirs.Price.BeforeTax, "", "Price before tax", new("job", "price")),
            [
                .. ours
                    .Job.Work.Concat(job.Work.Where(w => ours.Job.Item(w.Id) is null))
                    .Select(OfWork)
                    .Where(w => w.Price.More.V != 0 || w.Hours.More.V != 0 || w.Cost.More.V != 0)
                    .OrderByDescending(w => decimal.Abs(w.Price.More.V))
                    .ThenByDescending(w => decimal.Abs(w.Cost.More.V)),
            ]
        );
    }

    private static (Subtotals Hours, LineMoney Money) Of(Estimate estimate, Trace trace) =>
        (Subtotals.Of(estimate.Reckoned, trace), LineMoney.Of(estimate, trace));
}
