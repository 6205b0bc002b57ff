using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What taking an option does: it puts its goods, coats and colour into the work, or into its cells at the places of the choice, and takes out what another option put there.</summary>
public static class Choosing
{
    /// <summary>Fields of work and cells that a choice decides.</summary>
    internal static ImmutableArray<string> Fields(Job job, Choice choice)
    {
        var (goods, coats, colour) = Decides(choice);
        return
        [
            .. goods ? [job.Item(choice.Work) is { } item ? GoodsField(job, item) : "product"] : Array.Empty<string>(),
            .. coats ? ["coats"] : Array.Empty<string>(),
            .. colour ? ["colour"] : Array.Empty<string>(),
        ];
    }

    /// <summary>Of what any of its options says something.</summary>
    private static (bool Goods, bool Coats, bool Colour) Decides(Choice choice) =>
        (
            choice.Options.Any(o => o.Product is not null || o.Price is not null),
            choice.Options.Any(o => o.Coats is not null),
            choice.Options.Any(o => o.Colour is not null)
        );

    private static string GoodsField(Job job, WorkItem item) =>
        job.Book.GetValueOrDefault(item.Entry) switch
        {
            Assembly => "products",
            ProductionRate { Product: not null } => "product",
            _ => "unitPrice",
        };

    /// <summary>The goods that a choice varies; null where its work has none.</summary>
    public static Material? GoodsOf(Job job, Choice choice)
    {
        var id = job.Item(choice.Work) is { } item
            ? job.Book.GetValueOrDefault(item.Entry) switch
            {
                Assembly => choice.Of,
                ProductionRate rate => rate.Product,
                _ => null,
            }
            : null;
        return id is { } of ? job.Book.GetValueOrDefault(of) as Material : null;
    }

    /// <summary>What the price of an option is for: a unit of the goods, or of the work that is sold.</summary>
    public static Unit? UnitOf(Job job, Choice choice) =>
        GoodsOf(job, choice)?.Unit ?? (job.Item(choice.Work) is { } item ? SoldBy(job, item) : null);

    /// <summary>The unit that work is sold by.</summary>
    public static Unit? SoldBy(Job job, WorkItem item) =>
        job.Book.GetValueOrDefault(item.Entry) is WorkEntry entry
            ? entry.Sold?.Unit ?? entry.UnitIn(job.Units, item.CountedIn)
            : null;

    /// <summary>The goods of an option: of the Book, or a variation that is like them but for its price. Null for those that the work has.</summary>
    internal static Material? GoodsOf(Job job, Choice choice, ChoiceOption option)
    {
        var of = option.Product is { } own ? job.Book.GetValueOrDefault(own) as Material : GoodsOf(job, choice);
        if (of is null || option.Price is not { } price)
            return option.Product is null ? null : of;
        return of with
        {
            Id = IdOf(choice, option),
            Name = option.Name,
            Packs = [new(of.Unit.Kind == Kind.Count ? "each" : of.Unit.Symbol, 1, price)],
            Supplier = option.Supplier,
            Code = option.Code,
        };
    }

    /// <summary>The choice with every option saying what another of them says: where some say how many coats, the others have as many as the work has now.</summary>
    internal static Choice Filled(Job job, Choice choice)
    {
        if (job.Item(choice.Work) is not { } item)
            return choice;
        var now = choice
            .Places.Select(p => job.Cells.GetValueOrDefault(new(item.Id, p)))
            .OfType<Cell>()
            .FirstOrDefault()
            is { } cell
            ? cell.Of(item)
            : item;
        var (goods, coats, colour) = Decides(choice);
        // A variation that was taken is no goods of the Book.
        var product = now.Product is { } own && !choice.Options.Any(o => IdOf(choice, o) == own) ? own : (Guid?)null;
        return choice with
        {
            Options =
            [
                .. choice.Options.Select(o =>
                    o with
                    {
                        Product = o.Product ?? (goods && o.Price is null ? product : null),
                        Coats = o.Coats ?? (coats ? now.Coats : null),
                        Colour = o.Colour ?? (colour ? now.Colour : null),
                    }
                ),
            ],
        };
    }

    private static Guid IdOf(Choice choice, ChoiceOption option) => DerivedId.Of($"choice/{choice.Id}/{option.Id}");

    /// <summary>The changes by which an option comes to stand in the work, or in its cells.</summary>
    internal static ImmutableArray<Change> Changes(Job job, Choice choice, ChoiceOption option)
    {
        if (job.Item(choice.Work) is not { } item)
            return [];
        var changes = ImmutableArray.CreateBuilder<Change>();
        void Become(string path, JsonNode? now)
        {
            var was = ChangeSet.Get(job, path);
            if (!ChangeSet.Same(was, now))
                changes.Add(new(path, was, now));
        }
        var goods = GoodsOf(job, choice, option);
        if (goods is not null)
            Become($"book/{goods.Id}", Commands.Node<BookEntry>(goods));
        foreach (var field in Fields(job, choice))
        foreach (var (path, cell) in Targets(job, choice, item))
            Become($"{path}/{field}", Value(job, choice, option, item, goods, field, cell));
        return changes.ToImmutable();
    }

