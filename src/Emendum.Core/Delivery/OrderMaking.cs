using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Delivery;

/// <summary>Makes the work order of an estimate that was agreed.</summary>
public static class OrderMaking
{
    /// <summary>The work order.</summary>
    /// <param name="agreed">The estimate with what was chosen taken.</param>
    public static WorkOrder Of(Estimate agreed)
    {
        var (job, reckoned) = (agreed.Job, agreed.Reckoned);
        var costs = reckoned.Costs;
        return new(
            [.. reckoned.Lines.Where(l => !l.IsNothing && l.Supply != Supply.Customer).Select(l => Line(l, agreed))],
            [
                .. reckoned
                    .EachTime.Where(o => o.Part.Kind.IsLabour && o.Amount.V > 0)
                    .Select(o => new OrderedOnce(
                        o.Item.Item.Id,
                        job.SectionOf(o.Item.Item),
                        o.Item.Item.Name,
                        o.Part.Name,
                        Rounding.Kept(o.Amount.V * TimesOf(o.Item.Item, job))
                    )
                    {
                        Often = RhythmTimes.Of(job, o.Item.Item)?.Name ?? "",
                    }),
            ],
            Rounding.Kept(costs.Hours.V - costs.Worked.V),
            [
                .. costs.Buying.Select(b => new OrderedSupply(
                    AgreedGoods.Called(b.Material),
                    b.Colour,
                    Amount(b.Need.V, b.Material.Unit),
                    b.PacksAlone
                )),
            ],
            [
                .. costs.Mixed.Select(m => new OrderedMix(
                    $"{InColour(m.Material.Name, m.Colour)}: {Amount(m.Quantity.V, m.Material.Unit)}",
                    [
                        .. m.Parts.Select(p =>
                            $"{InColour(p.Name, p.Colour)} {Amount(p.Amount.V, (p.Material ?? Base(m)).Unit)}"
                        ),
                    ]
                )),
            ],
            Sentences(ExclusionsBlock.LeftOut(job)),
            Sentences(TheirsBlock.Of(job, reckoned.Lines)),
            [.. job.Places.Select(p => p.Id)],
            job.Crew.Size,
            job.Crew.HoursPerDay
        )
        {
            Number = job.Info.Number,
            Visits = OrderedVisits.Of(agreed),
        };
    }

    private static Material Base(Mixed mixed) => mixed.Parts[0].Material ?? mixed.Material;

    /// <summary>How much of something, with its unit; pieces have none.</summary>
    private static string Amount(decimal value, Unit unit) =>
        unit == Unit.Each ? Shown.Fine(value)
        : unit.Kind == Kind.Count ? $"{Shown.Fine(value)} {unit.Symbol}"
        : $"{Shown.Amount(value, unit.Symbol)} {unit.Symbol}";

    private static string InColour(string name, string colour) => colour.Length > 0 ? $"{name}, {colour}" : name;

    private static ImmutableArray<string> Sentences(IEnumerable<Element> elements) =>
        [.. elements.OfType<Bullets>().SelectMany(b => b.Items).Select(i => i.Text)];

    private static OrderedLine Line(Line line, Estimate agreed)
    {
        var (job, item, here) = (agreed.Job, line.OfItem, line.Cell.Of(line.OfItem.Item));
        var place = line.Measures.Place;
        var rhythm = RhythmTimes.Of(job, item.Item);
        var symbol = item.SymbolIn(job.Units);
        return new(
            item.Item.Id,
            place.Id,
            job.SectionOf(item.Item),
            item.Item.Name,
            place.Group,
            PlacesInWords.Named(place),
            Rounding.Kept(line.Quantity.V),
            symbol,
            line.Quantity.V == 0 ? "" : $"{Shown.Amount(line.Quantity.V, symbol)} {symbol}".TrimEnd(),
            item.Entry is ProductionRate { Paces: var paces } && (paces.Length > 1 || paces[0].Coats > 1)
                ? here.Coats
                : 0,
            Rounding.Kept(line.Hours.V)
        )
        {
            Goods = [.. Goods(line)],
            Facts = [.. Facts(line, job)],
            Notes = [.. Notes(line, here, job)],
            Supply = line.Supply,
            By = line.Quote?.From ?? "",
            Often = rhythm?.Name ?? "",
            Times = TimesOf(item.Item, job),
            Rate = Rate(line, here, job),
        };
    }

