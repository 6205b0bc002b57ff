using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Delivery;

/// <summary>Goods that a line takes.</summary>
/// <param name="Name">Brand and name.</param>
/// <param name="Colour">Colour; empty for none.</param>
/// <param name="Need">How much, with waste, as it is read.</param>
public sealed record OrderedGoods(string Name, string Colour, string Need);

/// <summary>By what the hours of a line can teach the Book: the entry's pace is per so much work as if it were easy (rule H1).</summary>
/// <param name="Entry">The production rate, or the assembly.</param>
/// <param name="Coats">The row of its coats; 0 for an assembly.</param>
/// <param name="Unit">Unit of the quantity; of an assembly h.</param>
/// <param name="Weighted">Quantity × difficulty × conditions × pace of the job, of the whole line; of an assembly the hours allowed.</param>
public sealed record OrderedRate(Guid Entry, int Coats, string Unit, decimal Weighted)
{
    /// <summary>Of an assembly: the labour that the hours were allowed by (<see cref="LabourBasis"/>); empty for rates.</summary>
    public string Basis { get; init; } = "";
}

/// <summary>One piece of work at one place, as the crew is told it.</summary>
/// <param name="Work">The work item.</param>
/// <param name="Place">The place.</param>
/// <param name="Section">Its section.</param>
/// <param name="Name">What it is.</param>
/// <param name="Group">Building, floor or phase of the place; empty for none.</param>
/// <param name="At">The place with its count.</param>
/// <param name="Quantity">How much, for all equal places.</param>
/// <param name="Unit">Its unit; empty for counts.</param>
/// <param name="Amount">The two as they are read.</param>
/// <param name="Coats">In how many coats; 0 where it has none.</param>
/// <param name="Hours">Labour hours allowed, each time it is done; nothing where another firm or the customer does it.</param>
public sealed record OrderedLine(
    Guid Work,
    Guid Place,
    string Section,
    string Name,
    string Group,
    string At,
    decimal Quantity,
    string Unit,
    string Amount,
    int Coats,
    decimal Hours
)
{
    /// <summary>Goods it takes; whose they are is said by <see cref="Supply"/>.</summary>
    public ImmutableArray<OrderedGoods> Goods { get; init; } = [];

    /// <summary>Difficulty, surface and conditions by name, and what was answered about it.</summary>
    public ImmutableArray<string> Facts { get; init; } = [];

    /// <summary>What the crew is to know, a sentence each.</summary>
    public ImmutableArray<string> Notes { get; init; } = [];

    /// <summary>Who supplies.</summary>
    public Supply Supply { get; init; }

    /// <summary>The other firm that does it; empty where we do.</summary>
    public string By { get; init; } = "";

    /// <summary>How often it is done; empty for once.</summary>
    public string Often { get; init; } = "";

    /// <summary>How often it is done in the year of a round.</summary>
    public int Times { get; init; } = 1;

    /// <summary>Labour hours allowed for all the times it is done.</summary>
    [JsonIgnore]
    public decimal AllHours => Hours * Times;

    /// <summary>By what its hours can teach the Book; null where they cannot.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public OrderedRate? Rate { get; init; }

    /// <summary>Whether it is done once and for all, so that it can be ticked; what comes back is done visit by visit.</summary>
    [JsonIgnore]
    public bool IsOnce => Often.Length == 0;
}

/// <summary>Lines that stand together: those of a place, or of a section.</summary>
/// <param name="Heading">Building, floor or phase over a place; empty for none, and over sections.</param>
/// <param name="Name">The place or the section.</param>
/// <param name="Hours">Labour hours allowed for them.</param>
/// <param name="Lines">They, in the order's order.</param>
public sealed record OrderedGroup(string Heading, string Name, decimal Hours, ImmutableArray<OrderedLine> Lines);

/// <summary>Labour that comes once for a work item, wherever it is done; of a round with each of its visits.</summary>
/// <param name="Work">The work item.</param>
/// <param name="Section">Its section.</param>
/// <param name="Item">The work item's name.</param>
/// <param name="Name">What it is.</param>
/// <param name="Hours">Labour hours allowed; of a round those of the year.</param>
public sealed record OrderedOnce(Guid Work, string Section, string Item, string Name, decimal Hours)
{
    /// <summary>How often it comes, in words; empty for once.</summary>
    public string Often { get; init; } = "";
}

/// <summary>Goods for the whole job.</summary>
/// <param name="Name">Brand and name.</param>
/// <param name="Colour">Colour; empty for none.</param>
/// <param name="Need">How much is needed, with waste, as it is read.</param>
/// <param name="Packs">What is bought for it, in packs.</param>
public sealed record OrderedSupply(string Name, string Colour, string Need, string Packs);

