using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Web.Jobs;

/// <summary>A frequency that people have a word for.</summary>
public sealed record FrequencyName(RhythmKind Kind, int Times, string Name);

/// <summary>A rhythm of the job.</summary>
/// <param name="Rhythm">As it is said.</param>
/// <param name="Times">How often it comes, without what is done instead of it, where any of its work is done.</param>
/// <param name="Usual">Whether work that names none follows it.</param>
/// <param name="Work">How many pieces of work go by it.</param>
public sealed record RhythmView(Rhythm Rhythm, FigureView? Times, bool Usual, int Work);

/// <summary>The build-up that the entry of a piece of work has, in words.</summary>
public sealed record BuildUpOfWork(Guid Id, string BuildUp);

/// <summary>A supply of the year with its cost.</summary>
public sealed record SupplyView(YearSupply Supply, FigureView? Cost);

/// <summary>One occurrence in its first year.</summary>
/// <param name="Times">How often.</param>
/// <param name="Hours">Labour hours of one.</param>
/// <param name="Price">Price of one, before tax.</param>
/// <param name="Cost">Cost of one.</param>
/// <param name="InYear">Price in the year.</param>
/// <param name="Visits">How often in each month.</param>
/// <param name="Days">Where its days lie along the twelve months, percent of their width.</param>
public sealed record OccurrenceView(
    Guid Id,
    string Name,
    FigureView Times,
    FigureView Hours,
    FigureView Price,
    FigureView Cost,
    FigureView InYear,
    IReadOnlyList<int> Visits,
    IReadOnlyList<decimal> Days
);

/// <summary>What is done once.</summary>
public sealed record OnceView(FigureView Price, FigureView Cost);

/// <summary>A month of the year; heights are percents of the picture's.</summary>
public sealed record MonthView(
    string Name,
    FigureView Billed,
    FigureView Cost,
    FigureView Profit,
    FigureView SoFar,
    decimal BilledHeight,
    decimal CostHeight
);

/// <summary>What a season of an event brings.</summary>
public sealed record SeasonView(string Name, FigureView Expected, FigureView? Capped);

/// <summary>The first year, month by month.</summary>
/// <param name="From">From which month to which.</param>
/// <param name="Ticks">Amounts along the picture's height.</param>
/// <param name="Nothing">Where nothing lies on the line of the profit so far, in a box 1,200 wide and 100 high.</param>
/// <param name="Line">That line, as a path in the same box.</param>
/// <param name="Words">What the picture says, in sentences.</param>
public sealed record FirstYearView(
    string From,
    IReadOnlyList<OccurrenceView> Occurrences,
    OnceView? Once,
    FigureView? Supplies,
    FigureView OfYear,
    FigureView Month,
    IReadOnlyList<MonthView> Months,
    FigureView Billed,
    FigureView AllCost,
    FigureView AllProfit,
    IReadOnlyList<TickView> Ticks,
    decimal Nothing,
    string Line,
    IReadOnlyList<SeasonView> Seasons,
    IReadOnlyList<FigureView> Years,
    IReadOnlyList<string> Words
);

