using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Pricing;

namespace Emendum.Core.Checks;

/// <summary>Goes through a reckoned and priced job as a careful second estimator would. Thresholds are common practice, and stand with their check as named numbers.</summary>
public static class Findings
{
    /// <summary>Every check, in the order in which they are walked.</summary>
    private static readonly ImmutableArray<Func<CheckedJob, IEnumerable<Finding>>> All =
    [
        BelowFloor.In,
        CostWithoutPrice.In,
        QuoteEnds.In,
        PricedAsIfWeSupplied.In,
        PlaceWithoutWork.In,
        MeasuredTwice.In,
        SharedOpenings.In,
        TypedFarFromReckoned.InPlaces,
        LargeOpening.In,
        WorkWithoutPlace.In,
        HazardNotAnswered.In,
        NotMeasuredYet.In,
        WorkWithoutMeasure.In,
        UsualAnswer.In,
        FarRate.In,
        TypedFarFromReckoned.InCells,
        ThinCoverage.In,
        NoEquipment.In,
    ];

    /// <summary>All findings, those that stand before those set aside.</summary>
    /// <param name="estimate">The job.</param>
    /// <param name="shelf">The Book, for what is usual.</param>
    /// <param name="sizes">The firm's usual doors and windows.</param>
    public static IReadOnlyList<Finding> Of(Estimate estimate, IReadOnlyCollection<BookEntry> shelf, UsualSizes sizes)
    {
        var job = new CheckedJob(estimate, shelf, sizes);
        return [.. All.SelectMany(check => check(job)).OrderBy(f => f.Reason.Length > 0)];
    }
}
