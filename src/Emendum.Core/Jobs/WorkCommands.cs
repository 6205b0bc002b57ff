using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What the commands about work items and the entries behind them do: change sets, or refusals.</summary>
internal static class WorkCommands
{
    public static ImmutableArray<Change> Add(Job job, AddWork command, Func<Guid, BookEntry?> book)
    {
        var changes = ImmutableArray.CreateBuilder<Change>();
        var growing = job;
        void Make(ImmutableArray<Change> made)
        {
            changes.AddRange(made);
            growing = ChangeSet.Apply(growing, made);
        }
        Make(Added(growing, command.Work, command.Entry, command.After, command.Answers, book));
        var included = new List<Guid> { command.Work };
        foreach (var (entry, work) in command.With)
        {
            var there = growing.Work.FirstOrDefault(w => w.Entry == entry)?.Id;
            if (there is null)
                Make(Added(growing, work, entry, included[^1], [], book));
            included.Add(there ?? work);
        }
        var cell = Commands.Node(new Cell(CellState.Included, ""));
        foreach (var place in command.Places.Distinct())
        {
            Commands.Place(job, place);
            foreach (var work in included.Where(w => !growing.Cells.ContainsKey(new(w, place))))
                changes.Add(new($"cells/{work}/{place}", null, cell?.DeepClone()));
        }
        return changes.ToImmutable();
    }

    private static ImmutableArray<Change> Added(
        Job job,
        Guid id,
        Guid entry,
        Guid? after,
        ImmutableArray<Answer> answers,
        Func<Guid, BookEntry?> book
    )
    {
        if (id == Guid.Empty || job.Item(id) is not null)
            throw RefusedException.Of("work", "New work needs an id of its own.");
        var pins = Commands.Pin(job, entry, "entry", book);
        var found = job.Book.GetValueOrDefault(entry) ?? book(entry)!;
        if (found is not WorkEntry of)
            throw RefusedException.Of(
                "entry",
                $"{found.Name} is not work: add a rate, an assembly or a price-only item."
            );
        var rank = RankAfter(job.Work, after is { } left ? Commands.Item(job, left) : job.Work.LastOrDefault());
        var item = new WorkItem(id, rank, of.Id, of.Section, of.Name, of.UsualCoats(), null, "", null, of.Wording)
        {
            Answers = answers,
        };
        return [.. pins, new($"work/{id}", null, Commands.Node(item))];
    }

    private static string RankAfter(ImmutableArray<WorkItem> work, WorkItem? after)
    {
        var at = after is null ? 0 : work.IndexOf(after) + 1;
        return Rank.Between(after?.Rank, at == work.Length ? null : work[at].Rank);
    }

    public static ImmutableArray<Change> Set(Job job, SetWork command, Func<Guid, BookEntry?> book)
    {
        if (command.Field is "id" or "rank" or "entry")
            throw RefusedException.Of("field", "That cannot be set.");
        var change = Commands.Set(
            job,
            Commands.Field($"work/{Commands.Item(job, command.Work).Id}", command.Field),
            command.Was,
            command.Now
        );
        return Commands.Pinning(job, change, changed => changed.Item(command.Work)!.Uses, command.Field, book);
    }

    public static ImmutableArray<Change> Move(Job job, MoveWork command)
    {
        var item = Commands.Item(job, command.Work);
        if (command.After == command.Work)
            throw RefusedException.Of("after", "Work cannot stand after itself.");
        var staying = job.Work.Remove(item);
        var now = item with
        {
            Section = command.Section.Trim(),
            Rank = RankAfter(staying, command.After is { } after ? Commands.Item(job, after) : null),
        };
        if (now.Section.Length == 0)
            throw RefusedException.Of("section", "Work stands under a section.");
        var to = command.After is { } left ? staying.IndexOf(Commands.Item(job, left)) + 1 : 0;
        return now.Section == item.Section && job.Work.IndexOf(item) == to
            ? []
            : [new($"work/{item.Id}", Commands.Node(item), Commands.Node(now))];
    }

    public static ImmutableArray<Change> Remove(Job job, RemoveWork command) =>
        [
            .. Commands.CellsGone(job, key => key.Work == command.Work),
            .. job
                .Work.Where(w => w.WaitsFor.Contains(command.Work))
                .Select(w => new Change(
                    $"work/{w.Id}/waitsFor",
                    Commands.Node(w.WaitsFor),
                    Commands.Node(w.WaitsFor.Remove(command.Work))
                )),
            new($"work/{command.Work}", Commands.Node(Commands.Item(job, command.Work)), null),
        ];

