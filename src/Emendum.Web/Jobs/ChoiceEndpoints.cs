using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>A choice; its options are asked for by themselves.</summary>
/// <param name="Places">Where, in words.</param>
/// <param name="Included">The option that the price is printed with.</param>
/// <param name="Taken">The option that is taken.</param>
/// <param name="Difference">What that adds, against the included one; null where it is that, follows another, or cannot be priced.</param>
/// <param name="Refused">Why it cannot be priced, or empty.</param>
/// <param name="Follows">The choice it goes with, or null.</param>
/// <param name="ByHand">The work was set otherwise since: what is taken does not stand in it.</param>
public sealed record ChoiceView(
    Guid Id,
    string Name,
    Guid Work,
    string WorkName,
    string Places,
    int Count,
    NamedView Included,
    NamedView Taken,
    string Supplier,
    FigureView? Difference,
    string Refused,
    Guid? Follows,
    bool Locked,
    bool Hidden,
    bool SupplierShown,
    bool ByHand
);

/// <summary>Goods that a choice can vary, and what their prices are for.</summary>
public sealed record ChoosableGoods(Guid Id, string Name, string Unit);

/// <summary>Work that a choice can be made of, and the goods that it can vary.</summary>
/// <param name="Goods">Of an assembly its materials, of a rate its product; none of work that is sold by the unit.</param>
/// <param name="Unit">What a price is for where it takes no goods.</param>
public sealed record ChoosableView(Guid Work, string Name, IReadOnlyList<ChoosableGoods> Goods, string Unit);

/// <summary>The choices of a job, and what those that are taken come to together.</summary>
public sealed record ChoicesView(
    IReadOnlyList<ChoiceView> Choices,
    IReadOnlyList<TogetherRow> Together,
    IReadOnlyList<ChoosableView> Work
);

/// <summary>An option with what it adds.</summary>
/// <param name="Says">Supplier, code, coats, colour, price, in words.</param>
/// <param name="Conflict">What taking it would not go with; empty where it can be taken.</param>
/// <param name="With">The option of another choice without which it is not to be had; null where there is not just one such thing in the way.</param>
/// <param name="Keeps">What takes it; null where it is taken, or not to be had.</param>
public sealed record OptionView(
    Guid Id,
    string Name,
    string Says,
    bool Included,
    bool Taken,
    FigureView? Price,
    string Refused,
    string Conflict,
    TakeChoice? With,
    TakeChoice? Keeps,
    IReadOnlyList<NamedView> Needs,
    IReadOnlyList<NamedView> RulesOut
);

/// <summary>Options of a choice from one of them on.</summary>
public sealed record OptionListView(int All, IReadOnlyList<OptionView> Options);

/// <summary>What a supplier's table says, row by row; nothing of it is kept.</summary>
public sealed record ChoiceRowsView(IReadOnlyList<ChoiceTableRow> Rows, int Good, int Bad);

/// <summary>What is asked of a job's choices.</summary>
public static class ChoiceEndpoints
{
    /// <summary>Most options that are told at a time.</summary>
    private const int MostOptions = 50;

    private const string Purpose = "choices";

    /// <summary>Maps them.</summary>
    public static void MapChoices(this IEndpointRouteBuilder jobs)
    {
        jobs.MapGet("/{id:guid}/price/choices", (Guid id, OpenJobs open) => All(open.Get(id).Estimate));
        jobs.MapGet(
            "/{id:guid}/price/choices/{choice:guid}",
            (Guid id, Guid choice, string? find, int from, int take, OpenJobs open) =>
                Options(open.Get(id).Estimate, choice, find ?? "", from, take)
        );
        jobs.MapPost("/{id:guid}/choices/read-table", Read).WithMetadata(MappedTable.Limit);
    }

