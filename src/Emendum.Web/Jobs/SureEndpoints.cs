using System.Globalization;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>Work that may come out otherwise than it is reckoned.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Section">The section it stands under.</param>
/// <param name="Says">Where what is said of it stands.</param>
/// <param name="Doubt">What is said of it.</param>
/// <param name="Own">What it says itself; null where it says nothing.</param>
/// <param name="Hours">As reckoned, at the least, at the most.</param>
/// <param name="Pace">Likewise: the least is done in an hour where it takes the most hours.</param>
/// <param name="Bought">Likewise; empty where nothing is bought.</param>
public sealed record UncertainView(
    Guid Id,
    string Name,
    Guid Section,
    DoubtOf Says,
    Doubt Doubt,
    Doubt? Own,
    IReadOnlyList<FigureView> Hours,
    IReadOnlyList<FigureView> Pace,
    IReadOnlyList<FigureView> Bought
);

/// <summary>What is said of a section, and under which heading it stands.</summary>
public sealed record SectionDoubtView(Guid Id, string Name, Doubt? Own);

/// <summary>A figure at the 10th, the 50th and the 90th percentile.</summary>
public sealed record TenthsView(string Label, FigureView At10, FigureView At50, FigureView At90);

/// <summary>What of the risk a piece of work carries.</summary>
public sealed record RiskView(Guid Id, string Name, FigureView Percent);

/// <summary>A bar of the picture: percents of its width and height, and whether what it counts ends under the floor.</summary>
public sealed record BarView(decimal From, decimal Width, decimal Height, bool UnderFloor);

/// <summary>A mark along the tape under the picture: percent of its width, and what stands there.</summary>
public sealed record TickView(decimal At, string Label);

/// <summary>How sure the estimate is.</summary>
/// <param name="Terms">What is said of the whole job.</param>
/// <param name="Said">Whether somebody has said it; otherwise it is what a job starts with.</param>
/// <param name="Correlation">Of two pieces of work, as it follows from what they share.</param>
/// <param name="Draws">Outcomes drawn.</param>
/// <param name="All">Outcomes that are drawn in the end.</param>
/// <param name="Floor">Where the floor lies on the tape; null where it is beyond its ends.</param>
/// <param name="Middle">Where half of all outcomes lie on either side.</param>
/// <param name="Nothing">Where there is no profit; null where that is beyond the ends.</param>
public sealed record SureView(
    Sureness Terms,
    bool Said,
    string Correlation,
    int Draws,
    int All,
    IReadOnlyList<SectionDoubtView> Sections,
    IReadOnlyList<UncertainView> Work,
    IReadOnlyList<TenthsView> Tenths,
    FigureView? BelowFloor,
    FigureView Price,
    IReadOnlyList<RiskView> Risks,
    IReadOnlyList<BarView> Bars,
    IReadOnlyList<TickView> Ticks,
    decimal? Floor,
    decimal Middle,
    decimal? Nothing
);

/// <summary>A figure of ours, of theirs, and by how much theirs is more; null where it is not.</summary>
public sealed record TwoView(FigureView Ours, FigureView Theirs, FigureView? More)
{
    public static TwoView Of(TwoFigures of, Func<Total, FigureView> view) =>
        new(
            view(of.Ours),
            view(of.Theirs),
            FigureView.Moved(view(of.More) with { Value = of.Theirs.V }, of.Ours.Value)
        );
}

/// <summary>What two estimators say of a piece of work.</summary>
public sealed record TwoOfWorkView(Guid Id, string Name, TwoView Hours, TwoView Cost, TwoView Price);

/// <summary>The same job as another estimator would have it.</summary>
/// <param name="All">How many pieces of work differ.</param>
/// <param name="Work">The first of them, the largest difference first.</param>
public sealed record SecondView(
    TwoView Hours,
    TwoView Cost,
    TwoView Price,
    string Margin,
    int All,
    IReadOnlyList<TwoOfWorkView> Work
);

/// <summary>What is asked of how sure an estimate is.</summary>
public static class SureEndpoints
{
    /// <summary>Most pieces of work whose differences are listed.</summary>
    private const int MostDiffering = 200;

    /// <summary>Maps them.</summary>
    public static void MapSure(this IEndpointRouteBuilder jobs)
    {
        jobs.MapGet(
            "/{id:guid}/price/sure",
            (Guid id, int draws, OpenJobs open, CancellationToken gone) => Sure(open.Get(id).Estimate, draws, gone)
        );
        jobs.MapGet(
            "/{id:guid}/price/second",
            (Guid id, string? book, string? harder, string? slower, OpenJobs open, OtherBooks books) =>
                Second(open.Get(id).Estimate, new(book ?? "", harder ?? "", slower ?? ""), books)
        );
    }

    /// <summary>What the paths of so many outcomes begin with where they are recorded.</summary>
    private static string Within(int draws) => $"outcomes/{draws}/";

