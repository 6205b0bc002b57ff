using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>One thing in a job that changed: where, from what, to what. Null stands for 'not there'.</summary>
/// <param name="Path"><c>places/ID</c>, <c>places/ID/FIELD</c>, <c>work/ID</c>, <c>work/ID/FIELD</c>, <c>cells/WORK/PLACE</c>, <c>cells/WORK/PLACE/FIELD</c>, <c>conditions</c>, <c>book/ID</c>, <c>info/FIELD</c>, <c>pricing/FIELD</c>, <c>proposal/FIELD</c>, <c>schedule/ID</c>, <c>schedule/ID/FIELD</c>, <c>setAside/KEY</c>, <c>pace</c>, <c>units</c> or <c>deduct</c>.</param>
/// <param name="Before">As it was.</param>
/// <param name="After">As it is.</param>
public sealed record Change(string Path, JsonNode? Before, JsonNode? After);

/// <summary>What a command did, in order. Applied as it stands when a job is opened; turned round to undo it.</summary>
public static class ChangeSet
{
    /// <summary>The change set that takes this one back.</summary>
    public static ImmutableArray<Change> Reversed(ImmutableArray<Change> changes) =>
        [.. changes.Reverse().Select(c => new Change(c.Path, c.After, c.Before))];

    /// <summary>The job with the changes made.</summary>
    public static Job Apply(Job job, IEnumerable<Change> changes)
    {
        // A fill touches tens of thousands of cells, most of them alike: they are set in one go, and what stands for many is read once.
        ImmutableDictionary<CellKey, Cell>.Builder? cells = null;
        var read = new Dictionary<JsonNode, Cell>(ReferenceEqualityComparer.Instance);
        foreach (var change in changes)
        {
            if (CellAt(change.Path) is { } key)
            {
                cells ??= job.Cells.ToBuilder();
                if (change.After is null)
                    cells.Remove(key);
                else if (read.TryGetValue(change.After, out var cell))
                    cells[key] = cell;
                else
                    cells[key] = read[change.After] = change.After.Deserialize<Cell>(CoreJson.Options)!;
                continue;
            }
            if (cells is not null)
                job = job with { Cells = cells.ToImmutable() };
            cells = null;
            job = Set(job, change.Path, change.After);
        }
        return cells is null ? job : job with { Cells = cells.ToImmutable() };
    }

    /// <summary>The cell that a path is of, as a whole; null for any other path.</summary>
    public static CellKey? CellAt(string path) => path.Length == WholeCell ? CellOf(path) : null;

    /// <summary>The cell that a path is of, as a whole or in one field; null for any other path.</summary>
    public static CellKey? CellOf(string path) =>
        path.StartsWith("cells/", StringComparison.Ordinal)
            ? new(Guid.Parse(path.AsSpan(6, 36)), Guid.Parse(path.AsSpan(43, 36)))
            : null;

    /// <summary>Length of <c>cells/WORK/PLACE</c>.</summary>
    private const int WholeCell = 79;

    /// <summary>Writes cells as JSON. Many are alike; each kind is written once and stands in many changes.</summary>
    internal static Func<Cell?, JsonNode?> CellWriter()
    {
        var written = new Dictionary<Cell, JsonNode?>();
        return cell =>
            cell is null ? null
            : written.TryGetValue(cell, out var node) ? node
            : written[cell] = JsonSerializer.SerializeToNode(cell, CoreJson.Options);
    }

    /// <summary>The cells that a change set touches, whole or in one field, where it touches nothing else; otherwise null.</summary>
    public static CellKey[]? OnlyCells(ImmutableArray<Change> changes)
    {
        var keys = new CellKey[changes.Length];
        for (var i = 0; i < keys.Length; i++)
        {
            if (CellOf(changes[i].Path) is not { } key)
                return null;
            keys[i] = key;
        }
        return keys;
    }

    /// <summary>The first change whose path does not hold any more what the change set left there; null when all do.</summary>
    public static Change? Overtaken(Job job, IEnumerable<Change> reversed)
    {
        var write = CellWriter();
        foreach (var change in reversed)
        {
            var now = CellAt(change.Path) is { } key ? write(job.Cells.GetValueOrDefault(key)) : Get(job, change.Path);
            if (!ReferenceEquals(now, change.Before) && !Same(now, change.Before))
                return change;
        }
        return null;
    }

    /// <summary>What stands at a path now.</summary>
    public static JsonNode? Get(Job job, string path)
    {
        var parts = path.Split('/');
        JsonNode? Node<T>(T? thing, int field) =>
            thing is null ? null
            : JsonSerializer.SerializeToNode(thing, CoreJson.Options) is { } node && parts.Length > field
                ? node[parts[field]]?.DeepClone()
            : JsonSerializer.SerializeToNode(thing, CoreJson.Options);
        return parts[0] switch
        {
            "places" => Node(job.Place(Guid.Parse(parts[1])), 2),
            "work" => Node(job.Item(Guid.Parse(parts[1])), 2),
            "cells" => Node(job.Cells.GetValueOrDefault(new(Guid.Parse(parts[1]), Guid.Parse(parts[2]))), 3),
            "book" => Node(job.Book.GetValueOrDefault(Guid.Parse(parts[1])), 2),
            "info" => Node(job.Info, 1),
            "pricing" => Node(job.Pricing, 1),
            "proposal" => Node(job.Proposal, 1),
            "schedule" => Node(job.Schedule.FirstOrDefault(s => s.Id == Guid.Parse(parts[1])), 2),
            "deduct" => job.Deduct,
            "conditions" => JsonSerializer.SerializeToNode(job.Conditions, CoreJson.Options),
            "pace" => JsonSerializer.SerializeToNode(job.Pace, CoreJson.Options),
            "setAside" => job.SetAside.TryGetValue(path["setAside/".Length..], out var reason) ? reason : null,
            "units" => JsonSerializer.SerializeToNode(job.Units, CoreJson.Options),
            _ => throw RefusedException.Of("path", $"There is nothing at {path} in a job."),
        };
    }

