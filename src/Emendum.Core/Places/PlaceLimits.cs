using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>What makes a place impossible, however it was entered: tape line, file or import.</summary>
public static class PlaceLimits
{
    /// <summary>Most corners of an outline.</summary>
    public const int MostCorners = 60;

    /// <summary>How far, in mm, the end of the last wall may miss the first corner, and a corner's height the plane of a sloped ceiling: 1/16 in, what a tape shows.</summary>
    public const decimal TapeStep = 25.4m / 16;

    /// <summary>Refuses what cannot be: sizes not above zero or over 10 km, outlines that do not close or cross themselves, openings larger than the largest wall or the walls together.</summary>
    /// <param name="shape">What was measured.</param>
    /// <param name="openings">Its openings.</param>
    /// <param name="count">How many equal places.</param>
    /// <param name="system">Units of the sentences.</param>
    /// <param name="print">Writes a corrected shape as a tape line, to offer it; null offers nothing.</param>
    /// <exception cref="RefusedException">With a sentence naming what is wrong.</exception>
    public static void Check(
        Shape shape,
        ImmutableArray<Opening> openings,
        int count,
        UnitSystem system,
        Func<Shape, string>? print = null
    )
    {
        if (count is < 1 or > TapeLine.MostCount)
            throw Wrong($"A place stands for 1 to {TapeLine.MostCount} equal ones.");
        foreach (var length in shape.Lengths.Concat(openings.SelectMany(o => o.Lengths)))
        {
            if (length.Unit != Unit.Inch && length.Unit != Unit.Millimetre)
                throw Wrong("A length must be kept in inches or millimetres.");
            if (decimal.Abs(length.Millimetres) > Length.Longest)
                throw Wrong("A length is over 10 km: check the unit.");
            if (length.Typed.Length > TapeLine.LongestLine)
                throw Wrong("A length's text is too long.");
        }
        if (shape is not Room && openings.Any(o => o.Into is not null))
            throw Wrong("Only an opening of a room leads into another.");
        if (!openings.IsEmpty && !shape.TakesOpenings)
            throw Wrong("Only rooms, outside faces, and windows or doors by themselves have openings.");
        switch (shape)
        {
            case Room room:
                CheckRoom(room, openings, system, print);
                break;
            case Elevation face:
                CheckFace(face, openings, system);
                break;
            case Site site:
                CheckSite(site, print);
                break;
            case Run run:
                Size(run.Long, "length");
                if (run.Across is { } across)
                    Size(across, run.IsGirth ? "girth" : "width");
                break;
            case Stair stair:
                if (stair.Risers is < 1 or > 1000 || stair.Treads is < 0 or > 1000)
                    throw Wrong("A stair has 1 to 1000 risers.");
                foreach (
                    var (length, name) in new[] { (stair.Rise, "rise"), (stair.Going, "going"), (stair.Width, "width") }
                )
                    Size(length, name);
                foreach (var landing in stair.Landings)
                    Part(landing, "landing");
                break;
            case ItemSet items:
                if (items.TakesOpenings)
                    CheckLoose(openings);
                foreach (var item in items.Items)
                {
                    if (item.Count is < 1 or > 1_000_000)
                        throw Wrong("A count is 1 to 1,000,000.");
                    Name(item.Name, "A thing's name");
                }
                break;
        }
    }

    /// <summary>A name that a tape line can carry.</summary>
    public static void Name(string name, string what)
    {
        if (name.Length is 0 or > TapeLine.LongestName || name != name.Trim())
            throw Wrong($"{what} is 1 to {TapeLine.LongestName} characters, without blanks round it.");
        if (name.Contains(';') || name.Any(char.IsControl))
            throw Wrong($"{what} takes no semicolon: that ends a part of the tape line.");
    }

