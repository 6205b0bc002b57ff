using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Json;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>One thing in a job that changed: where, from what, to what. Null stands for 'not there'.</summary>
/// <param name="Path"><c>places/ID</c>, <c>places/ID/FIELD</c>, <c>work/ID</c>, <c>work/ID/FIELD</c>, <c>cells/WORK/PLACE</c>, <c>cells/WORK/PLACE/FIELD</c>, <c>conditions</c>, <c>book/ID</c>, <c>info/FIELD</c>, <c>pricing/FIELD</c>, <c>proposal/FIELD</c>, <c>schedule/ID</c>, <c>schedule/ID/FIELD</c>, <c>tasks/ID</c>, <c>setAside/KEY</c>, <c>pace</c>, <c>sureness</c>, <c>alternates/ID</c>, <c>variants/ID</c>, <c>differs/VARIANT/PATH</c>, <c>units</c> or <c>deduct</c>.</param>
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
        var (part, at) = JobParts.Of(path);
        return part.Get(job, at);
    }

    /// <summary>Whether two values at a path are the same.</summary>
    public static bool Same(JsonNode? a, JsonNode? b) => JsonNode.DeepEquals(a, b);

    private static Job Set(Job job, string path, JsonNode? value)
    {
        var (part, at) = JobParts.Of(path);
        return part.Set(job, at, value);
    }
}
