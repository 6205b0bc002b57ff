using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>What one way of pricing the job would bring; figures are null where it cannot be priced so, and why is said.</summary>
public sealed record WayView(
    PriceBasis Basis,
    string Label,
    bool Now,
    FigureView? BeforeTax,
    FigureView? Margin,
    FigureView? PerHour,
    FigureView? PerArea,
    FigureView? PerFixture,
    string Refused
);

/// <summary>The ways side by side, with the area and the count that their prices are said for.</summary>
/// <param name="ToFix">With what a fixed price begins.</param>
public sealed record WaysView(string Area, string Fixture, decimal ToFix, IReadOnlyList<WayView> Ways);

/// <summary>What a piece of the job is worth.</summary>
/// <param name="Id">Section, place or work item.</param>
/// <param name="Name">Its name.</param>
/// <param name="Detail">What it is made of, in short.</param>
/// <param name="State">How it stands to the price.</param>
/// <param name="Refused">Why it cannot be told, or empty.</param>
/// <param name="Cost">What of its price is cost, not below zero; for the picture.</param>
/// <param name="Profit">What of it is gross profit, likewise.</param>
public sealed record PieceView(
    Guid Id,
    string Name,
    string Detail,
    PieceState State,
    FigureView? Price,
    FigureView? Hours,
    FigureView? GrossProfit,
    FigureView? Margin,
    string Refused,
    decimal Cost,
    decimal Profit
);

/// <summary>Pieces of one kind, from one of them on.</summary>
/// <param name="All">How many there are.</param>
/// <param name="Sum">What those that are in come to together; null where not all were asked for.</param>
/// <param name="Price">The price before tax and before the job's rounding that they are told by.</param>
/// <param name="Pieces">Those asked for.</param>
public sealed record WorthView(int All, FigureView? Sum, FigureView Price, IReadOnlyList<PieceView> Pieces);

/// <summary>A price that a typed one leads to.</summary>
/// <param name="Keeps">The command that keeps it.</param>
/// <param name="Words">What would move.</param>
/// <param name="BelowFloor">Whether it goes below the floor: then it needs a reason.</param>
/// <param name="Readouts">What can be typed, as it would be.</param>
public sealed record TypedView(
    TypePrice Keeps,
    string Words,
    string MarginWords,
    bool BelowFloor,
    IReadOnlyList<TypableView> Readouts
);

/// <summary>One of the figures of a price that can be typed.</summary>
public sealed record TypableView(SolveFor What, string Label, FigureView? Figure);

/// <summary>What typing a price leads to: one answer, or the two nearest.</summary>
public sealed record SolvedView(TypedView? Exact, TypedView? Below, TypedView? Above, string Why);

/// <summary>What is asked of a job's price.</summary>
public static class PriceEndpoints
{
    /// <summary>Most pieces that are told at a time.</summary>
    public const int MostPieces = 100;

    /// <summary>Maps them.</summary>
    public static void MapPrice(this IEndpointRouteBuilder jobs)
    {
        jobs.MapGet(
            "/{id:guid}/price",
            (Guid id, Guid? occurrence, OpenJobs open, Shelf shelf, CustomerStore customers) =>
                PriceView.Of(OccurrenceOf(open.Get(id).Estimate, occurrence), shelf, customers)
        );
        jobs.MapGet(
            "/{id:guid}/price/ways",
            (Guid id, string? area, OpenJobs open) => Ways(open.Get(id).Estimate, AreaOf(area))
        );
        jobs.MapGet(
            "/{id:guid}/price/worth",
            (Guid id, string kind, int from, int take, OpenJobs open) =>
                WorthOf(open.Get(id).Estimate, Named<PieceKind>(kind, "kind"), from, take)
        );
        jobs.MapGet(
            "/{id:guid}/price/typed",
            (Guid id, string what, string value, string? area, OpenJobs open) =>
                Typed(open.Get(id).Estimate, Named<SolveFor>(what, "what"), value, AreaOf(area))
        );
        jobs.MapOptions();
        jobs.MapVariants();
        jobs.MapChoices();
        jobs.MapQuotes();
        jobs.MapYear();
        jobs.MapSure();
    }

    /// <summary>One occurrence of a round by itself; the whole where none is named, or it is not there any more.</summary>
    private static Estimate OccurrenceOf(Estimate estimate, Guid? occurrence) =>
        estimate.Price.Occurrences.FirstOrDefault(o => o.Occurrence.Id == occurrence)?.Estimate ?? estimate;