    private static void CheckRoom(
        Room room,
        ImmutableArray<Opening> openings,
        UnitSystem system,
        Func<Shape, string>? print
    )
    {
        Edge(room.Outline, system, fixedOutline => print?.Invoke(room with { Outline = fixedOutline }), true);
        var corners = room.Outline.Millimetres;
        decimal[] heights;
        if (room.Slope.IsEmpty)
        {
            var high = room.High ?? throw Wrong("The height is missing.");
            Size(high, "height");
            heights = [.. corners.Select(_ => high.Millimetres)];
        }
        else
        {
            if (room.High is not null || !room.WallHeights.IsEmpty)
                throw Wrong("A sloped ceiling takes its heights from the corners alone.");
            if (room.Slope.Length != corners.Length)
                throw Wrong(
                    $"A sloped ceiling needs a height for each of the {corners.Length} corners; there are {room.Slope.Length}."
                );
            foreach (var height in room.Slope)
                Size(height, "height at a corner");
            heights = [.. room.Slope.Select(s => s.Millimetres)];
            OnOnePlane(corners, heights, system);
        }
        foreach (var (wall, high) in room.WallHeights)
        {
            Size(high, $"height of wall {wall}");
            if (room.Outline.WallOf(wall) < 0)
                throw NoWall(wall, room.Outline);
        }
        if (room.WallHeights.Select(w => w.Wall.ToUpperInvariant()).Distinct().Count() != room.WallHeights.Length)
            throw Wrong("A wall's height stands twice.");
        var top = 0m;
        foreach (var band in room.Bands)
        {
            Name(band.Name, "A band's name");
            Size(band.Top, $"height of band {band.Name}");
            if (band.Top.Millimetres <= top)
                throw Wrong(
                    $"Bands go upwards: {band.Name} must end above {new Length(top, Unit.Millimetre, "").Read(system)}."
                );
            top = band.Top.Millimetres;
        }
        if (
            !room.Bands.IsEmpty
            && room.Bands.Select(b => b.Name.ToUpperInvariant()).Append("ABOVE").Distinct().Count()
                != room.Bands.Length + 1
        )
            throw Wrong("Each band has a name of its own, and not “above”: that is what is left.");
        CheckIslands(room.Islands, room.Outline, !room.Slope.IsEmpty);
        CheckOpenings(openings, room, corners, heights, system);
    }

    private static void CheckOpenings(
        ImmutableArray<Opening> openings,
        Room room,
        ImmutableArray<(decimal X, decimal Y)> corners,
        decimal[] heights,
        UnitSystem system
    )
    {
        var lengths = SideLengths(room.Outline);
        decimal High(int wall) =>
            room.WallHeights.FirstOrDefault(w => room.Outline.WallOf(w.Wall) == wall)?.High.Millimetres ?? decimal.Max(
                heights[wall],
                heights[(wall + 1) % heights.Length]
            );
        var sizes = Enumerable
            .Range(0, corners.Length)
            .Select(i => (Long: lengths[i], High: High(i), Letter: Outline.Letter(i)))
            .ToList();
        foreach (var island in room.Islands)
            sizes.AddRange(SideLengths(island.Outline).Select(l => (l, heights.Max(), "")));
        OpeningsFit(
            openings,
            sizes,
            system,
            wall => room.Outline.WallOf(wall) is var i and >= 0 ? sizes[i] : throw NoWall(wall, room.Outline)
        );
        var walls =
            sizes
                .Take(corners.Length)
                .Select(
                    (s, i) =>
                        room.WallHeights.Any(w => room.Outline.WallOf(w.Wall) == i)
                            ? s.Long * s.High
                            : s.Long * (heights[i] + heights[(i + 1) % heights.Length]) / 2
                )
                .Sum() + room.Islands.Sum(i => i.Count * SideLengths(i.Outline).Sum() * heights.Average());
        if (openings.Sum(AreaOf) > walls + 1)
            throw Wrong("The openings together are larger than the walls.");
        if (
            openings.Where(o => o.ReachesFloor).Sum(o => o.Count * o.Width.Millimetres)
            > lengths.Sum() + room.Islands.Sum(i => i.Count * SideLengths(i.Outline).Sum()) + 1
        )
            throw Wrong("The openings that reach the floor are together wider than the walls are long.");
    }

    /// <summary>Refuses openings from another place that this one has no room for.</summary>
    public static void CheckIncoming(Place place, IEnumerable<Opening> incoming, UnitSystem system)
    {
        if (place.Shape is not Room room)
            throw Wrong($"An opening leads into a room; {place.Name} is none.");
        if (place.Count > 1)
            throw Wrong($"{place.Name} stands for {place.Count} equal rooms, so an opening cannot lead into it.");
        Check(room, [.. place.Openings, .. incoming.Select(o => o with { Wall = null, Bottom = null })], 1, system);
    }

