using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Checks;

/// <summary>Goes through a reckoned job as a careful second estimator would. Thresholds are common practice, and stand here as named numbers.</summary>
public sealed class Findings
{
    /// <summary>A rate is far from its like when it takes this many times as long as the middle one of them, or the middle one this many times as long as it.</summary>
    public const decimal FarRate = 3m;

    /// <summary>How many others of a kind it takes to know what is usual.</summary>
    public const int FewestOthers = 3;

    /// <summary>A typed figure is far from the reckoned one when they differ by more than this part of the reckoned one.</summary>
    public const decimal FarTyped = 0.25m;

    /// <summary>An opening is larger than usual when it has more than this many times the area of the firm's largest of its kind.</summary>
    public const decimal LargeOpening = 1.5m;

    private readonly Reckoned reckoned;
    private readonly Job job;
    private readonly IReadOnlyCollection<BookEntry> shelf;
    private readonly UsualSizes sizes;
    private readonly List<Finding> found = [];

    private Findings(Reckoned reckoned, IReadOnlyCollection<BookEntry> shelf, UsualSizes sizes) =>
        (this.reckoned, job, this.shelf, this.sizes) = (reckoned, reckoned.Job, shelf, sizes);

    /// <summary>All findings, those that stand before those set aside, each in job order.</summary>
    /// <param name="reckoned">The job.</param>
    /// <param name="shelf">The Book, for what is usual.</param>
    /// <param name="sizes">The firm's usual doors and windows.</param>
    public static IReadOnlyList<Finding> Of(Reckoned reckoned, IReadOnlyCollection<BookEntry> shelf, UsualSizes sizes)
    {
        var findings = new Findings(reckoned, shelf, sizes);
        findings.Places();
        findings.Openings();
        findings.Work();
        findings.Rates();
        findings.TypedHere();
        findings.Goods();
        findings.Equipment();
        return [.. findings.found.OrderBy(f => f.Reason.Length > 0)];
    }

    private void Add(
        string key,
        string kind,
        string says,
        string why,
        Guid? place = null,
        Guid? work = null,
        Guid? entry = null
    ) => found.Add(new(key, kind, says, why, place, work, entry, job.SetAside.GetValueOrDefault(key, "")));

    private static string Shown(Val value, Measure measure, UnitSystem units) =>
        $"{Rounding.Text(decimal.Round(value.V, 1, MidpointRounding.AwayFromZero))} {Line.SymbolOf(measure, units)}".TrimEnd();

    private void Places()
    {
        var worked = job.Cells.Keys.Select(k => k.Place).ToHashSet();
        foreach (var place in job.Places.Where(p => !worked.Contains(p.Id)))
            Add(
                $"noWork/{place.Id}",
                "Place without work",
                $"{place.Name} is measured, and no work is said for it.",
                "Include work there, say what is left out, or remove the place.",
                place.Id
            );
        foreach (
            var group in job.Places.GroupBy(p => (p.Group, p.Name.Trim().ToUpperInvariant())).Where(g => g.Count() > 1)
        )
        foreach (var place in group.Skip(1))
            Add(
                $"twice/{place.Id}",
                "Measured twice?",
                $"{place.Name} stands twice{(place.Group.Length > 0 ? " under " + place.Group : "")}.",
                "The same name under one heading is often one place measured twice.",
                place.Id
            );
        foreach (var group in job.Places.Where(p => p.Openings.Length > 0).GroupBy(p => p.Group))
        foreach (var alike in group.GroupBy(Sizes).Where(g => g.Count() > 1))
        foreach (
            var place in alike
                .Skip(1)
                .Where(p =>
                    !string.Equals(p.Name.Trim(), alike.First().Name.Trim(), StringComparison.OrdinalIgnoreCase)
                )
        )
            Add(
                $"alike/{place.Id}",
                "Measured twice?",
                $"{place.Name} has the sizes and openings of {alike.First().Name}, to the last sixteenth.",
                "If they are two rooms, set this aside; if it is one, remove the other; equal rooms can be one line with ×2.",
                place.Id
            );
        foreach (var place in job.Places)
        foreach (var typed in place.Typed)
            if (
                Measures.Find(typed.Name) is { } measure
                && Derived(place, measure) is { } derived
                && Far(reckoned.Measures[place.Id][measure].V, derived)
            )
                Add(
                    $"typed/{place.Id}/{typed.Name}",
                    "Typed far from reckoned",
                    $"{measure.Label(job.Units)} of {place.Name} is typed as {Shown(reckoned.Measures[place.Id][measure], measure, job.Units)}; its sizes give {Shown(derived, measure, job.Units)}.",
                    "A typed figure stands in place of the reckoned one, and stays when the sizes change.",
                    place.Id
                );
    }

