using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Jobs;

/// <summary>That a task begins after another has ended, and after a while.</summary>
/// <param name="After">The task before.</param>
/// <param name="Lead">Working hours of the firm that lie between, for goods to come, say.</param>
/// <param name="Drying">Real hours that lie between, through nights and days off.</param>
public sealed record TaskLink(Guid After, decimal Lead, decimal Drying);

/// <summary>A piece of work in time. What is planned is a part of the job (decision 34); when it then begins and ends is reckoned by the plan, from its links and the days of its crew.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What is done.</param>
/// <param name="At">Where: building, floor or phase, or a place; empty for the job as a whole.</param>
/// <param name="Crew">Who does it: a crew of the firm, or another firm.</param>
/// <param name="Hours">Labour hours, with their share of set-up and travel.</param>
/// <param name="Start">When it was planned to begin, local time, to the minute.</param>
public sealed record PlannedTask(Guid Id, string Name, string At, Guid Crew, decimal Hours, DateTime Start)
{
    /// <summary>Most tasks of a job.</summary>
    public const int Most = 1000;

    /// <summary>Most links of a task.</summary>
    public const int MostLinks = 50;

    /// <summary>Most characters of what and where.</summary>
    public const int MostWords = 200;

    private static readonly DateTime First = new(2000, 1, 1);

    private static readonly DateTime Last = new(2200, 1, 1);

    /// <summary>Sort key.</summary>
    public string Rank { get; init; } = "";

    /// <summary>What it waits for.</summary>
    public ImmutableArray<TaskLink> Links { get; init; } = [];

    /// <summary>The earliest it may begin, which is a promise (T3); null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public DateTime? Pin { get; init; }

    /// <summary>Whether hours were booked on it: then it keeps its start (T8). A fact, and no part of the job.</summary>
    [JsonIgnore]
    public bool IsBegun { get; init; }

    /// <summary>The work items of the work order that it is made of; none of one that was written by hand.</summary>
    public ImmutableArray<Guid> Work { get; init; } = [];

    /// <summary>The rhythm of which it is a visit; null where it is none. Its id is the visit's.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Visit { get; init; }

    /// <summary>What and where, as it is read.</summary>
    [JsonIgnore]
    public string Called => At.Length > 0 ? $"{Name}, {At}" : Name;

    /// <summary>Refuses what is no task.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > MostWords || Name.Any(char.IsControl))
            throw RefusedException.Of("name", $"Say what is done, in one line of at most {MostWords} characters.");
        if (At.Length > MostWords || At.Any(char.IsControl))
            throw RefusedException.Of("at", $"Where is one line of at most {MostWords} characters.");
        if (Hours is < 0 or > 100_000 || decimal.Round(Hours, 6) != Hours)
            throw RefusedException.Of("hours", "Hours of a task: 0 to 100,000.");
        if (!IsMoment(Start) || (Pin is { } pin && !IsMoment(pin)))
            throw RefusedException.Of("start", "A task begins at a whole minute, between 2000 and 2200.");
        if (Links.Length > MostLinks || Links.Any(l => l.Lead is < 0 or > 10_000 || l.Drying is < 0 or > 10_000))
            throw RefusedException.Of("links", $"At most {MostLinks} links, each with 0 to 10,000 hours between.");
        if (Links.Select(l => l.After).Distinct().Count() != Links.Length)
            throw RefusedException.Of("links", "A task waits for another once.");
        if (Work.Length > JobRules.MostWork)
            throw RefusedException.Of("work", $"A task is made of at most {JobRules.MostWork} work items.");
    }

    private static bool IsMoment(DateTime at) =>
        at.Kind == DateTimeKind.Unspecified && at.Ticks % TimeSpan.TicksPerMinute == 0 && at >= First && at < Last;

    /// <summary>Tasks without those visits that are left out; what waited for one of them waits for it no more.</summary>
    /// <param name="tasks">The tasks.</param>
    /// <param name="left">Visits that are left out.</param>
    public static ImmutableArray<PlannedTask> Without(ImmutableArray<PlannedTask> tasks, IReadOnlySet<Guid> left) =>
        left.Count == 0 || !tasks.Any(t => left.Contains(t.Id))
            ? tasks
            :
            [
                .. tasks
                    .Where(t => !left.Contains(t.Id))
                    .Select(t =>
                        t.Links.Any(l => left.Contains(l.After))
                            ? t with
                            {
                                Links = [.. t.Links.Where(l => !left.Contains(l.After))],
                            }
                            : t
                    ),
            ];

    /// <summary>Each task after what it waits for, otherwise in their order.</summary>
    /// <exception cref="RefusedException">A task waits for one that is not there, or for itself; gives the path (T9).</exception>
    public static IReadOnlyList<PlannedTask> InOrder(ImmutableArray<PlannedTask> tasks)
    {
        var at = new Dictionary<Guid, int>(tasks.Length);
        for (var i = 0; i < tasks.Length; i++)
            if (!at.TryAdd(tasks[i].Id, i))
                throw RefusedException.Of("id", "A task stands twice.");
        var (left, waiting) = (new int[tasks.Length], new List<int>?[tasks.Length]);
        for (var i = 0; i < tasks.Length; i++)
            foreach (var link in tasks[i].Links)
            {
                if (!at.TryGetValue(link.After, out var before))
                    throw RefusedException.Of("links", $"{tasks[i].Name} waits for a task that is not there.");
                (waiting[before] ??= []).Add(i);
                left[i]++;
            }
        var free = new PriorityQueue<int, int>();
        for (var i = 0; i < tasks.Length; i++)
            if (left[i] == 0)
                free.Enqueue(i, i);
        var order = new List<PlannedTask>(tasks.Length);
        while (free.TryDequeue(out var next, out _))
        {
            order.Add(tasks[next]);
            foreach (var then in waiting[next] ?? [])
                if (--left[then] == 0)
                    free.Enqueue(then, then);
        }
        return order.Count == tasks.Length
            ? order
            : throw RefusedException.Of("links", $"A task would wait for itself: {Ring(tasks, at, left)}.");
    }

    /// <summary>The path of a ring.</summary>
    private static string Ring(ImmutableArray<PlannedTask> tasks, Dictionary<Guid, int> at, int[] left)
    {
        var (path, seen) = (new List<int>(), new Dictionary<int, int>());
        for (
            var i = Array.FindIndex(left, l => l > 0);
            ;
            i = tasks[i].Links.Select(l => at[l.After]).First(b => left[b] > 0)
        )
        {
            path.Add(i);
            if (!seen.TryAdd(i, path.Count - 1))
                break;
        }
        return string.Join(" → ", path.Skip(seen[path[^1]]).Take(12).Reverse().Select(i => tasks[i].Name));
    }
}
