using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Checks;

/// <summary>Two places under one heading have one name, or all their sizes and openings in common.</summary>
internal static class MeasuredTwice
{
    public static IEnumerable<Finding> In(CheckedJob job) => ByName(job).Concat(BySize(job));

    private static IEnumerable<Finding> ByName(CheckedJob job) =>
        from alike in job.Job.Places.GroupBy(p => (p.Group, p.Name.Trim().ToUpperInvariant()))
        from place in alike.Skip(1)
        select job.Found(
            $"twice/{place.Id}",
            "Measured twice?",
            $"{place.Name} stands twice{(place.Group.Length > 0 ? " under " + place.Group : "")}.",
            "The same name under one heading is often one place measured twice.",
            place.Id
        );

    private static IEnumerable<Finding> BySize(CheckedJob job) =>
        from heading in job.Job.Places.Where(p => p.Openings.Length > 0).GroupBy(p => p.Group)
        from alike in heading.GroupBy(Sizes)
        let first = alike.First()
        from place in alike.Skip(1)
        where !string.Equals(place.Name.Trim(), first.Name.Trim(), StringComparison.OrdinalIgnoreCase)
        select job.Found(
            $"alike/{place.Id}",
            "Measured twice?",
            $"{place.Name} has the sizes and openings of {first.Name}, to the last sixteenth.",
            "If they are two rooms, set this aside; if it is one, remove the other; equal rooms can be one line with ×2.",
            place.Id
        );

    private static string Sizes(Place place) =>
        PlaceLine.Print(
            place with
            {
                Name = "x",
                Group = "",
                Openings = [.. place.Openings.Select(o => o with { Into = null })],
            },
            UnitSystem.Feet,
            _ => null
        );
}
