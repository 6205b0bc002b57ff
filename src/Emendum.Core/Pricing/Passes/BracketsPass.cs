using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Pricing;

/// <summary>One percent on the whole built price, by how large the job is. Lower edges are inclusive; fixed prices and allowances are left alone.</summary>
internal static class BracketsPass
{
    public static PriceDraft Of(PriceDraft draft)
    {
        if (draft.Terms.Brackets is not { } brackets)
            return draft;
        static bool On(Portion p) => p.Of is PortionKind.Built or PortionKind.Own;
        var built = PriceDraft.Sum(draft.Portions.Where(On));
        var (size, unit) = Size(draft, brackets, built);
        var reached = Rounding.ForCompare(size.V);
        var at = brackets.Rows.LastOrDefault(r => r.From <= reached);
        if (built.V == 0 || (at is null && !draft.Trace.Follows))
            return draft;
        at ??= new(0, 0);
        var percent = new Val(at.Percent, draft.Trace.On ? How(brackets, size, unit) : null);
        var more = built * percent / 100m;
        var capped = false;
        if (brackets.NeverMoreThanNext)
            draft.Trace.AssumeRow(size, brackets.Rows.Select(r => r.From), at.From, "Another bracket is reached.");
        if (brackets.NeverMoreThanNext && brackets.Rows.FirstOrDefault(r => r.From > reached) is { } next && size.V > 0)
        {
            Val Row(decimal value, string what) =>
                draft.Trace.Term(value, what == "%" ? "%" : unit, "the next row", "brackets");
            var there = built * Row(next.From, "") / size * (100m + Row(next.Percent, "%")) / 100m - built;
            capped = there.V < more.V;
            more = Val.Min(more, there);
        }
        return draft.Spread(
            "brackets",
            "Brackets",
            $"{PriceDraft.Percent(at.Percent)} from {Rounding.Text(at.From)}{(unit.Length > 0 ? " " + unit : "")}"
                + (capped ? ", no more than the next row" : ""),
            draft.Money(more, "Brackets", "brackets"),
            On
        );
    }

    private static Table How(Brackets brackets, Val size, string unit) =>
        new(
            size.HowOrConstant,
            [
                .. brackets.Rows[0].From > 0 ? [new TableRow(0, 0)] : Array.Empty<TableRow>(),
                .. brackets.Rows.Select(r => new TableRow(r.From, r.Percent)),
            ],
            "%",
            "brackets by " + (unit.Length > 0 ? unit : "price"),
            "pricing/brackets"
        );

    private static (Val Size, string Unit) Size(PriceDraft draft, Brackets brackets, Val built)
    {
        switch (brackets.By)
        {
            case BracketBy.Hours:
                return (draft.Costs.Hours, "h");
            case BracketBy.Quantity:
                var (job, measure) = (draft.Reckoned.Job, brackets.Measure!.Value);
                var worked = draft.Reckoned.Lines.Where(l => l.IsSold).Select(l => l.Measures.Place.Id).ToHashSet();
                var sum = draft.Reckoned.Sum(measure, job.Places.Where(p => worked.Contains(p.Id)), draft.Trace);
                var size = draft.Trace.Make(
                    draft.Trace.Convert(sum, measure.UnitIn(job.Units), brackets.Unit!),
                    brackets.Unit!.Symbol,
                    draft.Trace.On ? $"{measure.Label(job.Units)} of places where something is done" : "",
                    new("price", "brackets/size")
                );
                return (size, brackets.Unit.Kind == Kind.Count ? "" : brackets.Unit.Symbol);
            default:
                return (built, "");
        }
    }
}
