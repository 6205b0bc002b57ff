using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Measures a set of counted things, or of windows and doors without their room (estimating model §2).</summary>
internal static class ItemMeasures
{
    /// <summary>Makes all its measures.</summary>
    public static void Of(Measuring tape, ItemSet items)
    {
        if (items.TakesOpenings)
        {
            var openings = OpeningMeasures.Of(tape, tape.Place.Openings, []);
            openings.MakeAreas(tape);
            openings.MakeCounts(tape);
            tape.Make(Measure.Count, openings.All);
            return;
        }
        var all = new Sum();
        for (var i = 0; i < items.Items.Length; i++)
        {
            var count = tape.Typed(items.Items[i].Count, items.Items[i].Name);
            all.Add(count);
            tape.Extra($"items/{i + 1}", items.Items[i].Name, Kind.Count, count);
        }
        tape.Make(Measure.Count, all.Total);
    }
}