/// <summary>What the view of the year shows.</summary>
/// <param name="Start">First day, as it is worked out where none is typed.</param>
/// <param name="Year">The first year; null where no work comes back yet.</param>
public sealed record YearView(
    string Start,
    IReadOnlyList<RhythmView> Rhythms,
    IReadOnlyList<BuildUpOfWork> Work,
    IReadOnlyList<SupplyView> Supplies,
    IReadOnlyList<FrequencyName> Usual,
    decimal LeastJob,
    FirstYearView? Year
)
{
    /// <summary>Made from a reckoned job.</summary>
    public static YearView Of(Estimate estimate)
    {
        var job = estimate.Job;
        var year = Core.Pricing.Year.Of(estimate, Trace.Silent);
        var draft = estimate.Price.Draft;
        return new(
            Day.Written(job.Round.StartIn(job)),
            [
                .. job.Rhythms.Select(r => new RhythmView(
                    r,
                    draft.Occurrences.FirstOrDefault(o => o.Occurrence.Rhythm?.Id == r.Id && o.Occurrence.Band is null)
                        is { } of
                        ? FigureView.Amount(of.Occurrence.Times)
                        : null,
                    job.Round.Usual == r.Id,
                    job.Work.Count(w => RhythmTimes.Of(job, w)?.Id == r.Id)
                )),
            ],
            [.. job.Work.Select(w => new BuildUpOfWork(w.Id, BuildUpOf(job, w))).Where(w => w.BuildUp.Length > 0)],
            [
                .. job.Round.Supplies.Select(s => new SupplyView(
                    s,
                    year is null
                        ? null
                        : FigureView.Money(Core.Pricing.Year.CostOf(estimate, s), places: estimate.MoneyPlaces)
                )),
            ],
            [.. Frequency.Usual.Select(f => new FrequencyName(f.Kind, f.Times, f.Name))],
            job.Pricing.LeastJob,
            year is null ? null : Made(year)
        );
    }

    private static string BuildUpOf(Job job, WorkItem item) =>
        job.Book.GetValueOrDefault(item.Entry) is WorkEntry { BuildUp: { IsDefaultOrEmpty: false } rows }
            ? string.Join(", ", rows.Select(r => $"from {r.Times} a year × {Rounding.Text(r.Factor)}"))
            : "";

    private static string Say(DateOnly day, string format) => day.ToString(format, CultureInfo.InvariantCulture);

    private static FirstYearView Made(Year year)
    {
        var (places, job) = (year.Estimate.MoneyPlaces, year.Estimate.Job);
        FigureView Money(Total of) => FigureView.Money(of, places: places);
        var picture = new YearPicture(year);
        var price = year.Estimate.Price;
        return new(
            $"{Say(year.Months[0].From, "MMMM")} to {Say(year.Months[11].From, "MMMM yyyy")}",
            [
                .. year.Occurrences.Select(o => new OccurrenceView(
                    o.Of.Occurrence.Id,
                    o.Of.Occurrence.Name,
                    FigureView.Amount(o.Of.Occurrence.Times),
                    FigureView.Hours(o.Hours),
                    Money(o.Of.Price),
                    Money(o.Of.Cost),
                    Money(o.Of.InYear),
                    o.Visits,
                    picture.Days(o)
                )),
            ],
            year.Once is { } once ? new(Money(once.Price), Money(once.Cost)) : null,
            year.Supplies is { } supplies ? Money(supplies) : null,
            Money(year.OfYear),
            Money(year.Month),
            [
                .. year.Months.Select(m => new MonthView(
                    Say(m.From, "MMM"),
                    Money(m.Billed),
                    Money(m.Cost),
                    Money(m.Profit),
                    Money(m.SoFar),
                    picture.Height(m.Billed.V),
                    picture.Height(m.Cost.V)
                )),
            ],
            Money(price.BeforeTax),
            Money(price.Readouts.Cost),
            Money(price.Readouts.GrossProfit),
            picture.Ticks,
            picture.SoFar(0),
            picture.Line,
            [
                .. year.Seasons.Select(s => new SeasonView(
                    s.Rhythm.Name,
                    Money(s.Expected),
                    s.Capped is { } capped ? Money(capped) : null
                )),
            ],
            [.. year.Years.Select(Money)],
            [.. Sentences(year, job)]
        );
    }

    private static IEnumerable<string> Sentences(Year year, Job job)
    {
        var words = year.Estimate.Price.Draft;
        if (year.FirstDay is { } first)
            yield return $"The first visit is on {Say(first, "dddd d MMMM yyyy")}.";
        if (year.Once is { } once)
            yield return $"{Say(year.Months[0].From, "MMMM")} carries what is done once, {words.Words(once.Price.V)}.";
        var bought = job
            .Round.Supplies.SelectMany(s => s.Months.IsEmpty ? [year.Months[0].From.Month] : s.Months.AsEnumerable())
            .Distinct()
            .OrderBy(m => (m - year.Months[0].From.Month + 12) % 12)
            .Select(m => CultureInfo.InvariantCulture.DateTimeFormat.GetMonthName(m))
            .ToArray();
        if (year.Supplies is not null)
            yield return $"Supplies are bought in {InWords(bought)}.";
        var losing = year.Months.Where(m => m.Profit.V < 0).Select(m => Say(m.From, "MMMM")).ToArray();
        if (losing.Length > 0)
            yield return $"{InWords(losing)} {(losing.Length == 1 ? "costs" : "cost")} more than {(losing.Length == 1 ? "it brings" : "they bring")}.";
    }

    private static string InWords(string[] all) =>
        all.Length < 2 ? string.Concat(all) : string.Join(", ", all[..^1]) + " and " + all[^1];
}

