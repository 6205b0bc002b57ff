using System.Collections.Immutable;
using Emendum.Core.Delivery;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Change orders: delivery.md, M1, M6, M13 to M18 and L23, each by its number.</summary>
public sealed class ChangeOrdersTests
{
    private static readonly DateOnly Monday = new(2026, 11, 23);
    private static readonly DateTime At = new(2026, 11, 23, 16, 0, 0, DateTimeKind.Utc);

    private static ChangeGround Ground(Estimate agreed, Job now, Func<CellKey, decimal>? done = null) =>
        new(
            ChangedJob.Of(agreed, now),
            AgreedContract.Of(agreed),
            ContractByLine.Of(agreed),
            done ?? (_ => 0),
            Guid.Empty
        );

    private static ChangeOrder All(ChangeGround ground, Job now, Func<ChangeWish, ChangeWish>? wish = null)
    {
        var wanted = new ChangeWish(Sample.NewId(), 1, "As wanted", [.. ground.Job.Pieces.SelectMany(p => p.Lines)]);
        return ChangeMaking.Of(ground, wish is null ? wanted : wish(wanted), now);
    }

    private static ChangeOrder Changed(Estimate agreed, Job now, Func<ChangeWish, ChangeWish>? wish = null) =>
        All(Ground(agreed, now), now, wish);

    private static Job Without(Job job, Guid work) => job.Fill(work, [.. job.Places.Select(p => p.Id)], null);

    private static PricingTerms Off(decimal percent) =>
        PricedJob.Plain with
        {
            Discounts = [new("Trade", percent, null)],
        };

    private static Job Measured(Job job, Guid place, string line) =>
        job.Do(new RemeasurePlace(place, job.Place(place)!.Line, line));

    [Fact]
    public void A_line_is_worth_its_price_less_its_share_of_discounts_and_the_whole_stands_in_rows()
    {
        // M13: 1,000 at 5 % off is 950. Least charge and rounding are no line's: the least charge bears its own share of the discount, 500 less 5 %.
        var job = new PricedJob(Off(5) with { LeastJob = 1500, Rounding = new(100, true, false) });
        var work = job.Work(labour: 1000);
        var byLine = ContractByLine.Of(job.Estimate);
        Assert.Equal(950m, byLine[new(work, job.Job.Places[0].Id)].Sum);
        Assert.Equal(job.Price.BeforeTax.V, 950m + byLine.Rows.Sum(r => r.Value.Sum));
        Assert.Equal([475m, 75m], byLine.Rows.Select(r => r.Value.Sum));
    }

    [Fact]
    public void What_is_no_lines_is_done_as_much_as_the_lines_are()
    {
        // 300 and 100, raised to 500: with the first done, three quarters of the 100 that it was raised by.
        var job = new PricedJob(PricedJob.Plain with { LeastJob = 500 });
        var first = job.Work(labour: 300);
        job.Work(labour: 100);
        var byLine = ContractByLine.Of(job.Estimate);
        decimal Value(Func<CellKey, decimal> done) => WorkDone.ToDate(byLine.DoneBy(done), 1, 2).Sum;
        Assert.Equal(375m, Value(line => line.Work == first ? 100 : 0));
        Assert.Equal((0m, 500m), (Value(_ => 0), Value(_ => 100)));
    }

    [Fact]
    public void Dropped_work_is_credited_at_its_contract_value_less_goods_that_cannot_go_back()
    {
        // M14: 950, goods 200: −750; goods 1,000: 0.
        var job = new PricedJob(Off(5));
        job.Work(labour: 400);
        var gone = job.Work(labour: 1000);
        var (agreed, now) = (job.Estimate, Without(job.Job, gone));
        ChangeOrder With(decimal goods) =>
            Changed(agreed, now, w => w with { Goods = goods == 0 ? [] : [new("Tern grey", "4 gal", goods)] });
        Assert.Equal((-950m, ChangeKind.Dropped), (With(0).Net, Assert.Single(With(0).Lines).Kind));
        Assert.Equal(-750m, With(200).Net);
        Assert.Equal(0m, With(1000).Net);
        // What stays for goods is in the contract, and no line's.
        var contract = AgreedContract.Of(agreed).With(With(200), Monday);
        var byLine = ContractByLine.Of(agreed).With(With(200), contract);
        Assert.Equal(380m + 200m, contract.Contract.Sum.Sum);
        Assert.Equal([380m], byLine.Lines.Values.Select(v => v.Sum));
        Assert.Equal(200m, byLine.Rows.Sum(r => r.Value.Sum));
    }

