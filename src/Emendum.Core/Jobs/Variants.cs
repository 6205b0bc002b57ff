using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>
/// How variants share a job. A thing (a piece of work, a cell, a section, an alternate, a quote, a choice, a rhythm, the terms) is shared until somebody changes it: then the variants that are not taken keep it as it was. So an edit is of the variant
/// that is taken alone, and nothing is kept twice that is the same.
/// </summary>
public static class Variants
{
    /// <summary>Most variants of a job.</summary>
    public const int Most = 5;

    /// <summary>Most things in which the variants of a job may differ.</summary>
    public const int MostDiffering = 20_000;

    /// <summary>Parts that each variant has for itself, in the order in which they are set.</summary>
    private static readonly ImmutableArray<string> Own =
    [
        "sections",
        "pricing",
        "policy",
        "conditions",
        "pace",
        "round",
        "rhythms",
        "work",
        "alternates",
        "quotes",
        "cells",
        "choices",
    ];

    /// <summary>Key of a difference.</summary>
    public static string Key(Guid variant, string path) => $"{variant}/{path}";

    /// <summary>The variant and the path of a key.</summary>
    public static (Guid Variant, string Path) Parsed(string key) => (Guid.Parse(key.AsSpan(0, 36)), key[37..]);

    /// <summary>The thing that a path lies in, as far as variants tell things apart; null where they share it.</summary>
    public static string? ThingOf(string path)
    {
        var parts = path.Split('/');
        return parts[0] switch
        {
            "pricing" or "policy" or "conditions" or "pace" or "round" => parts[0],
            "work" or "sections" or "alternates" or "rhythms" or "quotes" or "choices" when parts.Length > 1 =>
                $"{parts[0]}/{parts[1]}",
            "cells" when parts.Length > 2 => $"cells/{parts[1]}/{parts[2]}",
            _ => null,
        };
    }

    /// <summary>Whether a path is just that of a thing that variants tell apart.</summary>
    public static bool IsThing(string path)
    {
        var parts = path.Split('/');
        return ThingOf(path) == path && parts.Skip(1).All(p => Guid.TryParseExact(p, "D", out _));
    }

    /// <summary>What the variants that are not taken keep of a job when it changes: what they do not have for themselves, as it was. What has come to be as they have it, they share again.</summary>
    internal static IEnumerable<Change> Keeping(Job before, Job after, ImmutableArray<Change> changes)
    {
        Guid[] others = [.. before.Variants.Where(v => !v.Taken).Select(v => v.Id)];
        foreach (var thing in changes.Select(c => ThingOf(c.Path)).OfType<string>().Distinct(StringComparer.Ordinal))
        {
            var (was, now) = (Write(ChangeSet.Get(before, thing)), Write(ChangeSet.Get(after, thing)));
            foreach (var other in others)
                if (
                    Kept(Key(other, thing), before.Differs.GetValueOrDefault(Key(other, thing)), was, now) is { } change
                )
                    yield return change;
        }
    }

    /// <summary>The change of a difference: what a variant had for itself (null for nothing), what stood in the job, and what stands there now.</summary>
    internal static Change? Kept(string key, string? had, string was, string now)
    {
        var value = had ?? was;
        var has = value == now ? null : value;
        return had == has ? null : new($"differs/{key}", Node(had), Node(has));
    }

    private static JsonObject? Node(string? raw) => raw is null ? null : new() { ["value"] = Read(raw) };

    /// <summary>The job as one of its variants has it.</summary>
    /// <exception cref="RefusedException">There is no such variant, or it cannot stand any more.</exception>
    public static Job Of(Job job, Guid variant)
    {
        if (job.Variants.All(v => v.Id != variant))
            throw RefusedException.Of("variant", "That variant is not in this job any more.");
        return ChangeSet.Apply(job, Changes(job, variant));
    }

    /// <summary>What would change in the job's things if it were that variant.</summary>
    internal static ImmutableArray<Change> Changes(Job job, Guid variant)
    {
        var all = Differences(job, variant);
        // Work that the variant does not have, or has for itself.
        var work = job.Work.Select(w => w.Id).ToHashSet();
        foreach (var (path, raw) in all)
            if (path.StartsWith("work/", StringComparison.Ordinal))
                _ = raw == Nothing ? work.Remove(Guid.Parse(path.AsSpan(5))) : work.Add(Guid.Parse(path.AsSpan(5)));
        return
        [
            .. all.Where(d =>
                    ChangeSet.CellAt(d.Path) is not { } key
                    || d.Raw == Nothing
                    || (work.Contains(key.Work) && job.Place(key.Place) is not null)
                )
                .OrderBy(d => Own.IndexOf(d.Path.Split('/')[0]))
                .Select(d => new Change(d.Path, ChangeSet.Get(job, d.Path), Read(d.Raw)))
                .Where(c => !ChangeSet.Same(c.Before, c.After)),
        ];
    }

    /// <summary>What stands for nothing.</summary>
    public const string Nothing = "null";

    /// <summary>What a variant has for itself: path and JSON.</summary>
    internal static IReadOnlyList<(string Path, string Raw)> Differences(Job job, Guid variant)
    {
        var start = Key(variant, "");
        return
        [
            .. job
                .Differs.Where(d => d.Key.StartsWith(start, StringComparison.Ordinal))
                .Select(d => (d.Key[start.Length..], d.Value)),
        ];
    }

    internal static JsonNode? Read(string raw) => raw == Nothing ? null : JsonNode.Parse(raw);

    internal static string Write(JsonNode? value) => value?.ToJsonString(CoreJson.Options) ?? Nothing;
}
