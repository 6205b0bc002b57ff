using System.Collections.Immutable;
using System.Text.Json;
using CsCheck;
using Emendum.Core.Book;
using Emendum.Core.Delivery;
using Emendum.Core.Json;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Stock and orders: delivery.md, S1 to S7, each by its number.</summary>
public sealed class StockTests
{
    private static readonly Guid A = new("00000000-0000-7000-8000-00000000000a"),
        B = new("00000000-0000-7000-8000-00000000000b"),
        C = new("00000000-0000-7000-8000-00000000000c");

    private static readonly DateOnly Today = new(2027, 3, 1);
    private static readonly GoodsKey Paint = new(new("00000000-0000-7000-8000-000000000001"), "Chalk", "gal");

    private static StockFact Fact(
        StockMove move,
        decimal quantity,
        Guid? job = null,
        decimal? paid = null,
        string words = ""
    ) =>
        new(
            Guid.CreateVersion7(),
            move,
            Paint,
            "Wall paint",
            quantity,
            job,
            Today,
            words,
            new DateTime(2027, 3, 1, 9, 0, 0, DateTimeKind.Utc),
            "Nora"
        )
        {
            Paid = paid,
        };

    private static StockFact Came(decimal quantity, decimal paid, Guid? job = null) =>
        Fact(StockMove.Received, quantity, job, paid);

    /// <summary>Writes facts one after the other, each checked as the store checks it.</summary>
    private sealed class Books
    {
        public List<StockFact> Facts { get; } = [];

        public StockItem Now => StockItem.Of(Paint, Facts);

        public Books Write(params StockFact[] facts)
        {
            foreach (var fact in facts)
            {
                fact.Check(Today);
                _ = StockItem.With(Paint, Facts, fact);
                Facts.Add(fact);
            }
            return this;
        }

        public string Refused(StockFact fact) => Assert.Throws<RefusedException>(() => Write(fact)).Refusal.Message;
    }

    [Fact]
    public void Goods_are_counted_by_material_colour_and_unit_and_free_is_what_nobody_keeps()
    {
        Assert.Equal(Paint, Paint with { Colour = " chalk" });
        Assert.NotEqual(Paint, Paint with { Colour = "Slate" });
        Assert.NotEqual(Paint, Paint with { Unit = "L" });
        var now = new Books().Write(Came(10, 480), Fact(StockMove.Reserved, 3, A)).Now;
        Assert.Equal((10, 3, 7), (now.OnHand, now.Reserved, now.Free));
    }

    private static GoodsStand Stand(decimal need, StockItem stock, decimal onOrder = 0, decimal minimum = 0) =>
        new(
            new(
                Paint.Material,
                "Wall paint",
                Paint.Colour,
                Paint.Unit,
                need,
                minimum,
                [new("1 gal can", 1, 48), new("5 gal pail", 5, 215)],
                "Ropewalk Trade Supply",
                "",
                0,
                "1 × 5 gal pail",
                215,
                0
            ),
            stock,
            stock.UsedBy(A),
            stock.ReservedFor(A),
            onOrder,
            0
        );

    [Fact]
    public void To_buy_is_need_less_used_less_reserved_less_on_order_and_its_packs_are_chosen_anew()
    {
        var nothing = Stand(4.75m, StockItem.Of(Paint, []));
        Assert.Equal([0m, 1m], nothing.ToBuy.Counts);
        Assert.Equal(215m, nothing.ToBuyCost);

        var kept = new Books().Write(Came(1, 48), Fact(StockMove.Reserved, 1, A));
        var with = Stand(4.75m, kept.Now);
        Assert.Equal(3.75m, with.Rest);
        Assert.Equal([4m, 0m], with.ToBuy.Counts);
        Assert.Equal(192m, with.ToBuyCost);

        // What is kept for another job is not this one's.
        Assert.Equal(4.75m, Stand(4.75m, new Books().Write(Came(1, 48, B)).Now).Rest);

        // Used counts like reserved: using what was kept leaves as much to buy as before.
        Assert.Equal(3.75m, Stand(4.75m, kept.Write(Fact(StockMove.Used, 1, A)).Now).Rest);
        Assert.Equal(0, Stand(4.75m, kept.Now, onOrder: 5).Rest);
        Assert.Equal([0m, 0m], Stand(4.75m, kept.Now, onOrder: 5).ToBuy.Counts);

        // A least order counts for what is ordered now, and for nothing where nothing is needed.
        Assert.Equal(5, Stand(4.75m, kept.Now, minimum: 5).Required);
        Assert.Equal(0, Stand(1, kept.Now, minimum: 5).Required);
    }

