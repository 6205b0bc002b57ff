using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>A place that a kind of building usually has, with the work usually done there (ids of Book entries).</summary>
public sealed record UsualPlace(string Name, ImmutableArray<Guid> Work);

/// <summary>The usual places of one kind of building.</summary>
public sealed record UsualPlaceList(string Name, ImmutableArray<UsualPlace> Places)
{
    /// <summary>The trade whose work it brings, in the firm's words; empty for none.</summary>
    public string Trade { get; init; } = "";
}

/// <summary>The firm's lists of usual places, to pick and count from.</summary>
public sealed record UsualPlaces(ImmutableArray<UsualPlaceList> Lists)
{
    /// <summary>Name it is kept under.</summary>
    public const string Setting = "usualPlaces";

    /// <summary>Refuses lists that cannot be picked from.</summary>
    /// <param name="isWork">Whether an id is that of a Book entry that can be put to work.</param>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public void Check(Func<Guid, bool> isWork)
    {
        if (Lists.Length > 60 || Lists.Any(l => l.Places.Length > 200))
            throw RefusedException.Of("lists", "At most 60 lists of 200 places.");
        foreach (var list in Lists)
        {
            PlaceLimits.Name(list.Name, "A list's name");
            if (list.Trade.Length > 0)
                PlaceLimits.Name(list.Trade, "A list's trade");
            foreach (var place in list.Places)
            {
                PlaceLimits.Name(place.Name, $"A place of {list.Name}: its name");
                if (place.Work.Length > 100 || place.Work.Any(w => !isWork(w)))
                    throw RefusedException.Of("lists", $"{place.Name} names work that is not in the Book any more.");
            }
        }
        if (Lists.Select(l => l.Name.ToUpperInvariant()).Distinct().Count() != Lists.Length)
            throw RefusedException.Of("lists", "Two lists have the same name.");
    }
}

/// <summary>The firm's usual sizes of doors and windows, each as it stands on a tape line: <c>door 3' x 6'8"</c>.</summary>
public sealed record UsualSizes(ImmutableArray<string> Sizes)
{
    /// <summary>Name it is kept under.</summary>
    public const string Setting = "usualSizes";

    /// <summary>Refuses what is no opening with its units.</summary>
    /// <exception cref="RefusedException">The first that cannot be read.</exception>
    public void Check()
    {
        if (Sizes.Length > 60)
            throw RefusedException.Of("sizes", "At most 60 usual sizes.");
        foreach (var size in Sizes)
        {
            var readings = new[] { UnitSystem.Feet, UnitSystem.Metres }
                .Select(system => TapeLine.Read($"Any 10000 m x 10000 m x 10000 m; {size}", system))
                .ToArray();
            if (readings.FirstOrDefault(r => r.Refusal is not null).Refusal is { } wrong)
                throw RefusedException.Of("sizes", $"“{size}”: {wrong.Message}");
            var (a, b) = (readings[0].Reading!.Openings, readings[1].Reading!.Openings);
            if (a.Length != 1)
                throw RefusedException.Of("sizes", $"“{size}” is not one opening.");
            if (a[0].Width.Millimetres != b[0].Width.Millimetres || a[0].Height.Millimetres != b[0].Height.Millimetres)
                throw RefusedException.Of(
                    "sizes",
                    $"“{size}”: write its units, like door 3' x 6'8\", so that it is the same in every job."
                );
        }
    }
}
