using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Says a reading in plain words, so that a slip shows before it is kept.</summary>
public static class TapeWords
{
    /// <summary>The reading in parts; parts at odd places are to be stressed.</summary>
    public static IReadOnlyList<string> ReadBack(this TapeReading reading, UnitSystem system)
    {
        string L(Length length) => length.Read(system);
        var parts = new List<string> { "" };
        void Stress(string text)
        {
            parts.Add(text);
            parts.Add("");
        }
        void Say(string text) => parts[^1] += text;
        string One(string one, string many) => reading.Count == 1 ? one : $"{reading.Count} equal {many}";

        switch (reading.Shape)
        {
            case Room room:
                Stress(One("a room", "rooms"));
                Say(
                    room.Outline is Rectangle box
                        ? $" {L(box.Long)} by {L(box.Wide)}"
                        : $" of {room.Outline.Sides} walls"
                );
                Say(
                    room.High is { } high
                        ? $", {L(high)} high"
                        : $" under a slope from {L(room.Slope.MinBy(s => s.Millimetres)!)} to {L(room.Slope.MaxBy(s => s.Millimetres)!)}"
                );
                foreach (var wall in room.WallHeights)
                    Say($", wall {wall.Wall} {L(wall.High)}");
                for (var i = 0; i < room.Bands.Length; i++)
                    Say($", {room.Bands[i].Name} {(i == 0 ? "up to" : "from there to")} {L(room.Bands[i].Top)}");
                foreach (var island in room.Islands)
                    Say(
                        $", round {(island.Count == 1 ? "an island" : $"{island.Count} islands")} {Edge(island.Outline, system)}"
                    );
                break;
            case Elevation face:
                Stress(One("an outside face", "outside faces"));
                Say(
                    " of " + string.Join(" and ", face.Faces.Select(f => $"{Times(f.Count)}{L(f.Wide)} × {L(f.High)}"))
                );
                foreach (var gable in face.Gables)
                    Say(
                        $", {(gable.Count == 1 ? "a gable" : $"{gable.Count} gables")} {L(gable.Wide)} wide rising {L(gable.High)}"
                    );
                if (face.Eaves is { } eaves)
                    Say($", eaves {L(eaves)}");
                break;
            case Site site:
                Stress(One("a site", "sites"));
                Say(
                    site.Outline is { } outline
                        ? $" {Edge(outline, system)}"
                        : $" of {Rounding.Text(decimal.Round(TypedQuantities.In(site.Area!, system.For(Kind.Area)), 2))} {system.For(Kind.Area)}"
                );
                if (site.Around is { } around)
                    Say($", {L(around)} around");
                if (site.Depth is { } depth)
                    Say($", {L(depth)} deep");
                foreach (var island in site.Islands)
                    Say(
                        $", less {(island.Count == 1 ? "an island" : $"{island.Count} islands")} {Edge(island.Outline, system)}"
                    );
                break;
            case Run run:
                Stress(One("a run", "runs"));
                Say(
                    $" of {L(run.Long)}"
                        + (run.Across is { } across ? $", {L(across)} {(run.IsGirth ? "round" : "wide")}" : "")
                );
                break;
            case Stair stair:
                Stress(One("a stair", "stairs"));
                Say(
                    $" of {stair.Risers} risers of {L(stair.Rise)} and {stair.Treads} treads of {L(stair.Going)}, {L(stair.Width)} wide"
                );
                foreach (var landing in stair.Landings)
                    Say(
                        $", {(landing.Count == 1 ? "a landing" : $"{landing.Count} landings")} {L(landing.Wide)} × {L(landing.High)}"
                    );
                break;
            case ItemSet { TakesOpenings: true }:
                Stress(One("a set", "sets"));
                Say(" of openings without their room");
                break;
            case ItemSet items:
                Stress(One("a count", "sets"));
                Say(" of " + string.Join(", ", items.Items.Select(i => $"{i.Count} {i.Name}")));
                break;
            default:
                Stress("a place");
                Say(" that is still to be measured");
                break;
        }
        for (var i = 0; i < reading.Openings.Length; i++)
        {
            var o = reading.Openings[i];
            Say(
                i == 0 ? ", with "
                : i == reading.Openings.Length - 1 ? " and "
                : ", "
            );
            Stress($"{o.Count} {o.Words}{(o.Count == 1 ? "" : "s")}");
            Say(
                $" {L(o.Width)} × {L(o.Height)}{(o.Depth is { } d ? $", {L(d)} deep" : "")}{(o.Glazed ? ", glazed" : "")}{(o.Sill ? ", with a sill" : "")}{(o.Bottom is { } b ? $", {L(b)} up" : "")}{(o.Wall is { } w ? $", on wall {w}" : "")}"
            );
            if (o.ReachesFloor != (o.Kind != OpeningKind.Window))
                Say(o.ReachesFloor ? ", down to the floor" : ", not down to the floor");
            if (reading.Into[i] is { } into)
                Say($", into {into}");
        }
        if (parts[^1].Length == 0)
            parts.RemoveAt(parts.Count - 1);
        return parts;
    }

    /// <summary>A place's size in a few words, for lists.</summary>
    public static string InShort(Place place, UnitSystem system)
    {
        string L(Length length) => length.Read(system);
        return place.Shape switch
        {
            Room { Outline: Rectangle box } room =>
                $"{L(box.Long)} × {L(box.Wide)} × {(room.High is { } high ? L(high) : "sloped")}",
            Room room => $"{room.Outline.Sides} walls × {(room.High is { } high ? L(high) : "sloped")}",
            Elevation { Gables.IsEmpty: true } face => string.Join(
                " + ",
                face.Faces.Take(2).Select(f => $"{Times(f.Count)}{L(f.Wide)} × {L(f.High)}")
            ),
            Elevation face =>
                $"{L(face.Faces[0].Wide)} × {L(face.Faces[0].High)}, {face.Gables.Sum(g => g.Count)} {(face.Gables.Sum(g => g.Count) == 1 ? "gable" : "gables")}",
            Site site => (site.Outline is { } outline ? Edge(outline, system) : site.Area!.Text)
                + (site.Depth is { } depth ? $", {L(depth)} deep" : ""),
            Run run => run.Across is { } across ? $"{L(across)} {(run.IsGirth ? "round" : "wide")}" : "run",
            Stair stair => $"{stair.Risers} risers, {L(stair.Width)} wide",
            ItemSet { TakesOpenings: true } => string.Join(
                ", ",
                place.Openings.Take(2).Select(o => $"{Times(o.Count)}{L(o.Width)} × {L(o.Height)}")
            ),
            ItemSet items => string.Join(", ", items.Items.Take(3).Select(i => i.Name)),
            _ => "to be measured",
        };
    }

    private static string Times(int count) => count == 1 ? "" : $"{count} of ";

    private static string Edge(Outline outline, UnitSystem system) =>
        outline is Rectangle box ? $"{box.Long.Read(system)} by {box.Wide.Read(system)}" : $"of {outline.Sides} sides";
}