    /// <summary>A value of a closed list, as files name it.</summary>
    internal static T Named<T>(string name, string field)
        where T : struct, Enum =>
        char.IsAsciiLetter(name.FirstOrDefault()) && Enum.TryParse<T>(name, true, out var value)
            ? value
            : throw RefusedException.Of(
                field,
                $"That is none of {string.Join(", ", Enum.GetNames<T>().Select(n => char.ToLowerInvariant(n[0]) + n[1..]))}."
            );

    /// <summary>The area that a price is said for; null for none.</summary>
    private static Measure? AreaOf(string? name) =>
        name is { Length: > 0 } && Measures.Find(name) is { } measure && measure.Kind() == Kind.Area ? measure : null;

    private static string Label(PriceBasis basis) =>
        basis switch
        {
            PriceBasis.Markup => "Cost plus: markup by class",
            PriceBasis.TargetMargin => "Target margin",
            PriceBasis.SellRate => "Charge rate per hour",
            PriceBasis.UnitPrice => "Unit prices",
            _ => "Fixed price",
        };

    private static string PathOf(Way way, Total total) => Way.Within(way.Basis) + total.Path;

    private static WaysView Ways(Estimate estimate, Measure? chosen)
    {
        var job = estimate.Job;
        var area =
            chosen is { } m && m.Kind() == Kind.Area
                ? m
                : PricePerArea.Of(estimate, Trace.Silent).FirstOrDefault()?.Measure;
        Measure? fixture = Measures
            .All.Where(m => m.Kind() == Kind.Count && estimate.Reckoned.Sum(m, job.Places, Trace.Silent).V > 0)
            .Cast<Measure?>()
            .FirstOrDefault();
        FigureView? Money(Way way, Func<Estimate, Total?> of, string unit = "") =>
            way.Estimate is { } e && of(e) is { } total
                ? FigureView.Money(PathOf(way, total), total, unit, e.MoneyPlaces)
                : null;
        FigureView? Per(Way way, Measure? measure) =>
            measure is { } by && way.Estimate is { } e && PricePerArea.Of(e, by, Trace.Silent) is { Per: var per }
                ? FigureView.Money(PathOf(way, per), per, per.Unit, e.MoneyPlaces)
                : null;
        return new(
            area?.Label(job.Units) ?? "",
            fixture?.Label(job.Units) ?? "",
            Way.PriceToFix(estimate),
            [
                .. Way.Of(estimate)
                    .Select(way => new WayView(
                        way.Basis,
                        Label(way.Basis),
                        way.Basis == job.Pricing.Basis,
                        Money(way, e => e.Price.BeforeTax),
                        way.Estimate?.Price.Readouts.Margin is { } margin
                            ? FigureView.Percent(PathOf(way, margin), margin)
                            : null,
                        Money(way, e => e.Price.Readouts.PerHour, "per h"),
                        Per(way, area),
                        Per(way, fixture),
                        way.Refused
                    )),
            ]
        );
    }

    private static WorthView WorthOf(Estimate estimate, PieceKind kind, int from, int take)
    {
        if (from < 0 || take is < 1 or > MostPieces)
            throw RefusedException.Of("take", $"1 to {MostPieces} pieces at a time.");
        var (job, places) = (estimate.Job, estimate.MoneyPlaces);
        var start = Worth.Base(estimate);
        Piece[] all = [.. Piece.Of(job, kind)];
        var told = all.Skip(from)
            .Take(take)
            .Select(piece =>
            {
                try
                {
                    return (Piece: piece, Worth: Worth.Of(start, piece), Refused: "");
                }
                catch (RefusedException refused)
                {
                    return (Piece: piece, Worth: (Worth?)null, Refused: refused.Refusal.Message);
                }
            })
            .ToArray();
        var whole = from == 0 && take >= all.Length;
        return new(
            all.Length,
            whole
                ? FigureView.Money(
                    "",
                    told.Where(t => t.Piece.State == PieceState.In).Sum(t => t.Worth?.Price.V ?? 0),
                    places: places
                )
                : null,
            FigureView.Money("", start.Price.BeforeTax, places: places),
            [
                .. told.Select(t => new PieceView(
                    t.Piece.Id,
                    Named(job, t.Piece),
                    Detail(job, t.Piece),
                    t.Piece.State,
                    t.Worth is { } x ? FigureView.Money(x.Price, places: places) : null,
                    t.Worth is { } h ? FigureView.Hours(h.Hours) : null,
                    t.Worth is { } g ? FigureView.Money(g.GrossProfit, places: places) : null,
                    t.Worth?.Margin is { } m ? FigureView.Percent(m) : null,
                    t.Refused,
                    t.Worth is { } c ? decimal.Max(0, c.Price.V - decimal.Max(0, c.GrossProfit.V)) : 0,
                    t.Worth is { } p ? decimal.Max(0, decimal.Min(p.GrossProfit.V, p.Price.V)) : 0
                )),
            ]
        );
    }

