using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Places;

namespace Emendum.Core.Proposals;

/// <summary>Says in which places something is done, as briefly as is true: everywhere, all rooms of a floor but some, or their names. Lists that would be long stand once, and are named by their number.</summary>
public sealed class PlacesInWords(Job job)
{
    /// <summary>Most names in a sentence; more of them are a list by itself.</summary>
    private const int MostNames = 8;

    /// <summary>Most places that something is not done in, where it is told by those.</summary>
    private const int MostExceptions = 3;

    private readonly List<string> lists = [];

    /// <summary>The lists that sentences so far have named, in order.</summary>
    public IReadOnlyList<string> Lists => lists;

    /// <summary>Those lists as items.</summary>
    public IEnumerable<Bullet> ListItems => lists.Select((list, i) => new Bullet([new($"List {i + 1}: {list}.")]));

    /// <summary>A place with its count.</summary>
    public static string Named(Place place) => place.Count > 1 ? $"{place.Name} ×{place.Count}" : place.Name;

    /// <summary>In which places, as the end of a sentence without its stop.</summary>
    public string Of(IEnumerable<Place> places)
    {
        var at = places.Select(p => p.Id).ToHashSet();
        var all = job.Places;
        var chosen = all.Where(p => at.Contains(p.Id)).ToArray();
        if (chosen.Length == all.Length)
            return all.All(p => p.Shape is Room) ? "in every room" : "everywhere";
        // Whole floors are said as such, and not by what else there is.
        var whole = all.GroupBy(p => p.Group)
            .All(g => g.All(p => !at.Contains(p.Id)) || (g.Key.Length > 0 && g.All(p => at.Contains(p.Id))));
        if (!whole && Except(all, at) is { } but)
            return (all.All(p => p.Shape is Room) ? "in every room except " : "everywhere except ") + but;
        var names = 0;
        var parts = new List<string>();
        foreach (var group in all.GroupBy(p => p.Group))
        {
            var (members, there) = (group.ToArray(), group.Where(p => at.Contains(p.Id)).ToArray());
            if (there.Length == 0)
                continue;
            if (group.Key.Length > 0 && members.Length > 1 && there.Length == members.Length)
                parts.Add($"all {Many(members)} of {Called(group.Key)}");
            else if (group.Key.Length > 0 && Except([.. members], at) is { } others)
                parts.Add($"all {Many(members)} of {Called(group.Key)} except {others}");
            else
            {
                names += there.Length;
                parts.AddRange(there.Select(Named));
            }
        }
        if (names <= MostNames)
            return string.Join(
                parts.Exists(p => p.Contains(" except ", StringComparison.Ordinal)) ? "; " : ", ",
                parts
            );
        var list = string.Join(", ", parts);
        var number = lists.IndexOf(list) + 1;
        if (number == 0)
        {
            lists.Add(list);
            number = lists.Count;
        }
        return $"in the {chosen.Length} places of list {number}";
    }

    /// <summary>The few of many that it is not; null where they are not few.</summary>
    private static string? Except(ImmutableArray<Place> all, HashSet<Guid> at)
    {
        var others = all.Where(p => !at.Contains(p.Id)).ToArray();
        return others.Length is > 0 and <= MostExceptions && others.Length * 4 <= all.Length
            ? others.Length == 1
                ? Named(others[0])
                : string.Join(", ", others[..^1].Select(Named)) + " and " + Named(others[^1])
            : null;
    }

    private static string Many(Place[] places) =>
        places.All(p => p.Shape is Room) ? "rooms"
        : places.All(p => p.Shape is Elevation) ? "faces"
        : places.All(p => p.Shape is Site) ? "areas"
        : places.All(p => p.Shape is Stair) ? "stairs"
        : "places";

    /// <summary>Words that a heading begins with where it is a part of any building, and no name.</summary>
    private static readonly HashSet<string> Ordinary = new(StringComparer.OrdinalIgnoreCase)
    {
        "ground",
        "first",
        "second",
        "third",
        "fourth",
        "fifth",
        "top",
        "upper",
        "lower",
        "main",
        "basement",
        "cellar",
        "attic",
        "loft",
        "north",
        "south",
        "east",
        "west",
        "front",
        "back",
        "outside",
        "inside",
        "street",
        "common",
        "public",
    };

    private static string Called(string heading)
    {
        // Headings nest: what is nearest the place is what people say.
        var name = heading.Split(" / ")[^1];
        return Ordinary.Contains(name.Split(' ')[0]) ? "the " + char.ToLowerInvariant(name[0]) + name[1..] : name;
    }
}
