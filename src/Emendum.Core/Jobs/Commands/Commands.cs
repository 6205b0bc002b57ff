using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What each command does to a job: a change set, or a refusal. Nothing here touches disk, clock or chance.</summary>
public static class Commands
{
    /// <summary>Most cells one command may touch.</summary>
    public const int MostCells = 60_000;

    /// <summary>The changed job and what changed. <paramref name="book"/> finds an entry of the Book's newest version.</summary>
    /// <exception cref="RefusedException">With the field and a sentence; the job is as it was.</exception>
    public static (Job Job, ImmutableArray<Change> Changes) Apply(Job job, Command command, Func<Guid, BookEntry?> book)
    {
        var changes = command.Changes(job, book);
        if (changes.IsEmpty)
            return (job, changes);
        var changed = ChangeSet.Apply(job, changes);
        if (!job.Variants.IsEmpty && !command.IsOfVariants)
        {
            ImmutableArray<Change> kept = [.. Variants.Keeping(job, changed, changes)];
            (changes, changed) = (changes.AddRange(kept), ChangeSet.Apply(changed, kept));
        }
        JobParts.CheckTouched(changed, changes, command.CellsAreSound);
        return (changed, changes);
    }

    /// <summary>Checks what a change set touched that came without a command, as an undo does.</summary>
    /// <exception cref="RefusedException">The changed job would contradict itself.</exception>
    public static void Check(Job job, ImmutableArray<Change> changes) =>
        JobParts.CheckTouched(job, changes, cellsAreSound: false);

    internal static Place Place(Job job, Guid id) =>
        job.Place(id) ?? throw RefusedException.Of("place", "That place is not in this job any more.");

    internal static WorkItem Item(Job job, Guid id) =>
        job.Item(id) ?? throw RefusedException.Of("work", "That work is not in this job any more.");

    /// <summary>Refuses a command that names one place twice.</summary>
    internal static void OnceEach(IEnumerable<Guid> places)
    {
        var seen = new HashSet<Guid>();
        if (!places.All(seen.Add))
            throw RefusedException.Of("places", "A place stands twice in one command.");
    }

    internal static JsonNode? Node<T>(T value) => JsonSerializer.SerializeToNode(value, CoreJson.Options);

    /// <summary>The path of a field of a thing, where its part says that it can be set by name. What lies deeper is not reached through it, nor is a guard of it got round.</summary>
    /// <exception cref="RefusedException">It is not a name, or not one that can be set.</exception>
    internal static string Field(string under, string field)
    {
        if (field.Length is 0 or > 60 || !field.All(char.IsAsciiLetter))
            throw RefusedException.Of("field", "That is not the name of a field.");
        return JobParts.Of(under).Part.Settable(field)
            ? $"{under}/{field}"
            : throw RefusedException.Of(field, $"There is no field “{field}” here that can be set.");
    }

    internal static ImmutableArray<Change> Set(Job job, string path, JsonNode? was, JsonNode? now)
    {
        var current = ChangeSet.Get(job, path);
        if (!ChangeSet.Same(current, was))
            throw new ConflictException(path[(path.LastIndexOf('/') + 1)..], current);
        return ChangeSet.Same(current, now) ? [] : [new(path, current, now?.DeepClone())];
    }

    /// <summary>Sets one field of many things that lie under a path by place.</summary>
    internal static ImmutableArray<Change> SetAll(Job job, string under, string field, ImmutableArray<AtPlace> all)
    {
        if (all.Length > MostCells || all.Select(at => at.Place).Distinct().Count() != all.Length)
            throw RefusedException.Of("at", $"Each place once, and at most {MostCells} at a time.");
        return [.. all.SelectMany(at => Set(job, Field($"{under}/{Place(job, at.Place).Id}", field), at.Was, at.Now))];
    }

    /// <summary>Cells that become others.</summary>
    internal static IEnumerable<Change> Become(IEnumerable<KeyValuePair<CellKey, Cell>> cells, Func<Cell, Cell> now)
    {
        var write = ChangeSet.CellWriter();
        return cells.Select(c => new Change($"cells/{c.Key.Work}/{c.Key.Place}", write(c.Value), write(now(c.Value))));
    }

    /// <summary>The cells that go with what is taken away.</summary>
    internal static IEnumerable<Change> CellsGone(Job job, Func<CellKey, bool> concerns) =>
        job
            .Cells.Where(c => concerns(c.Key))
            .OrderBy(c => c.Key.Work)
            .ThenBy(c => c.Key.Place)
            .Select(c => new Change($"cells/{c.Key.Work}/{c.Key.Place}", Node(c.Value), null));

    /// <summary>Pins an entry and what it needs, unless the job has them.</summary>
    internal static ImmutableArray<Change> Pin(Job job, Guid id, string field, Func<Guid, BookEntry?> book)
    {
        if (job.Book.ContainsKey(id))
            return [];
        var entry = book(id) ?? throw RefusedException.Of(field, "That entry is not in the Book any more.");
        if (entry.Lacks.FirstOrDefault() is { } lack)
            throw RefusedException.Of(field, $"{entry.Name} needs {lack.What} in the Book before it can be used.");
        return
        [
            .. entry.Needs.Where(need => !job.Book.ContainsKey(need)).SelectMany(need => Pin(job, need, field, book)),
            new($"book/{id}", null, Node(entry)),
        ];
    }

    /// <summary>The changes, after those that pin the entries which the changed job then names.</summary>
    internal static ImmutableArray<Change> Pinning(
        Job job,
        ImmutableArray<Change> changes,
        Func<Job, IEnumerable<Guid>> named,
        string field,
        Func<Guid, BookEntry?> book
    )
    {
        if (changes.IsEmpty)
            return changes;
        var pins = named(ChangeSet.Apply(job, changes))
            .Distinct()
            .SelectMany(id => Pin(job, id, field, book))
            .DistinctBy(c => c.Path);
        return [.. pins, .. changes];
    }
}

/// <summary>A command was made from a value that has changed since; it is shown, not overwritten.</summary>
public sealed class ConflictException(string field, JsonNode? current) : Exception("Changed since")
{
    /// <summary>The field.</summary>
    public string Field { get; } = field;

    /// <summary>What stands there now.</summary>
    public JsonNode? Current { get; } = current;
}