/// <summary>A rhythm with another frequency; figures are null where that cannot be.</summary>
/// <param name="Hours">Labour hours of a visit.</param>
public sealed record FrequencyView(
    FrequencyName Frequency,
    bool Now,
    FigureView? Times,
    FigureView? Price,
    FigureView? Hours,
    FigureView? Month,
    FigureView? Year,
    FigureView? Profit,
    FigureView? Margin,
    bool UnderFloor,
    string Refused
)
{
    /// <summary>Made from it.</summary>
    public static FrequencyView Of(Estimate estimate, Guid rhythm, OtherFrequency of)
    {
        var places = estimate.MoneyPlaces;
        var within = of.IsNow ? "" : OtherFrequency.Within(rhythm, of.Frequency);
        FigureView Money(Total t) => FigureView.Money(within + t.Path, t, places: places);
        var one = of.Year?.Occurrences.FirstOrDefault(o => o.Of.Occurrence.Rhythm?.Id == rhythm);
        return new(
            new(of.Frequency.Kind, of.Frequency.Times, of.Frequency.Name),
            of.IsNow,
            one is null ? null : FigureView.Amount(within + one.Of.Occurrence.Times.Path, one.Of.Occurrence.Times, ""),
            one is null ? null : Money(one.Of.Price),
            one is null ? null : FigureView.Hours(within + one.Hours.Path, one.Hours),
            of.Year is null ? null : Money(of.Year.Month),
            of.Year is null ? null : Money(of.Year.OfYear),
            of.Year is null ? null : Money(of.Year.Profit),
            of.Year?.Margin is { } margin ? FigureView.Percent(within + margin.Path, margin) : null,
            of.Year?.Margin is { } m && m.V < estimate.Job.Pricing.FloorMargin,
            of.Refused.Length > 0 ? of.Refused
                : one is null ? "No work goes by this rhythm yet."
                : ""
        );
    }
}

/// <summary>Frequencies of a rhythm side by side.</summary>
/// <param name="Rhythm">Its name.</param>
/// <param name="All">They.</param>
/// <param name="Words">Which are under the floor.</param>
public sealed record FrequenciesView(string Rhythm, IReadOnlyList<FrequencyView> All, string Words);

/// <summary>The year as a picture: where its bars, its line and its days lie.</summary>
internal sealed class YearPicture
{
    private readonly decimal most,
        least,
        top;
    private readonly Year year;
    private readonly RoundDays days;

    public YearPicture(Year year)
    {
        this.year = year;
        days = RoundDays.Of(year.Estimate.Job);
        var highest = year.Months.Max(m => decimal.Max(m.Billed.V, m.Cost.V));
        top = highest <= 0 ? 1 : decimal.Ceiling(highest / Step(highest)) * Step(highest);
        Ticks =
        [
            .. Enumerable
                .Range(0, 6)
                .Select(n => n * Step(highest))
                .TakeWhile(amount => amount <= top)
                .Select(amount => new TickView(Percent(amount, top), Shown.Money(amount, 0))),
        ];
        (least, most) = (
            decimal.Min(0, year.Months.Min(m => m.SoFar.V)),
            decimal.Max(0, year.Months.Max(m => m.SoFar.V))
        );
    }

    /// <summary>Round amounts along the height, two to five of them.</summary>
    private static decimal Step(decimal top)
    {
        decimal step = 1;
        while (top / step > 50)
            step *= 10;
        foreach (var times in (decimal[])[1, 2, 5, 10, 20])
            if (top / (step * times) <= 4)
                return step * times;
        return step * 50;
    }

    private static decimal Percent(decimal amount, decimal of) =>
        of == 0 ? 0 : decimal.Round(amount * 100 / of, 2, MidpointRounding.AwayFromZero);

    public IReadOnlyList<TickView> Ticks { get; }

    /// <summary>Height of a bar, percent.</summary>
    public decimal Height(decimal amount) => Percent(decimal.Max(0, amount), top);

    /// <summary>Where a profit lies in a box 100 high, from above.</summary>
    public decimal SoFar(decimal amount) => 100 - (most == least ? 0 : Percent(amount - least, most - least));

    /// <summary>The profit so far as steps, each near the end of its month.</summary>
    public string Line =>
        $"M0,{Rounding.Text(SoFar(0))}"
        + string.Concat(year.Months.Select((m, n) => $"H{n * 100 + 80}V{Rounding.Text(SoFar(m.SoFar.V))}"))
        + "H1200";

    /// <summary>Where the days of an occurrence lie along twelve months of equal width; of an event, nowhere.</summary>
    public IReadOnlyList<decimal> Days(OccurrenceInYear of)
    {
        if (of.Of.Occurrence is not { Band: null, Rhythm: { } rhythm })
            return [];
        var first = year.Months[0].From;
        return
        [
            .. days.Of(rhythm)
                .Select(d =>
                    (d.Year - first.Year) * 12
                    + d.Month
                    - first.Month
                    + (d.Day - 1m) / DateTime.DaysInMonth(d.Year, d.Month)
                )
                .Where(at => at < 12)
                .Select(at => Percent(at, 12)),
        ];
    }
}