    private static void CheckFace(Elevation face, ImmutableArray<Opening> openings, UnitSystem system)
    {
        if (face.Faces.IsEmpty)
            throw Wrong("A face is width x height.");
        foreach (var part in face.Faces)
            Part(part, "face");
        foreach (var part in face.Gables)
            Part(part, "gable");
        if (face.Eaves is { } eaves)
            Size(eaves, "length of the eaves");
        var sizes = face
            .Faces.Select(f =>
                (
                    f.Wide.Millimetres,
                    f.High.Millimetres + face.Gables.Select(g => g.High.Millimetres).DefaultIfEmpty().Max(),
                    ""
                )
            )
            .ToList();
        OpeningsFit(openings, sizes, system, _ => throw Wrong("A face has no walls to name: leave out on."));
        var gross =
            face.Faces.Sum(f => f.Count * f.Wide.Millimetres * f.High.Millimetres)
            + face.Gables.Sum(g => g.Count * g.Wide.Millimetres * g.High.Millimetres) / 2;
        if (openings.Sum(AreaOf) > gross)
            throw Wrong("The openings together are larger than the face.");
    }

    private static void CheckSite(Site site, Func<Shape, string>? print)
    {
        if (site.Outline is null == site.Area is null)
            throw Wrong("A site has an outline or an area.");
        if (site.Outline is { } outline)
            Edge(outline, UnitSystem.Feet, fixedOutline => print?.Invoke(site with { Outline = fixedOutline }), false);
        if (site.Area is { } area && TypedQuantities.Read(area).Value <= 0)
            throw Wrong("The area must be more than zero.");
        if (site.Area is not null && site.Area.Kind != Kind.Area)
            throw Wrong("A site is an area.");
        foreach (var (length, name) in new[] { (site.Around, "length around"), (site.Depth, "depth") })
            if (length is not null)
                Size(length, name);
        if (site.Around is not null && site.Outline is not null)
            throw Wrong("The outline gives the length around.");
        if (site.Outline is null && !site.Islands.IsEmpty)
            throw Wrong("Islands need an outline; take their area off the area typed.");
        if (site.Outline is not null)
            CheckIslands(site.Islands, site.Outline, false);
    }

    private static void CheckIslands(ImmutableArray<Island> islands, Outline around, bool sloped)
    {
        var left = decimal.Abs(Polygon.Twice(around.Millimetres));
        foreach (var island in islands)
        {
            if (island.Count is < 1 or > TapeLine.MostCount)
                throw Wrong($"A count is 1 to {TapeLine.MostCount}.");
            Edge(island.Outline, UnitSystem.Feet, _ => null, true);
            if (sloped && island.At is null && island.Outline is not Corners)
                throw Wrong("Under a sloped ceiling say where an island stands, like at 5,4.");
            if (island.At is not null && island.Count > 1)
                throw Wrong("An island that stands at one place is one: leave out the count.");
            left -= island.Count * decimal.Abs(Polygon.Twice(island.Outline.Millimetres));
            if (left <= 0)
                throw Wrong("The islands together are as large as what they stand in.");
            if (island.At is null && island.Outline is not Corners)
                continue;
            var corners = Polygon.Moved(island);
            if (!corners.All(c => Polygon.Contains(around.Millimetres, c)))
                throw Wrong("An island stands outside: check where its corner is.");
        }
    }

    /// <summary>Windows and doors without their room: there is no wall that they must fit.</summary>
    private static void CheckLoose(ImmutableArray<Opening> openings)
    {
        if (openings.IsEmpty)
            throw Wrong("Say how many of what: 12 handles, 4 notice boards; or a window and its size.");
        OpeningSizes(openings);
        if (openings.Any(o => o.Wall is not null))
            throw Wrong("There are no walls here to name: leave out on.");
    }

    private static void OpeningSizes(ImmutableArray<Opening> openings)
    {
        foreach (var opening in openings)
        {
            Size(opening.Width, opening.Words + " width");
            Size(opening.Height, opening.Words + " height");
            if (opening.Depth is { } depth)
                Size(depth, opening.Words + " depth");
            if (opening.Bottom is { } bottom)
                Size(bottom, "height of its bottom");
            if (opening.Count is < 1 or > TapeLine.MostCount)
                throw Wrong($"A {opening.Words} is counted 1 to {TapeLine.MostCount} times.");
            if (opening is { Bottom: not null, ReachesFloor: true })
                throw Wrong(
                    $"A {opening.Words} that reaches the floor has its bottom there: leave out at, or say raised."
                );
            if (opening is { Glazed: true, Kind: not OpeningKind.Door })
                throw Wrong(
                    opening.Kind == OpeningKind.Window
                        ? "A window is glass already: leave out glazed."
                        : "A pass-through has no glass: is it a door?"
                );
        }
    }

