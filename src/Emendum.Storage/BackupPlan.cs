using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core;

namespace Emendum.Storage;

/// <summary>How many of the backups that are made by themselves are kept.</summary>
/// <param name="Daily">The newest, one a day.</param>
/// <param name="Weekly">Before those, the newest of each week (ISO 8601), so many weeks.</param>
public sealed record BackupPlan(int Daily, int Weekly)
{
    /// <summary>Name of the setting.</summary>
    public const string Setting = "backups";

    /// <summary>What a firm starts with.</summary>
    public static readonly BackupPlan Starting = new(7, 4);

    /// <summary>Refuses numbers that keep nothing, or too much.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (Daily is < 1 or > 365)
            throw RefusedException.Of("daily", "Keep 1 to 365 daily backups.");
        if (Weekly is < 0 or > 520)
            throw RefusedException.Of("weekly", "Keep 0 to 520 weekly backups.");
    }

    /// <summary>Those of the days of backups, in any order, that are not to be kept any more.</summary>
    public ImmutableArray<DateOnly> Surplus(IEnumerable<DateOnly> days)
    {
        var newest = days.Distinct().OrderDescending().ToList();
        var weekly = newest.Skip(Daily).GroupBy(Week).Take(Weekly).Select(week => week.First()).ToHashSet();
        return [.. newest.Skip(Daily).Where(day => !weekly.Contains(day))];
    }

    private static (int Year, int Week) Week(DateOnly day)
    {
        var date = day.ToDateTime(TimeOnly.MinValue);
        return (ISOWeek.GetYear(date), ISOWeek.GetWeekOfYear(date));
    }
}
