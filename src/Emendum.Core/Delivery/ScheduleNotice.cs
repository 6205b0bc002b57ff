using System.Globalization;
using System.Text;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>What a crew is told of its days on a job: what is new, what is another than it was, what is no longer theirs (T10).</summary>
public static class ScheduleNotice
{
    /// <summary>Its words, a line a task, the earliest first.</summary>
    /// <param name="firm">Who tells it.</param>
    /// <param name="job">The job as it is called.</param>
    /// <param name="site">Where it is; empty where nobody says.</param>
    /// <param name="crew">Who is told.</param>
    /// <param name="changes">What differs from what was told before.</param>
    /// <param name="most">Most characters: what goes beyond is counted, and asked for at the office.</param>
    public static string Words(
        string firm,
        string job,
        string site,
        Guid crew,
        IEnumerable<(PublishedTask? Was, PublishedTask? Now)> changes,
        int most
    )
    {
        var lines = changes.OrderBy(c => (c.Now ?? c.Was)!.Start).Select(c => Line(crew, c.Was, c.Now)).ToList();
        var words = new StringBuilder(
            site.Length > 0 ? $"{firm}: your days at {job}, {site}.\n" : $"{firm}: your days at {job}.\n"
        );
        for (var i = 0; i < lines.Count; i++)
        {
            var rest = lines.Count - i > 1 ? MostOfRest : 0;
            if (words.Length + 1 + lines[i].Length + rest > most)
                return words.Append('\n').Append(Rest(lines.Count - i)).ToString();
            words.Append('\n').Append(lines[i]);
        }
        return words.ToString();
    }

    private static string Rest(int count) => $"and {Counted.Of(count, "more task")}: ask the office.";

    private static readonly int MostOfRest = Rest(PlannedTask.Most).Length + 1;

    /// <summary>A change in a line.</summary>
    public static string Line(Guid crew, PublishedTask? was, PublishedTask? now)
    {
        if (now is null || now.Crew != crew)
            return $"{was!.Called}: no longer yours (was {Span(was.Start, was.End)})";
        var own = was?.Crew == crew ? was : null;
        var moved = own is not null && (own.Start, own.End) != (now.Start, now.End);
        var elsewhere = own is not null && own.At != now.At;
        return $"{now.Called}: {Span(now.Start, now.End)}{(moved ? $" (was {Span(own!.Start, own.End)})" : "")}{(elsewhere ? $" (was {(own!.At.Length > 0 ? own.At : "the whole job")})" : "")}";
    }

    /// <summary>From when to when, as it is read: <c>Tue 1 Dec, 8:00–12:00</c>; over several days both with their time.</summary>
    public static string Span(DateTime start, DateTime end) =>
        start.Date == end.Date
            ? $"{Day(start)}, {Clock(start)}–{Clock(end)}"
            : $"{Day(start)}, {Clock(start)} to {Day(end)}, {Clock(end)}";

    /// <summary>A day as it is read: <c>Tue 1 Dec</c>.</summary>
    public static string Day(DateTime at) => at.ToString("ddd d MMM", CultureInfo.InvariantCulture);

    /// <summary>A time of day as it is read.</summary>
    public static string Clock(DateTime at) => at.ToString("H:mm", CultureInfo.InvariantCulture);
}