    private static string Sizes(Place place) =>
        PlaceLine.Print(
            place with
            {
                Name = "x",
                Group = "",
                Openings = [.. place.Openings.Select(o => o with { Into = null })],
            },
            UnitSystem.Feet,
            _ => null
        );

    private decimal? Derived(Place place, Measure measure)
    {
        var measures = job.Measured(place with { Typed = [] }, Trace.Silent);
        return measures.Has(measure) ? measures[measure].V : null;
    }

    private static bool Far(decimal typed, decimal derived) =>
        decimal.Abs(typed - derived) > FarTyped * decimal.Abs(derived);

    private void Openings()
    {
        var largest = sizes
            .Sizes.Select(s =>
                TapeLine
                    .Read($"Any 10000 m x 10000 m x 10000 m; {s}", UnitSystem.Feet)
                    .Reading?.Openings.FirstOrDefault()
            )
            .OfType<Opening>()
            .GroupBy(o => o.Kind)
            .ToDictionary(g => g.Key, g => g.Max(Area));
        foreach (var place in job.Places)
            for (var i = 0; i < place.Openings.Length; i++)
                if (
                    largest.TryGetValue(place.Openings[i].Kind, out var usual)
                    && Area(place.Openings[i]) > usual * LargeOpening
                )
                    Add(
                        $"opening/{place.Id}/{i + 1}",
                        "Opening larger than usual",
                        $"{place.Name} has a {Words(place.Openings[i].Kind)} of {place.Openings[i].Width.Typed} × {place.Openings[i].Height.Typed}.",
                        $"The largest usual {Words(place.Openings[i].Kind)} of the firm has {Rounding.Text(decimal.Round(usual / 1_000_000m, 2))} m², this one {Rounding.Text(decimal.Round(Area(place.Openings[i]) / 1_000_000m, 2))} m²: is a unit or a figure slipped?",
                        place.Id
                    );
    }

    private static decimal Area(Opening opening) => opening.Width.Millimetres * opening.Height.Millimetres;

    private static string Words(OpeningKind kind) =>
        kind switch
        {
            OpeningKind.Door => "door",
            OpeningKind.Window => "window",
            _ => "pass-through",
        };

    private void Work()
    {
        var used = job.Cells.Keys.Select(k => k.Work).ToHashSet();
        foreach (var item in reckoned.Items)
        {
            var id = item.Item.Id;
            if (!used.Contains(id))
                Add(
                    $"nowhere/{id}",
                    "Work without a place",
                    $"{Named(item)} is in no place.",
                    "It adds nothing to the price. Include it somewhere, or take it out.",
                    work: id
                );
            if (
                item.Entry is Assembly { Hazard.Length: > 0 } assembly
                && item.Item.HazardAnswer.Length == 0
                && used.Contains(id)
            )
                Add(
                    $"hazard/{id}",
                    "Hazard not answered",
                    $"{Named(item)}: {assembly.Hazard}",
                    "It must be answered before the work starts; the answer can change what it costs.",
                    work: id
                );
        }
        foreach (var none in reckoned.Lines.Where(l => l.Quantity.V == 0 && l.Allowance is null).GroupBy(l => l.OfItem))
        {
            var (item, line) = (none.Key, none.First());
            var label = item.Measure.Label(job.Units);
            Add(
                $"noMeasure/{item.Item.Id}",
                "Work without a measure",
                $"{Named(item)} has no quantity in {line.Measures.Place.Name}{(none.Count() == 1 ? "" : $" and {none.Count() - 1} more")}.",
                line.Measures.Has(item.Measure)
                    ? $"{label} of the place is zero."
                    : $"It is driven by {label.ToLowerInvariant()}, which such a place does not have: choose where its quantity comes from.",
                line.Measures.Place.Id,
                item.Item.Id
            );
        }
    }

    private string Named(CompiledItem item) => job.Titled(item.Item);

    private void TypedHere()
    {
        foreach (var line in reckoned.Lines.Where(l => l.Cell.Quantity is not null && l.Measures.Has(l.OfItem.Measure)))
        {
            var (measure, place) = (line.OfItem.Measure, line.Measures.Place);
            var reckoned = line.Measures[measure] * place.Count;
            if (reckoned.V != 0 && Far(line.Quantity.V, reckoned.V))
                Add(
                    $"typedHere/{line.OfItem.Item.Id}/{place.Id}",
                    "Typed far from reckoned",
                    $"{Named(line.OfItem)} in {place.Name} is typed as {Shown(line.Quantity, measure, job.Units)}; {measure.Label(job.Units).ToLowerInvariant()} there is {Shown(reckoned, measure, job.Units)}.",
                    "A typed quantity stands in place of the measure, and stays when the place is measured anew.",
                    place.Id,
                    line.OfItem.Item.Id
                );
        }
    }

