using System.Text;
using Emendum.Core.Delivery;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Outside;

/// <summary>A crew's days as its calendar program asks for them: what was told of all jobs, and nothing else.</summary>
public static class CalendarEndpoints
{
    /// <summary>Where links begin.</summary>
    public const string Path = "/calendar";

    /// <summary>Maps it.</summary>
    public static void MapCalendars(this IEndpointRouteBuilder outside) =>
        outside
            .MapGet(
                Path + "/{token:length(1,64)}",
                (string token, ScheduleStore schedules, SettingStore settings, FirmDay day) =>
                    Of(token, schedules, settings, day)
            )
            .Produces<byte[]>(200, "text/calendar");

    /// <exception cref="NotThereException">It opens nothing, or was revoked: the same answer to both.</exception>
    private static IResult Of(string token, ScheduleStore schedules, SettingStore settings, FirmDay day)
    {
        var link =
            schedules.FindCalendar(Token.HashOf(token))
            ?? throw new NotThereException("This link opens nothing. Please ask whoever gave it to you.");
        var crews = settings.Get(Crews.Setting, Crews.Starting);
        var name = crews.All.FirstOrDefault(c => c.Id == link.Crew)?.Name ?? Crews.Unknown;
        var clock = day.Clock();
        var told = schedules.Latest();
        var text = CalendarFile.Write(
            $"Days of {name}",
            told.Select(t => t.Number).DefaultIfEmpty().Max(),
            told.Select(t => t.At).DefaultIfEmpty(link.Made).Max(),
            told.SelectMany(t =>
                t.Tasks.Where(task => task.Crew == link.Crew)
                    .Select(task => new CalendarEntry(
                        task.Task,
                        $"{task.Called} ({t.Title})",
                        "",
                        t.Site,
                        clock.ToReal(task.Start),
                        clock.ToReal(task.End)
                    ))
            )
        );
        return Results.File(Encoding.UTF8.GetBytes(text), CalendarFile.Type);
    }
}
