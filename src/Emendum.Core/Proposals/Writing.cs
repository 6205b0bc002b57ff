using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>What a proposal is written from: the job, for whom, on whose paper.</summary>
internal sealed class Writing
{
    public Writing(Estimate estimate, Party party, Brand brand, Trace trace)
    {
        (Estimate, Party, Brand, Trace) = (estimate, party, brand, trace);
        year = new(() => Year.Of(estimate, trace));
        steps = new(() => PaymentPlan.Of(estimate, trace));
    }

    private readonly Lazy<Year?> year;
    private readonly Lazy<ImmutableArray<PricedStep>> steps;

    public Estimate Estimate { get; }
    public Party Party { get; }
    public Brand Brand { get; }
    public Trace Trace { get; }

    /// <summary>Letters of the revision that it is, or would be; empty where that is not to be read.</summary>
    public string Revision { get; init; } = "";

    /// <summary>Further estimates that go out with it, each a job of its own.</summary>
    public ImmutableArray<Estimate> Further { get; init; } = [];
    public Job Job => Estimate.Job;
    public ProposalTerms Terms => Job.Proposal;

    /// <summary>The year of a round; null where all work is done once.</summary>
    public Year? OfYear => year.Value;

    /// <summary>Payment steps, priced.</summary>
    public ImmutableArray<PricedStep> Steps => steps.Value;

    /// <summary>A day as it stands on paper.</summary>
    public string Day(DateOnly day) => Brand.Writes.Day(day);

    /// <summary>A number that was shown, as it stands on paper.</summary>
    public string Number(string shown) => Brand.Writes.Number(shown);

    /// <summary>Money as it stands on paper.</summary>
    public string Money(decimal amount) => Number(Shown.Money(amount, Estimate.MoneyPlaces));

    /// <summary>Hours as they stand on paper.</summary>
    public string Hours(decimal hours) => Number(Shown.Tenths(hours)) + " h";

    /// <summary>A quantity of work as it stands on paper; counts have no unit.</summary>
    public string Amount(decimal quantity, string unit) => $"{Number(Shown.Amount(quantity, unit))} {unit}".TrimEnd();

    /// <summary>A row of money.</summary>
    public PriceRow Row(RowKind kind, string label, string detail, decimal amount, string? figure) =>
        new(kind, label, detail, amount, figure) { Shown = Money(amount) };

    /// <summary>Rows of money.</summary>
    public PriceTable Table(IEnumerable<PriceRow> rows) => new(Job.Info.Currency, [.. rows]);

    /// <summary>Words without any mark.</summary>
    public static Paragraph Plain(string words) => new([new(words)]);

    /// <summary>Words with a stop at their end, unless they have one or there are none.</summary>
    public static string Sentence(string text) =>
        text.Trim() is { Length: > 0 } words
            ? words[^1] is '.' or '!' or '?'
                ? words
                : words + "."
            : "";

    /// <summary>A place with its count.</summary>
    public static string PlaceName(Line line) => PlacesInWords.Named(line.Measures.Place);

    /// <summary>Lines that the customer sees; all, where nothing is to be seen at all.</summary>
    public IEnumerable<Line> Visible =>
        Array.Exists(Estimate.Reckoned.Lines, l => l.Seen)
            ? Estimate.Reckoned.Lines.Where(l => l.Seen)
            : Estimate.Reckoned.Lines;

    /// <summary>Sections that the customer sees something of.</summary>
    public IEnumerable<Section> Sections
    {
        get
        {
            var seen = Visible.Select(l => l.Item.Item.Section).ToHashSet();
            return Job.Sections.Where(s => seen.Contains(s.Id));
        }
    }
}