    private static string Named(Job job, Piece piece) =>
        piece.Kind switch
        {
            PieceKind.Section => job.Section(piece.Id)!.Name is { Length: > 0 } name ? name : "Work without a section",
            PieceKind.Place => job.Place(piece.Id)!.Name,
            _ => job.Titled(job.Item(piece.Id)!),
        };

    private static string Detail(Job job, Piece piece)
    {
        string[] parts =
        [
            .. piece.Kind switch
            {
                PieceKind.Work => piece.Cells.Select(c => job.Place(c.Place)!.Name),
                _ => job.Work.Where(w => piece.Cells.Any(c => c.Work == w.Id)).Select(w => w.Name),
            },
        ];
        return Counted.Few(parts, 3);
    }

    private static SolvedView Typed(Estimate estimate, SolveFor what, string value, Measure? area)
    {
        var typed =
            Core.Quantities.Rounding.ReadInput(value.Trim().Replace(",", "", StringComparison.Ordinal))
            ?? throw RefusedException.Of("value", "Write a number, like 12500 or 12,500.00.");
        var size = what switch
        {
            SolveFor.PerHour => estimate.Reckoned.Costs.Hours.V,
            SolveFor.PerArea => area is { } m
                ? estimate.Reckoned.Sum(m, estimate.Job.Places, Trace.Silent).V
                : throw RefusedException.Of("area", "Say which area."),
            _ => 1,
        };
        var solved = Solving.Of(estimate, what, typed, size);
        TypedView? View(MovedTerm? moved) => moved is null ? null : TypedOf(estimate, moved, area);
        return new(View(solved.Exact), View(solved.Below), View(solved.Above), solved.Why);
    }

    private static TypedView TypedOf(Estimate estimate, MovedTerm moved, Measure? area)
    {
        var (now, terms) = (moved.Estimate, estimate.Job.Pricing);
        var less = now.Price.Readouts.GrossProfit.V - estimate.Price.Readouts.GrossProfit.V;
        var unit = moved.Field == "adjustment" ? "" : " %";
        string Term(decimal value) => Rounding.Text(value).Replace('-', '−');
        var words =
            $"{moved.Term} {Term(moved.Was)} → {Term(moved.Now)}{unit}: {now.Price.Draft.Words(decimal.Abs(less))} {(less < 0 ? "less" : "more")} profit."
            + (moved.Typed is null ? "" : " A typed price is not rounded again until something moves it.");
        var margin = now.Price.Readouts.Margin?.V;
        return new(
            new(moved.Field, moved.Was, moved.Now, moved.Typed, ""),
            words,
            ViewOf.MarginWords(margin, terms),
            margin is { } m && m < terms.FloorMargin,
            Typable(now, area)
        );
    }

    /// <summary>What can be typed of a price, in the order it is shown.</summary>
    internal static IReadOnlyList<TypableView> Typable(Estimate estimate, Measure? area)
    {
        var (price, places) = (estimate.Price, estimate.MoneyPlaces);
        var of = price.Readouts;
        var list = new List<TypableView>
        {
            new(SolveFor.Total, "Customer pays", FigureView.Money(price.Total, places: places)),
            new(SolveFor.BeforeTax, "Price before tax", FigureView.Money(price.BeforeTax, places: places)),
            new(SolveFor.Margin, "Margin", of.Margin is { } margin ? FigureView.Percent(margin) : null),
            new(SolveFor.Profit, "Gross profit", FigureView.Money(of.GrossProfit, places: places)),
            new(SolveFor.AfterOverhead, "Left after overhead", FigureView.Money(of.AfterOverhead, places: places)),
        };
        if (of.PerHour is { } hour)
            list.Add(new(SolveFor.PerHour, "Per labour hour", FigureView.Money(hour, places: places)));
        if (area is { } m && PricePerArea.Of(estimate, m, Trace.Silent) is { } each)
            list.Add(
                new(
                    SolveFor.PerArea,
                    $"Per {each.Unit} of {m.Label(estimate.Job.Units).ToLowerInvariant()}",
                    FigureView.Money(each.Per, places: places)
                )
            );
        return list;
    }
}
