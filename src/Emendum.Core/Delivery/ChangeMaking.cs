using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Delivery;

/// <summary>What a change order is to hold.</summary>
/// <param name="Id">Id of the revision that it becomes.</param>
/// <param name="Number">Its number in the job.</param>
/// <param name="Title">What it is about.</param>
/// <param name="Lines">The lines that it takes, whole pieces of <see cref="ChangedJob.Pieces"/>.</param>
public sealed record ChangeWish(Guid Id, int Number, string Title, ImmutableHashSet<CellKey> Lines)
{
    /// <summary>Goods that were ordered for dropped work and cannot go back.</summary>
    public ImmutableArray<KeptGoods> Goods { get; init; } = [];

    /// <summary>Whether a person lets it take the contract sum below the job's least charge (M15).</summary>
    public bool BelowLeast { get; init; }

    /// <summary>Whether added work is priced at the Book of the job as it stands, and not at that of the accepted revision (M17).</summary>
    public bool TodaysBook { get; init; }

    /// <summary>The step of the payment plan that bills it, too; null for none.</summary>
    public int? WithStep { get; init; }
}

/// <summary>What a change order is made against.</summary>
/// <param name="Job">The job against what was agreed.</param>
/// <param name="Contract">The contract as it stands.</param>
/// <param name="ByLine">It by its lines.</param>
/// <param name="Done">How much of a line is done, percent.</param>
/// <param name="Base">The fact that it rests on.</param>
public sealed record ChangeGround(
    ChangedJob Job,
    AgreedContract Contract,
    ContractByLine ByLine,
    Func<CellKey, decimal> Done,
    Guid Base
);

/// <summary>Prices changes of a contract (delivery.md, M13 to M17).</summary>
public static class ChangeMaking
{
    /// <summary>Label of what goods keep in the contract sum that were ordered for dropped work.</summary>
    internal const string GoodsStay = "Goods that stay with you";

    /// <summary>Label of what the job's least charge keeps in it (M15).</summary>
    public const string LeastHolds = "Least charge of the job";

    /// <summary>A change order.</summary>
    /// <param name="ground">What it is made against.</param>
    /// <param name="wish">What it is to hold.</param>
    /// <param name="now">The job as it stands, whose Book may be asked for.</param>
    /// <exception cref="RefusedException">It holds nothing, or cannot be priced.</exception>
    public static ChangeOrder Of(ChangeGround ground, ChangeWish wish, Job now)
    {
        if (wish.Lines.IsEmpty)
            throw RefusedException.Of("lines", "Choose what the change order is to hold.");
        var making = new Making(ground, wish, now);
        return making.Made();
    }

    private sealed class Making
    {
        private readonly ChangeGround ground;
        private readonly ChangeWish wish;
        private readonly Estimate then;
        private readonly Estimate alone;
        private readonly List<AgreedCategory> categories;
        private readonly Dictionary<CellKey, decimal[]> charges = [];

        // What is no line's of the work priced alone: contingency that is shown, a bracket of nothing; by category.
        private readonly List<decimal> loose;
        private readonly int places;

        public Making(ChangeGround ground, ChangeWish wish, Job now)
        {
            (this.ground, this.wish) = (ground, wish);
            var agreed = ground.Job.Agreed;
            places = agreed.MoneyPlaces;
            then = Estimate.Of(ground.Job.With(wish.Lines), Trace.Silent);
            var priced = wish.TodaysBook
                ? Estimate.Of(then.Job with { Book = then.Job.Book.SetItems(now.Book) }, Trace.Silent)
                : then;
            var cells = priced
                .Job.Cells.Where(c => wish.Lines.Contains(c.Key) && ground.Job.After(c.Key) is not null)
                .ToImmutableDictionary();
            var work = cells.Keys.Select(k => k.Work).ToHashSet();
            alone = Alternates.Alone(priced, cells, [.. priced.Job.Work.Where(w => work.Contains(w.Id))], Trace.Silent);
            categories = [.. ground.Contract.Categories.Select(c => c with { Amount = 0 })];
            loose = [.. categories.Select(_ => 0m)];
            Charged();
        }