    public static ImmutableArray<Change> Replace(Job job, ReplaceProduct command, Func<Guid, BookEntry?> book)
    {
        if (job.Book.GetValueOrDefault(command.From) is not Material from)
            throw RefusedException.Of("from", "That product is not used in this job.");
        if (command.From == command.To)
            return [];
        if ((job.Book.GetValueOrDefault(command.To) ?? book(command.To)) is not Material to)
            throw RefusedException.Of("to", "That product is not in the Book any more.");
        if (to.Unit.Kind != from.Unit.Kind)
            throw RefusedException.Of(
                "to",
                $"{to.Name} is bought by the {to.Unit}, {from.Name} by the {from.Unit}: it cannot take its place."
            );
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var item in job.Work)
        {
            var taken = item.Product ?? (job.Book.GetValueOrDefault(item.Entry) as ProductionRate)?.Product;
            if (taken == command.From)
                changes.Add(
                    new($"work/{item.Id}/product", Commands.Node(item.Product), Commands.Node<Guid?>(command.To))
                );
        }
        foreach (
            var (key, cell) in job
                .Cells.Where(c => c.Value.Product == command.From)
                .OrderBy(c => c.Key.Work)
                .ThenBy(c => c.Key.Place)
        )
            changes.Add(
                new(
                    $"cells/{key.Work}/{key.Place}/product",
                    Commands.Node(cell.Product),
                    Commands.Node<Guid?>(command.To)
                )
            );
        foreach (
            var assembly in job
                .Book.Values.OfType<Assembly>()
                .Where(a => a.Components.Any(c => c.Entry == command.From))
                .OrderBy(a => a.Id)
        )
            changes.Add(
                new(
                    $"book/{assembly.Id}",
                    Commands.Node<BookEntry>(assembly),
                    Commands.Node<BookEntry>(
                        assembly with
                        {
                            Components =
                            [
                                .. assembly.Components.Select(c =>
                                    c.Entry == command.From ? c with { Entry = command.To } : c
                                ),
                            ],
                        }
                    )
                )
            );
        if (changes.Count == 0)
            throw RefusedException.Of("from", $"No work of this job takes {from.Name}.");
        return [.. Commands.Pin(job, command.To, "to", book), .. changes];
    }

    public static ImmutableArray<Change> SetEntry(Job job, SetEntry command, Func<Guid, BookEntry?> book)
    {
        var now = command.Entry;
        if (job.Book.GetValueOrDefault(now.Id) is not { } there)
            throw RefusedException.Of("entry", "That entry is not in this job any more.");
        if (!ChangeSet.Same(Commands.Node(there), Commands.Node(command.Was)))
            throw new ConflictException("entry", Commands.Node(there));
        if (there.GetType() != now.GetType() || there.Version != now.Version)
            throw RefusedException.Of("entry", "Kind and version of an entry do not change in a job.");
        var change = new Change($"book/{now.Id}", Commands.Node(there), Commands.Node(now));
        if (ChangeSet.Same(change.Before, change.After))
            return [];
        BookChecks.Check(
            now,
            job.Book.SetItem(now.Id, now)
                .AddRange(
                    now.Needs.Where(n => !job.Book.ContainsKey(n))
                        .Distinct()
                        .Select(book)
                        .OfType<BookEntry>()
                        .Select(e => KeyValuePair.Create(e.Id, e))
                ),
            named: false
        );
        return Commands.Pinning(job, [change], changed => changed.Book[now.Id].Needs, "entry", book);
    }

    public static ImmutableArray<Change> Take(Job job, TakeFromBook command, Func<Guid, BookEntry?> book)
    {
        var changes = ImmutableArray.CreateBuilder<Change>();
        var growing = job;
        foreach (var id in command.Entries.Distinct())
        {
            if (job.Book.GetValueOrDefault(id) is not { } there)
                throw RefusedException.Of("entries", "That entry is not in this job any more.");
            var newest =
                book(id)
                ?? throw RefusedException.Of(
                    "entries",
                    $"{there.Name} is not in the Book any more; the job keeps its own."
                );
            foreach (
                var pin in newest
                    .Needs.SelectMany(need => Commands.Pin(growing, need, "entries", book))
                    .DistinctBy(c => c.Path)
            )
            {
                changes.Add(pin);
                growing = ChangeSet.Apply(growing, [pin]);
            }
            var change = new Change($"book/{id}", Commands.Node(there), Commands.Node(newest));
            if (!ChangeSet.Same(change.Before, change.After))
                changes.Add(change);
        }
        if (command.Work is { } work)
        {
            var item = Commands.Item(job, work);
            var plain = AsInBook(item, (WorkEntry)(book(item.Entry) ?? job.Book[item.Entry]));
            if (!ChangeSet.Same(Commands.Node(item), Commands.Node(plain)))
                changes.Add(new($"work/{work}", Commands.Node(item), Commands.Node(plain)));
        }
        return changes.ToImmutable();
    }

    /// <summary>The work item without what it has instead of its entry. Coats, colour, answers and what is of this job alone stay.</summary>
    private static WorkItem AsInBook(WorkItem item, WorkEntry entry) =>
        item with
        {
            Pace = null,
            Product = null,
            Role = null,
            Surface = null,
            Step = null,
            DryingHours = null,
            CrewNote = null,
            CustomerNote = null,
            Hidden = null,
            Wording = entry.Wording,
            Name = entry.Name,
            Section = entry.Section,
        };
}