    /// <summary>Whether the work, or a cell, has been set otherwise than the option that is taken says.</summary>
    public static bool IsByHand(Job job, Choice choice) =>
        choice.Option(choice.Taken) is { } taken && !Changes(job, choice, taken).IsEmpty;

    private static IEnumerable<(string Path, bool Cell)> Targets(Job job, Choice choice, WorkItem item) =>
        choice.Places.IsEmpty
            ? [($"work/{item.Id}", false)]
            : choice
                .Places.Where(p => job.Cells.ContainsKey(new(item.Id, p)))
                .Select(p => ($"cells/{item.Id}/{p}", true));

    private static JsonNode? Value(
        Job job,
        Choice choice,
        ChoiceOption option,
        WorkItem item,
        Material? goods,
        string field,
        bool cell
    )
    {
        var entry = job.Book.GetValueOrDefault(item.Entry) as WorkEntry;
        return field switch
        {
            "product" => Commands.Node(goods?.Id),
            "products" => goods is null || choice.Of is not { } of
                ? null
                : Commands.Node<ImmutableArray<ProductInstead>>([new(of, goods.Id)]),
            "unitPrice" => option.Price is { } price && SoldBy(job, item) is { } unit
                ? Commands.Node(new UnitPrice(price, unit))
                : null,
            "coats" => Commands.Node(option.Coats ?? (cell ? null : entry?.UsualCoats() ?? 1)),
            _ => Commands.Node(option.Colour ?? (cell ? null : "")),
        };
    }

    /// <summary>The job with options taken, those of choices that follow them too.</summary>
    public static Job In(Job job, IEnumerable<(Choice Choice, ChoiceOption Option)> taken) =>
        Just(job, Following(job, taken));

    /// <summary>The job with just these options taken, whatever follows them.</summary>
    internal static Job Just(Job job, IEnumerable<(Choice Choice, ChoiceOption Option)> taken)
    {
        foreach (var (choice, option) in taken)
            job = ChangeSet.Apply(
                job,
                [
                    .. Changes(job, choice, option),
                    new Change($"choices/{choice.Id}/taken", null, Commands.Node(option.Id)),
                ]
            );
        return job;
    }

    /// <summary>The same options, and after each those that other choices take with it, by name.</summary>
    internal static IReadOnlyList<(Choice Choice, ChoiceOption Option)> Following(
        Job job,
        IEnumerable<(Choice Choice, ChoiceOption Option)> taken
    )
    {
        var all = new List<(Choice Choice, ChoiceOption Option)>();
        void Take(Choice choice, ChoiceOption option)
        {
            if (all.Any(t => t.Choice.Id == choice.Id))
                return;
            all.Add((choice, option));
            foreach (var other in job.Choices.Where(c => c.Follows == choice.Id))
                if (other.Named(option.Name) is { } same)
                    Take(other, same);
        }
        foreach (var (choice, option) in taken)
            Take(choice, option);
        return all;
    }

    /// <summary>Options of other choices that an option is only to be had with, and that do not stand there yet.</summary>
    /// <param name="job">The job.</param>
    /// <param name="option">The option.</param>
    /// <param name="now">Which option stands in a choice.</param>
    public static ImmutableArray<(Choice Choice, ChoiceOption Option)> Lacking(
        Job job,
        ChoiceOption option,
        Func<Choice, Guid> now
    ) =>
        [
            .. option.Needs.SelectMany(need =>
                job.Choices.Where(c => c.Option(need) is not null && now(c) != need)
                    .Take(1)
                    .Select(c => (c, c.Option(need)!))
            ),
        ];

    /// <summary>The same for a job in which more is taken.</summary>
    public static IEnumerable<string> Conflicts(Job job, IEnumerable<(Choice Choice, ChoiceOption Option)> taken)
    {
        var now = Following(job, taken).ToDictionary(t => t.Choice.Id, t => t.Option.Id);
        return Conflicts(
            job with
            {
                Choices = [.. job.Choices.Select(c => now.TryGetValue(c.Id, out var id) ? c with { Taken = id } : c)],
            }
        );
    }

    /// <summary>Why what is taken cannot stand together, in sentences; empty where it can.</summary>
    public static IEnumerable<string> Conflicts(Job job)
    {
        var taken = job.Choices.Select(c => (Choice: c, Option: c.Option(c.Taken))).ToArray();
        var ids = new Dictionary<Guid, (Choice Choice, ChoiceOption? Option)>();
        foreach (var one in taken.Where(t => t.Option is not null))
            ids.TryAdd(one.Option!.Id, one);
        foreach (var (choice, option) in taken)
        {
            foreach (var need in option?.Needs ?? [])
                if (!ids.ContainsKey(need) && job.Choices.FirstOrDefault(c => c.Option(need) is not null) is { } other)
                    yield return $"“{option!.Name}” ({choice.Name}) is only to be had with “{other.Option(need)!.Name}” ({other.Name}); “{other.Option(other.Taken)?.Name}” is taken there.";
            foreach (var without in option?.RulesOut ?? [])
                if (ids.TryGetValue(without, out var there))
                    yield return $"“{option!.Name}” ({choice.Name}) is not to be had with “{there.Option!.Name}” ({there.Choice.Name}), which is taken.";
        }
    }
}
