using System.Globalization;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Storage;
using NodaTime;

namespace Emendum.Web;

/// <summary>The day on which the firm is: dates of jobs and documents are local dates there, whatever the machine's own zone (architecture decision 36).</summary>
public sealed class FirmDay(TimeProvider time, CompanyStore companies)
{
    /// <summary>Names of all zones that can be set, as the IANA database has them.</summary>
    public static IReadOnlyList<string> Zones => DateTimeZoneProviders.Tzdb.Ids;

    /// <summary>The zone of this machine, with which a new firm starts.</summary>
    public static string OfThisMachine =>
        DateTimeZoneProviders.Tzdb.GetZoneOrNull(TimeZoneInfo.Local.Id) is { } zone ? zone.Id : "Etc/UTC";

    /// <summary>Refuses a zone that is none.</summary>
    public static void Check(string zone)
    {
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone) is null)
            throw RefusedException.Of("zone", "That is not a time zone. Choose one from the list, like Europe/Dublin.");
    }

    private static DateTimeZone ZoneOf(string name) =>
        DateTimeZoneProviders.Tzdb.GetZoneOrNull(name) ?? DateTimeZone.Utc;

    /// <summary>The day in a zone at a moment.</summary>
    public static DateOnly In(string zone, DateTimeOffset moment) =>
        Instant.FromDateTimeOffset(moment).InZone(ZoneOf(zone)).Date.ToDateOnly();

    private string Zone => companies.Get()?.Zone ?? OfThisMachine;

    /// <summary>Today.</summary>
    public DateOnly Today => In(Zone, time.GetUtcNow());

    /// <summary>The moment at which a day ends (UTC).</summary>
    public DateTime EndOf(DateOnly day) =>
        ZoneOf(Zone).AtStartOfDay(LocalDate.FromDateOnly(day).PlusDays(1)).ToDateTimeUtc();

    /// <summary>The moment (UTC) at which the firm's clock says a time of a day. A time that a change of the clock leaves out is the one after it; of one that comes twice it is the first.</summary>
    public DateTime At(DateOnly day, TimeOnly time) =>
        ZoneOf(Zone).AtLeniently(LocalDate.FromDateOnly(day) + LocalTime.FromTimeOnly(time)).ToDateTimeUtc();

    /// <summary>What says moments (UTC) in the firm's zone: <c>Mon 30 Nov 2026, 8:30</c>. The zone is looked up once for all of them.</summary>
    public Func<DateTime, string> Moments()
    {
        var zone = ZoneOf(Zone);
        return utc =>
            Instant
                .FromDateTimeUtc(DateTime.SpecifyKind(utc, DateTimeKind.Utc))
                .InZone(zone)
                .ToDateTimeUnspecified()
                .ToString("ddd d MMM yyyy, H:mm", CultureInfo.InvariantCulture);
    }

    /// <summary>How the clock on the firm's wall goes against real time (UTC).</summary>
    public LocalClock Clock()
    {
        var zone = ZoneOf(Zone);
        return new(
            local => zone.AtLeniently(LocalDateTime.FromDateTime(local)).ToDateTimeUtc(),
            utc =>
                Instant
                    .FromDateTimeUtc(DateTime.SpecifyKind(utc, DateTimeKind.Utc))
                    .InZone(zone)
                    .ToDateTimeUnspecified()
        );
    }

    /// <summary>What says on which of the firm's days a moment (UTC) is.</summary>
    public Func<DateTime, DateOnly> Days()
    {
        var zone = Zone;
        return utc => In(zone, new(DateTime.SpecifyKind(utc, DateTimeKind.Utc)));
    }

    /// <summary>Today, as jobs write it.</summary>
    public string Written => Write(Today);

    /// <summary>A day as jobs write it.</summary>
    public static string Write(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
