using System.Collections.Immutable;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Work may wait for other work of the job, and never, over whatever lies between, for itself. One walk over all work and all waits, without recursion.</summary>
internal static class WaitRules
{
    /// <summary>Names of a ring that a refusal gives before it breaks off.</summary>
    private const int MostNames = 12;

    /// <summary>Checks all work of a job. Where there are several rings, the one that <paramref name="touched"/> leads to is named.</summary>
    /// <exception cref="RefusedException">Work waits for what is not there, or for itself; the message gives the path.</exception>
    public static void Check(ImmutableArray<WorkItem> work, Guid? touched = null)
    {
        if (work.All(w => w.WaitsFor.IsEmpty))
            return;
        var at = new Dictionary<Guid, int>(work.Length);
        for (var i = 0; i < work.Length; i++)
            at[work[i].Id] = i;
        var waitedForBy = new List<int>?[work.Length];
        var open = new int[work.Length];
        for (var i = 0; i < work.Length; i++)
        {
            foreach (var wait in work[i].WaitsFor)
            {
                if (!at.TryGetValue(wait, out var first))
                    throw Wrong($"{work[i].Name} waits for work that is not in this job.");
                (waitedForBy[first] ??= []).Add(i);
                open[i]++;
            }
        }
        // Work that waits for nothing is taken away, then what waited for that alone, and so on: what is left lies on a ring or behind one.
        var free = new Queue<int>(Enumerable.Range(0, work.Length).Where(i => open[i] == 0));
        var left = work.Length;
        while (free.TryDequeue(out var done))
        {
            left--;
            foreach (var next in waitedForBy[done] ?? [])
                if (--open[next] == 0)
                    free.Enqueue(next);
        }
        if (left > 0)
            throw Wrong($"Work waits for itself: {Ring(work, at, open, touched)}.");
    }

    private static string Ring(ImmutableArray<WorkItem> work, Dictionary<Guid, int> at, int[] open, Guid? touched)
    {
        var start = touched is { } id && open[at[id]] > 0 ? at[id] : Array.FindIndex(open, o => o > 0);
        var (path, seen) = (new List<int>(), new Dictionary<int, int>());
        for (var i = start; ; i = work[i].WaitsFor.Select(w => at[w]).First(w => open[w] > 0))
        {
            path.Add(i);
            if (!seen.TryAdd(i, path.Count - 1))
                break;
        }
        var ring = path.Skip(seen[path[^1]]).Select(i => work[i].Name).ToList();
        return ring.Count <= MostNames
            ? string.Join(" → ", ring)
            : $"{string.Join(" → ", ring.Take(MostNames))} → … → {ring[^1]}";
    }

    private static RefusedException Wrong(string message) => RefusedException.Of("waitsFor", message);
}