    [Fact]
    public void A_job_reserves_up_to_what_is_free()
    {
        var books = new Books().Write(Came(5, 240), Fact(StockMove.Reserved, 4, A));
        Assert.Equal("Only 1 gal is free.", books.Refused(Fact(StockMove.Reserved, 4, B)));
        books.Write(Fact(StockMove.Reserved, 1, B));
        Assert.Equal("Only 0 gal is free.", books.Refused(Fact(StockMove.Reserved, 0.000001m, C)));
        Assert.Equal("Only 1 gal is reserved for this job.", books.Refused(Fact(StockMove.Released, 2, B)));
        Assert.Equal(4, books.Write(Fact(StockMove.Released, 1, B)).Now.Reserved);
    }

    private static OrderStands Order(decimal count, StockFact[] came, params OrderFact[] facts) =>
        new(
            new(
                Guid.CreateVersion7(),
                "PO 2027-001",
                Today,
                new("Ropewalk Trade Supply", "", "", ""),
                "",
                null,
                "",
                [new(Paint, "Wall paint", "", "1 gal can", 1, count, 48, count * 48)],
                25,
                "USD",
                2
            ),
            [.. came.Select(c => c with { Line = 0 })],
            [.. facts]
        );

    private static OrderFact Happened(OrderEvent what, decimal amount = 0) =>
        new(Guid.CreateVersion7(), Guid.Empty, what, amount, "", default, "Nora");

    [Fact]
    public void What_comes_for_an_order_is_reserved_for_its_job_and_an_order_closed_short_gives_its_rest_back()
    {
        var four = Came(4, 192, A);
        var now = new Books().Write(four).Now;
        Assert.Equal((4, 0), (now.ReservedFor(A), now.Free));

        AgreedGoods[] agreed = [Stand(10, now).Agreed];
        JobGoods Of(params OrderStands[] orders) => JobGoods.Of(A, [.. agreed], [.. orders], [now]);
        Assert.Equal((6, 0), (Of(Order(10, [four])).Goods[0].OnOrder, Of(Order(10, [four])).Goods[0].Rest));
        var closed = Of(Order(10, [four], Happened(OrderEvent.Closed)));
        Assert.Equal((0, 6), (closed.Goods[0].OnOrder, closed.Goods[0].Rest));

        // More than ordered is taken in: nothing is on order, and all of it is kept for the job.
        var twelve = Came(12, 576, A);
        Assert.Equal(12, new Books().Write(twelve).Now.ReservedFor(A));
        var more = Order(10, [twelve]);
        Assert.Equal((0, true, false), (more.OnOrderOf(0), more.IsComplete, more.IsOpen));
    }

