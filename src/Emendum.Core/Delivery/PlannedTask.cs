using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Delivery;

/// <summary>That a task begins after another has ended, and after a while.</summary>
/// <param name="After">The task before.</param>
/// <param name="Lead">Working hours of the firm that lie between, for goods to come, say.</param>
/// <param name="Drying">Real hours that lie between, through nights and days off.</param>
public sealed record TaskLink(Guid After, decimal Lead, decimal Drying);

/// <summary>A piece of work in time. What is planned is an edit (decision 34).</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What is done.</param>
/// <param name="At">Where: building, floor or phase, or a place; empty for the job as a whole.</param>
/// <param name="Crew">Who does it.</param>
/// <param name="Hours">Labour hours, with their share of set-up and travel.</param>
/// <param name="Start">When it was planned to begin, local time.</param>
public sealed record PlannedTask(Guid Id, string Name, string At, Guid Crew, decimal Hours, DateTime Start)
{
    /// <summary>Most tasks of a job.</summary>
    public const int Most = 1000;

    /// <summary>Most links of a task.</summary>
    public const int MostLinks = 50;

    /// <summary>What it waits for.</summary>
    public ImmutableArray<TaskLink> Links { get; init; } = [];

    /// <summary>The earliest it may begin, which is a promise (T3); null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public DateTime? Pin { get; init; }

    /// <summary>Whether hours were booked on it: then it keeps its start (T8).</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsBegun { get; init; }

    /// <summary>The work items that it is made of.</summary>
    public ImmutableArray<Guid> Work { get; init; } = [];

    /// <summary>Refuses what is no task.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 200 || At.Length > 200)
            throw RefusedException.Of("name", "A task has a name of at most 200 characters.");
        if (Hours is < 0 or > 100_000)
            throw RefusedException.Of("hours", "Hours of a task: 0 to 100,000.");
        if (Links.Length > MostLinks || Links.Any(l => l.Lead is < 0 or > 10_000 || l.Drying is < 0 or > 10_000))
            throw RefusedException.Of("links", $"At most {MostLinks} links, each with 0 to 10,000 hours between.");
    }
}