    /// <summary>How often a work item is done: once, or as often as the year has it.</summary>
    private static int TimesOf(WorkItem item, Job job) =>
        RhythmTimes.Of(job, item) is { } rhythm ? Math.Max(0, RhythmTimes.Left(job, rhythm)) : 1;

    private static IEnumerable<OrderedGoods> Goods(Line line) =>
        line
            .Item.Parts.Select((part, i) => (Part: part, Amount: line.Amounts[i].V))
            .Where(x => x.Part.Entry is Material && x.Amount > 0)
            .Select(x => new OrderedGoods(
                AgreedGoods.Called(x.Part.Entry),
                x.Part.Colour,
                Amount(x.Amount, x.Part.Unit)
            ));

    private static IEnumerable<string> Facts(Line line, Job job)
    {
        if (line.Item.Level is { } level)
            yield return level.Name;
        if (line.Item.Surface is { } surface)
            yield return surface.Name;
        foreach (var condition in Factors.On(line, job))
            yield return condition.Name;
        if (line.Item.Entry is not Assembly { Questions: var questions })
            yield break;
        var answers = line.Cell.Answers.Concat(line.Item.Item.Answers).DistinctBy(a => a.Question);
        foreach (var answer in answers)
            if (questions.FirstOrDefault(q => q.Id == answer.Question) is { } question)
                yield return $"{question.Text} {Amount(answer.Value, answer.Unit ?? question.Unit)}";
    }

    private static IEnumerable<string> Notes(Line line, WorkItem here, Job job)
    {
        IEnumerable<string?> said =
        [
            here.CrewNote ?? line.OfItem.Entry.CrewNote,
            .. line.Item.Entry is Assembly { Components: var all }
                ? all.Where(c => line.Item.Parts.Any(p => p.Id == c.Id)).Select(c => c.CrewNote)
                : [],
            line.Cell.Note,
            line.Measures.Place.Notes,
            here.WaitsFor.IsEmpty
                ? ""
                : "After " + string.Join(", ", here.WaitsFor.Select(w => job.Item(w)?.Name).OfType<string>()),
            line.OfItem.Drying > 0 ? $"Dries {Shown.Typed(line.OfItem.Drying)} h" : "",
            here.HazardAnswer.Length > 0 ? "Hazard: " + here.HazardAnswer : "",
            line.Allowance is null ? "" : "A sum is allowed for it: write down what it takes and what is bought",
        ];
        return said.Select(s => Writing.Sentence(s ?? "")).Where(s => s.Length > 0).Distinct();
    }

    /// <summary>By what a line teaches the Book: a production rate whose pace made its hours, or an assembly as a whole. Hours that were typed teach nothing (H4).</summary>
    private static OrderedRate? Rate(Line line, WorkItem here, Job job)
    {
        if (line.Hours.V == 0 || line.Cell.Labour is not null || line.Item.Item.Labour is not null)
            return null;
        if (line.Item.Entry is Assembly assembly)
            return new(assembly.Id, 0, Unit.Hour.Symbol, Rounding.Kept(line.Hours.V))
            {
                Basis = LabourBasis.Of(assembly),
            };
        if (line.Item.Entry is not ProductionRate rate)
            return null;
        var labour = line.Item.Parts.First(p => p.Kind.IsLabour);
        var treated = line.Quantity.V * (line.Item.Surface?.Treated ?? 1);
        return new(
            rate.Id,
            here.Coats,
            line.OfItem.UnitIn(job.Units).Symbol,
            Rounding.Kept(treated * Factors.OfLabour(line, labour, job))
        );
    }
}
