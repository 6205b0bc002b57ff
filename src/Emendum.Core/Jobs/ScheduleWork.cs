using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>Work in the price of a row of the customer's schedule: everywhere, or under a heading of places, or at one place.</summary>
/// <param name="Work">The work item; one that is gone counts no more.</param>
/// <param name="Group">The heading, with those nested in it; empty for none in particular.</param>
/// <param name="Place">The place; null for no place in particular.</param>
public sealed record ScheduleWork(Guid Work, string Group, Guid? Place)
{
    private const int LongestGroup = 200;

    /// <summary>Refuses a heading beside a place, and one too long.</summary>
    /// <exception cref="RefusedException">It says both, or more than a heading has.</exception>
    public void Check()
    {
        if (Group.Length > 0 && Place is not null)
            throw RefusedException.Of("work", "Work stands in a row by a heading or by a place, not by both.");
        if (Group.Length > LongestGroup)
            throw RefusedException.Of("work", $"A heading has at most {LongestGroup} characters.");
    }
}

/// <summary>Which row of the schedule each line is priced in. A line is in one row at most: that which names it at its place, else under its heading, the deepest first, else everywhere.</summary>
public sealed class ScheduleRows
{
    private readonly Dictionary<ScheduleWork, int> rows = [];

    /// <summary>Those of a job.</summary>
    public ScheduleRows(Job job)
    {
        for (var row = 0; row < job.Schedule.Length; row++)
            foreach (var work in job.Schedule[row].Work)
                rows.TryAdd(work, row);
    }

    /// <summary>Number from 0 of the row that pays for some work at some place; null where none does.</summary>
    public int? At(Guid work, Place place)
    {
        if (rows.TryGetValue(new(work, "", place.Id), out var row))
            return row;
        for (
            var group = place.Group;
            group.Length > 0;
            group = group[..Math.Max(group.LastIndexOf(Groups.Separator, StringComparison.Ordinal), 0)]
        )
            if (rows.TryGetValue(new(work, group, null), out row))
                return row;
        return rows.TryGetValue(new(work, "", null), out row) ? row : null;
    }
}
