using Emendum.Core.Delivery;
using Emendum.Storage;

namespace Emendum.Web.Deliver;

/// <summary>What a crew's page says of its days: what was told last.</summary>
public sealed class CrewDays(ScheduleStore schedules, SettingStore settings)
{
    /// <summary>Most lines.</summary>
    private const int Most = 100;

    /// <summary>The tasks of whom a link is for, the earliest first: of the crew that it names, else of its sections, else all of them.</summary>
    public IReadOnlyList<string> Of(Guid job, CrewLink link)
    {
        if (schedules.Published(job, 1).FirstOrDefault() is not { } told)
            return [];
        var crew = settings
            .Get(Crews.Setting, Crews.Starting)
            .All.FirstOrDefault(c => string.Equals(c.Name, link.For, StringComparison.OrdinalIgnoreCase));
        return
        [
            .. told
                .Tasks.Where(t =>
                    crew is not null ? t.Crew == crew.Id : link.Sections.IsEmpty || link.Sections.Contains(t.Name)
                )
                .OrderBy(t => t.Start)
                .Take(Most)
                .Select(t => $"{t.Called}: {ScheduleNotice.Span(t.Start, t.End)}"),
        ];
    }
}
