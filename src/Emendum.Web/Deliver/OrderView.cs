using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Emendum.Storage;

namespace Emendum.Web.Deliver;

/// <summary>A line of a work order, as it is read.</summary>
/// <param name="Work">The work item.</param>
/// <param name="Place">The place.</param>
/// <param name="Section">Its section.</param>
/// <param name="Name">What it is, with its coats.</param>
/// <param name="Group">Building, floor or phase of the place.</param>
/// <param name="At">The place with its count.</param>
/// <param name="Amount">How much, with unit; empty for none.</param>
/// <param name="Hours">Hours allowed, with unit; empty for none.</param>
/// <param name="Often">How often it is done, and how many of that are; empty for once.</param>
/// <param name="Goods">Goods with colour and amount, one a row.</param>
/// <param name="Supply">Whose the goods are where they are not ours, or which firm does it; empty otherwise.</param>
/// <param name="Facts">Difficulty, surface, conditions, answers.</param>
/// <param name="Notes">What the crew is to know.</param>
/// <param name="Percent">How much of it is done, as a number without unit.</param>
/// <param name="Done">Whether all of it is.</param>
/// <param name="Begun">Whether something of it is, and not all.</param>
/// <param name="Said">Who said so, and when; empty where nobody has.</param>
/// <param name="Ticks">Whether it can be ticked.</param>
public sealed record OrderLineView(
    Guid Work,
    Guid Place,
    string Section,
    string Name,
    string Group,
    string At,
    string Amount,
    string Hours,
    string Often,
    IReadOnlyList<string> Goods,
    string Supply,
    IReadOnlyList<string> Facts,
    IReadOnlyList<string> Notes,
    string Percent,
    bool Done,
    bool Begun,
    string Said,
    bool Ticks
)
{
    internal static OrderLineView Of(OrderedLine line, SiteLog log, Func<DateTime, string> moment)
    {
        var (percent, said) = (log.PercentOf(line), log.LastOf(line));
        return new(
            line.Work,
            line.Place,
            line.Section,
            InCoats(line),
            line.Group,
            line.At,
            line.Amount,
            HoursOf(line.Hours),
            line.IsOnce ? "" : $"{line.Often}, {Shown.Typed(log.TimesDone(line))} of {line.Times} done",
            [.. line.Goods.Select(g => $"{Named(g.Name, g.Colour)} · {g.Need}")],
            SupplyOf(line),
            line.Facts,
            line.Notes,
            line.IsOnce ? Shown.Typed(percent) : "",
            line.IsOnce && percent == 100,
            line.IsOnce && percent is > 0 and < 100,
            said is null ? "" : $"{said.By}, {moment(said.At)}",
            line.IsOnce
        );
    }

    /// <summary>A line's name with its coats.</summary>
    public static string InCoats(OrderedLine line) =>
        line.Coats > 0 ? $"{line.Name}, {Counted.Of(line.Coats, "coat")}" : line.Name;

    /// <summary>Goods with their colour.</summary>
    public static string Named(string name, string colour) => colour.Length > 0 ? $"{name}, {colour}" : name;

    /// <summary>Whose the goods of a line are where they are not ours, or which other firm does it.</summary>
    public static string SupplyOf(OrderedLine line) =>
        line.By.Length > 0 ? $"done by {line.By}"
        : line.Supply == Core.Work.Supply.CustomerMaterial ? "the customer supplies the goods"
        : "";

    /// <summary>Hours as they are read; empty for none.</summary>
    public static string HoursOf(decimal hours) => hours == 0 ? "" : $"{Shown.Tenths(hours)} h";
}

/// <summary>Lines of a work order that stand together.</summary>
/// <param name="Heading">Building, floor or phase over a place; empty for none, and over sections.</param>
/// <param name="Name">The place or the section.</param>
/// <param name="Hours">Hours allowed for them, with unit; empty for none.</param>
/// <param name="Says">How much is done: <c>2 of 5 done</c>.</param>
/// <param name="Done">Whether all that can be ticked is.</param>
/// <param name="Lines">They, by their places among the order's lines.</param>
public sealed record OrderGroupView(
    string Heading,
    string Name,
    string Hours,
    string Says,
    bool Done,
    IReadOnlyList<int> Lines
)
{
    internal static OrderGroupView Of(OrderedGroup group, SiteLog log, Dictionary<(Guid, Guid), int> at)
    {
        var ticks = group.Lines.Where(l => l.IsOnce).ToList();
        var done = ticks.Count(l => log.PercentOf(l) == 100);
        return new(
            group.Heading,
            group.Name.Length > 0 ? group.Name : "Work without a section",
            OrderLineView.HoursOf(group.Hours),
            ticks.Count == 0 ? "" : $"{done} of {ticks.Count} done",
            ticks.Count > 0 && done == ticks.Count,
            [.. group.Lines.Select(l => at[(l.Work, l.Place)])]
        );
    }
}

