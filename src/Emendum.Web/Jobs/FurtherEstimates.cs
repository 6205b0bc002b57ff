using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Checks;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>A further estimate as its sender has seen it.</summary>
/// <param name="Job">The job.</param>
/// <param name="Version">Its version.</param>
public sealed record FurtherSeen(Guid Job, long Version);

/// <summary>Another job of the customer, that can go out with the proposal.</summary>
/// <param name="Id">The job.</param>
/// <param name="Version">Its version.</param>
/// <param name="Name">Number and name.</param>
/// <param name="Total">What it comes to, with tax.</param>
/// <param name="State">How its own proposal stands.</param>
/// <param name="Wrong">Why it cannot go out with it, as a sentence; empty where it can.</param>
public sealed record FurtherJob(Guid Id, long Version, string Name, string Total, string State, string Wrong);

/// <summary>Further estimates that go out with a proposal (L22): other jobs of the same customer, each priced by itself.</summary>
public static class FurtherEstimates
{
    /// <summary>Maps them.</summary>
    public static void MapFurther(this IEndpointRouteBuilder jobs) =>
        jobs.MapGet(
            "/{id:guid}/further",
            (Guid id, OpenJobs open, JobStore store, RevisionStore revisions, FirmDay day) =>
                All(open.Get(id).Estimate.Job, open, store, revisions, day)
        );

    /// <summary>The jobs that a proposal names, in the order of its block; those that are not there any more are left out.</summary>
    /// <param name="job">The job whose proposal it is.</param>
    /// <param name="open">The jobs.</param>
    public static ImmutableArray<(long Version, Estimate Estimate)> Named(Job job, OpenJobs open)
    {
        var found = ImmutableArray.CreateBuilder<(long, Estimate)>();
        foreach (var id in Ids(job))
            try
            {
                var (version, estimate, _, _) = open.Get(id).Now;
                found.Add((version, estimate));
            }
            catch (Exception gone) when (gone is NotThereException or RefusedException)
            {
                // It is told as a hole, and nothing is sent with it.
            }
        return found.ToImmutable();
    }

    /// <summary>Those that can go out with it, priced.</summary>
    public static ImmutableArray<Estimate> Of(Job job, OpenJobs open) =>
        [.. Named(job, open).Select(n => n.Estimate).Where(e => Wrong(job, e.Job).Length == 0)];

    private static ImmutableArray<Guid> Ids(Job job) =>
        [
            .. job
                .Blocks.Where(b => b is { Kind: BlockKind.Estimates, Hidden: false })
                .SelectMany(b => b.Estimates ?? []),
        ];

    /// <summary>Why an estimate cannot go out with another one, as a sentence; empty where it can.</summary>
    private static string Wrong(Job lead, Job further) =>
        lead.Info.Customer is not { } customer ? "This job has no customer yet."
        : further.Info.Customer != customer ? $"“{further.Info.Name}” is another customer's."
        : further.Info.Currency != lead.Info.Currency ? $"“{further.Info.Name}” is in {further.Info.Currency}."
        : "";

    /// <summary>What is unfinished of the further estimates: that they cannot go out with this one, and what they should not go out with themselves.</summary>
    /// <param name="job">The job whose proposal it is.</param>
    /// <param name="open">The jobs.</param>
    /// <param name="party">The customer.</param>
    /// <param name="today">The firm's day.</param>
    public static IEnumerable<Unfinished> Holes(Job job, OpenJobs open, Party party, DateOnly today)
    {
        var named = Named(job, open);
        if (named.Length < Ids(job).Length)
            yield return new(
                "further",
                "An estimate that was to go out with it is not here any more.",
                "Take it out of the further estimates.",
                Station.Proposal
            );
        foreach (var (_, estimate) in named)
        {
            var (id, name) = (estimate.Job.Id, estimate.Job.Info.Name);
            if (Wrong(job, estimate.Job) is { Length: > 0 } wrong)
                yield return new($"further/{id}", wrong, "It cannot go out with this proposal.", Station.Proposal);
            var document = Proposal.Of(estimate, party, Brand.Starting, Trace.Silent, RevisionStart.LettersOf(1));
            // To whom it goes and how long it holds is said by this proposal.
            foreach (
                var hole in BeforeSending
                    .Of(estimate, document, today)
                    .Where(h => h.Key is not ("customer" or "expired" or "price"))
            )
                yield return hole with
                {
                    Key = $"further/{id}/{hole.Key}",
                    Says = $"{name}: {hole.Says}",
                    Job = id,
                    Block = null,
                };
        }
    }

    /// <summary>Those that go out, as they stand; refused where one has changed since its sender looked, or cannot go out with it.</summary>
    /// <param name="job">The job whose proposal it is.</param>
    /// <param name="seen">What its sender has seen.</param>
    /// <param name="open">The jobs.</param>
    /// <exception cref="RefusedException">Says which.</exception>
    public static ImmutableArray<(long Version, Estimate Estimate)> Sent(
        Job job,
        ImmutableArray<FurtherSeen> seen,
        OpenJobs open
    )
    {
        var named = Named(job, open);
        if (named.Length < Ids(job).Length)
            throw RefusedException.Of("further", "An estimate that was to go out with it is not here any more.");
        foreach (var (version, estimate) in named)
        {
            if (Wrong(job, estimate.Job) is { Length: > 0 } wrong)
                throw RefusedException.Of("further", wrong);
            if (seen.FirstOrDefault(s => s.Job == estimate.Job.Id)?.Version != version)
                throw RefusedException.Of(
                    "further",
                    $"“{estimate.Job.Info.Name}” has changed since you looked at it. Look once more, and send."
                );
        }
        return named;
    }

    /// <summary>The further estimates of a proposal as they stand, with what its sender is to have seen.</summary>
    public static IReadOnlyList<FurtherJob> Seen(Job job, OpenJobs open) =>
        [.. Named(job, open).Select(n => Row(job, n.Version, n.Estimate, ""))];

    /// <summary>The customer's other jobs.</summary>
    private static IReadOnlyList<FurtherJob> All(
        Job job,
        OpenJobs open,
        JobStore store,
        RevisionStore revisions,
        FirmDay day
    )
    {
        var rows = new List<FurtherJob>();
        if (job.Info.Customer is not { } customer)
            return rows;
        foreach (var id in store.OfCustomer(customer).Where(id => id != job.Id).Take(MostListed))
            try
            {
                var (version, estimate, _, _) = open.Get(id).Now;
                rows.Add(Row(job, version, estimate, StandsView.Of(revisions.Life(id), day.Today).Words));
            }
            catch (Exception wrong) when (wrong is RefusedException or NotThereException)
            {
                // One that cannot be opened says why when somebody tries to, and cannot go out.
            }
        return rows;
    }

    // A customer of whom there are more jobs is found by the newest of them.
    private const int MostListed = 40;

    private static FurtherJob Row(Job job, long version, Estimate estimate, string state) =>
        new(
            estimate.Job.Id,
            version,
            $"{estimate.Job.Info.Number} {estimate.Job.Info.Name}".Trim(),
            Core.Quantities.Shown.Money(estimate.Price.Total.V, estimate.MoneyPlaces),
            state,
            Wrong(job, estimate.Job)
        );
}