        /// <summary>What lines that are done cost, priced as a section of its own, by tax category.</summary>
        private void Charged()
        {
            var spread = Spread.Of(alone, Trace.Silent);
            foreach (var (number, category) in AgreedContract.CategoriesOf(alone.Price))
            {
                var at = categories.FindIndex(c => c.IsLike(category));
                if (at < 0)
                {
                    at = categories.Count;
                    categories.Add(category with { Amount = 0 });
                    loose.Add(0);
                }
                loose[at] += category.Amount;
                for (var n = 0; n < alone.Reckoned.Lines.Length; n++)
                {
                    var line = alone.Reckoned.Lines[n];
                    var price = spread.ByTax.TryGetValue(number, out var prices) ? prices[n].V : 0;
                    if (price == 0)
                        continue;
                    loose[at] -= price;
                    Charge(new(line.OfItem.Item.Id, line.Measures.Place.Id), at, price);
                }
            }
        }

        private void Charge(CellKey key, int category, decimal price)
        {
            var of = charges.GetValueOrDefault(key) ?? [];
            if (of.Length <= category)
                Array.Resize(ref of, category + 1);
            of[category] += price;
            charges[key] = of;
        }

        public ChangeOrder Made()
        {
            var lines = ground.Job.Pieces.SelectMany(p => p.Lines).Where(wish.Lines.Contains).Select(Of).ToList();
            var sum = lines.Aggregate(Nothing, (all, l) => all + l.Moves);
            var steps = new List<ChangeStep>();
            if (loose.Exists(l => l != 0))
            {
                steps.Add(new(alone.Price.Draft.Contingency.V != 0 ? "Contingency" : "Other work", loose.Sum()));
                sum += new ByCategory([.. loose]);
            }
            var kept = Keeps(lines, sum, steps);
            sum += kept;
            var beside = kept + new ByCategory([.. loose]);
            return new(
                wish.Id,
                wish.Number,
                wish.Title,
                [.. lines.Select(l => l.Line)],
                wish.Goods,
                [.. steps],
                InCategories(sum),
                InCategories(beside),
                sum.Tax([.. categories.Select((c, i) => new TaxCategory(i, c.Code, c.Taxes))], places),
                Rounding.Kept(then.Reckoned.Costs.Hours.V - ground.Job.Agreed.Reckoned.Costs.Hours.V),
                ground.Base
            )
            {
                WithStep = wish.WithStep,
                TodaysBook = wish.TodaysBook,
            };
        }

        private ByCategory Nothing => ByCategory.Nothing(categories.Count);

        private ByCategory Ones => new([.. categories.Select((_, i) => i == 0 ? 1m : 0m)]);

        private ImmutableArray<AgreedCategory> InCategories(ByCategory of) =>
            [.. categories.Select((c, i) => c with { Amount = of[i] }).Where(c => c.Amount != 0)];

        /// <summary>What of dropped work stays in the contract sum: goods that cannot go back (M14), and as much as the job's least charge asks for (M15).</summary>
        private ByCategory Keeps(
            List<(ChangedLine Line, ByCategory Moves, ByCategory Credit)> lines,
            ByCategory sum,
            List<ChangeStep> steps
        )
        {
            var dropped = lines.Where(l => l.Line.Kind == ChangeKind.Dropped).ToList();
            var credit = dropped.Aggregate(Nothing, (all, l) => all - l.Credit);
            var goods = wish.Goods.Sum(g => Rounding.Money(g.Cost, places));
            var drop = ChangedWork.Dropped(credit.Sum, goods);
            var kept = Nothing;
            if (drop + credit.Sum is > 0 and var stays)
            {
                steps.Add(new(GoodsStay, stays));
                kept += credit.Share(stays, Ones, places);
            }
            var least = ground.Job.Agreed.Job.Pricing.LeastJob;
            var moves = sum.Sum + kept.Sum;
            if (!wish.BelowLeast && least > 0 && moves < 0)
            {
                var bears = ChangedWork.AboveLeast(moves, ground.Contract.Contract.Sum.Sum, least);
                if (bears - moves is > 0 and var holds)
                {
                    steps.Add(new(LeastHolds, holds));
                    kept += credit.Share(holds, Ones, places);
                }
            }
            return kept;
        }

