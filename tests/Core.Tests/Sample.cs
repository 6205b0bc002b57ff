using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Emendum.Storage.Demo;

namespace Emendum.Core.Tests;

/// <summary>Small jobs for tests, made by the commands that people give.</summary>
internal static class Sample
{
    private static int next;

    public static Guid NewId() => new($"01940000-0000-7000-8000-{Interlocked.Increment(ref next):D12}");

    public static Job Empty(UnitSystem units = UnitSystem.Feet) =>
        Job.Empty(NewId(), new("Test", "", "1", null, "Firm", "", "USD", "2026-01-15"), units);

    public static Job Library() => LibraryJob.Build(StarterBook.Id(999), StarterBook.Id(900), "2026-11-23");

    /// <summary>Says what work is at places, whatever it is there now.</summary>
    public static Job Fill(this Job job, Guid work, IReadOnlyList<Guid> places, CellState? state) =>
        job.Do(new FillCells([work], [.. places], job.Seen([work], [.. places]), state));

    /// <summary>Sets a field of a cell, seen as it is.</summary>
    public static Job Set<T>(this Job job, Guid work, Guid place, string field, T now, params BookEntry[] book) =>
        job.Do(
            new SetCells(
                work,
                field,
                [
                    new(
                        place,
                        ChangeSet.Get(job, $"cells/{work}/{place}/{field}"),
                        JsonSerializer.SerializeToNode(now, CoreJson.Options)
                    ),
                ]
            ),
            book
        );

    /// <summary>Answers questions of a work item for all its places; nothing was answered before.</summary>
    public static Job Answer(this Job job, Guid work, params Answer[] answers) =>
        job.Do(
            new SetWork(
                work,
                "answers",
                new System.Text.Json.Nodes.JsonArray(),
                JsonSerializer.SerializeToNode(answers, CoreJson.Options)
            )
        );

    public static Job Do(this Job job, Command command, params BookEntry[] book) =>
        Commands
            .Apply(
                job,
                command,
                id => book.FirstOrDefault(e => e.Id == id) ?? StarterBook.Entries.FirstOrDefault(e => e.Id == id)
            )
            .Job;

    /// <summary>The same as an open job does it: what cannot be reckoned or priced afterwards is refused.</summary>
    public static Job DoPriced(this Job job, Command command)
    {
        var after = job.Do(command);
        _ = Reckon(after);
        return after;
    }

    /// <summary>A job with one room, the entry included in it, and the ids of both.</summary>
    public static (Job Job, Guid Work, Guid Place) With(
        string line,
        BookEntry[] book,
        Guid entry,
        UnitSystem units = UnitSystem.Feet
    )
    {
        var (place, work) = (NewId(), NewId());
        var job = Empty(units)
            .Do(new AddPlace(place, line, "", null))
            .Do(new AddWork(work, entry, null), book)
            .Do(new FillCells([work], [place], ".", CellState.Included));
        return (job, work, place);
    }

    public static LabourRole Role(string name = "Painter", decimal wage = 20m) => new(NewId(), 1, name, wage, []);

    public static Material Material(
        string name,
        Unit unit,
        string? coverage,
        string? later,
        decimal waste,
        params Pack[] packs
    ) =>
        new(
            NewId(),
            1,
            name,
            unit,
            [.. packs],
            coverage is null ? null : Ratio.Parse(coverage),
            later is null ? null : Ratio.Parse(later),
            waste,
            true
        );

    public static ProductionRate Rate(Measure measure, LabourRole role, Material? product, params string[] paces) =>
        new(
            NewId(),
            1,
            "Rate",
            "Walls",
            measure,
            [.. paces.Select((p, i) => new CoatsPace(i + 1, Ratio.Parse(p)))],
            role.Id,
            product?.Id,
            "",
            ""
        );

    public static Estimate Reckon(Job job) => Estimate.Of(job, Trace.Silent);

    /// <summary>What the customer reads, element by element.</summary>
    public static Element[] Proposed(Estimate estimate) => [.. Document(estimate).Elements];

    /// <summary>The proposal, for nobody in particular.</summary>
    public static Document Document(Estimate estimate) =>
        Proposal.Of(estimate, Party.None, Brand.Starting, Trace.Silent);

    public static PlaceMeasures Measure(string line, UnitSystem units = UnitSystem.Feet, string rule = "net") =>
        PlaceMeasures.Of(
            TapeLine.ReadOrThrow(line, units).ToPlace(Guid.Empty, "", "", line),
            [],
            units,
            DeductionRule.Find(rule)!,
            Trace.Silent
        );
}
