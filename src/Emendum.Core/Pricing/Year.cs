using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>One occurrence in its first year.</summary>
/// <param name="Of">It, with its price.</param>
/// <param name="Visits">How often it comes in each month.</param>
public sealed record OccurrenceInYear(PricedOccurrence Of, ImmutableArray<int> Visits)
{
    /// <summary>Labour hours of one.</summary>
    public Total Hours => Of.Occurrence.Reckoned.Costs.Hours;
}

/// <summary>A month of the first year.</summary>
/// <param name="From">Its first day.</param>
/// <param name="Billed">What is billed, before tax.</param>
/// <param name="Cost">What it costs, with allowances and fees.</param>
/// <param name="Profit">Billed less cost.</param>
/// <param name="SoFar">Profit from the first month to this one.</param>
public sealed record YearMonth(DateOnly From, Total Billed, Total Cost, Total Profit, Total SoFar);

/// <summary>What a season of an event brings.</summary>
/// <param name="Rhythm">The event.</param>
/// <param name="Expected">At as many as are expected.</param>
/// <param name="Capped">At as many as are billed at the most; null where one of its bands has no cap.</param>
public sealed record Season(Rhythm Rhythm, Total Expected, Total? Capped);

/// <summary>
/// The first year of a round, month by month, and the years after it (estimating model §7; pricing, Rounds). Amounts of months are rounded half away from zero and the last closes, so that they sum to the year.
/// </summary>
/// <param name="Estimate">The job.</param>
/// <param name="FirstDay">On which the first of all visits falls; null where nobody can know.</param>
/// <param name="Occurrences">What comes back.</param>
/// <param name="Once">What is done once; null where nothing is.</param>
/// <param name="Supplies">What is bought for the year, with markup; null where nothing is.</param>
/// <param name="OfYear">The year, without what is done once.</param>
/// <param name="Cost">What that costs.</param>
/// <param name="Profit">What it leaves.</param>
/// <param name="Margin">The same in percent; null where there is no price.</param>
/// <param name="Month">A twelfth of the year.</param>
/// <param name="Last">What the twelfth month is then.</param>
/// <param name="Months">Twelve.</param>
/// <param name="Seasons">What events bring.</param>
/// <param name="Years">The price of each year that is looked at, without what is done once.</param>
public sealed record Year(
    Estimate Estimate,
    DateOnly? FirstDay,
    ImmutableArray<OccurrenceInYear> Occurrences,
    PricedOccurrence? Once,
    Total? Supplies,
    Total OfYear,
    Total Cost,
    Total Profit,
    Total? Margin,
    Total Month,
    Total Last,
    ImmutableArray<YearMonth> Months,
    ImmutableArray<Season> Seasons,
    ImmutableArray<Total> Years
)
{
    /// <summary>The year of a job; null where none of its work comes back.</summary>
    /// <param name="estimate">The job; made with <paramref name="trace"/> where that records.</param>
    /// <param name="trace">Records how, or is silent.</param>
    /// <exception cref="RefusedException">Its numbers are beyond what can be reckoned with.</exception>
    public static Year? Of(Estimate estimate, Trace trace) =>
        estimate.Price.Occurrences.IsEmpty ? null : Reckoner.Bounded(() => new Maker(estimate, trace).Year());

    /// <summary>What one supply costs in the year.</summary>
    public static Total CostOf(Estimate estimate, YearSupply supply) =>
        SuppliesPass.CostOf(estimate.Price.Draft, supply);

    /// <summary>The year while it is made.</summary>
    private sealed class Maker(Estimate estimate, Trace trace)
    {
        private readonly PriceDraft draft = estimate.Price.Draft;
        private readonly RoundTerms terms = estimate.Job.Round;
        private readonly RoundDays days = RoundDays.Of(estimate.Job);

        private Total Figure(Val value, string unit, string label, string leaf) =>
            trace.Total(value, unit, label, new("year", leaf));

        private Total Money(Val value, string label, string leaf) => Figure(value.Money(draft.Places), "", label, leaf);

        public Year Year()
        {
            ImmutableArray<OccurrenceInYear> all =
            [
                .. draft.Occurrences.Where(o => o.Occurrence.Rhythm is not null).Select(InYear),
            ];
            var once = draft.Occurrences.FirstOrDefault(o => o.Occurrence.Rhythm is null);
            var year = estimate.Price.Step(YearPass.Key)!.Amount;
            var cost = Money(
                once is null ? estimate.Price.Readouts.Cost.Value : estimate.Price.Readouts.Cost - once.Cost,
                "Cost of the year",
                "cost"
            );
            var profit = Money(year - cost, "Profit of the year", "profit");
            var month = Money(year / 12m, "A month", "month");
            return new(
                estimate,
                FirstDay(),
                all,
                once,
                estimate.Price.Step(SuppliesPass.Key)?.Amount,
                year,
                cost,
                profit,
                year.V == 0 ? null : Figure(profit * 100m / year, "%", "Margin of the year", "margin"),
                month,
                Money(year - 11m * month.Value, "The twelfth month", "last"),
                Months(all, once, year),
                [.. estimate.Job.Rhythms.Where(r => r.Kind == RhythmKind.Event).Select(SeasonOf).OfType<Season>()],
                Years(year)
            );
        }

        private DateOnly? FirstDay() =>
            estimate
                .Job.Rhythms.Where(r => draft.Occurrences.Any(o => o.Occurrence.Rhythm?.Id == r.Id))
                .SelectMany(r => days.Of(r))
                .Order()
                .Cast<DateOnly?>()
                .FirstOrDefault();

        private OccurrenceInYear InYear(PricedOccurrence of) =>
            new(
                of,
                [
                    .. of.Occurrence.Band is { } band
                        ? days.ByMonth(of.Occurrence.Rhythm!, band)
                        : days.ByMonth(of.Occurrence.Rhythm!),
                ]
            );

        private ImmutableArray<YearMonth> Months(
            ImmutableArray<OccurrenceInYear> all,
            PricedOccurrence? once,
            Total year
        )
        {
            var (billed, cost) = (Sums(), Sums());
            Bill(billed, all, year);
            foreach (var one in all)
                AsDone(cost, one, one.Of.Cost);
            foreach (var supply in terms.Supplies)
                Over(cost, SuppliesPass.CostOf(draft, supply), MonthsOf(supply), supply.Name);
            if (once is not null)
            {
                billed[0].Add(once.InYear);
                cost[0].Add(once.Cost);
            }
            var months = ImmutableArray.CreateBuilder<YearMonth>(12);
            Val so = 0m;
            for (var n = 0; n < 12; n++)
            {
                var from = days.First.AddMonths(n);
                Total Of(Val value, string label, string leaf) =>
                    Money(value, trace.On ? $"{label}, {NameOf(from)}" : "", $"months/{n + 1}/{leaf}");
                var bill = Of(billed[n].Total, "Billed", "billed");
                var costs = Of(cost[n].Total, "Cost", "cost");
                var profit = Of(bill - costs, "Profit", "profit");
                var soFar = Of(n == 0 ? profit.Value : so + profit, "Profit so far", "soFar");
                months.Add(new(from, bill, costs, profit, soFar));
                so = soFar;
            }
            return months.ToImmutable();
        }

        private static string NameOf(DateOnly month) =>
            month.ToString("MMMM yyyy", System.Globalization.CultureInfo.InvariantCulture);

        private static Sum[] Sums() => [.. Enumerable.Range(0, 12).Select(_ => new Sum())];

        private int[] MonthsOf(YearSupply supply) => supply.Months.IsEmpty ? [0] : days.Positions(supply.Months);

        /// <summary>What each month is billed of the year.</summary>
        private void Bill(Sum[] months, ImmutableArray<OccurrenceInYear> all, Total year)
        {
            if (terms.Billing == RoundBilling.Level)
            {
                Over(months, year, days.Positions([]), "the year");
                return;
            }
            foreach (var one in all)
                if (terms.Billing == RoundBilling.AsDone)
                    AsDone(months, one, one.Of.Price);
                else
                    Over(
                        months,
                        one.Of.InYear,
                        days.Positions(one.Of.Occurrence.Rhythm!.Months),
                        one.Of.Occurrence.Name
                    );
            var supplies = estimate.Price.Step(SuppliesPass.Key)?.Amount;
            if (supplies is not null)
                BillSupplies(months, supplies);
            // What is taken off the year, or adjusted in it, is no month's.
            var rest = year - Sum.Of(all.Select(o => o.Of.InYear.Value));
            if (supplies is not null)
                rest -= supplies;
            if (rest.V != 0)
                Over(months, Money(rest, "Discounts and adjustment of the year", "rest"), days.Positions([]), "rest");
        }

        /// <summary>Supplies are billed in twelve parts, or, where all is billed as it is done, when they are bought.</summary>
        private void BillSupplies(Sum[] months, Total supplies)
        {
            if (terms.Billing != RoundBilling.AsDone)
            {
                Over(months, supplies, days.Positions([]), "supplies");
                return;
            }
            var shares = Shares.Of(
                supplies,
                [.. terms.Supplies.Select(s => SuppliesPass.CostOf(draft, s).Value)],
                "supplies of the year by cost",
                draft.Places,
                trace
            );
            for (var i = 0; i < shares.Length; i++)
                Over(
                    months,
                    Money(shares[i], terms.Supplies[i].Name + ", with markup", $"supplies/{terms.Supplies[i].Id}"),
                    MonthsOf(terms.Supplies[i]),
                    terms.Supplies[i].Name
                );
        }

        /// <summary>An amount in equal parts over some months: rounded, and the last closes.</summary>
        private void Over(Sum[] months, Total amount, int[] at, string name)
        {
            if (at.Length == 1)
            {
                months[at[0]].Add(amount);
                return;
            }
            var part = trace.Make(
                (amount / at.Length).Money(draft.Places),
                "",
                trace.On ? $"{name}, one of {at.Length} months" : "",
                new("year", $"parts/{amount.Path}/{at.Length}")
            );
            foreach (var n in at[..^1])
                months[n].Add(part);
            months[at[^1]].Add(amount - (at.Length - 1) * part);
        }

        /// <summary>An amount as often as it comes in each month.</summary>
        private void AsDone(Sum[] months, OccurrenceInYear of, Total one)
        {
            for (var n = 0; n < 12; n++)
                if (of.Visits[n] != 0)
                    months[n]
                        .Add(
                            one
                                * trace.Typed(
                                    of.Visits[n],
                                    "",
                                    trace.On ? $"{of.Of.Occurrence.Name}, {NameOf(days.First.AddMonths(n))}" : "",
                                    null,
                                    "rhythms",
                                    of.Of.Occurrence.Rhythm!.Id
                                )
                        );
        }

        private Season? SeasonOf(Rhythm rhythm)
        {
            var bands = draft.Occurrences.Where(o => o.Occurrence.Rhythm?.Id == rhythm.Id).ToArray();
            if (bands.Length == 0)
                return null;
            var expected = Money(
                Sum.Of(bands.Select(b => b.InYear.Value)),
                rhythm.Name + ": a season as expected",
                $"seasons/{rhythm.Id}/expected"
            );
            return new(
                rhythm,
                expected,
                Array.Exists(bands, b => b.Occurrence.Band!.Cap is null)
                    ? null
                    : Money(
                        Sum.Of(
                            bands.Select(b =>
                                b.Price
                                * trace.Typed(
                                    b.Occurrence.Band!.Cap!.Value,
                                    "",
                                    "at the most",
                                    null,
                                    "rhythms",
                                    rhythm.Id
                                )
                            )
                        ),
                        rhythm.Name + ": a season at its cap",
                        $"seasons/{rhythm.Id}/capped"
                    )
            );
        }

        /// <summary>Each year is dearer than the one before by the rise, rounded to cents, and not to the step of a visit again.</summary>
        private ImmutableArray<Total> Years(Total year)
        {
            var years = ImmutableArray.CreateBuilder<Total>(terms.Years);
            var rise = trace.Typed(terms.Rise, "%", "yearly rise", null, "round", estimate.Job.Id);
            Val before = year;
            for (var n = 1; n <= terms.Years; n++)
            {
                var now = Money(n == 1 ? before : before * (100m + rise) / 100m, $"Year {n}", $"years/{n}");
                years.Add(now);
                before = now;
            }
            return years.ToImmutable();
        }
    }
}
