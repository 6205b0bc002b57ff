using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Least charges: of a line at each of its ×n places, of a line, of a work item, of a section, of the job, each on raised amounts. None on work that is not ours or is nothing,
/// nor inside a fixed price; allowances stand outside.</summary>
internal static class LeastPass
{
    public static PriceDraft Of(PriceDraft draft) => OfJob(OfLines(draft));

    private static decimal Of(WorkItem item, WorkEntry entry) =>
        decimal.Max(item.Least ?? 0, (entry as PriceOnlyItem)?.Minimum ?? 0);

    private static PriceDraft OfLines(PriceDraft draft)
    {
        var (terms, job) = (draft.Terms, draft.Reckoned.Job);
        var items = draft.Reckoned.Items.Where(i => Of(i.Item, i.Entry) > 0).ToArray();
        var sections = job.Sections.Where(s => s.Least > 0).ToArray();
        if (terms is { LeastPlace: 0, LeastLine: 0 } && items.Length == 0 && sections.Length == 0)
            return draft;
        var raised = new RaisedLines(draft);
        if (terms.LeastPlace > 0 || terms.LeastLine > 0)
            foreach (var n in raised.Lines)
            {
                var line = draft.Reckoned.Lines[n];
                var (name, place) = ($"{line.OfItem.Item.Name}, {line.Measures.Place.Name}", line.Measures.Place);
                if (terms.LeastPlace > 0)
                {
                    var least = draft.Trace.Term(
                        terms.LeastPlace,
                        "",
                        "least charge of a line at a place",
                        "leastPlace"
                    );
                    if (place.Count != 1)
                        least *= draft.Trace.Typed(place.Count, "", "equal places", null, "places", place.Id);
                    raised.Raise([n], least, name, new("least", line.OfItem.Item.Id, place.Id, "place"));
                }
                if (terms.LeastLine > 0)
                    raised.Raise(
                        [n],
                        draft.Trace.Term(terms.LeastLine, "", "least charge of a line", "leastLine"),
                        name,
                        new("least", line.OfItem.Item.Id, place.Id, "line")
                    );
            }
        foreach (var item in items)
            raised.Raise(
                [.. raised.Lines.Where(n => ReferenceEquals(draft.Reckoned.Lines[n].OfItem, item))],
                item.Item.Least >= Of(item.Item, item.Entry)
                    ? draft.Trace.Typed(item.Item.Least.Value, "", "least charge", null, "work", item.Item.Id)
                    : draft.Trace.Book(Of(item.Item, item.Entry), "", "least price", item.Entry.Id),
                item.Item.Name,
                new("least", item.Item.Id, "item")
            );
        foreach (var section in sections)
            raised.Raise(
                [.. raised.Lines.Where(n => draft.Reckoned.Lines[n].OfItem.Item.Section == section.Id)],
                draft.Trace.Typed(
                    section.Least!.Value,
                    "",
                    "least charge of the section",
                    null,
                    "sections",
                    section.Id
                ),
                section.Name,
                new("least", section.Id, "section")
            );
        return raised.Raised();
    }

    private static PriceDraft OfJob(PriceDraft draft)
    {
        var terms = draft.Terms;
        var so = draft.LessAllowances;
        if (
            terms.LeastJob == 0
            || (so.V >= terms.LeastJob && !draft.Trace.Follows)
            || terms.Basis == PriceBasis.Fixed
            || !Array.Exists(draft.Reckoned.Lines, l => l.IsSold && l.Quantity.V != 0)
        )
            return draft;
        var least = draft.Trace.Term(terms.LeastJob, "", "least charge of the job", "leastJob");
        var by = draft.Money(
            draft.Trace.Follows ? Val.Max(least - so, 0m) : least - so,
            "Least charge of the job",
            "leastJob"
        );
        var raised = draft.Spread(
            "leastJob",
            "Least charge of the job",
            $"{draft.Words(so.V)} under {draft.Words(terms.LeastJob)}",
            by
        );
        return by.V == 0 ? raised : raised with { Shortfalls = draft.Shortfalls.Add(new("the job", so, least, by)) };
    }

