using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What holds of any job under any terms: 300 of them here, 10,000 in ./run-long.</summary>
[Trait("Category", "Long")]
public class PricePropertyTests
{
    private static readonly int Count = Properties.Times(300, 10_000);

    /// <summary>Jobs by their seeds, those left out that cannot be priced as their terms say.</summary>
    private static void Each(int from, Action<int, Estimate> holds)
    {
        var priced = 0;
        for (var seed = from; seed < from + Count; seed++)
        {
            Estimate estimate;
            try
            {
                estimate = Sample.Reckon(RandomPricing.Job(new Random(seed)));
            }
            catch (RefusedException)
            {
                continue;
            }
            priced++;
            holds(seed, estimate);
        }
        Assert.InRange(priced, Count * 8 / 10, Count);
    }

    private static int PlacesOf(Estimate estimate) => Currency.Places(estimate.Job.Info.Currency)!.Value;

    [Fact]
    public void Steps_sum_to_the_total_and_parts_to_their_steps() =>
        Each(
            1_000_000,
            (seed, estimate) =>
            {
                var (price, so) = (estimate.Price, 0m);
                foreach (var step in price.Steps.Where(s => s.Kind != StepKind.Within))
                {
                    Assert.True(step.Amount.V == step.Parts.Sum(p => p.Amount.V), $"{seed}: parts of {step.Key}");
                    if (step.Kind == StepKind.Sum)
                        Assert.True(so == step.Amount.V, $"{seed}: {step.Key} {so} {step.Amount.V}");
                    else
                        so += step.Amount.V;
                    Assert.True(
                        step.Amount.V == Rounding.Money(step.Amount.V, PlacesOf(estimate)),
                        $"{seed}: {step.Key} is {step.Amount.V}"
                    );
                }
                Assert.True(price.BeforeTax.V == price.Portions.Sum(p => p.Amount.V), $"{seed}: portions");
            }
        );

    [Fact]
    public void Parts_shown_equal_the_total_at_every_detail() =>
        Each(
            2_000_000,
            (seed, estimate) =>
            {
                var random = new Random(seed);
                estimate = estimate.If(estimate.Job with { Schedule = RandomPricing.Schedule(random, estimate.Job) });
                foreach (var detail in Enum.GetValues<Detail>())
                {
                    var terms = estimate.Job.Proposal with
                    {
                        Detail = detail,
                        UnitPrices = random.Next(2) == 0,
                        Quantities = random.Next(2) == 0,
                        Hours = random.Next(2) == 0,
                        Headlines = [new("All of the first", [.. estimate.Job.Sections.Take(2).Select(s => s.Id)])],
                    };
                    var rows = Sample.Proposed(estimate.ShownAs(terms)).OfType<PriceTable>().First().Rows;
                    AtUnitPrices(seed, estimate, rows);
                    decimal Sum(RowKind kind) => rows.Where(r => r.Kind == kind).Sum(r => r.Amount!.Value);
                    Assert.True(
                        detail == Detail.Total || Sum(RowKind.Part) + Sum(RowKind.Discount) == Sum(RowKind.Subtotal),
                        $"{seed}, {detail}: {Sum(RowKind.Part)} + {Sum(RowKind.Discount)} is not {Sum(RowKind.Subtotal)}"
                    );
                    Assert.True(
                        Sum(RowKind.Subtotal) + Sum(RowKind.Tax) == Sum(RowKind.Total),
                        $"{seed}, {detail}: total"
                    );
                }
                var spread = Spread.Of(estimate, Trace.Silent);
                Assert.True(
                    spread.Lines.Sum(l => l.V) + spread.NoLines.V + spread.Contingency.V == estimate.Price.BeforeTax.V
                        || estimate.Reckoned.Lines.Length == 0,
                    $"{seed}: lines"
                );
            }
        );

    /// <summary>What is signed sums as it is read: price before tax and what stands beside it to the total, and the steps to the total.</summary>
    [Fact]
    public void What_is_signed_adds_up_at_every_detail() =>
        Each(
            2_500_000,
            (seed, estimate) =>
            {
                var detail = Enum.GetValues<Detail>()[seed % Enum.GetValues<Detail>().Length];
                var schedule = RandomPricing.Schedule(new Random(seed), estimate.Job);
                estimate = estimate.If(estimate.Job with { Schedule = schedule });
                var shown = estimate.ShownAs(estimate.Job.Proposal with { Detail = detail });
                var statement = Statement.AsSent(
                    Sample.Document(shown),
                    Brand.Starting,
                    RevisionFigures.Of(shown),
                    new RevisionStart(Guid.Empty, 1, null),
                    "x"
                );
                var total = StatementTests.Read(statement.Total);
                Assert.True(total == estimate.Price.Total.V, $"{seed}: {statement.Total}");
                Assert.True(statement.Price.Sum(StatementTests.Read) == total, $"{seed}: {statement.Text}");
                if (!statement.Steps.IsEmpty)
                    Assert.True(statement.Steps.Sum(StatementTests.Read) == total, $"{seed}: {statement.Text}");
            }
        );