/// <summary>What is mixed on the spot, and of what.</summary>
/// <param name="Name">What is mixed, and how much.</param>
/// <param name="Parts">Its parts with their amounts, the base first.</param>
public sealed record OrderedMix(string Name, ImmutableArray<string> Parts);

/// <summary>
/// The work order of an accepted job: what is done where, in what time, with what goods, and what is left out; for whoever does it (estimating model §13). It is made once, from what was agreed, and kept; it knows no
/// price.
/// </summary>
/// <param name="Lines">What is done, in the work's order and then the places'.</param>
/// <param name="Once">Labour that belongs to no one place.</param>
/// <param name="SetUp">Labour hours for set-up and travel.</param>
/// <param name="Supplies">Goods for the whole job.</param>
/// <param name="Mixes">What is mixed.</param>
/// <param name="LeftOut">What is left out on purpose, a sentence each.</param>
/// <param name="Theirs">What the customer does, a sentence each.</param>
/// <param name="Places">The places, in the job's order.</param>
/// <param name="Crew">How many people the hours were planned for.</param>
/// <param name="HoursPerDay">How long their day is.</param>
public sealed record WorkOrder(
    ImmutableArray<OrderedLine> Lines,
    ImmutableArray<OrderedOnce> Once,
    decimal SetUp,
    ImmutableArray<OrderedSupply> Supplies,
    ImmutableArray<OrderedMix> Mixes,
    ImmutableArray<string> LeftOut,
    ImmutableArray<string> Theirs,
    ImmutableArray<Guid> Places,
    int Crew,
    decimal HoursPerDay
)
{
    /// <summary>Number of the job.</summary>
    public string Number { get; init; } = "";

    /// <summary>Work that comes back, by rhythm; none where nothing does.</summary>
    public ImmutableArray<OrderedVisits> Visits { get; init; } = [];

    /// <summary>All labour hours that are allowed.</summary>
    [JsonIgnore]
    public decimal Hours => Lines.Sum(l => l.AllHours) + Once.Sum(o => o.Hours) + SetUp;

    /// <summary>The line of a piece of work at a place; null where there is none.</summary>
    public OrderedLine? Line(Guid work, Guid place) => Lines.FirstOrDefault(l => l.Work == work && l.Place == place);

    /// <summary>Its lines place by place, in the job's order of places.</summary>
    [JsonIgnore]
    public IEnumerable<OrderedGroup> ByPlace =>
        Lines
            .GroupBy(l => l.Place)
            .Select(g => Together(g.First().Group, g.First().At, g))
            .OrderBy(g => Places.IndexOf(g.Lines[0].Place));

    /// <summary>Its lines section by section.</summary>
    [JsonIgnore]
    public IEnumerable<OrderedGroup> BySection => Lines.GroupBy(l => l.Section).Select(g => Together("", g.Key, g));

    private static OrderedGroup Together(string heading, string name, IEnumerable<OrderedLine> lines) =>
        new(heading, name, lines.Sum(l => l.Hours), [.. lines]);

    /// <summary>Whether the work item is in it.</summary>
    public bool Has(Guid work) => Lines.Any(l => l.Work == work);

    /// <summary>The part of it that is about some sections; all of it for none. Set-up and travel, what is left out and what the customer does is for everybody.</summary>
    public WorkOrder About(ImmutableArray<string> sections) =>
        sections.IsDefaultOrEmpty ? this : Part(l => sections.Contains(l.Section), o => sections.Contains(o.Section));

    /// <summary>The part of it that some tasks are.</summary>
    public WorkOrder OfTasks(IEnumerable<PlannedTask> tasks)
    {
        var all = tasks.ToList();
        var visited = all.Where(t => t.Visit is not null).SelectMany(t => t.Work).ToHashSet();
        var made = all.SelectMany(t => t.Work.Select(w => (w, t.At))).ToHashSet();
        var work = made.Select(m => m.w).ToHashSet();
        return Part(l => visited.Contains(l.Work) || made.Contains((l.Work, l.Group)), o => work.Contains(o.Work));
    }

    private WorkOrder Part(Func<OrderedLine, bool> lines, Func<OrderedOnce, bool> once) =>
        this with
        {
            Lines = [.. Lines.Where(lines)],
            Once = [.. Once.Where(once)],
            Visits = [.. Visits.Where(v => Lines.Any(l => v.Work.Contains(l.Work) && lines(l)))],
            // Whose goods these are is not told by section.
            Supplies = [],
            Mixes = [],
        };
}