    /// <summary>Prices of lines, in the smallest unit of the currency, while they are raised.</summary>
    private sealed class RaisedLines
    {
        private readonly PriceDraft draft;
        private readonly (int Portion, LineWeights Lines)[] parts;
        private readonly SortedDictionary<int, List<(int Part, int At)>> of = [];
        private readonly List<Shortfall> shortfalls = [];
        private readonly Dictionary<int, Sum> added = [];

        public RaisedLines(PriceDraft draft)
        {
            this.draft = draft;
            var list = new List<(int, LineWeights)>();
            for (var p = 0; p < draft.Portions.Length; p++)
            {
                var portion = draft.Portions[p];
                if (portion.Of is not (PortionKind.Built or PortionKind.Own))
                    continue;
                var lines = LinePrices.WeightsOf(draft, portion);
                var shares = LinePrices.Share(draft, portion, lines, "before least charges");
                for (var i = 0; i < lines.At.Length; i++)
                {
                    var line = draft.Reckoned.Lines[lines.At[i]];
                    if (!line.IsSold || line.Quantity.V == 0)
                        continue;
                    if (!of.TryGetValue(lines.At[i], out var at))
                        of.Add(lines.At[i], at = []);
                    at.Add((list.Count, i));
                }
                list.Add((p, new(lines.At, shares)));
            }
            parts = [.. list];
        }

        /// <summary>Lines that can be raised.</summary>
        public IEnumerable<int> Lines => of.Keys;

        /// <summary>Raises lines together to a least charge; what that adds stays in the tax categories of what it raises.</summary>
        public void Raise(int[] lines, Val least, string name, FigurePath path)
        {
            var at = lines.SelectMany(n => of[n]).ToArray();
            if (at.Length == 0)
                return;
            Val[] was = [.. at.Select(a => parts[a.Part].Lines.Weights[a.At])];
            var sum = Sum.Of(was);
            var stands = sum.V >= least.V;
            draft.Trace.Assume(
                sum,
                stands ? Relation.AtLeast : Relation.Below,
                least,
                $"{name}: its least charge {(stands ? "counts now" : "counts no more")}."
            );
            if (stands)
                return;
            var by = draft.Trace.Total(
                (least - sum).Money(draft.Places),
                "",
                draft.Trace.On ? name + ": up to the least charge" : "",
                path
            );
            shortfalls.Add(new(name, sum, least, by));
            var shares =
                at.Length == 1
                    ? [by.Value]
                    : Shares.Of(
                        by,
                        was,
                        draft.Trace.On ? $"price before it was raised ({path})" : "",
                        draft.Places,
                        draft.Trace
                    );
            for (var i = 0; i < at.Length; i++)
            {
                parts[at[i].Part].Lines.Weights[at[i].At] = was[i] + shares[i];
                if (!added.TryGetValue(at[i].Part, out var more))
                    added.Add(at[i].Part, more = new());
                more.Add(shares[i]);
            }
        }

        /// <summary>The draft with what was raised.</summary>
        public PriceDraft Raised()
        {
            if (shortfalls.Count == 0)
                return draft;
            var amount = draft.Money(Sum.Of(shortfalls.Select(s => s.By.Value)), "Least charges", "least");
            var (portions, steps) = (draft.Portions.ToBuilder(), ImmutableArray.CreateBuilder<StepPart>());
            foreach (var (part, more) in added.OrderBy(a => a.Key))
            {
                var (p, lines) = parts[part];
                portions[p] = portions[p] with { Amount = portions[p].Amount + more.Total, Lines = lines };
                steps.Add(new(portions[p].Of, portions[p].Section, portions[p].Tax, more.Total));
            }
            var one = shortfalls[0];
            return draft with
            {
                Portions = portions.ToImmutable(),
                Steps = draft.Steps.Add(
                    new(
                        "least",
                        "Least charges",
                        shortfalls.Count == 1
                            ? $"{one.What}, {draft.Words(one.Was.V)} under {draft.Words(one.Least.V)}"
                            : $"{shortfalls.Count} raised",
                        StepKind.Added,
                        amount,
                        steps.ToImmutable()
                    )
                ),
                So = draft.So + amount,
                Shortfalls = [.. shortfalls],
            };
        }
    }
}
