using System.Collections.Immutable;
using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>A part that is a list of things, each with an id, in the order of their ranks.</summary>
internal abstract class ThingsPart<T>(string name) : JobPart(name)
    where T : class
{
    /// <summary>They, in a job.</summary>
    protected abstract ImmutableArray<T> Of(Job job);

    /// <summary>The job with others.</summary>
    protected abstract Job With(Job job, ImmutableArray<T> things);

    /// <summary>One of them, or null.</summary>
    protected virtual T? Find(Job job, Guid id) => Of(job).FirstOrDefault(t => IdOf(t) == id);

    /// <summary>Its id.</summary>
    protected abstract Guid IdOf(T thing);

    /// <summary>What it is sorted by.</summary>
    protected abstract string RankOf(T thing);

    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at)
    {
        var (id, field) = Parsed(at);
        return Node(Find(job, id), field);
    }

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value)
    {
        var (id, field) = Parsed(at);
        return With(job, Placed(job, id, field, value));
    }

    /// <summary>The things that changes have touched, each once; null for one that is gone.</summary>
    protected IEnumerable<(Guid Id, T? Thing)> Touched(Job job, IReadOnlyList<Change> changes) =>
        changes.Select(c => Parsed(At(c)).Id).Distinct().Select(id => (id, Find(job, id)));

    private static (Guid Id, string Field) Parsed(string at) =>
        (Guid.Parse(at.AsSpan(0, 36)), at.Length > 37 ? at[37..] : "");

    private ImmutableArray<T> Placed(Job job, Guid id, string field, JsonNode? value)
    {
        var list = Of(job);
        var at = -1;
        for (var i = 0; i < list.Length && at < 0; i++)
            if (IdOf(list[i]) == id)
                at = i;
        var now = Changed(at < 0 ? null : list[at], field, value);
        if (at >= 0 && now is not null && Compare(job, now, list[at]) == 0)
            return list.SetItem(at, now);
        if (at >= 0)
            list = list.RemoveAt(at);
        if (now is null)
            return list;
        var to = 0;
        while (to < list.Length && Compare(job, list[to], now) < 0)
            to++;
        return list.Insert(to, now);
    }

    /// <summary>Which of two comes first: by rank, and where that is the same by id.</summary>
    protected virtual int Compare(Job job, T a, T b)
    {
        var order = string.CompareOrdinal(RankOf(a), RankOf(b));
        return order == 0 ? IdOf(a).CompareTo(IdOf(b)) : order;
    }

    /// <summary>Refuses a list in which two have one name, whatever the case of its letters.</summary>
    /// <param name="job">The job.</param>
    /// <param name="name">The name of a thing.</param>
    /// <param name="what">What it is, with its article.</param>
    protected void OnceNamed(Job job, Func<T, string> name, string what)
    {
        var twice = Of(job).GroupBy(name, StringComparer.OrdinalIgnoreCase).FirstOrDefault(of => of.Count() > 1);
        if (twice is not null)
            throw RefusedException.Of("name", $"There is {what} “{twice.Key}” already.");
    }

    /// <summary>Refuses a list in which an id stands twice.</summary>
    protected void Once(Job job, string what)
    {
        var seen = new HashSet<Guid>();
        foreach (var thing in Of(job))
            if (!seen.Add(IdOf(thing)))
                throw RefusedException.Of("file", $"A {what} stands twice: {IdOf(thing)}.");
    }
}
