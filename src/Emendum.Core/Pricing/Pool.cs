using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>What is priced together: all sections on the job's basis, or one section on its own.</summary>
/// <param name="Section">The section; null for the job's own build-up.</param>
/// <param name="Terms">How it is priced.</param>
/// <param name="Lines">Positions of its lines.</param>
/// <param name="Costs">What it costs, by class, not rounded.</param>
/// <param name="Hours">Hours by role.</param>
internal sealed record Pool(
    Section? Section,
    PricingTerms Terms,
    int[] Lines,
    ByClass<Val> Costs,
    ImmutableArray<(RoleCost Role, Val Hours)> Hours
)
{
    /// <summary>How its price is made.</summary>
    public Basis Basis => Basis.Of(Terms.Basis);

    /// <summary>How its lines are weighed: as its price is made, or as pieces of a fixed price are.</summary>
    public Basis Weighing => Basis.Of(Terms.Basis == PriceBasis.Fixed ? Terms.UsualBasis : Terms.Basis);

    /// <summary>The build-ups of a job, its own first.</summary>
    public static ImmutableArray<Pool> Of(PriceDraft draft)
    {
        var (job, costs, trace) = (draft.Reckoned.Job, draft.Costs, draft.Trace);
        var lines = draft.Reckoned.Lines;
        var all = costs.ByClass(draft.Rules);
        ImmutableArray<(RoleCost, Val)> hours = [.. costs.Roles.Select(r => (r, r.Hours.Value))];
        var own = job.Sections.Any(s => s.Pricing is not null)
            ? Enumerable
                .Range(0, lines.Length)
                .ToLookup(n => job.Section(lines[n].OfItem.Item.Section) is { Pricing: not null } s ? s.Id : Guid.Empty)
            : null;
        if (own is null || own.All(o => o.Key == Guid.Empty))
            return [new(null, job.Pricing, [.. Enumerable.Range(0, lines.Length)], all, hours)];
        var byRole = job.Sections.Any(s => s.Pricing?.Basis == PriceBasis.SellRate) ? HoursByRole(draft) : null;
        var sections = job
            .Sections.Where(s => s.Pricing is not null && own.Contains(s.Id))
            .Select(section =>
            {
                int[] at = [.. own[section.Id]];
                return new Pool(
                    section,
                    job.Pricing.For(section.Pricing!),
                    at,
                    new(of => Sum.Of(at.Select(n => draft.LineCosts.Lines[n][of]))),
                    [.. costs.Roles.Select((r, i) => (r, byRole is null ? 0m : Sum.Of(at.Select(n => byRole[i][n]))))]
                );
            })
            .ToArray();
        // What no line bears, as the way to the site, is the job's own.
        byRole ??= job.Pricing.Basis == PriceBasis.SellRate ? HoursByRole(draft) : null;
        return
        [
            new(
                null,
                job.Pricing,
                [.. own[Guid.Empty]],
                new(of => OfOwn(of, own[Guid.Empty].Any(), all[of], sections)),
                byRole is null
                    ? hours
                    :
                    [
                        .. costs.Roles.Select(
                            (r, i) => (r, r.Hours - Sum.Of(sections.SelectMany(s => s.Lines).Select(n => byRole[i][n])))
                        ),
                    ]
            ),
            .. sections,
        ];
    }

    /// <summary>What the job's own build-up costs of a class: what the sections leave. Without lines of its own that is only what no line bears, as the way to the site: what goods leave then is the rest
    /// of packs that are not whole in a currency without cents, and no cost.</summary>
    private static Val OfOwn(CostClass of, bool hasLines, Val all, IEnumerable<Pool> sections) =>
        hasLines || of is CostClass.Labour or CostClass.Fixed ? all - Sum.Of(sections.Select(s => s.Costs[of])) : 0m;

    /// <summary>Hours of each role, in the order of the costs, by line.</summary>
    private static Val[][] HoursByRole(PriceDraft draft) =>
        [
            .. draft.Costs.Roles.Select(role =>
                LineCosts
                    .Of(draft.Reckoned, draft.Rules.WithHours(r => ReferenceEquals(r, role) ? 1m : 0m), draft.Trace)
                    .Lines.Select(line => line[CostClass.Labour])
                    .ToArray()
            ),
        ];

    /// <summary>An amount that stands in its build-up.</summary>
    public Total Money(PriceDraft draft, Val value, string label, string leaf) =>
        Section is null
            ? draft.Money(value, label, leaf)
            : draft.Trace.Total(
                value.Money(draft.Places),
                "",
                draft.Trace.On ? $"{Section.Name}: {label}" : "",
                new("sections", Section.Id, "built/" + leaf)
            );

    /// <summary>What each line counts for when the price is shared, by class, and what of its goods is free of tax.</summary>
    public PoolWeights Weights(PriceDraft draft) => weights ??= Weighed(draft);

    private PoolWeights? weights;

    private PoolWeights Weighed(PriceDraft draft)
    {
        var weighing = Weighing;
        var costs =
            weighing is SellRateBasis
                ? LineCosts.Of(
                    draft.Reckoned,
                    draft.Rules.WithHours(r =>
                        Hours.Any(h => ReferenceEquals(h.Role, r) && h.Hours.V != 0)
                            ? SellRateBasis.RateOf(r, Terms, draft.Trace)
                            : 0m
                    ),
                    draft.Trace
                )
                : draft.LineCosts;
        return new(
            Array.ConvertAll(
                Lines,
                n => new ByClass<Val>(of =>
                    costs.Lines[n][of] is { V: not 0 } cost ? weighing.Weight(cost, of, Terms, draft.Trace) : 0m
                )
            ),
            Array.ConvertAll(
                Lines,
                n => costs.Free[n].V == 0 ? 0m : weighing.Weight(costs.Free[n], CostClass.Material, Terms, draft.Trace)
            )
        );
    }
}

/// <summary>What lines of a build-up count for when its price is shared, by class, and what of their goods is free of tax.</summary>
internal sealed record PoolWeights(ByClass<Val>[] By, Val[] Free);