    /// <summary>Records what a figure of these views stands in; false where it is none of them.</summary>
    internal static bool Record(Estimate estimate, string figure, OtherBooks books, Trace trace)
    {
        switch (figure.Split('/'))
        {
            case ["outcomes", var number, ..] when int.TryParse(number, CultureInfo.InvariantCulture, out var draws):
                var within = trace.Within(Within(draws));
                HowSure.Of(Estimate.Of(estimate.Job, within), draws, within);
                return true;
            case ["second", var book, var harder, var slower, ..]:
                var asked = new AskedSecond(book, harder, slower);
                SecondEstimate.Of(estimate, asked.With(estimate.Job, books), trace, asked.Within);
                return true;
            default:
                return false;
        }
    }

    private static SureView Sure(Estimate estimate, int draws, CancellationToken gone)
    {
        var sure = HowSure.Of(estimate, draws, Trace.Silent, gone);
        var (job, price, places, within) = (
            estimate.Job,
            estimate.Price.BeforeTax.V,
            estimate.MoneyPlaces,
            Within(draws)
        );
        FigureView Money(Total total) => FigureView.Money(within + total.Path, total, places: places);
        FigureView Hours(Total total) => FigureView.Hours(within + total.Path, total);
        IReadOnlyList<FigureView> All(Between? of, Func<Total, FigureView> view) =>
            of is null || of.Reckoned.V == 0 ? [] : [view(of.Reckoned), view(of.Least), view(of.Most)];
        TenthsView Three(string label, Tenths of, Func<Total, FigureView> view) =>
            new(label, view(of.At10), view(of.At50), view(of.At90));
        var picture = new Picture(sure, price * job.Pricing.FloorMargin / 100);
        return new(
            sure.Terms,
            job.Sureness is not null,
            Rounding.Text(sure.Terms.Shared * sure.Terms.Shared / 10_000),
            draws,
            HowSure.MostDraws,
            [
                .. job
                    .Sections.Where(s => sure.Work.Any(w => w.Item.Item.Section == s.Id))
                    .Select(s => new SectionDoubtView(s.Id, s.Name, s.Doubt)),
            ],
            [
                .. sure.Work.Select(w => new UncertainView(
                    w.Item.Item.Id,
                    w.Item.Item.Name,
                    w.Item.Item.Section,
                    w.Says,
                    w.Doubt,
                    w.Item.Item.Doubt,
                    All(w.Hours, Hours),
                    All(w.Pace, t => FigureView.Fine(within + t.Path, t, t.Unit)),
                    All(w.Bought, Money)
                )),
            ],
            [
                Three("Labour", sure.Hours, Hours),
                Three("Cost", sure.Cost, Money),
                Three("Gross profit", sure.Profit, Money),
            ],
            sure.BelowFloor is { } below ? FigureView.Percent(within + below.Path, below) : null,
            FigureView.Money(estimate.Price.BeforeTax, places: places),
            [
                .. sure
                    .Risks.Take(3)
                    .Select(r => new RiskView(
                        r.Work.Item.Item.Id,
                        job.Titled(r.Work.Item.Item),
                        FigureView.Percent(within + r.Percent.Path, r.Percent)
                    )),
            ],
            picture.Bars,
            picture.Ticks,
            picture.At(price * job.Pricing.FloorMargin / 100),
            picture.At(sure.Profit.At50.V) ?? 50,
            picture.At(0)
        );
    }

    private static SecondView Second(Estimate estimate, AskedSecond asked, OtherBooks books)
    {
        var places = estimate.MoneyPlaces;
        var two = SecondEstimate.Of(estimate, asked.With(estimate.Job, books), Trace.Silent, asked.Within);
        FigureView Money(Total t) => FigureView.Money(asked.Within + t.Path, t, places: places);
        FigureView Hours(Total t) => FigureView.Hours(asked.Within + t.Path, t);
        return new(
            TwoView.Of(two.Hours, Hours),
            TwoView.Of(two.Cost, Money),
            TwoView.Of(two.Price, Money),
            ViewOf.MarginWords(two.Theirs.Price.Readouts.Margin?.V, estimate.Job.Pricing),
            two.Work.Length,
            [
                .. two
                    .Work.Take(MostDiffering)
                    .Select(w => new TwoOfWorkView(
                        w.Item.Id,
                        estimate.Job.Titled(w.Item),
                        TwoView.Of(w.Hours, Hours),
                        TwoView.Of(w.Cost, Money),
                        TwoView.Of(w.Price, Money)
                    )),
            ]
        );
    }

    /// <summary>The outcomes as bars over a tape of money.</summary>
    private sealed class Picture
    {
        private readonly decimal least,
            most;

        public Picture(HowSure sure, decimal floor)
        {
            (least, most) = (sure.Bars[0].From, sure.Bars[^1].To);
            var tallest = sure.Bars.Max(b => b.Count);
            Bars = [.. sure.Bars.Select(b => Bar(b, tallest, floor))];
            Ticks = [.. Marks()];
        }