    [Fact]
    public void Use_takes_the_jobs_own_then_what_is_free_and_beyond_that_only_with_a_reason_from_the_latest_of_others()
    {
        var books = new Books().Write(
            Came(10, 480),
            Fact(StockMove.Reserved, 2, A),
            Fact(StockMove.Reserved, 3, B),
            Fact(StockMove.Reserved, 4, C)
        );
        // Its own 2 and the 1 that is free.
        books.Write(Fact(StockMove.Used, 3, A));
        Assert.Equal((7, 7, 0), (books.Now.OnHand, books.Now.Reserved, books.Now.Free));

        Assert.Equal(
            "Only 0 gal is there for this job: say why more is taken.",
            books.Refused(Fact(StockMove.Used, 5, A))
        );
        var taken = Fact(StockMove.Used, 5, A, words: "the stair cannot wait");
        var now = books.Write(taken).Now;
        // C reserved last and loses all of its 4; B, who reserved before, loses 1 of 3.
        Assert.Equal((2, 2, 2, 0), (now.OnHand, now.Reserved, now.ReservedFor(B), now.ReservedFor(C)));
        Assert.Equal([(C, 4m), (B, 1m)], now.Cuts.Select(c => (c.Job, c.Quantity)));
        Assert.All(now.Cuts, c => Assert.Equal(taken.Id, c.By.Id));

        // Only so can it stand below nothing, and the next receipt makes that good first.
        books.Write(Fact(StockMove.Used, 5, C, words: "found on site"));
        Assert.Equal((-3, 0, 0), (books.Now.OnHand, books.Now.Reserved, books.Now.Free));
        Assert.Equal("Only 0 gal is free.", books.Refused(Fact(StockMove.Reserved, 1, B)));
        books.Write(Came(8, 400, B));
        Assert.Equal((5, 5, 0), (books.Now.OnHand, books.Now.ReservedFor(B), books.Now.Free));
    }

    [Fact]
    public void A_count_sets_what_is_there_and_cuts_what_was_kept_beyond_it()
    {
        var books = new Books().Write(Came(10, 480), Fact(StockMove.Reserved, 6, A), Fact(StockMove.Reserved, 3, B));
        var count = Fact(StockMove.Counted, 7);
        books.Write(count);
        Assert.Equal((7, -3, 336m), (books.Now.OnHand, books.Now.DifferenceOf(count.Id), books.Now.Value));
        Assert.Equal((6, 1), (books.Now.ReservedFor(A), books.Now.ReservedFor(B)));
        Assert.Equal([(B, 2m)], books.Now.Cuts.Select(c => (c.Job, c.Quantity)));
        // What is found beyond the books is worth the average.
        Assert.Equal(432m, books.Write(Fact(StockMove.Counted, 9)).Now.Value);
        Assert.Equal(
            (0, 0, 0),
            (books.Write(Fact(StockMove.Counted, 0)).Now.Value, books.Now.Reserved, books.Now.Free)
        );
        // Where nothing was ever paid, somebody may say what it is worth.
        var old = new Books().Write(Fact(StockMove.Counted, 4, paid: 160)).Now;
        Assert.Equal((160, 40), (old.Value, old.Average));
        Assert.Null(new Books().Write(Fact(StockMove.Counted, 0)).Now.Average);
    }

    [Fact]
    public void Goods_are_valued_at_the_moving_average_of_what_was_paid_and_what_comes_back_bears_what_it_bore()
    {
        var books = new Books().Write(Came(10, 480), Came(10, 520), Fact(StockMove.Used, 5, A));
        Assert.Equal((250m, 750m, 50m), (books.Now.CostOf(A), books.Now.Value, books.Now.Average));

        // Dearer goods came since: what comes back lowers the job's cost by what it bore, 50.00 each.
        books.Write(Came(15, 1050), Fact(StockMove.PutBack, 2, A));
        Assert.Equal((150m, 3m), (books.Now.CostOf(A), books.Now.UsedBy(A)));
        Assert.Equal((1900m, 32m), (books.Now.Value, books.Now.OnHand));
        Assert.Equal("This job has used 3 gal: more cannot come back.", books.Refused(Fact(StockMove.PutBack, 4, A)));
        Assert.Equal((0, 0), (books.Write(Fact(StockMove.PutBack, 3, A)).Now.CostOf(A), books.Now.UsedBy(A)));
    }

