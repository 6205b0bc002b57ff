using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Reckoning;

/// <summary>Set-up and travel of a job, from its whole crew days or its visits. They come on top of the work and are not counted back into the days.</summary>
internal static class Travel
{
    /// <summary>The hours of all people, and the money for the way (null where none is charged).</summary>
    public static (Val Hours, ChargeCost? Way) Of(SetUp setUp, Job job, Val worked, Duration duration, Trace trace)
    {
        var crew = trace.Crew(job.Crew.Size, "", "crew", "size");
        var days = trace.Total(
            (worked / (crew * trace.Crew(job.Crew.HoursPerDay, "h", "hours a day", "hoursPerDay"))).Ceil(),
            "days",
            "Whole crew days",
            new("totals", "workDays")
        );
        Val ways =
            setUp.Per == TravelPer.CrewDay
                ? days
                : trace.Total(duration.ReturnVisits + 1m, "", "Visits", new("totals", "visits"));
        Val Book(decimal value, string unit, string label) => trace.Book(value, unit, label, setUp.Id);
        var hours = trace.Total(
            (
                days * Book(setUp.SetUpMinutes, "min", "set up and clear away")
                + ways * Book(setUp.TravelMinutes, "min", "there and back")
            )
                * crew
                / 60m,
            "h",
            "Set-up and travel: hours",
            new("setUp", setUp.Id, "hours")
        );
        if (setUp.Distance == 0 || setUp.PerDistance == 0)
            return (hours, null);
        var unit = setUp.DistanceUnit == DistanceUnit.Mile ? "mi" : "km";
        var distance = trace.Total(
            ways * Book(setUp.Distance, unit, "there and back"),
            unit,
            "Travel: distance",
            new("setUp", setUp.Id, "distance")
        );
        return (
            hours,
            new(
                "Travel",
                null,
                null,
                distance,
                trace.Total(
                    distance * Book(setUp.PerDistance, "per " + unit, "vehicle"),
                    "",
                    "Travel: cost",
                    new("setUp", setUp.Id, "cost")
                )
            )
        );
    }
}