/// <summary>A row of the order that is no line: what it is, and how much.</summary>
public sealed record OrderRow(string Name, string Detail, string Amount);

/// <summary>A work order as it is read, by the office and on a crew's page; no price stands in it.</summary>
/// <param name="Title">Name of the job.</param>
/// <param name="Reference">Its number, and what was accepted when.</param>
/// <param name="For">For whom.</param>
/// <param name="Where">Where.</param>
/// <param name="Planned">For how many people the hours were planned, and how long their day is.</param>
/// <param name="Hours">All hours allowed, with unit.</param>
/// <param name="Percent">How much is done, by hours: <c>56 %</c>; empty where it has no hours.</param>
/// <param name="Lines">Its lines, each once: of a large order they are told at each tick.</param>
/// <param name="ByPlace">They place by place.</param>
/// <param name="BySection">They section by section.</param>
/// <param name="Once">Labour that belongs to no one place, set-up and travel last.</param>
/// <param name="Supplies">Goods for the whole job: name, packs, need.</param>
/// <param name="Mixes">What is mixed, with its parts.</param>
/// <param name="LeftOut">What is left out.</param>
/// <param name="Theirs">What the customer does.</param>
public sealed record OrderView(
    string Title,
    string Reference,
    string For,
    string Where,
    string Planned,
    string Hours,
    string Percent,
    IReadOnlyList<OrderLineView> Lines,
    IReadOnlyList<OrderGroupView> ByPlace,
    IReadOnlyList<OrderGroupView> BySection,
    IReadOnlyList<OrderRow> Once,
    IReadOnlyList<OrderRow> Supplies,
    IReadOnlyList<OrderRow> Mixes,
    IReadOnlyList<string> LeftOut,
    IReadOnlyList<string> Theirs
)
{
    /// <summary>That of a job, or the part of it that some sections are.</summary>
    /// <param name="work">What was accepted.</param>
    /// <param name="log">What has happened on site; of the same part.</param>
    /// <param name="day">The firm's day.</param>
    public static OrderView Of(AcceptedWork work, SiteLog log, FirmDay day)
    {
        var (order, moment) = (log.Order, day.Moments());
        var at = order.Lines.Index().ToDictionary(l => (l.Item.Work, l.Item.Place), l => l.Index);
        OrderGroupView Group(OrderedGroup group) => OrderGroupView.Of(group, log, at);
        return new(
            work.Head.Title,
            ReferenceOf(work, day),
            work.Head.Customer,
            work.Head.CustomerAddress,
            $"planned for {(order.Crew == 1 ? "one person" : $"a crew of {order.Crew}")}, {Shown.Typed(order.HoursPerDay)} h a day",
            $"{Shown.Tenths(order.Hours)} h",
            PercentOf(log),
            [.. order.Lines.Select(l => OrderLineView.Of(l, log, moment))],
            [.. order.ByPlace.Select(Group)],
            [.. order.BySection.Select(Group)],
            [.. OnceOf(order)],
            [.. order.Supplies.Select(s => new OrderRow(OrderLineView.Named(s.Name, s.Colour), s.Packs, s.Need))],
            [.. order.Mixes.Select(m => new OrderRow(m.Name, string.Join(" + ", m.Parts), ""))],
            order.LeftOut,
            order.Theirs
        );
    }

    /// <summary>Number of the job, and what was accepted when.</summary>
    public static string ReferenceOf(AcceptedWork work, FirmDay day) =>
        $"Job {work.Order.Number} · revision {work.Revision.Letters} accepted {work.Brand.Writes.Day(AcceptedOn(work, day))}";

    /// <summary>The day on which it was accepted: the one that the yes bears.</summary>
    public static DateOnly AcceptedOn(AcceptedWork work, FirmDay day) => work.Yes.Day ?? day.Days()(work.Yes.At);

    /// <summary>How much is done, by hours, in whole percent; empty where there are no hours.</summary>
    public static string PercentOf(SiteLog log) =>
        log.Percent is { } percent ? $"{Shown.Typed(decimal.Floor(percent))} %" : "";

    /// <summary>Labour that belongs to no one place.</summary>
    public static IEnumerable<OrderRow> OnceOf(WorkOrder order)
    {
        foreach (var once in order.Once)
            yield return new(
                once.Item == once.Name ? once.Item : $"{once.Item}: {once.Name}",
                once.Often.Length > 0 ? $"with each visit, {once.Often}, for the year" : "once for the job",
                OrderLineView.HoursOf(once.Hours)
            );
        if (order.SetUp > 0)
            yield return new("Set-up and travel", "for the job", OrderLineView.HoursOf(order.SetUp));
    }
}