    [Fact]
    public void What_was_taken_beyond_what_was_there_bears_the_price_of_the_next_receipt()
    {
        var books = new Books().Write(Came(1, 48), Fact(StockMove.Used, 3, A, words: "shed not counted yet"));
        // 48.00, and two more at the last price until they are paid.
        Assert.Equal((144m, 2m, 0m), (books.Now.CostOf(A), books.Now.OwedBy(A), books.Now.Value));
        books.Write(Came(5, 300));
        Assert.Equal(
            (168m, 0m, 180m, 3m),
            (books.Now.CostOf(A), books.Now.OwedBy(A), books.Now.Value, books.Now.OnHand)
        );
        // What a job gives back before that was never paid for.
        var back = new Books().Write(Fact(StockMove.Used, 3, A, words: "?"), Fact(StockMove.PutBack, 3, A)).Now;
        Assert.Equal((0, 0, 0), (back.OnHand, back.OwedBy(A), back.CostOf(A)));
    }

    [Fact]
    public void What_was_written_wrong_is_taken_back_unless_something_rests_on_it()
    {
        var (came, used) = (Came(5, 240), Fact(StockMove.Used, 4, A));
        var books = new Books().Write(came, used);
        StockFact Back(StockFact of) => of with { Id = Guid.CreateVersion7(), TakesBack = of.Id };
        Assert.Contains("rests on it", books.Refused(Back(came)), StringComparison.Ordinal);
        var back = Back(used);
        Assert.Equal((5, 0, 240), (books.Write(back).Now.OnHand, books.Now.UsedBy(A), books.Now.Value));
        Assert.Contains("not there", books.Refused(Back(used)), StringComparison.Ordinal);
        Assert.Contains("not there", books.Refused(Back(back)), StringComparison.Ordinal);
        books.Write(Back(came));
        Assert.Equal((0, 0), (books.Now.OnHand, books.Now.Value));
    }

    [Theory]
    [InlineData(StockMove.Used, 0, true, null, "quantity")]
    [InlineData(StockMove.Used, -1, true, null, "quantity")]
    [InlineData(StockMove.Used, 1, false, null, "job")]
    [InlineData(StockMove.Counted, 1, true, null, "job")]
    [InlineData(StockMove.Counted, -1, false, null, "quantity")]
    [InlineData(StockMove.Received, 1, true, null, "paid")]
    [InlineData(StockMove.Received, 1, true, -1, "paid")]
    [InlineData(StockMove.Reserved, 1, true, 5, "paid")]
    public void A_move_that_cannot_be_is_refused_at_its_field(
        StockMove move,
        int quantity,
        bool ofJob,
        int? paid,
        string field
    )
    {
        var fact = Fact(move, quantity, ofJob ? A : null, paid);
        Assert.Equal(field, Assert.Throws<RefusedException>(() => fact.Check(Today)).Refusal.Field);
    }

    [Fact]
    public void A_move_is_of_no_day_to_come()
    {
        var fact = Came(1, 48) with { Day = Today.AddDays(1) };
        Assert.Equal("day", Assert.Throws<RefusedException>(() => fact.Check(Today)).Refusal.Field);
        Assert.Throws<RefusedException>(() => (fact with { Day = Today.AddDays(-400) }).Check(Today));
        (fact with { Day = Today }).Check(Today);
    }

    private static readonly Gen<StockFact> AnyMove = Gen.Select(
        Gen.Int[0, 5],
        Gen.Int[1, 12],
        Gen.Int[0, 2],
        Gen.Int[0, 500],
        Gen.Bool,
        (move, quantity, job, paid, why) =>
        {
            var of = (StockMove)move;
            var (a, q) = (new[] { A, B, C }[job], quantity / 4m);
            return of switch
            {
                StockMove.Counted => Fact(of, q - 0.25m),
                StockMove.Received => Fact(of, q, why ? a : null, paid / 10m),
                _ => Fact(of, q, a, words: why ? "because" : ""),
            };
        }
    );