    [Fact]
    public void Of_what_is_done_in_part_the_rest_is_credited_and_the_done_part_stays()
    {
        var job = new PricedJob(Off(5));
        job.Work(labour: 400);
        var gone = job.Work(labour: 1000);
        var now = Without(job.Job, gone);
        var change = All(Ground(job.Estimate, now, line => line.Work == gone ? 40 : 0), now);
        // 60 % of 950.
        Assert.Equal(-570m, change.Net);
        Assert.Equal(380m, Assert.Single(change.Lines).Left.Sum(c => c.Amount));
        Assert.Contains("40 % done", change.Lines[0].Says);
    }

    [Fact]
    public void No_drop_goes_below_the_jobs_least_charge_unless_a_person_lifts_it()
    {
        // M15: built 400, least 500, 100 dropped: 0.
        var job = new PricedJob(PricedJob.Plain with { LeastJob = 500 });
        job.Work(labour: 300);
        var gone = job.Work(labour: 100);
        var (agreed, now) = (job.Estimate, Without(job.Job, gone));
        Assert.Equal(500m, agreed.Price.BeforeTax.V);
        var held = Changed(agreed, now);
        Assert.Equal(0m, held.Net);
        Assert.Equal(new(ChangeMaking.LeastHolds, 100), Assert.Single(held.Steps));
        Assert.Equal(-100m, Changed(agreed, now, w => w with { BelowLeast = true }).Net);
        // Built 600: of 150 dropped 100 are.
        var more = new PricedJob(PricedJob.Plain with { LeastJob = 500 });
        more.Work(labour: 450);
        var hall = more.Work(labour: 150);
        Assert.Equal(-100m, Changed(more.Estimate, Without(more.Job, hall)).Net);
    }

    [Fact]
    public void More_of_a_line_whose_unit_price_was_shown_goes_at_that_price_and_any_other_change_is_a_drop_and_an_add()
    {
        // M16: 10 more at 25.00: +250.00.
        var shown = new PricedJob();
        shown.Sold(25);
        var place = shown.Job.Places[0].Id;
        var job = shown.Job with { Proposal = shown.Job.Proposal with { Detail = Detail.Line, UnitPrices = true } };
        var more = Changed(Sample.Reckon(job), Measured(job, place, "R 11 x 10 x 8"));
        Assert.Equal((250m, ChangeKind.Remeasured), (more.Net, Assert.Single(more.Lines).Kind));
        Assert.Equal(2750m, more.Lines[0].Left.Sum(c => c.Amount));
        var less = Changed(Sample.Reckon(job), Measured(job, place, "R 8 x 10 x 8"));
        Assert.Equal(-500m, less.Net);
        // 1,100 for 1,000, at 5 % off: −950.00 + 1,045.00.
        var priced = new PricedJob(Off(5));
        priced.Work(labour: 1000);
        var other = Changed(priced.Estimate, Measured(priced.Job, priced.Job.Places[0].Id, "R 11 x 10 x 8"));
        var line = Assert.Single(other.Lines);
        Assert.Equal((ChangeKind.Repriced, -950m, 1045m), (line.Kind, line.Credit, line.Charge));
        Assert.Equal("100.0 ft² → 110.0 ft²", line.Says);
    }

    [Fact]
    public void At_a_unit_price_a_percent_discount_that_stood_beside_it_reaches_the_change()
    {
        // M16, M17: 10 at 25.00 and 5 % off: 237.50.
        var shown = new PricedJob(Off(5));
        shown.Sold(25);
        var job = shown.Job with { Proposal = shown.Job.Proposal with { Detail = Detail.Line, UnitPrices = true } };
        var more = Changed(Sample.Reckon(job), Measured(job, job.Places[0].Id, "R 11 x 10 x 8"));
        Assert.Equal(237.50m, more.Net);
    }

    [Fact]
    public void Percent_discounts_and_fees_reach_added_work_and_brackets_money_discounts_least_charge_and_rounding_do_not()
    {
        // M17: 200 less 5 %: 190; with the fee 190 ÷ 0.95 = 200.
        var job = new PricedJob(
            PricedJob.Plain with
            {
                LeastJob = 500,
                Discounts = [new("Trade", 5, null), new("As agreed", null, 40)],
                Fees = [new("Card", 5, false)],
                Rounding = new(10, false, false),
                Brackets = new(BracketBy.Price, [new(0, 50)], false),
            }
        );
        job.Work(labour: 1000);
        var agreed = job.Estimate;
        job.Work(labour: 200);
        var change = Changed(agreed, job.Job);
        Assert.Equal((200m, ChangeKind.Added), (change.Net, Assert.Single(change.Lines).Kind));
        Assert.Equal(1m, change.Hours);
    }

