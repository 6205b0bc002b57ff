using Emendum.Core.Book;
using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>The job's own build-up, by the job's basis.</summary>
internal static class BuildPass
{
    public static PriceDraft Of(PriceDraft draft)
    {
        draft = draft with { Categories = new(draft.Terms) };
        draft = draft with { Pools = Pool.Of(draft) };
        var job = draft.Pools[0];
        var built = job.Basis.Build(draft, job);
        var classes = draft.Pools.Length == 1 ? built.Classes : OfAll(draft, built.Classes);
        return draft with
        {
            Classes = classes,
            Direct = draft.Money(Sum.Of(classes.Select(c => c.Of.Cost.Value)), "Direct cost", "direct"),
            Steps = built.Steps,
            Portions = built.Portions,
            OfCosts = built.Price,
            So = built.Price,
            Overheads = built.Overheads,
            Contingency = draft.Terms.ShowContingency ? built.Contingency : 0m,
        };
    }

    /// <summary>Costs of the whole job, where the job's own build-up is a part of it.</summary>
    private static ByClass<ClassPrice> OfAll(PriceDraft draft, ByClass<ClassPrice> own)
    {
        var all = draft.Costs.ByClass(draft.Rules);
        return new(of => own[of] with { Cost = draft.Money(all[of], of.Label(), of.Name()) });
    }
}
