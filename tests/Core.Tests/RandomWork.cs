using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Emendum.Storage.Demo;

namespace Emendum.Core.Tests;

/// <summary>Random commands of the Work station, as its grid, sheets and dialogs give them.</summary>
internal static class RandomWork
{
    private static JsonNode? Node<T>(T value) => JsonSerializer.SerializeToNode(value, CoreJson.Options);

    private static T Any<T>(Random random, IReadOnlyList<T> list) => list[random.Next(list.Count)];

    private static ImmutableArray<Guid> Run<T>(Random random, ImmutableArray<T> all, Func<T, Guid> id)
    {
        var from = random.Next(all.Length);
        return [.. all.Skip(from).Take(random.Next(1, 5)).Select(id)];
    }

    /// <summary>A rectangle of the grid.</summary>
    public static (ImmutableArray<Guid> Work, ImmutableArray<Guid> Places) Block(Job job, Random random) =>
        (Run(random, job.Work, w => w.Id), Run(random, job.Places, p => p.Id));

    /// <summary>A command that touches the cells of one block and nothing else.</summary>
    public static Command OnCells(Job job, Random random, ImmutableArray<Guid> work, ImmutableArray<Guid> places)
    {
        var seen = job.Seen(work, places);
        var (w, p) = (Any(random, work), Any(random, places));
        var cell = job.Cells.GetValueOrDefault(new(w, p));
        Command Set<T>(string field, T now) =>
            new SetCells(w, field, [new(p, ChangeSet.Get(job, $"cells/{w}/{p}/{field}"), Node(now))]);
        return random.Next(cell is null ? 4 : 18) switch
        {
            0 => new FillCells(
                work,
                places,
                seen,
                Any(
                    random,
                    new CellState?[]
                    {
                        CellState.Included,
                        CellState.Included,
                        CellState.Excluded,
                        CellState.Alternate,
                        null,
                    }
                )
            ),
            1 => new PasteCells(
                work,
                places,
                seen,
                [.. seen.Select(_ => Any(random, new[] { "", "x", "excluded: leave it", "alt", "12" }))],
                false
            ),
            2 => new FallBack(work, places, seen),
            3 => new CopyCells(work[..1], places[..1], work, places, seen),
            4 => new SetNote(w, p, cell!.Note, "note " + random.Next(9)),
            5 => Set("coats", Any(random, new int?[] { 1, 2, 3, null })),
            6 => Set("colour", Any(random, new[] { "Tern", "Slate", null })),
            7 => Set(
                "quantity",
                Any(random, new[] { new TypedQuantity(Quantities.Kind.Area, "12 x 8", UnitSystem.Feet), null })
            ),
            8 => Set("conditions", Any(random, new[] { ImmutableArray.Create(StarterBook.Id(2403)), [] })),
            9 => Set(
                "supply",
                Any(random, new Supply?[] { Supply.Customer, Supply.CustomerMaterial, Supply.We, null })
            ),
            10 => Set("allowance", Any(random, new decimal?[] { 120.5m, null })),
            11 => Set("surface", Any(random, new Guid?[] { StarterBook.Id(2411), null })),
            12 => Set("crewNote", Any(random, new[] { "mind the stair", null })),
            13 => Set("step", Any(random, new decimal?[] { 0.5m, null })),
            14 => Set("wording", Any(random, new[] { "Only the reveals", null })),
            15 => Set("hidden", Any(random, new bool?[] { true, false, null })),
            16 => Set("labour", Any(random, new[] { "2 x 3 h", "7.5 h", null })),
            _ => SetMany(),
        };

        // The same of all cells of a column that are there, each seen as it is.
        Command SetMany() =>
            new SetCells(
                w,
                "difficulty",
                [
                    .. places
                        .Where(x => job.Cells.ContainsKey(new(w, x)))
                        .Select(x => new AtPlace(
                            x,
                            ChangeSet.Get(job, $"cells/{w}/{x}/difficulty"),
                            random.Next(2) == 0 ? "" : null
                        )),
                ]
            );
    }

    /// <summary>Any command of the station.</summary>
    public static Command Command(Job job, Random random)
    {
        var (work, places) = Block(job, random);
        var item = job.Item(work[0])!;
        Command Set<T>(string field, T now) =>
            new SetWork(item.Id, field, ChangeSet.Get(job, $"work/{item.Id}/{field}"), Node(now));
        var material = Any(random, job.Book.Values.OfType<Material>().OrderBy(m => m.Id).ToList());
        return random.Next(29) switch
        {
            0 => Set("coats", Any(random, new[] { 1, 2, 3 })),
            28 => Set("labour", Any(random, new[] { "3 x 9 h", "27 h", null })),
            1 => Set("hidden", Any(random, new bool?[] { true, false, null })),
            2 => Set("step", Any(random, new decimal?[] { 0.25m, 1, null })),
            3 => Set("allowance", Any(random, new decimal?[] { 75, null })),
            4 => Set("crewNote", Any(random, new[] { "sweep first", null })),
            5 => Set("surface", Any(random, new Guid?[] { StarterBook.Id(2411), null })),
            6 => new MoveWork(
                item.Id,
                Any(random, job.Work).Section,
                Any(random, job.Work).Id is var after && after != item.Id ? after : null
            ),
            7 => new SetPace(
                job.Pace,
                Any(random, new[] { null, new PaceFactor(1.1m, "wet weather"), new PaceFactor(0.9m, "a good crew") })
            ),
            8 => new SetConditions(
                job.Conditions,
                Any(
                    random,
                    new[]
                    {
                        ImmutableArray.Create(StarterBook.Id(2401)),
                        [StarterBook.Id(2401), StarterBook.Id(2402)],
                        [],
                    }
                )
            ),
            9 => new Jobs.SetAside(
                "noWork/" + places[0],
                job.SetAside.GetValueOrDefault("noWork/" + places[0], ""),
                Any(random, new[] { "", "seen" })
            ),
            10 => new ReplaceProduct(material.Id, StarterBook.Id(Any(random, new[] { 20, 21, 2006 }))),
            11 => new SetEntry(material, material with { WastePercent = random.Next(12) }),
            12 => new TakeFromBook([material.Id], random.Next(2) == 0 ? item.Id : null),
            13 => new AddWork(Sample.NewId(), StarterBook.Id(Any(random, new[] { 100, 111, 132, 2104 })), item.Id)
            {
                Places = places,
                With = [new(StarterBook.Id(133), Sample.NewId())],
            },
            24 => new MoveWork(item.Id, Sample.NewId(), null) { Name = $"New {random.Next(5)}" },
            25 => new SetSection(item.Section, "name", Node(job.SectionOf(item)), Node($"New {random.Next(5)}")),
            26 => new MoveSection(item.Section, Any(random, job.Work).Section),
            14 when job.Work.Length > 5 => new RemoveWork(item.Id),
            15 => new SetPlaces(
                "conditions",
                [
                    .. places.Select(p => new AtPlace(
                        p,
                        ChangeSet.Get(job, $"places/{p}/conditions"),
                        Node(
                            Any(
                                random,
                                new[] { ImmutableArray.Create(new PlaceCondition(StarterBook.Id(2403), "")), [] }
                            )
                        )
                    )),
                ]
            ),
            _ => OnCells(job, random, work, places),
        };
    }
}