    [Fact]
    public void Added_work_is_priced_at_the_accepted_Book_and_at_todays_for_a_whole_change_on_request()
    {
        // M17: the role earned 100 when it was agreed, and 130 by now.
        var role = Sample.Role("Hand", 100);
        var job = new PricedJob();
        job.Work(labour: 1, role: role);
        var agreed = job.Estimate;
        job.Work(labour: 1, role: role);
        job.Pin(role with { Version = 2, Wage = 130 });
        Assert.Equal(100m, Changed(agreed, job.Job).Net);
        Assert.Equal(130m, Changed(agreed, job.Job, w => w with { TodaysBook = true }).Net);
    }

    [Fact]
    public void What_is_measured_anew_changes_all_that_is_done_there_and_a_drop_stands_for_itself()
    {
        var job = new PricedJob();
        var (hall, study) = (job.Place(), job.Place());
        var floor = job.Work(labour: 100, at: [hall, study]);
        var walls = job.Work(labour: 50, at: [hall, study]);
        var agreed = job.Estimate;
        var now = Measured(job.Job, hall, "R 12 x 10 x 8").Fill(walls, [study], null);
        var pieces = ChangedJob.Of(agreed, now).Pieces;
        Assert.Equal(
            [
                [new(floor, hall), new(walls, hall)],
                [new CellKey(walls, study)],
            ],
            pieces.Select(p => p.Lines.ToArray())
        );
        // One alone: the other stays as it was agreed.
        var change = ChangeMaking.Of(
            Ground(agreed, now),
            new(Sample.NewId(), 1, "The study", [new CellKey(walls, study)]),
            now
        );
        Assert.Equal(-50m, change.Net);
    }

    [Fact]
    public void A_door_into_a_place_that_is_no_part_of_the_change_leads_out_of_it()
    {
        var job = new PricedJob();
        var hall = job.Place("R 10 x 10 x 8; door 3 x 6'8");
        job.Work(labour: 100, at: [hall]);
        var agreed = job.Estimate;
        var now = Measured(job.Job, hall, "R 12 x 10 x 8; door 3 x 6'8");
        var porch = Sample.NewId();
        now = now.Do(new AddPlace(porch, "Porch 5 x 5 x 8", "", null));
        now = now with
        {
            Places =
            [
                .. now.Places.Select(p =>
                    p.Id == hall ? p with { Openings = [.. p.Openings.Select(o => o with { Into = porch })] } : p
                ),
            ],
        };
        Assert.Equal(20m, Changed(agreed, now).Net);
    }

    [Fact]
    public void What_a_job_has_become_beside_its_lines_changes_nothing()
    {
        var job = new PricedJob(PricedJob.Worked);
        var work = job.Work(labour: 1000, goods: 400);
        var now = job.With(t => t with { Profit = 60, Discounts = [new("New", 10, null)] }).Job;
        now = now with { Info = now.Info with { Name = "Another name" } };
        now = now.Do(new SetWork(work, "wording", "", "Said otherwise"));
        var agreed = Sample.Reckon(now with { Pricing = PricedJob.Worked });
        Assert.Empty(ChangedJob.Of(agreed, now).Pieces);
    }

    [Fact]
    public void What_the_customer_took_is_in_what_was_agreed_and_no_change_while_nobody_has_changed_it()
    {
        var job = new PricedJob();
        job.Work(labour: 600);
        var (porch, place) = (job.Work(labour: 150), job.Job.Places[^1].Id);
        var sent = job.Job.Fill(porch, [place], CellState.Alternate);
        var signed = sent.Fill(porch, [place], CellState.Included);
        ChangedJob Against(Job now) =>
            ChangedJob.Of(Sample.Reckon(signed), ChangedJob.WithChosen(now, sent, signed, signed));
        Assert.Empty(Against(sent).Pieces);
        // Taken over by hand it is the same, and what is left out on purpose is a change.
        Assert.Empty(Against(signed).Pieces);
        Assert.Equal(
            [new CellKey(porch, place)],
            Assert.Single(Against(sent.Fill(porch, [place], CellState.Excluded)).Pieces).Lines.ToArray()
        );
    }

