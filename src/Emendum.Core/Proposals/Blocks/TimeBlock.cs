using System.Globalization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Proposals;

/// <summary>How long the work takes: the days from first to last, how often we come back after drying, and the hours where they are shown.</summary>
internal static class TimeBlock
{
    public static IEnumerable<Element> Of(Writing writing)
    {
        var costs = writing.Estimate.Reckoned.Costs;
        if (costs.Hours.V == 0 || !writing.Estimate.Price.Occurrences.IsEmpty)
            return [];
        var days = (int)decimal.Ceiling(Rounding.ForCompare(costs.Duration.Days.V));
        var people = writing.Job.Crew.Size;
        var words =
            $"{(people == 1 ? "One of us is" : $"A crew of {people.ToString(CultureInfo.InvariantCulture)} is")} with you for {Counted.Of(days, "working day")}";
        if (writing.Terms.Hours)
            words += $", {writing.Hours(costs.Hours.V)} of work in all";
        words += ".";
        if (costs.Duration.ReturnVisits.V is > 0 and var visits)
            words +=
                $" We come back {(visits == 1 ? "once" : visits == 2 ? "twice" : $"{Rounding.Text(visits)} times")} after something has dried.";
        return [Writing.Plain(words)];
    }
}