    /// <summary>Where a unit price is shown, quantity × unit price is the line.</summary>
    private static void AtUnitPrices(int seed, Estimate estimate, ImmutableArray<PriceRow> rows)
    {
        static decimal Read(string shown) =>
            decimal.Parse(
                shown.Split(' ')[0].Replace(",", "").Replace('−', '-'),
                System.Globalization.CultureInfo.InvariantCulture
            );
        foreach (var row in rows.Where(r => r.UnitPrice.Length > 0))
        {
            if (row.Of is { } of)
            {
                Assert.Equal(Read(row.UnitPrice), of.UnitPrice);
                Assert.Equal(row.Amount, Rounding.Money(of.Quantity * of.UnitPrice!.Value, PlacesOf(estimate)));
                continue;
            }
            // The quantity is shown rounded; the line is reckoned by the whole of it.
            var ids = row.Figure!.Split('/');
            var line = estimate.Reckoned.At(new(Guid.Parse(ids[1]), Guid.Parse(ids[2])))!;
            var by = Rounding.Money(line.Quantity.V * Read(row.UnitPrice), PlacesOf(estimate));
            Assert.True(by == row.Amount, $"{seed}: {row.Label}, {by} is not {row.Amount}");
        }
    }

    [Fact]
    public void Payment_steps_come_to_the_price_and_to_the_total() =>
        Each(
            9_000_000,
            (seed, estimate) =>
            {
                var random = new Random(seed);
                ImmutableArray<PaymentStep> steps =
                [
                    .. Enumerable
                        .Range(0, random.Next(4))
                        .Select(i =>
                            random.Next(2) == 0
                                ? new PaymentStep($"{i}", random.Next(1, 2500) / 100m, null, false)
                                : new PaymentStep($"{i}", null, random.Next(1, 100_000) / 100m, random.Next(2) == 0)
                        ),
                    .. Enumerable
                        .Range(1, random.Next(1, 4))
                        .Select(i => new PaymentStep($"left {i}", null, null, false)),
                ];
                var job = estimate.Job with { Pricing = estimate.Job.Pricing with { Payment = steps } };
                var priced = PaymentPlan.Of(estimate.If(job), Trace.Silent);
                Assert.True(priced.Sum(s => s.BeforeTax.V) == estimate.Price.BeforeTax.V, $"{seed}: before tax");
                Assert.True(priced.Sum(s => s.Total.V) == estimate.Price.Total.V, $"{seed}: with tax");
                foreach (var step in priced.Where(s => s.Step is { Amount: not null, BeforeTax: false }))
                    Assert.True(
                        step.Total.V <= step.Step.Amount,
                        $"{seed}: {step.Total.V} is more than {step.Step.Amount}"
                    );
            }
        );

    [Fact]
    public void Solving_there_and_back_lands_on_the_same_cent_where_nothing_binds()
    {
        var solved = 0;
        Each(
            3_000_000,
            (seed, estimate) =>
            {
                // Somewhere that can be reached: another profit, margin or adjustment. Rounding is stepped over by what is typed.
                var random = new Random(seed);
                var terms = estimate.Job.Pricing with { Rounding = null };
                var there = terms with
                {
                    Profit = terms.Basis == PriceBasis.Markup ? random.Next(0, 4000) / 100m : terms.Profit,
                    TargetMargin =
                        terms.Basis == PriceBasis.TargetMargin ? random.Next(0, 7000) / 100m : terms.TargetMargin,
                    Adjustment = terms.Basis is PriceBasis.Markup or PriceBasis.TargetMargin
                        ? terms.Adjustment
                        : random.Next(0, 300),
                };
                var goal = Sample.Reckon(estimate.Job with { Pricing = there });
                if (goal.Price.BeforeTax.V <= 0 || goal.Price.Step("leastJob") is not null)
                    return;
                // Where least charges of lines hold the price, the term moves nothing but cents of tax: they bind.
                var now = Sample.Reckon(estimate.Job with { Pricing = terms });
                if (
                    goal.Price.Step("least") is not null
                    && decimal.Abs(goal.Price.BeforeTax.V - now.Price.BeforeTax.V) < 1
                )
                    return;
                var what = random.Next(2) == 0 ? SolveFor.Total : SolveFor.BeforeTax;
                decimal Value(Price price) => what == SolveFor.Total ? price.Total.V : price.BeforeTax.V;
                var answer = Solving.Of(estimate, what, Value(goal.Price)).Exact;
                Assert.True(answer is not null, $"{seed}: no answer for {what} {Value(goal.Price)}");
                Assert.True(
                    Value(answer.Estimate.Price) == Value(goal.Price),
                    $"{seed}: {Value(answer.Estimate.Price)}"
                );
                solved++;
            }
        );
        Assert.InRange(solved, Count / 2, Count);
    }

