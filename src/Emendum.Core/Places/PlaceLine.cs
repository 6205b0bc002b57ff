using System.Text;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Writes a place as a tape line that reads back to the same place.</summary>
public static class PlaceLine
{
    /// <summary>The line of a place as it stands; <paramref name="nameOf"/> gives the name of a place an opening leads into. Without a system every length
    /// carries its unit, so that the line reads the same in any job.</summary>
    public static string Print(Place place, UnitSystem? system, Func<Guid, string?> nameOf) =>
        Print(
            new TapeReading(
                place.Name,
                place.Count,
                place.Shape,
                place.Openings,
                [.. place.Openings.Select(o => o.Into is { } id ? nameOf(id) : null)]
            ),
            system
        );

    /// <summary>The line of a reading. Lengths stay as typed where that says the same under <paramref name="system"/>, otherwise they get their unit.</summary>
    public static string Print(TapeReading reading, UnitSystem? system)
    {
        var pen = new Pen(system);
        var size = pen.Size(reading.Shape);
        var count =
            reading.Count == 1 ? ""
            : reading.Shape is Room ? $" x{reading.Count}"
            : $"; x{reading.Count}";
        var parts = pen.Parts(reading);
        if (reading.Shape is ItemSet { TakesOpenings: true })
            return $"{reading.Name}: {parts}{count}";
        var plain = $"{reading.Name} {size}{count}{parts}";
        return SameName(plain, reading, system) ? plain : $"{reading.Name}: {size}{count}{parts}";
    }

    private static bool SameName(string line, TapeReading reading, UnitSystem? system)
    {
        // Only the head tells name from size; the openings' limits are checked elsewhere.
        var head = line.IndexOf(';') is var end and >= 0 ? line[..end] : line;
        return TapeLine.Read(head, system ?? UnitSystem.Metres) is { Reading: { } read }
            && read.Name == reading.Name
            && read.Shape.Kind == reading.Shape.Kind;
    }

    private sealed class Pen(UnitSystem? system)
    {
        public string Size(Shape shape) =>
            shape switch
            {
                Room { Slope.IsEmpty: false } room =>
                    $"{Edge(room.Outline)} slope {string.Join(", ", room.Slope.Select(s => L(s)))}",
                Room room => $"{Edge(room.Outline)} x {L(room.High!)}",
                Elevation face => "face " + string.Join(" + ", face.Faces.Select(Part)),
                Site site => "site "
                    + (site.Outline is { } outline ? Edge(outline, true) : Quantity(site.Area!))
                    + (site.Around is { } around ? $" around {L(around)}" : "")
                    + (site.Depth is { } depth ? $" deep {L(depth)}" : ""),
                Run run => $"run {L(run.Long)}"
                    + (run.Across is { } across ? $" {(run.IsGirth ? "girth" : "wide")} {L(across)}" : ""),
                Stair stair => $"stair {stair.Risers} rise {L(stair.Rise)} going {L(stair.Going)} wide {L(stair.Width)}"
                    + (stair.Treads == stair.Risers - 1 && stair.Risers > 1 ? "" : $" treads {stair.Treads}"),
                ItemSet { TakesOpenings: true } => "",
                ItemSet items => "items " + string.Join(", ", items.Items.Select(i => $"{i.Count} {i.Name}")),
                _ => TapeDraft.NotMeasured,
            };

        public string Parts(TapeReading reading)
        {
            var line = new StringBuilder();
            void Add(string part) => line.Append("; ").Append(part);
            switch (reading.Shape)
            {
                case Room room:
                    foreach (var wall in room.WallHeights)
                        Add($"wall {wall.Wall} {L(wall.High)}");
                    foreach (var band in room.Bands)
                        Add($"band {band.Name} to {L(band.Top)}");
                    foreach (var island in room.Islands)
                        Add(Island(island));
                    break;
                case Elevation face:
                    foreach (var gable in face.Gables)
                        Add("gable " + Part(gable));
                    if (face.Eaves is { } eaves)
                        Add("eaves " + L(eaves));
                    break;
                case Site site:
                    foreach (var island in site.Islands)
                        Add(Island(island));
                    break;
                case Stair stair:
                    foreach (var landing in stair.Landings)
                        Add("landing " + Part(landing));
                    break;
            }
            for (var i = 0; i < reading.Openings.Length; i++)
                Add(Opening(reading.Openings[i], reading.Into[i]));
            // Windows without their room begin with one.
            return reading.Shape is ItemSet { TakesOpenings: true } ? line.ToString()[2..] : line.ToString();
        }