        private (ChangedLine Line, ByCategory Moves, ByCategory Credit) Of(CellKey key)
        {
            var (was, now) = (ground.Job.Before(key), ground.Job.After(key));
            var worth = Nothing + ground.ByLine[key];
            var charge = Nothing + new ByCategory([.. charges.GetValueOrDefault(key) ?? []]);
            var one = (now ?? was)!;
            var done = ground.Done(key);
            var (kind, credit) = (was, now) switch
            {
                (null, _) => (ChangeKind.Added, Nothing),
                (_, null) => (ChangeKind.Dropped, Less(worth, 100m - done)),
                _ => (ChangeKind.Repriced, Less(worth, 100m)),
            };
            if (was is not null && now is not null && AtUnitPrice(was, now, worth) is { } more)
                (kind, credit, charge) = (ChangeKind.Remeasured, Nothing, more);
            var left = kind switch
            {
                ChangeKind.Dropped => worth + credit,
                ChangeKind.Remeasured => worth + charge,
                _ => charge,
            };
            return (
                new(
                    key.Work,
                    key.Place,
                    kind,
                    (now is null ? ground.Job.Agreed : then).Job.Titled(one.OfItem.Item),
                    PlacesInWords.Named(one.Measures.Place),
                    Says(was, now, done, ground.Job.Agreed.Job.Units),
                    credit.Sum,
                    charge.Sum,
                    one.Hidden,
                    InCategories(left)
                )
                {
                    Done = done,
                },
                credit + charge,
                credit
            );
        }

        /// <summary>A part of what a line is worth, taken off.</summary>
        private ByCategory Less(ByCategory worth, decimal percent) =>
            new([.. worth.Amounts.Select(a => -Rounding.Money(a * percent / 100m, places))]);

        /// <summary>More or less of a line whose unit price was shown, at that price, with the percent discounts that stood beside it (M16, M17); null where it differs in more than its quantity, or no unit price was shown.</summary>
        private ByCategory? AtUnitPrice(Line was, Line now, ByCategory worth)
        {
            var agreed = ground.Job.Agreed;
            if (
                agreed.Job.Proposal is not { Detail: Detail.Line, UnitPrices: true }
                || was.Hidden
                || was.Quantity.V == 0
                || now.Quantity.V == was.Quantity.V
                || !ChangedJob.WorkedAlike(was, now)
            )
                return null;
            Printed ??= Spread.Of(agreed, Trace.Silent, Apart.Adjustments);
            var at = Array.IndexOf(agreed.Reckoned.Lines, was);
            var unit = (Printed.Shown[at] / was.Quantity).Money(places).V;
            var amount = ChangedWork.Remeasured(now.Quantity.V - was.Quantity.V, unit, places);
            foreach (var discount in agreed.Job.Pricing.Discounts)
                if (discount.Percent is { } percent)
                    amount -= Rounding.Money(amount * percent / 100m, places);
            return worth.Share(amount, Ones, places);
        }

        private Spread? Printed { get; set; }
    }

    /// <summary>How a line differs, in a few words.</summary>
    /// <param name="was">As it was agreed; null where it was not.</param>
    /// <param name="now">As it is by now; null where it is not done any more.</param>
    /// <param name="done">How much of it is done, percent.</param>
    /// <param name="units">Units of the job.</param>
    public static string Says(Line? was, Line? now, decimal done, UnitSystem units)
    {
        string Amount(Line of)
        {
            var symbol = of.OfItem.SymbolIn(units);
            return $"{Shown.Amount(of.Quantity.V, symbol)} {symbol}".TrimEnd();
        }
        var said = new List<string>();
        if (was is null || now is null)
            said.Add(Amount((now ?? was)!));
        else if (was.Quantity.V != now.Quantity.V)
            said.Add($"{Amount(was)} → {Amount(now)}");
        if (was is not null && now is not null)
        {
            var (before, after) = (was.Cell.Of(was.OfItem.Item), now.Cell.Of(now.OfItem.Item));
            if (before.Coats != after.Coats)
                said.Add($"{Counted.Of(before.Coats, "coat")} → {Counted.Of(after.Coats, "coat")}");
            if (before.Colour != after.Colour)
                said.Add(
                    $"{(before.Colour.Length > 0 ? before.Colour : "no colour")} → {(after.Colour.Length > 0 ? after.Colour : "no colour")}"
                );
            if (said.Count == 0)
                said.Add("done otherwise");
        }
        else if (now is null && done > 0)
            said.Add($"{Shown.Typed(done)} % done: the rest is dropped");
        return string.Join(", ", said);
    }
}