    /// <summary>Whatever happens: no more is kept than is there, nothing stands below nothing unsaid, and money is neither made nor lost.</summary>
    [Fact]
    [Trait("Category", "Long")]
    public void Stock_never_stands_below_nothing_unsaid_and_keeps_its_money_whatever_happens() =>
        AnyMove
            .Array[1, 40]
            .Always(
                moves =>
                {
                    var books = new Books();
                    var (paid, onHand) = (0m, 0m);
                    foreach (var move in moves)
                    {
                        var before = books.Now;
                        try
                        {
                            books.Write(move);
                        }
                        catch (RefusedException)
                        {
                            // Nothing has changed.
                            Assert.Equal((before.OnHand, before.Value), (books.Now.OnHand, books.Now.Value));
                            continue;
                        }
                        var now = books.Now;
                        var jobs = new[] { A, B, C };
                        onHand += move.Move switch
                        {
                            StockMove.Received or StockMove.PutBack => move.Quantity,
                            StockMove.Used => -move.Quantity,
                            StockMove.Counted => now.DifferenceOf(move.Id)!.Value,
                            _ => 0,
                        };
                        Assert.Equal(onHand, now.OnHand);
                        Assert.True(now.Reserved <= Math.Max(0, now.OnHand));
                        Assert.All(now.Reservations, r => Assert.True(r.Quantity > 0));
                        Assert.Equal(Math.Max(0, -now.OnHand), jobs.Sum(now.OwedBy));
                        Assert.True(now.Value >= 0 && (now.OnHand > 0 || now.Value == 0));
                        if (now.OnHand < before.OnHand && now.OnHand < 0)
                            Assert.NotEmpty(move.Words);
                        // What was cut was cut by what took more than was there.
                        Assert.Equal(now.Cuts.Count - before.Cuts.Count, now.Cuts.Count(c => c.By.Id == move.Id));
                        // Money: what was paid is in stock or has gone to jobs; counts make and lose some.
                        if (move.Move == StockMove.Received)
                            paid += move.Paid!.Value;
                        var settled = jobs.Sum(j => now.CostOf(j) - now.OwedBy(j) * (now.Average ?? 0));
                        if (move.Move == StockMove.Counted)
                            paid = now.Value + settled;
                        Assert.Equal(paid, now.Value + settled, 9);
                    }
                    // Taking the last one back is the same as never having written it.
                    if (books.Facts.Count == 0)
                        return;
                    var without = StockItem.Of(Paint, books.Facts[..^1]);
                    books.Write(books.Facts[^1] with { Id = Guid.CreateVersion7(), TakesBack = books.Facts[^1].Id });
                    Assert.Equal(
                        (without.OnHand, without.Value, without.Reserved, without.Cuts.Count),
                        (books.Now.OnHand, books.Now.Value, books.Now.Reserved, books.Now.Cuts.Count)
                    );
                },
                times: Properties.Times(300, 20_000)
            );

    [Fact]
    public void What_goods_will_cost_is_what_was_estimated_until_something_differs()
    {
        var goods = Stand(4.75m, StockItem.Of(Paint, [])).Agreed with { Delivery = 25, DeliveryCost = 25 };
        JobGoods Of(OrderStands[] orders, params StockFact[] facts) =>
            JobGoods.Of(A, [goods], [.. orders], [StockItem.Of(Paint, facts)]);
        Assert.Equal((240m, 240m, 1), (Of([]).Estimated, Of([]).WillCost, Of([]).ToPlace));

        // Five cans at 48 with a delivery of 25 are ordered instead of the pail.
        var ordered = Of([Order(5, [])]);
        Assert.Equal((265m, 0), (ordered.WillCost, ordered.ToPlace));

        // They came at 50 each, and the delivery was free; four are used, one goes back into stock.
        var came = Came(5, 250, A);
        var paid = Order(5, [came], Happened(OrderEvent.Delivery, 0));
        Assert.Equal(250m, Of([paid], came).WillCost);
        var done = Of([paid], came, Fact(StockMove.Used, 4, A), Fact(StockMove.Released, 1, A));
        Assert.Equal((200m, 0.75m), (done.UsedCost, done.Goods[0].Rest));
    }

    public static TheoryData<Guid> Jobs => [.. DemoJobs.Fixed().Select(j => j.Id)];

