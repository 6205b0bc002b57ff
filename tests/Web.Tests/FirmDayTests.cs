using System.Globalization;
using Emendum.Storage;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Dates are days of the firm, not of the machine. Offsets and changes of the clock are those of the IANA time zone database.</summary>
public sealed class FirmDayTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private sealed class Stopped(string at) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => DateTimeOffset.Parse(at, CultureInfo.InvariantCulture);
    }

    [Theory]
    // Standard time at UTC+1; before and after midnight there.
    [InlineData("Europe/Berlin", "2026-12-31T22:59:59Z", "2026-12-31")]
    [InlineData("Europe/Berlin", "2026-12-31T23:30:00Z", "2027-01-01")]
    // Summer time at UTC+2.
    [InlineData("Europe/Berlin", "2026-07-01T21:59:59Z", "2026-07-01")]
    [InlineData("Europe/Berlin", "2026-07-01T22:00:00Z", "2026-07-02")]
    [InlineData("America/New_York", "2026-11-25T03:00:00Z", "2026-11-24")]
    [InlineData("Pacific/Kiritimati", "2026-11-25T10:00:00Z", "2026-11-26")]
    [InlineData("Etc/UTC", "2026-11-25T23:59:59Z", "2026-11-25")]
    public void The_day_is_the_firms(string zone, string moment, string day)
    {
        var database = Database.Open(folder.Path);
        var companies = new CompanyStore(database);
        companies.Create(new("Firm", "", "USD", Core.Quantities.UnitSystem.Feet, "net", zone), 1);
        Assert.Equal(day, new FirmDay(new Stopped(moment), companies).Written);
    }
}
