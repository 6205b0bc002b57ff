using System.Collections.Immutable;
using Emendum.Core.Jobs;

namespace Emendum.Core.Delivery;

/// <summary>A contract year of a round while it runs (M30): its sum is the year's, billed by months, and what closes it brings what was billed to what was done.</summary>
/// <param name="Round">As it was agreed.</param>
/// <param name="Visits">Its visits with what has become of them.</param>
/// <param name="Today">The firm's day.</param>
public sealed record RoundYear(AgreedRound Round, RoundVisits Visits, DateOnly Today)
{
    /// <summary>Whether the twelve months are over: an event that has not come by then comes no more.</summary>
    private bool IsOver => Today >= Round.First.AddMonths(AgreedRound.MonthCount);

    /// <summary>Whether it is known of each visit what has become of it, so that the year can be closed. Where all is brought by events, that is known when the months are over.</summary>
    public bool IsKnown => Visits.Open == 0 && (IsOver || Round.Visits.Any(v => !v.IsEvent));

    /// <summary>How many visits of a rhythm are billed; of an event, at most as many as were agreed.</summary>
    /// <param name="kind">What they were agreed at.</param>
    /// <param name="until">Only those before this day; null for all.</param>
    public int Billed(AgreedVisits kind, DateOnly? until = null) =>
        Math.Min(Visits.Of(kind.Id).Count(v => v.IsBilled && (until is null || v.Day < until)), MostOf(kind));

    private static int MostOf(AgreedVisits kind) => kind.IsEvent ? kind.Cap ?? int.MaxValue : kind.Times;

    /// <summary>By how many visits the contract sum differs from what was agreed: those left out are fewer; events are more once they are, and fewer once the year is known.</summary>
    public int Differs(AgreedVisits kind)
    {
        if (!kind.IsEvent)
            return -Visits.Of(kind.Id).Count(v => v.Said == VisitSaid.LeftOut);
        var more = Billed(kind) - kind.Times;
        return more > 0 || IsKnown ? more : 0;
    }

    /// <summary>What that comes to, before tax, by the contract's categories.</summary>
    /// <param name="categories">How many there are.</param>
    public ByCategory Settles(int categories) =>
        Round.Visits.Aggregate(ByCategory.Nothing(categories), (sum, kind) => sum + kind.Price.Times(Differs(kind)));

    /// <summary>Value to date that is billed with a month.</summary>
    /// <param name="month">From 0.</param>
    /// <param name="billing">The contract with what was billed of it.</param>
    public ByCategory ToDate(int month, Billing billing)
    {
        var (sum, places) = (billing.Contract.Sum, billing.Contract.Places);
        if (Round.Billing != RoundBilling.AsDone)
            return billing.Worked + (sum - billing.Worked).Share(Round.Months[month], sum, places);
        var until = Round.First.AddMonths(month + 1);
        var visits = Round.Visits.Aggregate(
            ByCategory.Nothing(billing.Contract.Categories.Length),
            (value, kind) => value + kind.Price.Times(Billed(kind, until))
        );
        // What is no visit's, as supplies and what is done once, falls into its months as it was agreed.
        var beside = Enumerable
            .Range(0, month + 1)
            .Sum(m => Round.Months[m] - Round.Visits.Sum(v => v.Price.Sum * v.ByMonth[m]));
        var all = Round.Visits.Aggregate(billing.Contract.Signed, (left, kind) => left - kind.Price.Times(kind.Times));
        return visits + (beside == all.Sum ? all : all.Share(beside, sum, places));
    }
}
