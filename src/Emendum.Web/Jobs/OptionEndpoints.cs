using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Web.Jobs;

/// <summary>Something offered beside the price.</summary>
/// <param name="Id">Of the alternate with a name, or of the work item.</param>
/// <param name="Named">Whether it has a name of its own; otherwise it is one piece of work.</param>
/// <param name="Name">As the customer reads it.</param>
/// <param name="Kind">What taking it does.</param>
/// <param name="Taken">Whether it is in the job.</param>
/// <param name="Work">What is done, in short.</param>
/// <param name="Places">Where, in short.</param>
/// <param name="Price">What it adds, or below zero takes off; null where it holds no work or cannot be priced.</param>
/// <param name="Contrary">A deduct that would raise the price.</param>
/// <param name="Refused">Why it has no price, or empty.</param>
/// <param name="Keeps">The command that takes it, or gives it back; null where there is nothing to take.</param>
public sealed record OfferedView(
    Guid Id,
    bool Named,
    string Name,
    AlternateKind Kind,
    bool Taken,
    string Work,
    string Places,
    FigureView? Price,
    FigureView? Hours,
    FigureView? GrossProfit,
    bool Contrary,
    string Refused,
    TakeAlternate? Keeps
);

/// <summary>A row of what some alternates come to together.</summary>
public sealed record TogetherRow(string Label, FigureView Figure, bool Sum);

/// <summary>Something that can be chosen by its name.</summary>
public sealed record NamedView(Guid Id, string Name);

/// <summary>Work and places of which an alternate can be made.</summary>
public sealed record OfferableView(IReadOnlyList<NamedView> Work, IReadOnlyList<NamedView> Places);

/// <summary>What is offered, and what those that are chosen come to together.</summary>
/// <param name="Offered">All of it, taken or not.</param>
/// <param name="Together">From the price as it stands to what the customer would pay.</param>
/// <param name="Wrong">Why that cannot be said, or empty.</param>
/// <param name="Adds">Of what one that adds can be made: what stands as an alternate by itself.</param>
/// <param name="Deducts">Of what one that deducts can be made: what is in the price.</param>
public sealed record OptionsView(
    IReadOnlyList<OfferedView> Offered,
    IReadOnlyList<TogetherRow> Together,
    string Wrong,
    OfferableView Adds,
    OfferableView Deducts
);

/// <summary>What is asked of a job's options.</summary>
public static class OptionEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapOptions(this IEndpointRouteBuilder jobs) =>
        jobs.MapGet(
            "/{id:guid}/price/options",
            (Guid id, string? taken, OpenJobs open) => Options(open.Get(id).Estimate, Ids(taken ?? "", ','))
        );

    private static Guid[] Ids(string text, char between) =>
        [
            .. text.Split(between, StringSplitOptions.RemoveEmptyEntries)
                .Select(id =>
                    Guid.TryParse(id, out var read)
                        ? read
                        : throw RefusedException.Of("taken", "One of these is not offered any more.")
                )
                .Distinct(),
        ];

    /// <summary>Records what a figure of these views stands in; false where it is none of them.</summary>
    internal static bool Record(Job job, string figure, Trace trace)
    {
        switch (figure.Split('/'))
        {
            case ["alternates", var id, ..] when Guid.TryParse(id, out var of):
                var estimate = Estimate.Of(job, trace);
                if (Alternates.Of(estimate).FirstOrDefault(o => o.Id == of && o.Cells.Length > 0) is { } offered)
                    new Alternates.Pricing(estimate, trace).Price(offered);
                return true;
            case ["together", var ids, ..]:
                TakenTogether.Of(Estimate.Of(job, trace), Ids(ids, '+'), trace);
                return true;
            default:
                return false;
        }
    }

    private static OptionsView Options(Estimate estimate, Guid[] chosen)
    {
        var (job, all) = (estimate.Job, Alternates.Of(estimate));
        var pricing = new Alternates.Pricing(estimate, Trace.Silent);
        var offerable = job.Cells.Where(c => c.Value.Alternate is null).ToArray();
        OfferableView Of(CellState state)
        {
            var (work, places) = (new HashSet<Guid>(), new HashSet<Guid>());
            foreach (var (key, cell) in offerable)
                if (cell.State == state)
                    (_, _) = (work.Add(key.Work), places.Add(key.Place));
            return new(
                [.. job.Work.Where(w => work.Contains(w.Id)).Select(w => new NamedView(w.Id, job.Titled(w)))],
                [.. job.Places.Where(p => places.Contains(p.Id)).Select(p => new NamedView(p.Id, p.Name))]
            );
        }
        // One that has been taken meanwhile, by whomever, is not chosen any more.
        Guid[] open = [.. all.Where(o => !o.Taken && o.Cells.Length > 0).Select(o => o.Id).Where(chosen.Contains)];
        var (together, wrong) = Together(estimate, open);
        return new(
            [.. all.Select(o => View(estimate, pricing, o))],
            together,
            wrong,
            Of(CellState.Alternate),
            Of(CellState.Included)
        );
    }

    private static OfferedView View(Estimate estimate, Alternates.Pricing pricing, Offered offered)
    {
        var (job, within) = (estimate.Job, Alternates.Within(offered.Id));
        PricedAlternate? priced = null;
        var refused = "";
        if (offered.Cells.IsEmpty)
            refused = "It holds no work any more.";
        else
            try
            {
                priced = pricing.Price(offered);
            }
            catch (RefusedException wrong)
            {
                refused = wrong.Refusal.Message;
            }
        FigureView Money(Total total) => FigureView.Money(within + total.Path, total, places: estimate.MoneyPlaces);
        decimal? With(decimal price) =>
            job.Pricing.Basis == PriceBasis.Fixed ? TakenTogether.FixedWith(job, offered.Taken ? -price : price) : null;
        return new(
            offered.Id,
            offered.Named is not null,
            offered.Name,
            offered.Kind,
            offered.Taken,
            Counted.Few([.. offered.Work.Select(w => job.Titled(w.Item))], 4),
            Counted.Few(offered.Places, 4),
            priced is { } p ? Money(p.Price) : null,
            priced is { } h ? FigureView.Hours(within + h.Hours.Path, h.Hours) : null,
            priced is { } g ? Money(g.GrossProfit) : null,
            priced?.Contrary ?? false,
            refused,
            priced is { } of ? new(offered.Id, offered.Taken, !offered.Taken, With(of.Price.V)) : null
        );
    }

    private static (IReadOnlyList<TogetherRow> Rows, string Wrong) Together(Estimate estimate, Guid[] chosen)
    {
        if (chosen.Length == 0)
            return ([], "");
        TakenTogether together;
        try
        {
            together = TakenTogether.Of(estimate, chosen, Trace.Silent);
        }
        catch (RefusedException wrong)
        {
            return ([], wrong.Refusal.Message);
        }
        var within = TakenTogether.Within(together.Taken.Select(t => t.Offered.Id));
        FigureView Money(string path, Total total) => FigureView.Money(path, total, places: estimate.MoneyPlaces);
        TogetherRow Row(string label, Total total, bool sum = false) =>
            new(label, Money(within + total.Path, total), sum);
        return (
            [
                Row("As it stands, before rounding", together.Base),
                .. together.Taken.Select(t => new TogetherRow(t.Offered.Name, Money(t.Path, t.Price), false)),
                Row("Taken together", together.Together),
                .. together
                    .Estimate.Price.Steps.SkipWhile(s => s.Key is not ("rounding" or "beforeTax"))
                    .Select(s => Row(s.Label, s.Amount, s.Kind == StepKind.Sum)),
            ],
            ""
        );
    }
}