    private static void OpeningsFit(
        ImmutableArray<Opening> openings,
        List<(decimal Long, decimal High, string Letter)> walls,
        UnitSystem system,
        Func<string, (decimal Long, decimal High, string Letter)> wallOf
    )
    {
        OpeningSizes(openings);
        foreach (var opening in openings)
        {
            var (width, top) = (
                opening.Width.Millimetres,
                opening.Height.Millimetres + (opening.Bottom?.Millimetres ?? 0)
            );
            if (opening.Wall is { } letter)
            {
                var wall = wallOf(letter);
                if (width > wall.Long || top > wall.High)
                    throw TooLarge(opening, $"wall {wall.Letter}", wall.Long, wall.High, system);
                if (
                    openings.Where(o => o.Wall == letter).Sum(o => o.Count * o.Width.Millimetres * o.Height.Millimetres)
                    > wall.Long * wall.High
                )
                    throw Wrong($"The openings on wall {letter} are together larger than the wall.");
            }
            else if (!walls.Any(w => width <= w.Long && top <= w.High))
            {
                var largest = walls.MaxBy(w => w.Long * w.High);
                throw TooLarge(opening, "the largest wall", largest.Long, largest.High, system);
            }
        }
    }

    private static RefusedException TooLarge(
        Opening opening,
        string wall,
        decimal length,
        decimal height,
        UnitSystem system
    )
    {
        string Say(decimal mm) => new Length(mm, Unit.Millimetre, "").Read(system);
        return Wrong(
            $"The {opening.Words} {opening.Width.Read(system)} × {opening.Height.Read(system)} is larger than {wall}, {Say(length)} × {Say(height)}."
        );
    }

    private static void Edge(Outline outline, UnitSystem system, Func<Outline, string?> print, bool walls)
    {
        switch (outline)
        {
            case Rectangle box:
                Size(box.Long, "length");
                Size(box.Wide, "width");
                return;
            case Walls { Runs.Length: < 3 } or Corners { Points.Length: < 3 }:
                throw Wrong("An outline has at least three corners.");
            case Walls { Runs.Length: > MostCorners } or Corners { Points.Length: > MostCorners }:
                throw Wrong($"An outline has at most {MostCorners} corners.");
            case Walls run:
                foreach (var (wall, i) in run.Runs.Select((r, i) => (r, i)))
                {
                    Size(wall.Long, $"length of wall {Outline.Letter(i)}");
                    if (decimal.Abs(wall.Turn) >= 180)
                        throw Wrong("A turn is below 180 degrees.");
                }
                ClosingGap.Check(run, system, print);
                break;
        }
        var corners = outline.Millimetres;
        if (Polygon.Crossing(corners) is { } crossing)
            throw Wrong(
                $"{(walls ? "The walls cross or touch" : "The edge crosses or touches itself")}: {Outline.Letter(crossing.A)} and {Outline.Letter(crossing.B)}."
            );
        if (decimal.Abs(Polygon.Twice(corners)) < 1)
            throw Wrong("The outline has no area.");
    }

    private static void OnOnePlane(ImmutableArray<(decimal X, decimal Y)> corners, decimal[] heights, UnitSystem system)
    {
        var plane = Polygon.Plane(corners, heights);
        for (var i = 3; i < corners.Length; i++)
        {
            var there = plane(corners[i]);
            if (decimal.Abs(there - heights[i]) <= TapeStep)
                continue;
            throw Wrong(
                $"These heights are not in one plane: with the first three the fourth corner{(i > 3 ? $" (here the {i + 1}th)" : "")} would be {new Length(there, Unit.Millimetre, "").Read(system)} high."
            );
        }
    }

    /// <summary>Lengths of an outline's sides in mm: as typed where they were.</summary>
    internal static decimal[] SideLengths(Outline outline) =>
        outline is Walls walls ? [.. walls.Runs.Select(r => r.Long.Millimetres)] : Polygon.Sides(outline.Millimetres);

    private static decimal AreaOf(Opening opening) =>
        opening.Count * opening.Width.Millimetres * opening.Height.Millimetres;

    private static void Part(FacePart part, string name)
    {
        Size(part.Wide, name + " width");
        Size(part.High, name == "gable" ? "rise of the gable" : name + " height");
        if (part.Count is < 1 or > TapeLine.MostCount)
            throw Wrong($"A count is 1 to {TapeLine.MostCount}.");
    }

    private static void Size(Length length, string name)
    {
        if (length.Value <= 0)
            throw Wrong($"The {name} must be more than zero.");
    }

    private static RefusedException NoWall(string wall, Outline outline) =>
        Wrong($"There is no wall {wall}: they go from A to {Outline.Letter(outline.Sides - 1)}.");

    private static RefusedException Wrong(string message) => RefusedException.Of("line", message);
}