        public IReadOnlyList<BarView> Bars { get; }

        public IReadOnlyList<TickView> Ticks { get; }

        /// <summary>Where an amount lies on the tape, percent of its width; null where it is beyond its ends.</summary>
        public decimal? At(decimal amount) =>
            amount < least || amount > most ? null
            : least == most ? 50
            : Tenth((amount - least) * 100 / (most - least));

        private static decimal Tenth(decimal percent) => decimal.Round(percent, 2, MidpointRounding.AwayFromZero);

        private BarView Bar(ProfitBar bar, int tallest, decimal floor) =>
            new(
                least == most ? 49 : At(bar.From) ?? 0,
                least == most ? 2 : Tenth((bar.To - bar.From) * 100 / (most - least)),
                Tenth(bar.Count * 100m / tallest),
                bar.To <= floor
            );

        /// <summary>Round amounts along the tape, five to twelve of them.</summary>
        private IEnumerable<TickView> Marks()
        {
            if (least == most)
                return [new(50, Shown.Money(least, 0))];
            decimal step = 1;
            while ((most - least) / step > 100)
                step *= 10;
            while ((most - least) / step < 10 && step > 0.01m)
                step /= 10;
            foreach (var times in (decimal[])[1, 2, 5, 10])
                if ((most - least) / (step * times) <= 8)
                {
                    step *= times;
                    break;
                }
            var places = step >= 1 ? 0 : 2;
            var first = decimal.Ceiling(least / step);
            return Enumerable
                .Range(0, 13)
                .Select(n => (first + n) * step)
                .TakeWhile(amount => amount <= most)
                .Select(amount => new TickView(At(amount)!.Value, Shown.Money(amount, places)));
        }
    }
}

/// <summary>How a second estimator goes about the job, as it is asked for and as it stands in paths.</summary>
/// <param name="Book"><c>own</c> or empty, <c>today</c>, a day like 2026-03-31, or the hash of a Book file that was sent.</param>
/// <param name="Harder">Levels of difficulty.</param>
/// <param name="Slower">Percent more time.</param>
internal sealed record AskedSecond(string Book, string Harder, string Slower)
{
    /// <summary>What the paths of its figures begin with.</summary>
    public string Within => $"second/{Or(Book, "own")}/{Or(Harder, "0")}/{Or(Slower, "0")}/";

    private static string Or(string text, string none) => text.Trim() is { Length: > 0 } said ? said : none;

    /// <summary>The estimator.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public SecondEstimator With(Job job, OtherBooks books) =>
        new(books.Find(Or(Book, "own"), job), Whole(Or(Harder, "0")), Percent(Or(Slower, "0")));

    private static int Whole(string text) =>
        int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var whole)
            ? whole
            : throw RefusedException.Of("harder", "Write a whole number of levels, like 1 or -1.");

    private static decimal Percent(string text) =>
        Rounding.ReadInput(text.Replace("%", "", StringComparison.Ordinal).Replace('−', '-').TrimStart('+').Trim())
        ?? throw RefusedException.Of("slower", "Write a percentage, like 15 or -10.");
}

/// <summary>Other Books that a job can be priced with: today's, that of an earlier day, and one that came as a file.</summary>
public sealed class OtherBooks(Shelf shelf, BookStore store, FileStore files, FirmDay day)
{
    /// <summary>Largest Book file.</summary>
    private const int MostBytes = 20_000_000;

    /// <summary>Finds entries of one; null for the job's own.</summary>
    /// <exception cref="RefusedException">There is no such Book.</exception>
    public Func<Guid, BookEntry?>? Find(string name, Job job)
    {
        if (name == "own")
            return null;
        if (name == "today")
            return shelf.Find;
        if (DateOnly.TryParseExact(name, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var on))
            return on < new DateOnly(2000, 1, 1) || on > day.Today
                ? throw RefusedException.Of("book", "Choose a day from 2000 to today.")
                : new OtherBook(store.AsOf(day.EndOf(on)), job.Book).Find;
        if (ContentHash.Is(name))
            return new OtherBook(OfFile(name), job.Book).Find;
        throw RefusedException.Of("book", "Choose a Book: today's, that of a day like 2026-03-31, or a Book file.");
    }

    private IEnumerable<BookEntry> OfFile(string hash)
    {
        var file =
            files.Find(hash) ?? throw RefusedException.Of("book", "That Book file is not here. Choose it once more.");
        if (file.Bytes > MostBytes)
            throw RefusedException.Of("book", $"A Book file is at most {MostBytes / 1_000_000} MB.");
        var bytes = new byte[file.Bytes];
        using var content = files.Read(file);
        content.ReadExactly(bytes);
        try
        {
            return BookFile.Read(bytes, shelf.Entries).Select(r => r.Entry).OfType<BookEntry>();
        }
        catch (RefusedException refused)
        {
            throw RefusedException.Of("book", refused.Refusal.Message);
        }
    }
}