    /// <summary>Records what a figure of these views stands in; false where it is none of them.</summary>
    internal static bool Record(Job job, string figure, Trace trace)
    {
        if (figure.Split('/') is not ["choices", var id, ..])
            return false;
        var choices = Choices.Of(Estimate.Of(job, trace), trace);
        if (Guid.TryParse(id, out var option))
        {
            foreach (var choice in job.Choices)
                if (choice.Option(option) is { } of)
                    choices.Price(choice, of);
        }
        else
            choices.Together(choices.Taken().Select(t => t.Option));
        return true;
    }

    private static ChoiceRowsView Read(Guid id, MappedTable table, OpenJobs open, SettingStore settings)
    {
        TableEndpoints.Check(table);
        _ = open.Get(id);
        var rows = ChoiceTable.Read(table.Rows, table.Mapping);
        settings.Put(TableEndpoints.Remembered(Purpose, table.Columns), table.Mapping);
        return new(rows, rows.Count(r => r.Wrong is null), rows.Count(r => r.Wrong is not null));
    }

    private static ChoicesView All(Estimate estimate)
    {
        var job = estimate.Job;
        if (job.Choices.IsEmpty)
            return new([], [], Choosable(job));
        var choices = Choices.Of(estimate, Trace.Silent);
        var taken = choices.Taken();
        FigureView Money(string path, Total total) => FigureView.Money(path, total, places: estimate.MoneyPlaces);
        var together = choices.Together(taken.Select(t => t.Option));
        return new(
            [
                .. job.Choices.Select(c =>
                {
                    var of = taken.FirstOrDefault(t => t.Choice.Id == c.Id).Option;
                    return View(
                        job,
                        c,
                        of is { Price: { } price } ? Money(price.Path, price) : null,
                        of?.Refused ?? ""
                    );
                }),
            ],
            [
                new(
                    "With what is included, before rounding",
                    Money("choices/included/" + choices.Included.Path, choices.Included),
                    false
                ),
                .. taken
                    .Where(t => t.Option.Price is not null)
                    .Select(t => new TogetherRow(
                        $"{t.Choice.Name}: {t.Option.Option.Name}",
                        Money(t.Option.Price!.Path, t.Option.Price),
                        false
                    )),
                new("Taken together", Money(together.Path, together), false),
                new("Price before tax", FigureView.Money(estimate.Price.BeforeTax, places: estimate.MoneyPlaces), true),
            ],
            Choosable(job)
        );
    }

    private static ChoiceView View(Job job, Choice choice, FigureView? difference, string refused)
    {
        var taken = choice.Option(choice.Taken)!;
        return new(
            choice.Id,
            choice.Name,
            choice.Work,
            job.Item(choice.Work) is { } item ? job.Titled(item) : "",
            choice.Places.IsEmpty
                ? "everywhere"
                : Counted.Few([.. job.Places.Where(p => choice.Places.Contains(p.Id)).Select(p => p.Name)], 4),
            choice.Options.Length,
            new(choice.Included, choice.Option(choice.Included)!.Name),
            new(choice.Taken, taken.Name),
            taken.Supplier,
            difference,
            refused,
            choice.Follows,
            choice.Locked,
            choice.Hidden,
            choice.SupplierShown,
            Choosing.IsByHand(job, choice)
        );
    }

    private static IReadOnlyList<ChoosableView> Choosable(Job job) =>
        [
            .. job.Work.Select(w =>
            {
                var entry = job.Book.GetValueOrDefault(w.Entry);
                Guid?[] goods = entry switch
                {
                    Assembly assembly =>
                    [
                        .. assembly.Components.Where(c => c.Kind == ComponentKind.Material).Select(c => c.Entry),
                    ],
                    ProductionRate rate => [rate.Product],
                    _ => [],
                };
                return new ChoosableView(
                    w.Id,
                    job.Titled(w),
                    [
                        .. goods
                            .OfType<Guid>()
                            .Distinct()
                            .Select(g => job.Book.GetValueOrDefault(g))
                            .OfType<Material>()
                            .Select(m => new ChoosableGoods(m.Id, m.Name, m.Unit.Symbol)),
                    ],
                    Choosing.SoldBy(job, w)?.Symbol ?? ""
                );
            }),
        ];

