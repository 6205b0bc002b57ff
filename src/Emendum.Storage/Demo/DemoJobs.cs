using Emendum.Core.Jobs;

namespace Emendum.Storage.Demo;

/// <summary>The made-up jobs of the made-up firm.</summary>
public static class DemoJobs
{
    /// <summary>The pottery's showroom.</summary>
    public static readonly Guid Showroom = StarterBook.Id(993);

    /// <summary>The library's reading gallery.</summary>
    public static readonly Guid Gallery = StarterBook.Id(994);

    /// <summary>The clinic's round.</summary>
    public static readonly Guid Round = StarterBook.Id(995);

    /// <summary>The clinic.</summary>
    public static readonly Guid Clinic = StarterBook.Id(997);

    /// <summary>The glasshouse court.</summary>
    public static readonly Guid Court = StarterBook.Id(998);

    /// <summary>All of them, oldest first; last the two that are there for what became of their proposals.</summary>
    /// <param name="pottery">The pottery as a customer.</param>
    /// <param name="clinic">The clinic.</param>
    /// <param name="trust">The garden's trust.</param>
    /// <param name="library">The library.</param>
    /// <param name="ago">The day so many days ago, as jobs write it.</param>
    /// <param name="round">The day of the first visit of the clinic's round.</param>
    public static IEnumerable<Job> Build(
        Guid pottery,
        Guid clinic,
        Guid trust,
        Guid library,
        Func<int, string> ago,
        string round
    ) =>
        [
            ClinicRound.Build(Round, clinic, ago(110), round),
            PotteryJob.Build(StarterBook.Id(996), pottery, ago(0)),
            ClinicJob.Build(Clinic, clinic, ago(2)),
            CourtJob.Build(Court, trust, ago(9)),
            LibraryJob.Build(StarterBook.Id(999), library, ago(0)),
            ShowroomJob.Build(Showroom, pottery, ago(44)),
            GalleryJob.Build(Gallery, library, ago(12)),
        ];

    /// <summary>All of them, the same every time, for tests.</summary>
    public static IEnumerable<Job> Fixed() =>
        Build(
            StarterBook.Id(903),
            StarterBook.Id(902),
            StarterBook.Id(901),
            StarterBook.Id(900),
            _ => "2026-11-23",
            "2027-01-04"
        );

    /// <summary>The first visit of a round that is in its third month on a day: the first Monday of the month two before.</summary>
    public static DateOnly RoundBegan(DateOnly today)
    {
        var first = new DateOnly(today.Year, today.Month, 1).AddMonths(-2);
        return first.AddDays((8 - (int)first.DayOfWeek) % 7);
    }
}
