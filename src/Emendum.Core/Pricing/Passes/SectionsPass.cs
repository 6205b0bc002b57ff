using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>Sections on bases of their own, each with its price beside the job's build-up.</summary>
internal static class SectionsPass
{
    public static PriceDraft Of(PriceDraft draft)
    {
        foreach (var pool in draft.Pools.Skip(1))
        {
            var built = pool.Basis.Build(draft, pool);
            var price = draft.Trace.Total(
                built.Price.Money(draft.Places),
                "",
                pool.Section!.Name,
                new("sections", pool.Section.Id, "built/price")
            );
            draft = draft with
            {
                Steps = draft.Steps.Add(
                    new(
                        "section/" + pool.Section.Id,
                        pool.Section.Name.Length == 0 ? "Work without a section" : pool.Section.Name,
                        pool.Basis.Words(pool.Terms),
                        StepKind.Added,
                        price,
                        [.. built.Portions.Select(p => new StepPart(p.Of, p.Section, p.Tax, p.Amount))]
                    )
                ),
                Portions = draft.Joined(built.Portions),
                So = draft.So + price,
                OfCosts = draft.OfCosts + price,
                Overheads = draft.Overheads + built.Overheads,
            };
        }
        return draft;
    }
}