    [Fact]
    public void A_rate_of_tax_that_the_contract_did_not_have_comes_after_those_that_are_there()
    {
        var job = new PricedJob(PricedJob.Plain with { Taxes = [PricedJob.Tax(20)] });
        job.Work(labour: 1000);
        var agreed = job.Estimate;
        job.Sold(1, taxable: false);
        var change = Changed(agreed, job.Job);
        Assert.Equal((100m, 0m), (change.Net, change.Tax));
        var contract = AgreedContract.Of(agreed).With(change, Monday);
        Assert.Equal(["S", "E"], contract.Categories.Select(c => c.Code));
        Assert.Equal([1000m, 100m], contract.Contract.Sum.Amounts.ToArray());
        Assert.Equal(1000m, contract.Contract.Signed.Sum);
        // Signed 1,200.00, the change 100.00.
        Assert.Equal(1300m, contract.Contract.Total);
    }

    private static (AgreedContract Contract, ChangeOrder Change) TenThousand(int? step = null)
    {
        var job = new PricedJob(PricedJob.Plain with { Taxes = [PricedJob.Tax(20)] });
        job.Work(labour: 10_000);
        var agreed = job.Estimate;
        job.Work(labour: 1000);
        var contract = AgreedContract.Of(agreed) with
        {
            Steps =
            [
                .. new[] { 3000m, 4000m, 3000m }.Select((net, i) => new AgreedStep($"Step {i + 1}", net, net * 1.2m)),
            ],
        };
        return (contract, Changed(agreed, job.Job, w => w with { WithStep = step }));
    }

    private static BilledJob Bill(BilledJob job, Bills bills) =>
        job with
        {
            Invoices = job.Invoices.Add(
                new(
                    Sample.NewId(),
                    $"{job.Invoices.Length + 1}",
                    Monday.AddDays(job.Invoices.Length),
                    Monday,
                    Monday,
                    bills,
                    job.Of(bills),
                    ""
                )
            ),
        };

    private static decimal[] Billed(BilledJob job) => [.. job.Invoices.Select(i => i.Part.Net.Sum)];

    [Fact]
    public void A_change_is_billed_on_its_own_with_the_step_it_names_or_with_the_last()
    {
        // M6: 10,000 in 30/40/30, +1,000 after the first: 3,000 4,000 4,000.
        static Bills Step(int n) => new(BillsBy.Step, n, null);
        var (contract, change) = TenThousand();
        var first = Bill(new(contract, AccountUse.InProportion, [], []), Step(0));
        var changed = first with { Agreed = contract.With(change, Monday.AddDays(1)) };
        Assert.Equal([3000m, 4000m, 4000m], Billed(Bill(Bill(changed, Step(1)), Step(2))));
        // On its own; it is billed once, and the steps keep their amounts.
        var own = Bill(changed, new(BillsBy.Change, 1, null));
        Assert.Equal([3000m, 1000m, 4000m, 3000m], Billed(Bill(Bill(own, Step(1)), Step(2))));
        Assert.Equal("step", Assert.Throws<RefusedException>(() => own.Of(new(BillsBy.Change, 1, null))).Refusal.Field);
        // With the second step.
        var (_, named) = TenThousand(step: 1);
        var with = first with { Agreed = contract.With(named, Monday.AddDays(1)) };
        var second = Bill(with, Step(1));
        Assert.Equal([3000m, 5000m, 3000m], Billed(Bill(second, Step(2))));
        Assert.Empty(second.OpenChanges);
        // After the last step it is what is open.
        var closed = Bill(Bill(first, Step(1)), Step(2)) with
        {
            Agreed = contract.With(change, Monday.AddDays(9)),
        };
        Assert.Equal(1000m, closed.Of(new(BillsBy.Rest, null, null)).Net.Sum);
    }

    [Fact]
    public void What_takes_off_is_not_billed_on_its_own_and_says_when_too_much_was()
    {
        var job = new PricedJob();
        job.Work(labour: 600);
        var gone = job.Work(labour: 400);
        var (agreed, now) = (job.Estimate, Without(job.Job, gone));
        var contract = AgreedContract.Of(agreed);
        var change = Changed(agreed, now);
        var billed = Bill(new(contract, AccountUse.InProportion, [], []), new(BillsBy.Percent, null, 80)) with
        {
            Agreed = contract.With(change, Monday),
        };
        // M21: 800 billed, 600 left.
        Assert.Equal(200m, billed.Billing.BilledAhead);
        Assert.Equal(
            "step",
            Assert.Throws<RefusedException>(() => billed.Of(new(BillsBy.Change, 1, null))).Refusal.Field
        );
    }

