using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What a job is called and who it is for, as it stands in its documents.</summary>
/// <param name="Name">As the customer reads it.</param>
/// <param name="Subtitle">In short.</param>
/// <param name="Number">The firm's own.</param>
/// <param name="Customer">Id of the customer, whose name and address stand nowhere in the job; null for none yet.</param>
/// <param name="Firm">Who offers it.</param>
/// <param name="FirmAddress">Where the firm is.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Date">Of the proposal, like 2026-11-23.</param>
public sealed record JobInfo(
    string Name,
    string Subtitle,
    string Number,
    Guid? Customer,
    string Firm,
    string FirmAddress,
    string Currency,
    string Date
)
{
    /// <summary>Day on which the firm wants to be in touch with the customer next, like 2027-01-31: its own note, which no document says. Null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? NextContact { get; init; }

    /// <summary>What about; null for nothing said.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? ContactAbout { get; init; }
}

/// <summary>One job: places, work items with their cells, the Book entries it pins, and its terms. Immutable; equal parts are shared between versions.</summary>
public sealed record Job(
    Guid Id,
    JobInfo Info,
    UnitSystem Units,
    string Deduct,
    ImmutableArray<Place> Places,
    ImmutableArray<WorkItem> Work,
    ImmutableDictionary<CellKey, Cell> Cells,
    ImmutableDictionary<Guid, BookEntry> Book,
    PricingTerms Pricing,
    ProposalTerms Proposal,
    ImmutableArray<ScheduleItem> Schedule
)
{
    /// <summary>The crew that does it, and its days.</summary>
    public CrewTerms Crew { get; init; } = CrewTerms.Starting;

    /// <summary>Sections, in order; the work stands by them.</summary>
    public ImmutableArray<Section> Sections { get; init; } = [];

    /// <summary>Conditions on all work of the job.</summary>
    public ImmutableArray<Guid> Conditions { get; init; } = [];

    /// <summary>A factor on all labour of the job; null for none.</summary>
    public PaceFactor? Pace { get; init; }

    /// <summary>The price policy it took, as it was then; null for none.</summary>
    public PricePolicy? Policy { get; init; }

    /// <summary>Alternates that have a name, in order.</summary>
    public ImmutableArray<Alternate> Alternates { get; init; } = [];

    /// <summary>Variants of it, in order; empty where it has none.</summary>
    public ImmutableArray<Variant> Variants { get; init; } = [];

    /// <summary>In what those that are not taken differ from it: JSON by variant and path, see <see cref="Jobs.Variants"/>.</summary>
    public ImmutableSortedDictionary<string, string> Differs { get; init; } = NothingSetAside;

    /// <summary>Choices of product or tier, in order.</summary>
    public ImmutableArray<Choice> Choices { get; init; } = [];

    /// <summary>Quotes of other firms for its sections, in order.</summary>
    public ImmutableArray<Quote> Quotes { get; init; } = [];

    /// <summary>Tasks of its schedule, in the work's order; empty where nothing is laid out.</summary>
    public ImmutableArray<PlannedTask> Tasks { get; init; } = [];

    /// <summary>The blocks of its proposal, in order.</summary>
    public ImmutableArray<ProposalBlock> Blocks { get; init; } = ProposalBlock.Starting;

    /// <summary>How often its work comes, in order; empty where all is done once.</summary>
    public ImmutableArray<Rhythm> Rhythms { get; init; } = [];

    /// <summary>The terms of work that comes back; they count where there is a rhythm.</summary>
    public RoundTerms Round { get; init; } = RoundTerms.Starting;

    /// <summary>How far the event goes whose work is reckoned here; null where that is no event. No part of a job that is kept.</summary>
    internal EventBand? Band { get; init; }

    /// <summary>How sure it is; null where nobody has said: as a job starts with.</summary>
    public Sureness? Sureness { get; init; }

    /// <summary>Checks that somebody has set aside, by key, with the reason.</summary>
    public ImmutableSortedDictionary<string, string> SetAside { get; init; } = NothingSetAside;

    /// <summary>No check is set aside; in the order of the keys' bytes.</summary>
    public static readonly ImmutableSortedDictionary<string, string> NothingSetAside = ImmutableSortedDictionary.Create<
        string,
        string
    >(StringComparer.Ordinal);

    /// <summary>A job with nothing in it yet.</summary>
    public static Job Empty(Guid id, JobInfo info, UnitSystem units) =>
        new(
            id,
            info,
            units,
            "net",
            [],
            [],
            ImmutableDictionary<CellKey, Cell>.Empty,
            ImmutableDictionary<Guid, BookEntry>.Empty,
            PricingTerms.Starting,
            new(Detail.Section, true, 30),
            []
        );

    /// <summary>The rule by which openings are taken off.</summary>
    public DeductionRule Rule =>
        DeductionRule.Find(Deduct) ?? throw RefusedException.Of("deduct", $"There is no deduction rule “{Deduct}”.");

    /// <summary>The place with that id, or null.</summary>
    public Place? Place(Guid id) =>
        (placesById = placesById.For(Places, all => ById(all, p => p.Id))).Made.GetValueOrDefault(id);

    /// <summary>A place measured by the rules of this job, on its own.</summary>
    public PlaceMeasures Measured(Place place, Trace trace) =>
        PlaceMeasures.Of(place, Incoming().GetValueOrDefault(place.Id, []), Units, Rule, trace);

    /// <summary>Openings that lead into a place from another, by that place. Found once for a list of places; not to be changed.</summary>
    public Dictionary<Guid, ImmutableArray<Opening>> Incoming() => (incoming = incoming.For(Places, LeadingIn)).Made;

    private static Dictionary<Guid, ImmutableArray<Opening>> LeadingIn(ImmutableArray<Place> places) =>
        places
            .SelectMany(p => p.Openings)
            .Where(o => o.Into is not null)
            .GroupBy(o => o.Into!.Value)
            .ToDictionary(into => into.Key, into => into.ToImmutableArray());

    /// <summary>How a block of cells is seen, a letter for each, row by row, as commands about cells carry it.</summary>
    public string Seen(IReadOnlyCollection<Guid> work, IReadOnlyCollection<Guid> places) =>
        new([.. places.SelectMany(p => work.Select(w => FillCells.Letter(Cells.GetValueOrDefault(new(w, p))?.State)))]);

    /// <summary>The work item with that id, or null.</summary>
    public WorkItem? Item(Guid id) =>
        (workById = workById.For(Work, all => ById(all, w => w.Id))).Made.GetValueOrDefault(id);

    /// <summary>The section with that id, or null.</summary>
    public Section? Section(Guid id) => PositionOf(id) is var at && at < Sections.Length ? Sections[at] : null;

    /// <summary>Where a section stands among the sections; past the last for one that is not there.</summary>
    public int PositionOf(Guid section) =>
        (sectionAt = sectionAt.For(Sections, Positions)).Made.GetValueOrDefault(section, Sections.Length);

    private static Dictionary<Guid, int> Positions(ImmutableArray<Section> sections)
    {
        var at = new Dictionary<Guid, int>(sections.Length);
        for (var i = 0; i < sections.Length; i++)
            at.TryAdd(sections[i].Id, i);
        return at;
    }

    /// <summary>Name of the section that work stands under.</summary>
    public string SectionOf(WorkItem item) => Section(item.Section)?.Name ?? "";

    /// <summary>The words of a block of its proposal: the job's own, else those of the text of the Book that it has.</summary>
    public string WordsOf(ProposalBlock block) =>
        block.Words
        ?? (block.Text is { } text && Book.GetValueOrDefault(text) is BookText { Body: var body } ? body : "");

    /// <summary>The rhythm with that id, or null.</summary>
    public Rhythm? Rhythm(Guid id) => Rhythms.FirstOrDefault(r => r.Id == id);

    /// <summary>The last day on which the prices of its proposal hold.</summary>
    public DateOnly PricesHoldUntil => Day.Of(Info.Date).AddDays(Proposal.ValidDays);

    /// <summary>The quote by which another firm does a piece of work; null where it is ours.</summary>
    public Quote? QuoteFor(WorkItem item)
    {
        foreach (var quote in Quotes)
            if (quote.Taken && quote.Section == item.Section)
                return quote.LeavesOut.Contains(item.Id) ? null : quote;
        return null;
    }

    /// <summary>Work by section and name, as lists and documents call it.</summary>
    public string Titled(WorkItem item) => $"{SectionOf(item)}: {item.Name}";

    // Made when first asked for, and handed on to the next version of the job, which makes its own where the list is another.
    private Kept<Place, Dictionary<Guid, Place>> placesById = new([], []);
    private Kept<WorkItem, Dictionary<Guid, WorkItem>> workById = new([], []);
    private Kept<Section, Dictionary<Guid, int>> sectionAt = new([], []);
    private Kept<Place, Dictionary<Guid, ImmutableArray<Opening>>> incoming = new([], []);

    private static Dictionary<Guid, T> ById<T>(ImmutableArray<T> all, Func<T, Guid> id)
    {
        var byId = new Dictionary<Guid, T>(all.Length);
        foreach (var one in all)
            byId.TryAdd(id(one), one);
        return byId;
    }
}

/// <summary>A factor on all labour hours of a job, above one for slower, and why: a condition of this job alone (estimating model §6).</summary>
public sealed record PaceFactor(decimal Factor, string Reason);

/// <summary>Which cell: a work item at a place.</summary>
public readonly record struct CellKey(Guid Work, Guid Place);

/// <summary>What was made of a list, for as long as the list is the same. No part of what a job is: two are always equal.</summary>
internal sealed class Kept<T, TMade>(ImmutableArray<T> of, TMade made)
{
    public TMade Made => made;

    /// <summary>This, where it is of the same list; otherwise made anew.</summary>
    public Kept<T, TMade> For(ImmutableArray<T> list, Func<ImmutableArray<T>, TMade> make) =>
        list == of ? this : new(list, make(list));

    public override bool Equals(object? other) => other is Kept<T, TMade>;

    public override int GetHashCode() => 0;
}