    /// <summary>Whether two values at a path are the same.</summary>
    public static bool Same(JsonNode? a, JsonNode? b) => JsonNode.DeepEquals(a, b);

    private static Job Set(Job job, string path, JsonNode? value)
    {
        var parts = path.Split('/');
        switch (parts[0])
        {
            case "places":
                return job with
                {
                    Places = InOrder(
                        job.Places,
                        Guid.Parse(parts[1]),
                        p => p.Id,
                        p => p.Rank,
                        old => Changed(old, parts, 2, value)
                    ),
                };
            case "work":
                return job with
                {
                    Work = InOrder(
                        job.Work,
                        Guid.Parse(parts[1]),
                        w => w.Id,
                        w => w.Rank,
                        old => Changed(old, parts, 2, value)
                    ),
                };
            case "cells":
                var key = new CellKey(Guid.Parse(parts[1]), Guid.Parse(parts[2]));
                return job with
                {
                    Cells = Changed(job.Cells.GetValueOrDefault(key), parts, 3, value) is { } cell
                        ? job.Cells.SetItem(key, cell)
                        : job.Cells.Remove(key),
                };
            case "book":
                var id = Guid.Parse(parts[1]);
                return job with
                {
                    Book = value is null
                        ? job.Book.Remove(id)
                        : job.Book.SetItem(id, value.Deserialize<BookEntry>(CoreJson.Options)!),
                };
            case "info":
                return job with { Info = Changed(job.Info, parts, 1, value)! };
            case "pricing":
                return job with { Pricing = Changed(job.Pricing, parts, 1, value)! };
            case "proposal":
                return job with { Proposal = Changed(job.Proposal, parts, 1, value)! };
            case "schedule":
                return job with
                {
                    Schedule = InOrder(
                        job.Schedule,
                        Guid.Parse(parts[1]),
                        s => s.Id,
                        s => s.Rank,
                        old => Changed(old, parts, 2, value)
                    ),
                };
            case "conditions":
                return job with { Conditions = Changed(new Listed(job.Conditions), ["", "ids"], 1, value)!.Ids };
            case "pace":
                return job with { Pace = value?.Deserialize<PaceFactor>(CoreJson.Options) };
            case "setAside":
                var check = path["setAside/".Length..];
                return job with
                {
                    SetAside = value is null
                        ? job.SetAside.Remove(check)
                        : job.SetAside.SetItem(check, value.GetValue<string>()),
                };
            case "units":
                return job with { Units = value.Deserialize<Quantities.UnitSystem>(CoreJson.Options) };
            case "deduct":
                return job with { Deduct = value!.GetValue<string>() };
            default:
                throw RefusedException.Of("path", $"There is nothing at {path} in a job.");
        }
    }

    private sealed record Listed(ImmutableArray<Guid> Ids);

    /// <summary>The thing with one field set, or the whole of it replaced.</summary>
    private static T? Changed<T>(T? old, string[] parts, int field, JsonNode? value)
        where T : class
    {
        if (parts.Length <= field)
            return value?.Deserialize<T>(CoreJson.Options);
        var node = JsonSerializer.SerializeToNode(old, CoreJson.Options)!.AsObject();
        // A field that is null may be left out of what is written.
        if (
            !node.ContainsKey(parts[field])
            && !CoreJson.Options.GetTypeInfo(typeof(T)).Properties.Any(p => p.Name == parts[field] && p.Set is not null)
        )
            throw RefusedException.Of(parts[field], $"There is no field “{parts[field]}” here.");
        node[parts[field]] = value?.DeepClone();
        try
        {
            return node.Deserialize<T>(CoreJson.Options);
        }
        catch (JsonException wrong)
        {
            throw RefusedException.Of(
                parts[field],
                wrong is not PlainJsonException ? "That is not a value this field takes."
                    : wrong.Message.StartsWith("A number", StringComparison.Ordinal) ? "Write a number, like 12.5."
                    : wrong.Message
            );
        }
    }

    private static ImmutableArray<T> InOrder<T>(
        ImmutableArray<T> list,
        Guid id,
        Func<T, Guid> idOf,
        Func<T, string> rankOf,
        Func<T?, T?> change
    )
        where T : class
    {
        var at = -1;
        for (var i = 0; i < list.Length && at < 0; i++)
            if (idOf(list[i]) == id)
                at = i;
        var now = change(at < 0 ? null : list[at]);
        if (at >= 0 && now is not null && rankOf(now) == rankOf(list[at]))
            return list.SetItem(at, now);
        if (at >= 0)
            list = list.RemoveAt(at);
        if (now is null)
            return list;
        var to = 0;
        while (
            to < list.Length
            && (
                string.CompareOrdinal(rankOf(list[to]), rankOf(now)) is var c
                && (c < 0 || (c == 0 && idOf(list[to]).CompareTo(id) < 0))
            )
        )
            to++;
        return list.Insert(to, now);
    }
}