    private static Fact Happened(Guid revision, FactKind kind, int minutes) =>
        new(Sample.NewId(), revision, kind, At.AddMinutes(minutes), "Nora Pell", "");

    private static SentChange Sent(ChangeOrder order, params (FactKind Kind, int Minutes)[] facts) =>
        new(
            order,
            new(
                [new(order.Revision, -order.Number, null)],
                [.. facts.Select(f => Happened(order.Revision, f.Kind, f.Minutes))]
            )
        );

    [Fact]
    public void One_whose_line_was_changed_or_worked_on_since_it_was_sent_cannot_be_accepted()
    {
        // L23.
        var job = new PricedJob();
        job.Work(labour: 600);
        var gone = job.Work(labour: 400);
        var (agreed, now) = (job.Estimate, Without(job.Job, gone));
        var drops = Changed(agreed, now);
        var (one, other) = (
            Sent(drops with { Number = 1 }, (FactKind.Sent, 0)),
            drops with
            {
                Number = 2,
                Revision = Sample.NewId(),
            }
        );
        one.CheckAccepted([one, Sent(other, (FactKind.Sent, 1))], _ => 0);
        var accepted = Sent(other, (FactKind.Sent, 1), (FactKind.Accepted, 2));
        var refused = Assert.Throws<RefusedException>(() => one.CheckAccepted([one, accepted], _ => 0));
        Assert.Contains("change order 2", refused.Refusal.Message);
        // Accepted before it was sent: it was made of that.
        var later = Sent(drops, (FactKind.Sent, 3));
        later.CheckAccepted([later, accepted], _ => 0);
        Assert.Throws<RefusedException>(() => one.CheckAccepted([one], line => line.Work == gone ? 10 : 0));
    }

    [Fact]
    public void The_contract_rests_on_what_was_last_accepted_or_annulled()
    {
        var job = new PricedJob();
        job.Work(labour: 600);
        var agreed = job.Estimate;
        job.Work(labour: 400);
        var order = Changed(agreed, job.Job);
        var yes = Happened(Sample.NewId(), FactKind.Accepted, 0);
        Assert.Equal(yes.Id, SentChange.RestsOn(yes, [Sent(order, (FactKind.Sent, 1))]));
        var accepted = Sent(order, (FactKind.Sent, 1), (FactKind.YesRecorded, 2));
        Assert.Equal(accepted.Life.Facts[1].Id, SentChange.RestsOn(yes, [accepted]));
        Assert.Single(SentChange.Accepted([accepted]));
        var annulled = Sent(order, (FactKind.Sent, 1), (FactKind.YesRecorded, 2), (FactKind.Annulled, 3));
        Assert.Equal(annulled.Life.Facts[2].Id, SentChange.RestsOn(yes, [annulled]));
        Assert.Empty(SentChange.Accepted([annulled]));
    }

    [Fact]
    public void Its_paper_says_what_is_added_and_dropped_adds_up_and_is_signed_for_what_it_says()
    {
        var job = new PricedJob(PricedJob.Plain with { Taxes = [PricedJob.Tax(20)] });
        job.Work(labour: 600);
        var gone = job.Work(labour: 400);
        var agreed = job.Estimate;
        job.Work(labour: 150);
        var now = Without(job.Job, gone);
        var change = Changed(agreed, now);
        var contract = AgreedContract.Of(agreed);
        var head = new Letterhead("Larkspur & Pell Finishing", "", "", "Ida Marrow", "", "The gallery", "", "", "");
        var document = ChangePaper.Of(
            change,
            contract,
            head,
            "Job 7",
            Brand.Starting,
            "As we said on Monday.",
            Monday,
            Monday.AddDays(30)
        );
        var rows = document.Elements.OfType<PriceTable>().First().Rows;
        Assert.Equal([150m, -400m], rows.Where(r => r.Kind == RowKind.Part).Select(r => r.Amount));
        Assert.Equal(
            [-250m, -50m, -300m],
            rows.Where(r => r.Kind is RowKind.Subtotal or RowKind.Tax or RowKind.Total).Select(r => r.Amount)
        );
        Assert.Equal(750m, document.Elements.OfType<PriceTable>().Last().Rows[^1].Amount);
        var statement = Statement.AsSent(
            document,
            Brand.Starting,
            ChangePaper.Figures(change, 2),
            new(change.Revision, -1, null),
            new string('0', 64)
        );
        Assert.Equal("1", statement.Revision);
        Assert.Equal(-300m, statement.Price.Sum(StatementTests.Read));
        Assert.Contains("Change order 1", statement.Sentence);
        Assert.Contains("taken off", statement.Sentence);
        Assert.DoesNotContain("revision", statement.Sentence);
    }

