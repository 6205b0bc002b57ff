using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Proposals;

/// <summary>What the figures that texts say by name come to. One that has nothing to say here is left as it was typed, and is a hole (<see cref="Missing"/>).</summary>
internal sealed class NamedFigures(Writing writing)
{
    private readonly List<string> missing = [];

    /// <summary>Names that were said and that come to nothing here, in order.</summary>
    public IReadOnlyList<string> Missing => missing;

    /// <summary>What a figure comes to; null where it has nothing to say.</summary>
    public Span? Of(string name)
    {
        var (job, price, costs) = (writing.Job, writing.Estimate.Price, writing.Estimate.Reckoned.Costs);
        Span Money(Total total) => new(writing.Money(total.V)) { Figure = total.Path };
        Span Whole(Total total) =>
            new(Rounding.Ceiling(total.V).ToString(CultureInfo.InvariantCulture)) { Figure = total.Path };
        var said = name switch
        {
            "price" => Money(price.BeforeTax),
            "tax" => new(writing.Money(price.Tax)) { Figure = price.Taxes is [var one] ? one.Amount.Path : null },
            "total" => Money(price.Total),
            "currency" when job.Info.Currency.Length > 0 => new(job.Info.Currency),
            "deposit" when !writing.Steps.IsEmpty => Money(writing.Steps[0].Total),
            "valid until" => new(writing.Day(job.PricesHoldUntil)),
            "hours" => new(writing.Number(Shown.Tenths(costs.Hours.V))) { Figure = costs.Hours.Path },
            "days" => Whole(costs.Duration.Days),
            "crew" => new(job.Crew.Size.ToString(CultureInfo.InvariantCulture)),
            "a year" when writing.OfYear is { } year => Money(year.OfYear),
            "a month" when writing.OfYear is { } year => Money(year.Month),
            "floor area" => new(writing.Amount(costs.FloorArea.V, costs.FloorArea.Unit))
            {
                Figure = costs.FloorArea.Path,
            },
            "customer" when writing.Party.Name.Length > 0 => new(writing.Party.Name),
            "firm" => new(job.Info.Firm),
            "job" => new(job.Info.Name),
            "number" => new(job.Info.Number),
            "revision" when writing.Revision.Length > 0 => new(writing.Revision),
            "date" => new Span(writing.Day(Quantities.Day.Of(job.Info.Date))),
            _ => null,
        };
        if (said is null && !missing.Contains(name) && FigureNames.All.Any(f => f.Name == name))
            missing.Add(name);
        return said;
    }
}