    /// <summary>Rates against others of the same section and measure in the Book, at the same coats, in hours for one unit of what they are measured against.</summary>
    private void Rates()
    {
        foreach (var item in reckoned.Items)
        {
            if (
                item.Entry is not ProductionRate rate
                || (item.Item.Pace ?? rate.Paces.FirstOrDefault(p => p.Coats == item.Item.Coats)?.Pace) is not { } pace
            )
                continue;
            var mine = Hours(pace, rate.Measure);
            var others = shelf
                .OfType<ProductionRate>()
                .Where(r => r.Id != rate.Id && !r.Archived && r.Section == rate.Section && r.Measure == rate.Measure)
                .SelectMany(r => r.Paces.Where(p => p.Coats == item.Item.Coats))
                .Select(p => Hours(p.Pace, rate.Measure))
                .Order()
                .ToArray();
            if (
                others.Length >= FewestOthers
                && others[others.Length / 2] is var middle
                && (mine > middle * FarRate || mine * FarRate < middle)
            )
                Add(
                    $"rate/{item.Item.Id}",
                    "Rate far from its like",
                    $"{Named(item)} goes at {pace}, {(mine > middle ? "much slower" : "much faster")} than the middle one of {others.Length} others in {rate.Section}.",
                    $"It takes {Rounding.Text(Rounding.Digits(mine > middle ? mine / middle : middle / mine, 2))} times as {(mine > middle ? "long" : "little")}: is a unit turned round?",
                    work: item.Item.Id
                );
            else if (
                item.Item.Pace is not null
                && rate.Paces.FirstOrDefault(p => p.Coats == item.Item.Coats)?.Pace is { } own
                && Hours(own, rate.Measure) is var usual
                && (mine > usual * 2 || mine * 2 < usual)
            )
                Add(
                    $"rate/{item.Item.Id}",
                    "Rate far from its like",
                    $"{Named(item)} goes at {pace} in this job; the Book says {own}.",
                    "That is more than twice, or less than half, the time.",
                    work: item.Item.Id
                );
        }
    }

    private static decimal Hours(Ratio pace, Measure measure)
    {
        var (times, to, over, from) = pace.Turn(measure.Kind());
        return times * to.Factor / (over * from.Factor);
    }

    private void Goods()
    {
        foreach (var buy in reckoned.Costs.Buying.DistinctBy(b => b.Material.Id))
            if (buy.Material.Doubt() is { } doubt)
                Add(
                    $"coverage/{buy.Material.Id}",
                    "Coverage above what thickness allows",
                    $"{buy.Material.Name}: {doubt}",
                    "Too little would be bought, or the film comes out thinner than it was sold.",
                    entry: buy.Material.Id
                );
    }

    private void Equipment()
    {
        var aDay = job.Crew.Size * job.Crew.HoursPerDay;
        foreach (var item in reckoned.Items)
        {
            if (item.Entry is not Assembly assembly)
                continue;
            var left = assembly
                .Components.Where(c =>
                    c.Kind == ComponentKind.Equipment
                    && (c.Crew is not null || c.Optional)
                    && !item.Parts.Concat(item.Once).Any(p => p.Kind.Class == CostClass.Equipment)
                )
                .ToArray();
            if (left.Length == 0 || !reckoned.Lines.Any(l => ReferenceEquals(l.OfItem, item) && l.Hours.V > 0))
                continue;
            Add(
                $"equipment/{item.Item.Id}",
                "No equipment where a crew works",
                $"{Named(item)} is worked without {string.Join(" or ", left.Select(c => c.Name))}.",
                "Its entry has equipment for it, which this job does not take.",
                work: item.Item.Id
            );
        }
        // Without any machine, ladder or van for a whole crew's day, something was probably forgotten.
        if (reckoned.Costs.Worked.V >= aDay && reckoned.Costs.Equipment.All(e => e.Cost.V == 0))
            Add(
                "equipment",
                "No equipment where a crew works",
                $"The crew works {Rounding.Text(decimal.Round(reckoned.Costs.CrewDays.V, 1))} days, and no equipment is in the cost.",
                "Access, machines, lights and vans are easily forgotten. Set this aside when they are in overhead."
            );
    }
}
