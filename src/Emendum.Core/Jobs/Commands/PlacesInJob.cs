using System.Collections.Immutable;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>Places of a job as commands find, name and rank them.</summary>
internal static class PlacesInJob
{
    public static void IsNew(Job job, Guid id)
    {
        if (id == Guid.Empty || job.Place(id) is not null)
            throw RefusedException.Of("place", "A new place needs an id of its own.");
    }

    public static Change Added(Place place) => new($"places/{place.Id}", null, Commands.Node(place));

    public static Place Read(Job job, Guid id, string line, string group, string rank) =>
        TapeLine
            .ReadOrThrow(line, job.Units)
            .ToPlace(id, group.Trim(), rank, line.Trim(), name => Named(Known(job), name, id, group.Trim()));

    public static List<(Guid Id, string Name, string Group)> Known(Job job) =>
        [.. job.Places.Select(p => (p.Id, p.Name, p.Group))];

    /// <summary>The place of that name; one under the same heading first.</summary>
    public static Guid Named(List<(Guid Id, string Name, string Group)> known, string name, Guid from, string group)
    {
        var found = known.Where(p => p.Id != from && p.Name.Equals(name, StringComparison.OrdinalIgnoreCase)).ToList();
        if (found.Count > 1 && found.Where(p => p.Group == group).ToList() is { Count: > 0 } near)
            found = near;
        return found.Count switch
        {
            1 => found[0].Id,
            0 => throw RefusedException.Of(
                "line",
                $"There is no place called “{name}” to lead into yet. Add it first, or leave out into."
            ),
            _ => throw RefusedException.Of(
                "line",
                $"There are {found.Count} places called “{name}”: give them different names first."
            ),
        };
    }

    public static string Moved(string group, string was, string now) =>
        group == was ? now
        : Groups.IsUnder(group, was) ? Groups.Under(now, group[(was.Length + Groups.Separator.Length)..])
        : group;

    public static string FreeName(string name, Func<string, bool> taken)
    {
        if (!taken(name))
            return name;
        var cut = name.LastIndexOf(' ');
        var (stem, number) =
            cut > 0
            && int.TryParse(
                name.AsSpan(cut + 1),
                System.Globalization.NumberStyles.None,
                System.Globalization.CultureInfo.InvariantCulture,
                out var n
            )
            && n < 1_000_000
                ? (name[..cut], n)
                : (name, 1);
        if (stem.Length > TapeLine.LongestName - 8)
            stem = stem[..(TapeLine.LongestName - 8)].Trim();
        do number++;
        while (taken($"{stem} {number}"));
        return $"{stem} {number}";
    }

    public static int EndOfGroup(ImmutableArray<Place> places, string group)
    {
        for (var i = places.Length - 1; i >= 0; i--)
            if (Groups.IsUnder(places[i].Group, group))
                return i + 1;
        return places.Length;
    }

    public static string RankAt(ImmutableArray<Place> places, int at) => Rank.At(places, at, p => p.Rank);

    /// <summary>New lines for places whose lengths or neighbours' names are to be written differently.</summary>
    public static IEnumerable<Change> Relettered(
        Job job,
        Func<Place, bool> which,
        UnitSystem system,
        Func<Guid, string?> nameOf
    ) =>
        job
            .Places.Where(which)
            .Select(p => (Place: p, Line: PlaceLine.Print(p, system, nameOf)))
            .Where(p => p.Line != p.Place.Line)
            .Select(p => new Change($"places/{p.Place.Id}/line", p.Place.Line, p.Line));
}
