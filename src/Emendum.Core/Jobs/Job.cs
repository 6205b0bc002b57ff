using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What a job is called and who it is for, as it stands in its documents.</summary>
public sealed record JobInfo(string Name, string Subtitle, string Number, string Customer, string CustomerAddress, Guid? CustomerId, string Firm, string FirmAddress, string Currency, string Date);

/// <summary>One job: places, work items with their cells, the Book entries it pins, and its terms. Immutable; equal parts are shared between versions.</summary>
public sealed record Job(
    Guid Id, JobInfo Info, UnitSystem Units, string Deduct,
    ImmutableArray<Place> Places, ImmutableArray<WorkItem> Work, ImmutableDictionary<CellKey, Cell> Cells,
    ImmutableDictionary<Guid, BookEntry> Book, PricingTerms Pricing, ProposalTerms Proposal, ImmutableArray<ScheduleItem> Schedule)
{
    /// <summary>Conditions on all work of the job; a job-wide pace factor is one of them.</summary>
    public ImmutableArray<Guid> Conditions { get; init; } = [];

    /// <summary>A job with nothing in it yet.</summary>
    public static Job Empty(Guid id, JobInfo info, UnitSystem units) => new(
        id, info, units, "net", [], [], ImmutableDictionary<CellKey, Cell>.Empty, ImmutableDictionary<Guid, BookEntry>.Empty, PricingTerms.Starting, new(Detail.Section, true, "", "", 30), []);

    /// <summary>The rule by which openings are taken off.</summary>
    public DeductionRule Rule => DeductionRule.Find(Deduct) ?? throw RefusedException.Of("deduct", $"There is no deduction rule “{Deduct}”.");

    /// <summary>The place with that id, or null.</summary>
    public Place? Place(Guid id) => Places.FirstOrDefault(p => p.Id == id);

    /// <summary>Openings that lead into a place from another, by that place.</summary>
    public Dictionary<Guid, ImmutableArray<Opening>> Incoming()
    {
        var incoming = new Dictionary<Guid, ImmutableArray<Opening>>();
        foreach (var place in Places)
            foreach (var opening in place.Openings)
                if (opening.Into is { } into) incoming[into] = incoming.GetValueOrDefault(into, []).Add(opening);
        return incoming;
    }

    /// <summary>The work item with that id, or null.</summary>
    public WorkItem? Item(Guid id) => Work.FirstOrDefault(w => w.Id == id);
}

/// <summary>Which cell: a work item at a place.</summary>
public readonly record struct CellKey(Guid Work, Guid Place);