    [Theory]
    [MemberData(nameof(Jobs))]
    public void Goods_of_a_job_are_those_of_its_estimate_and_cost_what_it_counted_until_something_happens(Guid id)
    {
        var estimate = Sample.Reckon(DemoJobs.Fixed().Single(j => j.Id == id));
        var money = AgreedMoney.Of(estimate);
        var bought = estimate.Reckoned.Costs.Buying.Where(b => b.Need.V > 0).ToList();
        var goods = JobGoods.Of(A, money.Goods, [], []);
        // As the estimate buys them: the same packs, the same money.
        Assert.Equal(
            bought.GroupBy(b => new GoodsKey(b.Material.Id, b.Colour, b.Material.Unit.Symbol)).Count(),
            goods.Goods.Length
        );
        Assert.Equal(bought.Sum(b => b.BoughtCost.V + (b.Delivery?.V ?? 0)), goods.Estimated, 4);
        if (estimate.Reckoned.Occurrences.IsEmpty)
            Assert.Equal(goods.Estimated, goods.WillCost, 4);
        // What counted in the cost is what counts while nothing has happened, and if nobody writes anything.
        Assert.Equal(0, goods.EndedMore, 4);
        if (estimate.Reckoned.Occurrences.IsEmpty)
            Assert.Equal(0, goods.RunningMore(money.NeedCounts), 4);
        Assert.Equal(money.Price - money.Cost, money.ProfitAt(money.Hours, 0));
        // Read back from what is kept it is the same.
        var kept = JsonSerializer.Serialize(money, CoreJson.Options);
        Assert.Equal(
            kept,
            JsonSerializer.Serialize(JsonSerializer.Deserialize<AgreedMoney>(kept, CoreJson.Options), CoreJson.Options)
        );
        // Nothing done takes nothing, all done takes all.
        var order = OrderMaking.Of(estimate);
        var nothing = new SiteLog(order, [], []);
        var all = nothing with
        {
            Done =
            [
                .. order.Lines.Select(l => new DoneFact(Guid.CreateVersion7(), l.Work, l.Place, 100, default, "Nora")),
            ],
        };
        foreach (var of in money.Goods.Where(g => g.ForDone(nothing) is not null))
            Assert.Equal(
                (0m, of.Need),
                (
                    of.ForDone(nothing),
                    decimal.Round(of.ForDone(all)!.Value, 3) == decimal.Round(of.Need, 3) ? of.Need : of.ForDone(all)
                )
            );
        if (id == DemoJobs.Gallery)
            Assert.True(money.Goods.Count(g => g.ForDone(nothing) is not null) >= 3);
    }

    [Fact]
    public void What_goods_count_for_in_the_profit_follows_the_rules_of_the_cost()
    {
        // 4.75 gal in a pail of 215.00, by need 204.25, with 7 % tax that does not come back 218.5475.
        var byNeed = Stand(4.75m, StockItem.Of(Paint, [])).Agreed with
        {
            NeedCounted = 4.75m,
            Counted = 218.5475m,
            CountedAsPriced = 204.25m,
        };
        JobGoods Of(params StockFact[] facts) => JobGoods.Of(A, [byNeed], [], [StockItem.Of(Paint, facts)]);
        Assert.Equal(0, Of().RunningMore(byNeed: true), 9);
        // The pail came for 230.00: 4.75 of 5 gal count, with their tax: 233.795.
        Assert.Equal(15.2475m, Of(Came(5, 230, A)).RunningMore(byNeed: true), 9);
        // 4.5 gal are used, the rest is given up: 4.5 × 46.00 × 1.07 = 221.49.
        var ended = Of(Came(5, 230, A), Fact(StockMove.Used, 4.5m, A), Fact(StockMove.Released, 0.5m, A));
        Assert.Equal(221.49m - 218.5475m, ended.EndedMore, 9);
    }

