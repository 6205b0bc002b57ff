using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>A price while it is made: a basis begins it, and each pass returns it with its steps more (architecture decision 24).</summary>
/// <param name="Reckoned">What it is made from.</param>
/// <param name="Priced">What has a price of its own.</param>
/// <param name="Trace">Records how, or is silent.</param>
public sealed record PriceDraft(Reckoned Reckoned, ImmutableArray<OwnPrice> Priced, Trace Trace)
{
    /// <summary>How it is made.</summary>
    public PricingTerms Terms { get; init; } = Reckoned.Job.Pricing;

    /// <summary>What it costs.</summary>
    public Costs Costs => Reckoned.Costs;

    /// <summary>At what things count as cost.</summary>
    public CostRules Rules { get; } = CostRules.Of(Reckoned.Job, Trace);

    /// <summary>Places of the job's currency.</summary>
    public int Places => Rules.Places;

    /// <summary>Each occurrence of a round with its price; empty where all work is done once.</summary>
    public ImmutableArray<PricedOccurrence> Occurrences { get; init; } = [];

    /// <summary>The steps so far.</summary>
    public ImmutableArray<PriceStep> Steps { get; init; } = [];

    /// <summary>The parts of the price so far.</summary>
    public ImmutableArray<Portion> Portions { get; init; } = [];

    /// <summary>Costs of the whole job by class, with what the job's basis puts on its own.</summary>
    public ByClass<ClassPrice> Classes { get; init; } = new(_ => null!);

    /// <summary>Σ class costs of the whole job.</summary>
    public Total Direct { get; init; } = new(0m, "", default);

    /// <summary>What the price has come to so far.</summary>
    public Val So { get; init; }

    /// <summary>What the costs came to under their bases.</summary>
    public Val OfCosts { get; init; }

    /// <summary>What price-only items and allowances came to.</summary>
    public Val OfPriced { get; init; }

    /// <summary>Overhead and contingency that the price has to carry.</summary>
    public Val Overheads { get; init; }

    /// <summary>Contingency that is an amount of its own.</summary>
    public Val Contingency { get; init; }

    /// <summary>What the discounts are to leave, where the list price was raised for it.</summary>
    public Val? Intended { get; init; }

    /// <summary>Fees: a cost.</summary>
    public Val Fees { get; init; }

    /// <summary>What fees, on the price and on what the customer pays, take of each hundred of the price.</summary>
    public Val FeePercent { get; init; }

    /// <summary>Everything that was raised to its least charge.</summary>
    public ImmutableArray<Shortfall> Shortfalls { get; init; } = [];

    /// <summary>Taxes charged.</summary>
    public ImmutableArray<TaxAmount> Taxes { get; init; } = [];

    /// <summary>The build-ups: the job's own first.</summary>
    internal ImmutableArray<Pool> Pools { get; init; } = [];

    /// <summary>Its tax categories.</summary>
    internal TaxCategories Categories { get; init; } = null!;

    // One for all drafts of a price: each is a copy of the one before.
    private readonly Lazy<LineCosts> lineCosts = new(() =>
        LineCosts.Of(Reckoned, CostRules.Of(Reckoned.Job, Trace), Trace)
    );

    /// <summary>Cost of every line; made when first asked for.</summary>
    internal LineCosts LineCosts => lineCosts.Value;

    /// <summary>An amount that stands in the build-up: rounded where it is made (docs/decisions/001-cents.md).</summary>
    public Total Money(Val value, string label, string leaf) =>
        Trace.Total(value.Money(Places), "", label, new("price", leaf));

    /// <summary>The draft with a step that tells what the price is made of, before its parts are told apart.</summary>
    public PriceDraft With(PriceStep step) => this with { Steps = Steps.Add(step) };

    /// <summary>The parts so far with more: what is of one kind, build-up and tax category is one part.</summary>
    internal ImmutableArray<Portion> Joined(IEnumerable<Portion> more)
    {
        var all = Portions.ToBuilder();
        foreach (var portion in more)
        {
            var at = Enumerable
                .Range(0, all.Count)
                .FirstOrDefault(
                    i =>
                        all[i].Of == portion.Of
                        && all[i].Section == portion.Section
                        && ReferenceEquals(all[i].Tax, portion.Tax),
                    -1
                );
            if (at < 0)
                all.Add(portion);
            else
                all[at] = all[at].With(portion);
        }
        return all.ToImmutable();
    }

    /// <summary>The parts of the price that a step may fall on.</summary>
    internal IEnumerable<Portion> Of(params PortionKind[] kinds) => Portions.Where(p => kinds.Contains(p.Of));

    /// <summary>All but allowances, and what is no line's.</summary>
    private static bool BarAllowances(Portion portion) => portion.Of is not (PortionKind.Allowance or PortionKind.Job);

    /// <summary>What all but allowances come to so far.</summary>
    internal Val LessAllowances => Sum(Portions.Where(BarAllowances));

    /// <summary>What parts come to.</summary>
    internal static Val Sum(IEnumerable<Portion> portions) => Figures.Sum.Of(portions.Select(p => p.Amount));

    /// <summary>The draft with a step that is shared over parts of the price by what they come to so far.</summary>
    /// <param name="key">Name in paths.</param>
    /// <param name="label">Name on screen and paper.</param>
    /// <param name="note">What it rests on.</param>
    /// <param name="amount">Money.</param>
    /// <param name="on">The parts that it falls on; all but allowances where nothing is said.</param>
    internal PriceDraft Spread(string key, string label, string note, Total amount, Func<Portion, bool>? on = null)
    {
        on ??= BarAllowances;
        if (amount.V == 0 && !Trace.Follows)
            return this;
        var draft = Portions.Any(on)
            ? this
            : this with
            {
                Portions = Portions.Add(new(PortionKind.Built, null, Categories.Of(TaxOn.Labour), 0m)),
            };
        var at = Enumerable.Range(0, draft.Portions.Length).Where(i => on(draft.Portions[i])).ToArray();
        var shares =
            at.Length == 1
                ? [amount.Value]
                : Shares.Of(
                    amount,
                    [.. at.Select(i => draft.Portions[i].Amount)],
                    key + " by part of the price",
                    Places,
                    Trace
                );
        var (portions, parts) = (draft.Portions.ToBuilder(), ImmutableArray.CreateBuilder<StepPart>(at.Length));
        for (var i = 0; i < at.Length; i++)
        {
            var old = portions[at[i]];
            portions[at[i]] = old with { Amount = old.Amount + shares[i] };
            parts.Add(new(old.Of, old.Section, old.Tax, shares[i]));
        }
        return draft with
        {
            Portions = portions.ToImmutable(),
            Steps = Steps.Add(new(key, label, note, StepKind.Added, amount, parts.ToImmutable())),
            So = So + amount,
        };
    }

    /// <summary>A number of percent in words.</summary>
    public static string Percent(decimal percent) => Rounding.Text(percent) + " %";

    /// <summary>An amount of money in words.</summary>
    public string Words(decimal amount) => Shown.Money(amount, Places);
}
