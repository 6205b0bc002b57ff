using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;

namespace Emendum.Web.Jobs;

/// <summary>A variant beside the others; figures are null where it cannot be priced.</summary>
/// <param name="Differs">In how many things it differs from the job.</param>
/// <param name="Refused">Why it cannot be priced, or empty.</param>
public sealed record VariantView(
    Guid Id,
    string Name,
    bool Taken,
    int Differs,
    FigureView? Hours,
    FigureView? Cost,
    FigureView? BeforeTax,
    FigureView? Margin,
    FigureView? Total,
    string Refused
);

/// <summary>Variants side by side.</summary>
/// <param name="Variants">They.</param>
/// <param name="Most">How many there may be.</param>
public sealed record VariantsView(IReadOnlyList<VariantView> Variants, int Most);

/// <summary>A piece of work that is another in a variant.</summary>
public sealed record VariantWorkView(Guid Id, string Name, string What, TwoView Hours, TwoView Cost, TwoView Price);

/// <summary>A variant against the job as it stands.</summary>
/// <param name="Terms">Whether its terms differ too.</param>
/// <param name="Work">What differs, the largest difference in price first.</param>
public sealed record VariantDiffersView(
    TwoView Hours,
    TwoView Cost,
    TwoView Price,
    bool Terms,
    IReadOnlyList<VariantWorkView> Work
);

/// <summary>What is asked of a job's variants.</summary>
public static class VariantEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapVariants(this IEndpointRouteBuilder jobs)
    {
        jobs.MapGet("/{id:guid}/price/variants", (Guid id, OpenJobs open) => All(open.Get(id).Estimate));
        jobs.MapGet(
            "/{id:guid}/price/variants/{variant:guid}",
            (Guid id, Guid variant, OpenJobs open) => One(open.Get(id).Estimate, variant)
        );
    }

    /// <summary>Records what a figure of these views stands in; false where it is none of them.</summary>
    internal static bool Record(Estimate estimate, string figure, Trace trace)
    {
        switch (figure.Split('/'))
        {
            case ["variants", var id, "against", ..] when Guid.TryParse(id, out var against):
                SecondEstimate.Of(estimate, Core.Jobs.Variants.Of(estimate.Job, against), trace, Against(against));
                return true;
            case ["variants", var id, ..] when Guid.TryParse(id, out var variant):
                Estimate.Of(Core.Jobs.Variants.Of(estimate.Job, variant), trace.Within(PricedVariant.Within(variant)));
                return true;
            default:
                return false;
        }
    }

    private static string Against(Guid variant) => PricedVariant.Within(variant) + "against/";

    private static VariantsView All(Estimate estimate) =>
        new(
            [
                .. PricedVariant
                    .Of(estimate)
                    .Select(priced =>
                    {
                        var within = priced.Variant.Taken ? "" : PricedVariant.Within(priced.Variant.Id);
                        FigureView Money(Total total) =>
                            FigureView.Money(within + total.Path, total, places: estimate.MoneyPlaces);
                        var of = priced.Estimate;
                        return new VariantView(
                            priced.Variant.Id,
                            priced.Variant.Name,
                            priced.Variant.Taken,
                            estimate.Job.Differs.Keys.Count(k => Variants.Parsed(k).Variant == priced.Variant.Id),
                            of is null
                                ? null
                                : FigureView.Hours(within + of.Reckoned.Costs.Hours.Path, of.Reckoned.Costs.Hours),
                            of is null ? null : Money(of.Price.Readouts.Cost),
                            of is null ? null : Money(of.Price.BeforeTax),
                            of?.Price.Readouts.Margin is { } margin
                                ? FigureView.Percent(within + margin.Path, margin)
                                : null,
                            of is null ? null : Money(of.Price.Total),
                            priced.Refused
                        );
                    }),
            ],
            Variants.Most
        );

    private static VariantDiffersView One(Estimate estimate, Guid variant)
    {
        var (within, theirs) = (Against(variant), Variants.Of(estimate.Job, variant));
        var two = SecondEstimate.Of(estimate, theirs, Trace.Silent, within);
        FigureView Money(Total t) => FigureView.Money(within + t.Path, t, places: estimate.MoneyPlaces);
        FigureView Hours(Total t) => FigureView.Hours(within + t.Path, t);
        return new(
            TwoView.Of(two.Hours, Hours),
            TwoView.Of(two.Cost, Money),
            TwoView.Of(two.Price, Money),
            theirs.Pricing != estimate.Job.Pricing
                && !ChangeSet.Same(ChangeSet.Get(theirs, "pricing"), ChangeSet.Get(estimate.Job, "pricing")),
            [
                .. two
                    .Work.Take(200)
                    .Select(w => new VariantWorkView(
                        w.Item.Id,
                        (theirs.Item(w.Item.Id) is null ? estimate.Job : theirs).Titled(w.Item),
                        PricedVariant.WhatDiffers(estimate.Job, theirs, w.Item.Id),
                        TwoView.Of(w.Hours, Hours),
                        TwoView.Of(w.Cost, Money),
                        TwoView.Of(w.Price, Money)
                    )),
            ]
        );
    }
}