    /// <summary>Cells of a block, a place measured anew, or one place more.</summary>
    private static Command Edit(Job job, Random random)
    {
        var place = job.Places[random.Next(job.Places.Length)];
        var (work, places) = RandomWork.Block(job, random);
        return random.Next(6) switch
        {
            0 => new RemeasurePlace(place.Id, place.Line, $"Anew {random.Next(8, 20)} x {random.Next(8, 20)} x 8"),
            1 => new AddPlace(Sample.NewId(), $"More {random.Next(100)} 9 x {random.Next(8, 20)} x 8", "", null),
            2 => new FillCells(work, places, job.Seen(work, places), CellState.Included),
            3 => new FillCells(work, places, job.Seen(work, places), CellState.Excluded),
            _ => RandomWork.OnCells(job, random, work, places),
        };
    }

    [Fact]
    public void Whatever_is_changed_lines_and_rows_add_up_to_the_contract_sum_and_nothing_is_left_to_change()
    {
        var (looked, touched) = (0, 0);
        for (var seed = 1; seed <= Properties.Times(60, 2000); seed++)
        {
            var random = new Random(seed);
            var job = RandomPricing.Job(random);
            var agreed = Sample.Reckon(job);
            if (!agreed.Price.Occurrences.IsEmpty)
                continue;
            var now = job;
            for (var edit = random.Next(1, 8); edit > 0; edit--)
                try
                {
                    now = now.DoPriced(Edit(now, random));
                }
                catch (RefusedException)
                {
                    // A random choice may not fit the work it falls on.
                }
            ChangeGround ground;
            try
            {
                ground = Ground(agreed, now);
            }
            catch (RefusedException)
            {
                // What is changed cannot be reckoned on what was agreed: said, and nothing is made.
                continue;
            }
            looked++;
            var byLine = ground.ByLine;
            Assert.Equal(
                agreed.Price.BeforeTax.V,
                byLine.Lines.Values.Sum(v => v.Sum) + byLine.Rows.Sum(r => r.Value.Sum)
            );
            if (ground.Job.Pieces.IsEmpty)
                continue;
            // Some of the pieces, then the others.
            var some = ground.Job.Pieces.Where(_ => random.Next(2) == 0).ToList();
            if (some.Count == 0)
                some = [.. ground.Job.Pieces];
            ChangeOrder change;
            try
            {
                change = ChangeMaking.Of(
                    ground,
                    new(Sample.NewId(), 1, "Some", [.. some.SelectMany(p => p.Lines)]),
                    now
                );
            }
            catch (RefusedException)
            {
                continue;
            }
            touched++;
            var contract = ground.Contract.With(change, Monday);
            var after = byLine.With(change, contract);
            for (var c = 0; c < contract.Categories.Length; c++)
                Assert.True(
                    contract.Contract.Sum[c] == after.Lines.Values.Sum(v => v[c]) + after.Rows.Sum(r => r.Value[c]),
                    $"{seed}: category {c}"
                );
            Assert.Equal(change.Net, change.Lines.Sum(l => l.Amount) + change.Steps.Sum(s => s.Amount));
            Assert.Equal(ground.Contract.Contract.Sum.Sum + change.Net, contract.Contract.Sum.Sum);
            // What was taken is agreed then, and the others are still to change.
            var then = Sample.Reckon(ChangedJob.Taken(job, now, change.Lines.Select(l => l.Key).ToHashSet()));
            var left = ChangedJob.Of(then, now).Pieces.SelectMany(p => p.Lines).ToHashSet();
            Assert.True(
                left.SetEquals(ground.Job.Pieces.Except(some).SelectMany(p => p.Lines)),
                $"{seed}: {left.Count} lines are left"
            );
        }
        Assert.True(looked > 30 && touched > 15, $"{looked} looked at, {touched} changed");
    }
}