    private static OptionListView Options(Estimate estimate, Guid id, string find, int from, int take)
    {
        if (from < 0 || take is < 1 or > MostOptions)
            throw RefusedException.Of("take", $"1 to {MostOptions} options at a time.");
        var job = estimate.Job;
        var choice =
            job.Choices.FirstOrDefault(c => c.Id == id)
            ?? throw RefusedException.Of("choice", "That choice is not in this job any more.");
        var words = find.Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        ChoiceOption[] found =
        [
            .. choice.Options.Where(o =>
                words.All(w =>
                    o.Name.Contains(w, StringComparison.OrdinalIgnoreCase)
                    || o.Code.Contains(w, StringComparison.OrdinalIgnoreCase)
                    || o.Supplier.Contains(w, StringComparison.OrdinalIgnoreCase)
                )
            ),
        ];
        var choices = Choices.Of(estimate, Trace.Silent);
        var names = job
            .Choices.SelectMany(c => c.Options.Select(o => (o.Id, Named: new NamedView(o.Id, $"{c.Name}: {o.Name}"))))
            .DistinctBy(o => o.Id)
            .ToDictionary(o => o.Id, o => o.Named);
        // Under a fixed price what is taken is added to it, less what was.
        var was =
            job.Pricing.Basis == PriceBasis.Fixed
                ? choices.Price(choice, choice.Option(choice.Taken)!).Price?.V ?? 0
                : (decimal?)null;
        return new(
            found.Length,
            [.. found.Skip(from).Take(take).Select(o => View(estimate, choices, choice, o, was, names))]
        );
    }

    private static OptionView View(
        Estimate estimate,
        Choices choices,
        Choice choice,
        ChoiceOption option,
        decimal? was,
        Dictionary<Guid, NamedView> names
    )
    {
        var job = estimate.Job;
        var priced = choices.Price(choice, option);
        var isTaken = choice.Taken == option.Id;
        var conflicts = isTaken ? [] : Choosing.Conflicts(job, [(choice, option)]).ToArray();
        var take = new Chosen(choice.Id, choice.Taken, option.Id);
        // What it needs can be taken with it, where nothing else is in the way.
        var needed = Choosing.Lacking(job, option, c => c.Taken);
        TakeChoice? With() =>
            conflicts.Length > 0 && needed.Length > 0 && !Choosing.Conflicts(job, [(choice, option), .. needed]).Any()
                ? new([take, .. needed.Select(n => new Chosen(n.Choice.Id, n.Choice.Taken, n.Option.Id))], null)
                : null;
        return new(
            option.Id,
            option.Name,
            string.Join(
                " · ",
                new[]
                {
                    option.Supplier,
                    option.Code,
                    option.Price is { } price
                        ? $"{Shown.Money(price, estimate.MoneyPlaces)} per {Choosing.UnitOf(job, choice)?.Symbol}"
                        : "",
                    option.Coats is { } coats ? Counted.Of(coats, "coat") : "",
                    option.Colour ?? "",
                }.Where(w => w.Length > 0)
            ),
            choice.Included == option.Id,
            isTaken,
            priced.Price is { } difference
                ? FigureView.Money(difference.Path, difference, places: estimate.MoneyPlaces)
                : null,
            priced.Refused,
            conflicts.FirstOrDefault() ?? (choice.Locked && !isTaken ? "The choice is locked." : ""),
            choice.Locked ? null : With(),
            isTaken || conflicts.Length > 0 || choice.Locked
                ? null
                : new(
                    [take],
                    priced.Price is { } now && was is { } less ? TakenTogether.FixedWith(job, now.V - less) : null
                ),
            [.. option.Needs.Where(names.ContainsKey).Select(n => names[n])],
            [.. option.RulesOut.Where(names.ContainsKey).Select(n => names[n])]
        );
    }
}