    [Fact]
    public void Goods_that_nobody_planned_stand_beside_those_that_were()
    {
        var tape = Paint with { Material = new("00000000-0000-7000-8000-000000000002"), Unit = "" };
        var fact = Fact(StockMove.Received, 6, A, 12) with { Goods = tape, Name = "Masking tape" };
        var goods = JobGoods.Of(A, [Stand(4.75m, StockItem.Of(Paint, [])).Agreed], [], [StockItem.Of(tape, [fact])]);
        Assert.Equal(["Wall paint", "Masking tape"], goods.Goods.Select(g => g.Agreed.Name));
        Assert.Equal((0, 6, 0), (goods.Goods[1].Agreed.Need, goods.Goods[1].Reserved, goods.Goods[1].Rest));
        // Another job's goods are not told here.
        Assert.Single(JobGoods.Of(B, [goods.Goods[0].Agreed], [], [StockItem.Of(tape, [fact])]).Goods);
    }

    [Theory]
    [InlineData("{year}-{number:4}", "PO {year}-{number:3}", false)]
    [InlineData("{year}-{number:4}", "{year}-{number}", true)]
    // 2027-10001 is the tenth-thousandth invoice of 2027, and order 1 of a series written 2027-1{number:4}.
    [InlineData("{year}-{number:4}", "2027-1{number:4}", true)]
    [InlineData("RE {number}", "re {number:3}", true)]
    [InlineData("A{number}", "B{number}", false)]
    [InlineData("{number}", "{year}{number}", true)]
    [InlineData("{number:6}", "1{number}-{year}", false)]
    [InlineData("{number}/{year}", "{year}/{number}", true)]
    public void No_series_could_give_the_text_of_another(string one, string other, bool could)
    {
        Assert.Equal(could, NumberScheme.CouldMeet(one, other));
        Assert.Equal(could, NumberScheme.CouldMeet(other, one));
        if (could)
        {
            Assert.Throws<RefusedException>(() => (OrderTerms.Starting with { Numbers = other }).Check(one));
            Assert.Throws<RefusedException>(() => (InvoiceTerms.Starting with { Numbers = one }).Check(other));
        }
        else
            (OrderTerms.Starting with { Numbers = other }).Check(one);
    }

    private static Gen<string> OneOf(params string[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);

    /// <summary>Where two schemes are said not to meet, no two of their first numbers do.</summary>
    [Fact]
    public void Schemes_that_are_said_not_to_meet_do_not() =>
        OneOf("{number}", "{number:2}", "{number:4}", "{year}{number}", "{year}-{number:3}")
            .Select(OneOf("", "1", "20", "A", "a-"), OneOf("", "7", "-2", "b"))
            .Select((middle, before, after) => before + middle + after)
            .Array[2]
            .Always(
                both =>
                {
                    HashSet<string> Texts(string scheme) =>
                        [
                            .. Enumerable
                                .Range(1, 130)
                                .SelectMany(n => new[] { 2026, 2027 }.Select(y => NumberScheme.Of(scheme, y, n)))
                                .Select(t => t.ToLowerInvariant()),
                        ];
                    if (Texts(both[0]).Overlaps(Texts(both[1])))
                        Assert.True(NumberScheme.CouldMeet(both[0], both[1]));
                },
                times: 300
            );

    [Fact]
    public void An_order_that_cannot_be_is_refused_at_its_field()
    {
        var order = Order(5, []).Order;
        void Refused(string field, PurchaseOrder wrong) =>
            Assert.Equal(field, Assert.Throws<RefusedException>(wrong.Check).Refusal.Field);
        order.Check();
        Refused("lines", order with { Lines = [] });
        Refused("count", order with { Lines = [order.Lines[0] with { Count = -1 }] });
        Refused("price", order with { Lines = [order.Lines[0] with { Price = -1 }] });
        Refused("delivery", order with { Delivery = -1 });
        Refused("wanted", order with { Wanted = Today.AddDays(-1) });
        Refused("mail", order with { Supplier = order.Supplier with { Mail = "nobody" } });
    }
}
