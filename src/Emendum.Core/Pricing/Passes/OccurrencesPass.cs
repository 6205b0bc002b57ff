using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>Prices every occurrence of a round by itself; then each that comes back, as often as the year has it, is a step, and so is what is done once.</summary>
internal static class OccurrencesPass
{
    /// <summary>Start of the steps' keys.</summary>
    public const string Key = "occurrences/";

    /// <summary>What is done once.</summary>
    public const string Once = "once";

    public static PriceDraft Of(PriceDraft draft)
    {
        var (job, trace) = (draft.Reckoned.Job, draft.Trace);
        draft = draft with
        {
            Categories = new(job.Pricing),
            // What runs once for each occurrence does not run again for the year.
            Terms = job.Pricing with
            {
                Discounts = [.. job.Pricing.Discounts.Where(d => d.Percent is null)],
                LeastJob = 0,
            },
        };
        PricedOccurrence Priced(Occurrence of)
        {
            var estimate = Estimate.Of(of.Reckoned, trace.Under(Occurrence.Within(of.Id)));
            return new(
                of,
                estimate,
                draft.Money(
                    of.InYear(estimate.Price.BeforeTax),
                    trace.On ? of.Name + ": in a year" : "",
                    of.Rhythm is null ? Once : Key + of.Id
                )
            );
        }
        ImmutableArray<PricedOccurrence> all = [.. draft.Reckoned.Occurrences.Select(Priced)];
        Val Year(Func<PriceDraft, Val> of) =>
            Sum.Of(all.Select(o => o.Occurrence.InYear(of(o.Estimate.Price.Draft))).Where(v => v.V != 0));
        draft = draft with
        {
            Occurrences = all,
            Classes = new(of =>
            {
                Total Made(Func<ClassPrice, Total> which, string label, string leaf) =>
                    draft.Money(Year(d => which(d.Classes[of])), label, leaf);
                return new(
                    of,
                    Made(c => c.Cost, of.Label(), of.Name()),
                    Made(c => c.Markup, $"Markup on {of.Label().ToLowerInvariant()}", of.Name() + "Markup"),
                    Made(c => c.Marked, $"{of.Label()} with markup", of.Name() + "Marked")
                );
            }),
            Direct = draft.Money(Year(d => d.Direct), "Direct cost", "direct"),
            OfCosts = Year(d => d.OfCosts),
            OfPriced = Year(d => d.OfPriced),
            Overheads = Year(d => d.Overheads),
            Contingency = Year(d => d.Contingency),
            Fees = Year(d => d.Fees),
            FeePercent = all[0].Estimate.Price.Draft.FeePercent,
            Shortfalls = [.. all.SelectMany(o => o.Estimate.Price.Draft.Shortfalls)],
        };
        foreach (var one in all)
            if (one.Occurrence.Rhythm is not null)
                draft = With(draft, one, Key + one.Occurrence.Id, Note(draft, one));
        return draft;
    }

    /// <summary>What is done once stands after the year.</summary>
    public static PriceDraft OfOnce(PriceDraft draft) =>
        draft.Occurrences.FirstOrDefault(o => o.Occurrence.Rhythm is null) is { } once
            ? With(draft, once, Once, "once, beside the year")
            : draft;

    private static string Note(PriceDraft draft, PricedOccurrence of) =>
        $"{Quantities.Rounding.Text(of.Occurrence.Times.V)} × {draft.Words(of.Price.V)}"
        + (of.Occurrence.Band is null ? "" : ", as many as are expected");

    private static PriceDraft With(PriceDraft draft, PricedOccurrence one, string key, string note)
    {
        ImmutableArray<Portion> portions =
        [
            .. one.Estimate.Price.Portions.Select(p => new Portion(
                p.Of,
                p.Section,
                draft.Categories.Like(p.Tax),
                one.Occurrence.InYear(p.Amount)
            )
            {
                Later = new(() => InYear(one, p)),
            }),
        ];
        return draft with
        {
            Steps = draft.Steps.Add(
                new(
                    key,
                    one.Occurrence.Name,
                    note,
                    StepKind.Added,
                    one.InYear,
                    [.. portions.Select(p => new StepPart(p.Of, p.Section, p.Tax, p.Amount))]
                )
            ),
            Portions = draft.Joined(portions),
            So = draft.So.V == 0 ? one.InYear.Value : draft.So + one.InYear,
        };
    }

    /// <summary>What a part of an occurrence's price comes to for each line in a year: by that the year's part is shared.</summary>
    private static LineWeights InYear(PricedOccurrence one, Portion portion)
    {
        var draft = one.Estimate.Price.Draft;
        var lines = LinePrices.WeightsOf(draft, portion);
        var shares = LinePrices.Share(draft, portion, lines, "of one");
        return new([.. lines.At.Select(n => one.Occurrence.LineAt[n])], [.. shares.Select(one.Occurrence.InYear)]);
    }
}