    [Fact]
    public void A_piece_left_out_and_put_back_changes_nothing() =>
        Each(
            4_000_000,
            (seed, estimate) =>
            {
                var (random, job) = (new Random(seed), estimate.Job);
                var kind = (PieceKind)random.Next(3);
                if (Piece.Of(job, kind).FirstOrDefault(p => p.State == PieceState.In) is not { } piece)
                    return;
                var to = random.Next(2) == 0 ? PieceState.Out : PieceState.Alternate;
                var without = job.Do(new SetPiece(kind, piece.Id, PieceState.In, to));
                Assert.Null(Piece.Of(without, kind, piece.Id, PieceState.In));
                var back = without.Do(new SetPiece(kind, piece.Id, to, PieceState.In));
                Assert.True(JobFile.Write(job).SequenceEqual(JobFile.Write(back)), $"{seed}: the job differs");
            }
        );

    [Fact]
    public void Taxes_by_category_keep_the_rules_of_EN_16931() =>
        Each(
            5_000_000,
            (seed, estimate) =>
            {
                // EN 16931-1, business rules on the totals, from memory: BR-CO-10 (lines), 11 and 12 (allowances and charges), 13 (without VAT), 14 and 17 (VAT by category), 15 (with VAT), 16 (due).
                var (price, places) = (estimate.Price, PlacesOf(estimate));
                var lines = Spread.Of(estimate, Trace.Silent, Apart.Discounts);
                var (net, allowances) = (
                    lines.Lines.Sum(l => l.V) + lines.NoLines.V + lines.Contingency.V,
                    -price.Steps.Where(s => s.IsDiscount).Sum(s => s.Amount.V)
                );
                var withoutVat = net - allowances;
                if (estimate.Reckoned.Lines.Any(l => l.Ours))
                    Assert.True(withoutVat == price.BeforeTax.V, $"{seed}: BR-CO-13 {withoutVat}");
                var byCategory = price.Portions.GroupBy(p => p.Tax.Number).ToArray();
                Assert.True(
                    byCategory.Sum(c => c.Sum(p => p.Amount.V)) == price.BeforeTax.V,
                    $"{seed}: taxable amounts"
                );
                foreach (var tax in price.Taxes)
                {
                    var taxed = byCategory
                        .Where(c => c.First().Tax.Taxes.Any(t => t.Id == tax.Tax?.Id))
                        .Sum(c => c.Sum(p => p.Amount.V));
                    Assert.True(taxed == tax.Taxed.V, $"{seed}: taxed");
                    var amount = decimal.Round(
                        taxed * (tax.Tax?.Rate ?? 0) / 100,
                        places,
                        MidpointRounding.AwayFromZero
                    );
                    Assert.True(amount == tax.Amount.V, $"{seed}: BR-CO-17 {amount} {tax.Amount.V}");
                }
                var rounding = price.Step("roundingAfterTax")?.Amount.V ?? 0;
                Assert.True(
                    price.Total.V == price.BeforeTax.V + price.Taxes.Sum(t => t.Amount.V) + rounding,
                    $"{seed}: BR-CO-14, 15 and 16"
                );
                foreach (var category in byCategory.Select(c => c.First().Tax))
                    Assert.True(
                        category.Code is "S" == category.Taxes.Any(t => t.Rate > 0)
                            && (category.Code is "S" or "Z" || category.Reason.Length > 0),
                        $"{seed}: category {category.Code}"
                    );
            }
        );

    [Fact]
    public void Every_figure_is_recomputed_from_its_explanation()
    {
        for (var seed = 6_000_000; seed < 6_000_000 + Count / 20; seed++)
        {
            Trace trace;
            try
            {
                trace = Reported.Record(RandomPricing.Job(new Random(seed))).Trace;
            }
            catch (RefusedException)
            {
                continue;
            }
            WorkingsTests.Recomputed(trace);
        }
    }
}