        private string Opening(Opening o, string? into) =>
            $"{o.Words} {L(o.Width)} x {L(o.Height)}{Times(o.Count)}{(o.Depth is { } d ? $" deep {L(d)}" : "")}{(o.Sill ? " sill" : "")}{(o.Glazed ? " glazed" : "")}{(o.Bottom is { } b ? $" at {L(b)}" : "")}{(o.Wall is { } w ? $" on {w}" : "")}"
            + (
                o.ReachesFloor == (o.Kind != OpeningKind.Window) ? ""
                : o.ReachesFloor ? " floor"
                : " raised"
            )
            + (into is null ? "" : $" into {into}");

        private string Island(Island island) =>
            $"island {Edge(island.Outline)}{Times(island.Count)}{(island.At is { } at ? $" at {Closed(at.X)},{Closed(at.Y)}" : "")}";

        private string Edge(Outline outline, bool noSums = false) =>
            outline switch
            {
                Rectangle box => $"{L(box.Long, noSums)} x {L(box.Wide, noSums)}",
                Corners corners => "corners "
                    + string.Join(' ', corners.Points.Select(p => $"{Closed(p.X)},{Closed(p.Y)}")),
                Walls walls => "walls "
                    + string.Join(
                        ' ',
                        walls.Runs.Select((r, i) => Closed(r.Long) + (r.Turn == 0 ? "" : " " + Turn(r.Turn)))
                    ),
                _ => throw new InvalidOperationException(outline.GetType().Name),
            };

        private static string Turn(decimal turn) =>
            (turn > 0 ? "r" : "l") + (decimal.Abs(turn) == 90 ? "" : Rounding.Text(decimal.Abs(turn)) + "°");

        private string Part(FacePart part) => $"{L(part.Wide, true)} x {L(part.High, true)}{Times(part.Count)}";

        private static string Times(int count) => count == 1 ? "" : $" x{count}";

        private string Quantity(TypedQuantity typed) => typed.Units == system ? typed.Text : Exact(typed);

        /// <summary>A length; where sums would be read otherwise they get brackets.</summary>
        private string L(Length length, bool noSums = false)
        {
            if (!SaysTheSame(length))
                return length.Exact();
            return noSums && !ReadsWithoutSums(length.Typed) ? $"({length.Typed})" : length.Typed;
        }

        private static bool ReadsWithoutSums(string text)
        {
            try
            {
                var tape = new TapeScanner(text, 0, text.Length, UnitSystem.Feet);
                tape.Dimension("", sums: false);
                tape.End("");
                return true;
            }
            catch (RefusedException)
            {
                return false;
            }
        }

        /// <summary>A length that another number may follow after a blank.</summary>
        private string Closed(Length length)
        {
            var text =
                length.Value > 0 && SaysTheSame(length) && length.Typed.AsSpan().IndexOfAny("+-*( ") < 0
                    ? length.Typed
                    : length.Exact();
            return text.EndsWith('\'') ? text + "0\""
                : char.IsLetter(text[^1]) && text.EndsWith("ft", StringComparison.OrdinalIgnoreCase) ? text + " 0in"
                : text;
        }

        private bool SaysTheSame(Length length) =>
            system is { } only
                ? SaysTheSame(length, only)
                : SaysTheSame(length, UnitSystem.Feet) && SaysTheSame(length, UnitSystem.Metres);

        private static bool SaysTheSame(Length length, UnitSystem system)
        {
            if (length.Typed.Length == 0 || length.Value <= 0)
                return false;
            try
            {
                var tape = new TapeScanner(length.Typed, 0, length.Typed.Length, system);
                var read = tape.Dimension("length");
                tape.End("");
                return read.Value == length.Value && read.Unit == length.Unit;
            }
            catch (RefusedException)
            {
                return false;
            }
        }

        /// <summary>An area with its unit, for a job that has changed its units; one that has no short decimal stays an expression of lengths.</summary>
        private static string Exact(TypedQuantity typed)
        {
            var (value, unit) = TypedQuantities.Read(typed);
            var inFeet = unit == Unit.Inch;
            var size = value / (inFeet ? 144m : 1_000_000m);
            if (Rounding.ReadInput(Rounding.Text(size)) is not null)
                return $"{Rounding.Text(size)} {(inFeet ? "ft2" : "m2")}";
            if (Rounding.ReadInput(Rounding.Text(value)) is not null)
                return $"{Rounding.Text(value)}{(inFeet ? "\" x 1\"" : " mm x 1 mm")}";
            throw RefusedException.Of(
                "units",
                $"The area “{typed.Text}” has no exact form in other units: type it with its unit first."
            );
        }
    }
}
