using Emendum.Core.Jobs;

namespace Emendum.Storage.Demo;

/// <summary>The made-up jobs of the made-up firm.</summary>
public static class DemoJobs
{
    /// <summary>All of them, oldest first.</summary>
    public static IEnumerable<Job> Build(Guid pottery, Guid clinic, Guid trust, Guid library, string date) =>
        [
            ClinicRound.Build(StarterBook.Id(995), clinic, date),
            PotteryJob.Build(StarterBook.Id(996), pottery, date),
            ClinicJob.Build(StarterBook.Id(997), clinic, date),
            CourtJob.Build(StarterBook.Id(998), trust, date),
            LibraryJob.Build(StarterBook.Id(999), library, date),
        ];

    /// <summary>All of them, the same every time, for tests.</summary>
    public static IEnumerable<Job> Fixed() =>
        Build(StarterBook.Id(903), StarterBook.Id(902), StarterBook.Id(901), StarterBook.Id(900), "2026-11-23");
}
