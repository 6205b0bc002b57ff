using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Emendum.Documents;

/// <summary>A task as a calendar has it.</summary>
/// <param name="Id">Its id: a calendar program knows it again by that.</param>
/// <param name="Summary">What and where.</param>
/// <param name="Words">What else is to be known; empty for nothing.</param>
/// <param name="Location">Where the job is; empty where nobody says.</param>
/// <param name="Start">When it begins (UTC).</param>
/// <param name="End">When it ends (UTC).</param>
public sealed record CalendarEntry(
    Guid Id,
    string Summary,
    string Words,
    string Location,
    DateTime Start,
    DateTime End
);

/// <summary>Days as a calendar file or feed (RFC 5545).</summary>
public static class CalendarFile
{
    /// <summary>Media type of a calendar.</summary>
    public const string Type = "text/calendar; charset=utf-8";

    /// <summary>Its text, the same each time.</summary>
    /// <param name="name">Name of the calendar.</param>
    /// <param name="version">Grows with each change, so that a calendar program takes the later.</param>
    /// <param name="at">When it became so (UTC).</param>
    /// <param name="entries">What is in it.</param>
    public static string Write(string name, long version, DateTime at, IEnumerable<CalendarEntry> entries)
    {
        var calendar = new Calendar { ProductId = "-//Emendum//Schedule//EN" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var entry in entries)
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = $"{entry.Id:D}@emendum",
                    DtStamp = Utc(at),
                    LastModified = Utc(at),
                    Sequence = (int)Math.Min(version, int.MaxValue),
                    Summary = entry.Summary,
                    Description = entry.Words.Length > 0 ? entry.Words : null,
                    Location = entry.Location.Length > 0 ? entry.Location : null,
                    DtStart = Utc(entry.Start),
                    DtEnd = Utc(entry.End),
                }
            );
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    private static CalDateTime Utc(DateTime at) => new(DateTime.SpecifyKind(at, DateTimeKind.Utc), "UTC");
}
