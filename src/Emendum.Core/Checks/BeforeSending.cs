using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;

namespace Emendum.Core.Checks;

/// <summary>Where an unfinished thing is finished.</summary>
public enum Station
{
    /// <summary>The heading of the job: its customer.</summary>
    Job,
    Measure,
    Work,
    Price,
    Proposal,

    /// <summary>The customer's schedule of quantities.</summary>
    Schedule,
}

/// <summary>Something with which a proposal should not go out as it is.</summary>
/// <param name="Key">The same for the same thing.</param>
/// <param name="Says">What it is.</param>
/// <param name="Why">Why that matters.</param>
/// <param name="At">Where it is finished.</param>
/// <param name="Place">The place, where it is about one.</param>
/// <param name="Work">The work item, where it is about one.</param>
/// <param name="Block">The block of the proposal, where it is about one.</param>
public sealed record Unfinished(
    string Key,
    string Says,
    string Why,
    Station At,
    Guid? Place = null,
    Guid? Work = null,
    Guid? Block = null
)
{
    /// <summary>The job that it is about, where that is a further estimate; null for the job whose proposal it is.</summary>
    public Guid? Job { get; init; }
}

/// <summary>What is unfinished in a proposal: nothing goes out with a hole. What somebody has set aside among the checks, with a reason, is no hole any more.</summary>
public static class BeforeSending
{
    /// <summary>The holes, the gravest first.</summary>
    /// <param name="estimate">The job.</param>
    /// <param name="document">Its proposal.</param>
    /// <param name="today">The firm's day.</param>
    public static ImmutableArray<Unfinished> Of(Estimate estimate, Document document, DateOnly today)
    {
        var job = estimate.Job;
        var all = ImmutableArray.CreateBuilder<Unfinished>();
        if (!Array.Exists(estimate.Reckoned.Lines, l => l.Seen))
            all.Add(
                new("nothing", "Nothing is promised.", "There is no work that the customer would read.", Station.Work)
            );
        if (document.Head.Customer.Length == 0)
            all.Add(new("customer", "No customer.", "The proposal says to nobody that it is theirs.", Station.Job));
        if (job.PricesHoldUntil < today)
            all.Add(
                new(
                    "expired",
                    "The prices hold no longer.",
                    "Their last day is past: set a new date of the proposal, or let them hold for more days.",
                    Station.Proposal
                )
            );
        if (job.Pricing.Payment.IsEmpty && estimate.Price.Occurrences.IsEmpty)
            all.Add(
                new(
                    "payment",
                    "No payment steps.",
                    "The customer does not read when what is to be paid.",
                    Station.Price
                )
            );
        if (!document.Blocks.Any(b => b is { Kind: BlockKind.Price, IsRead: true }))
            all.Add(
                new("price", "The price is not among what is read.", "Show its block, or add it.", Station.Proposal)
            );
        if (job.Proposal.Detail == Detail.Schedule && OfSchedule(estimate) is { } unpriced)
            all.Add(unpriced);
        foreach (var block in document.Blocks.Where(b => !b.Hidden))
        foreach (var name in block.Missing)
            all.Add(
                new(
                    $"figure/{block.Id}/{name}",
                    $"{block.Title}: “{name}” comes to nothing here.",
                    "The words name a figure that this job has not.",
                    Station.Proposal,
                    Block: block.Id
                )
            );
        var @checked = new CheckedJob(estimate, [], new([]));
        Add(BelowFloor.In(@checked), Station.Price);
        Add(CostWithoutPrice.In(@checked), Station.Price);
        Add(HazardNotAnswered.In(@checked), Station.Work);
        Add(NotMeasuredYet.In(@checked), Station.Measure);
        Add(WorkWithoutMeasure.In(@checked), Station.Work);
        return all.ToImmutable();

        void Add(IEnumerable<Finding> findings, Station at)
        {
            foreach (var found in findings.Where(f => f.Reason.Length == 0))
                all.Add(new(found.Key, found.Says, found.Why, at, found.Place, found.Work));
        }
    }

    private static Unfinished? OfSchedule(Estimate estimate)
    {
        var schedule = estimate.Job.Schedule;
        if (schedule.IsEmpty)
            return new(
                "schedule",
                "There is no schedule of quantities.",
                "The price is to be shown by the customer's schedule, and this job has none.",
                Station.Schedule
            );
        var rows = new ScheduleRows(estimate.Job);
        var priced = estimate
            .Reckoned.Lines.Where(l => l.Seen)
            .Select(l => rows.At(l.Item.Item.Id, l.Measures.Place))
            .ToHashSet();
        var open = Enumerable
            .Range(0, schedule.Length)
            .Where(row => !schedule[row].IsHeading && !priced.Contains(row))
            .Select(row => schedule[row].Called)
            .ToArray();
        return open.Length == 0
            ? null
            : new(
                "schedule",
                $"{Counted.Of(open.Length, "row")} of the schedule {(open.Length == 1 ? "has" : "have")} no price: {Counted.Few(open, 6)}.",
                "They go back as “not included”. Say which work is in their price.",
                Station.Schedule
            );
    }
}