/// <summary>Hours that were written.</summary>
/// <param name="Id">Their id.</param>
/// <param name="Day">On which day, in words.</param>
/// <param name="Person">Who worked.</param>
/// <param name="Hours">How long, with unit.</param>
/// <param name="On">On what, and where.</param>
/// <param name="Words">A note; empty for none.</param>
/// <param name="By">Who wrote it, and when.</param>
public sealed record HoursView(Guid Id, string Day, string Person, string Hours, string On, string Words, string By)
{
    internal static HoursView Of(HoursFact fact, WorkOrder order, Func<DateTime, string> moment) =>
        new(
            fact.Id,
            fact.Day.ToString("ddd d MMM", System.Globalization.CultureInfo.InvariantCulture),
            fact.Person,
            $"{Shown.Typed(fact.Hours)} h",
            OnWhat(fact, order),
            fact.Words,
            $"{fact.By}, {moment(fact.At)}"
        );

    private static string OnWhat(HoursFact fact, WorkOrder order)
    {
        var work = order.Lines.FirstOrDefault(l => l.Work == fact.Work);
        var at = order.Lines.FirstOrDefault(l => l.Work == fact.Work && l.Place == fact.Place);
        var what = fact.For switch
        {
            HoursFor.SetUp => "set-up and travel",
            HoursFor.Snags => "mending" + (work is null ? "" : $": {work.Section}: {work.Name}"),
            _ when work is not null => $"{work.Section}: {work.Name}",
            _ => order.Visits.FirstOrDefault(v => v.Days.Any(d => d.Id == fact.Visit)) is { } visit
                ? $"visit: {visit.Name}"
                : "the job",
        };
        return at is null ? what : $"{what}, {at.At}";
    }
}

/// <summary>Work that hours can be written on.</summary>
/// <param name="Id">The work item.</param>
/// <param name="Name">Section and name.</param>
/// <param name="Places">Where it is done.</param>
public sealed record WorkToWrite(Guid Id, string Name, IReadOnlyList<PlaceToWrite> Places)
{
    /// <summary>That of an order.</summary>
    public static IReadOnlyList<WorkToWrite> Of(WorkOrder order) =>
        [
            .. order
                .Lines.GroupBy(l => l.Work)
                .Select(g => new WorkToWrite(
                    g.Key,
                    g.First().Section.Length > 0 ? $"{g.First().Section}: {g.First().Name}" : g.First().Name,
                    [.. g.Select(l => new PlaceToWrite(l.Place, l.At))]
                )),
        ];
}

/// <summary>A place that hours can be written at.</summary>
public sealed record PlaceToWrite(Guid Id, string Name);

/// <summary>A crew's link as the office lists it; what opens it, nobody here knows.</summary>
/// <param name="Id">Its id.</param>
/// <param name="For">Whom it was made for.</param>
/// <param name="About">The sections it is about, or all of the order.</param>
/// <param name="Made">When it was made.</param>
/// <param name="State">How it stands.</param>
public sealed record CrewLinkView(Guid Id, string For, string About, string Made, Core.Proposals.LinkState State)
{
    internal static CrewLinkView Of(CrewLink link, DateTime now, Func<DateTime, string> moment) =>
        new(
            link.Id,
            link.For,
            link.Sections.IsEmpty ? "the whole order" : string.Join(", ", link.Sections),
            moment(link.Made),
            link.StateAt(now)
        );
}
