using System.Collections.Immutable;
using CsCheck;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

public class ReckoningTests
{
    [Fact]
    public void A_coats_pace_is_for_all_coats_together()
    {
        // Estimating model §3: 600 ft² at 2 coats is 600/95 h. Walls of 20 × 10 × 10 are 600 ft².
        var role = Sample.Role();
        var rate = Sample.Rate(Measure.NetWallArea, role, null, "160 ft² per h", "95 ft² per h", "68 ft² per h");
        var (job, work, _) = Sample.With("R 20 x 10 x 10", [role, rate], rate.Id);
        Assert.Equal(6.3158m, decimal.Round(Sample.Reckon(job).Reckoned.Costs.Hours.V, 4));
        Assert.Equal(600m / 160m, Sample.Reckon(job.Do(new SetWork(work, "coats", 2, 1))).Reckoned.Costs.Hours.V);
        var refused = Assert.Throws<RefusedException>(() => job.Do(new SetWork(work, "coats", 2, 4)));
        Assert.Contains("Rate has no pace for 4 coats", refused.Message);
    }

    [Fact]
    public void Either_way_round_gives_the_same_hours()
    {
        var role = Sample.Role();
        var (one, two) = (
            Sample.Rate(Measure.FloorArea, role, null, "200 ft² per h"),
            Sample.Rate(Measure.FloorArea, role, null, "0.5 h per 100 ft²")
        );
        Assert.Equal(1m, Sample.Reckon(Sample.With("R 20 x 10 x 8", [role, one], one.Id).Job).Reckoned.Costs.Hours.V);
        Assert.Equal(1m, Sample.Reckon(Sample.With("R 20 x 10 x 8", [role, two], two.Id).Job).Reckoned.Costs.Hours.V);
    }

    [Fact]
    public void A_rate_in_metres_is_applied_to_a_job_in_feet()
    {
        var role = Sample.Role();
        var rate = Sample.Rate(Measure.FloorArea, role, null, "9.290304 m² per h");
        Assert.Equal(2m, Sample.Reckon(Sample.With("R 20 x 10 x 8", [role, rate], rate.Id).Job).Reckoned.Costs.Hours.V);
    }

    [Fact]
    public void What_is_asked_once_for_the_job_comes_once_however_many_places_there_are()
    {
        // The round: floors at 0.3 h per 100 m², each line rounded up to a quarter hour; and the touched surfaces of all rooms of the round, at 12 an hour, with a kit of pads for
        // each six, whole kits.
        var round = StarterBook.Entries.OfType<Assembly>().First(a => a.Name == "Hygiene wash, per round");
        var (job, work, place) = Sample.With("One 10 x 10 x 8", [], round.Id);
        foreach (var line in new[] { "Two 10 x 10 x 8", "Three 10 x 10 x 8" })
        {
            job = job.Do(new AddPlace(Sample.NewId(), line, "", null));
            job = job.Fill(work, [job.Places[^1].Id], CellState.Included);
        }
        (decimal Hours, decimal Kits) Of(Job of)
        {
            var costs = Sample.Reckon(of).Reckoned.Costs;
            return (costs.Hours.V, costs.Buying.Single(b => b.Material.Id == StarterBook.Id(4005)).Need.V);
        }
        // 3 · 0.25 h + 8 ÷ 12 h; 8 ÷ 6 kits, up to 2.
        Assert.Equal((decimal.Round(0.75m + 8m / 12, 12), 2m), Of(job));
        var rooms = new[] { new Answer(round.Questions[0].Id, 30m) };
        Assert.Equal((0.75m + 2.5m, 5m), Of(job.Answer(work, rooms)));
        // At a place it is not asked: what stands there counts for nothing.
        Assert.Equal(Of(job), Of(job.Set(work, place, "answers", rooms)));
        // Where it is done nowhere there is no round.
        Assert.Equal(0m, Sample.Reckon(job.Fill(work, [.. job.Places.Select(p => p.Id)], null)).Reckoned.Costs.Hours.V);
    }

    [Fact]
    public void What_is_asked_once_drives_no_other_part_and_is_no_place_s_measure()
    {
        var round = StarterBook.Entries.OfType<Assembly>().First(a => a.Name == "Hygiene wash, per round");
        var all = StarterBook.Entries.ToDictionary(e => e.Id);
        RefusedException Refused(Assembly changed) =>
            Assert.Throws<RefusedException>(() => BookRules.Check(changed, all, named: false));
        var chained = round.Components[4] with
        {
            Question = null,
            Of = round.Components[1].Id,
            Ratio = Ratio.Parse("1 kit per h"),
        };
        Assert.Contains(
            "comes once for the job",
            Refused(round with { Components = round.Components.SetItem(4, chained) }).Message
        );
        Assert.Equal(
            "questions[0].from",
            Refused(round with { Questions = [round.Questions[0] with { From = Measure.DoorCount }] }).Refusal.Field
        );
    }

    /// <summary>Two rooms of 100 and 300 ft², worked at 20 ft² an hour with a machine that follows a crew of two, and goods.</summary>
    private static (Job Job, Guid Work) Crew(params BookEntry[] more)
    {
        var role = Sample.Role("Layer", 20);
        var machine = new Equipment(Sample.NewId(), 1, "Mixer", 10);
        var goods = Sample.Material("Grout", Unit.Kilogram, "1 kg per ft²", null, 0, new Pack("bag", 25, 30));
        Component Part(ComponentKind kind, Guid entry, Measure? measure, int? crew, string? ratio) =>
            new(
                Sample.NewId(),
                kind.ToString(),
                kind,
                entry,
                measure,
                null,
                crew,
                ratio is null ? null : Ratio.Parse(ratio),
                false,
                null
            )
            {
                Scales = kind == ComponentKind.Labour,
            };
        var lay = new Assembly(
            Sample.NewId(),
            1,
            "Lay",
            "Floors",
            Measure.FloorArea,
            [
                Part(ComponentKind.Labour, role.Id, Measure.FloorArea, null, "20 ft² per h"),
                Part(ComponentKind.Material, goods.Id, Measure.FloorArea, null, "1 kg per ft²"),
                Part(ComponentKind.Equipment, machine.Id, null, 2, null),
            ],
            "",
            ""
        )
        {
            Levels = [new("hard", 2)],
        };
        var (job, work, _) = Sample.With("One 10 x 10 x 8", [role, machine, goods, lay, .. more], lay.Id);
        job = job.Do(new AddPlace(Sample.NewId(), "Two 15 x 20 x 8", "", null));
        return (job.Fill(work, [job.Places[1].Id], CellState.Included), work);
    }

    private static (decimal Hours, decimal Machine, decimal Goods) Taken(Job job)
    {
        var costs = Sample.Reckon(job).Reckoned.Costs;
        return (costs.Hours.V, costs.Equipment.Sum(e => e.Hours.V), costs.Buying.Sum(b => b.Need.V));
    }

    [Fact]
    public void Labour_typed_as_people_and_hours_is_theirs_together_and_the_machine_runs_while_they_work()
    {
        var (job, work) = Crew();
        Assert.Equal((20m, 10m, 400m), Taken(job));
        // Estimating model §7: 3 x 9 h is 27 labour hours, 9 crew hours; equipment tied to the crew runs 9.
        Job All(string typed) => job.Do(new SetWork(work, "labour", null, typed));
        Assert.Equal((27m, 9m, 400m), Taken(All("3 x 9 h")));
        // Hours of nobody in particular: the machine's own crew of two shares them.
        Assert.Equal((27m, 13.5m, 400m), Taken(All("27 h")));
        // What was said is not made harder or slower.
        var hard = All("3 x 9 h").Do(new SetWork(work, "difficulty", "", "hard"));
        hard = hard.Do(new SetPace(null, new(1.5m, "new crew")));
        Assert.Equal((27m, 9m, 400m), Taken(hard));
        // What the hours cost is each place's by its quantity: 27 · 20 = 540, a quarter of it in the smaller.
        var lines = LineCosts.Of(Sample.Reckon(All("3 x 9 h")).Reckoned, Trace.Silent).Lines;
        Assert.Equal([135m, 405m], lines.Select(l => l[CostClass.Labour].V));
        Assert.Equal([22.5m, 67.5m], lines.Select(l => l[CostClass.Equipment].V));
    }

    [Fact]
    public void Labour_typed_at_a_place_stands_there_and_the_rest_goes_at_its_pace()
    {
        var (job, work) = Crew();
        Job Here(string typed, int at = 0) => job.Set(work, job.Places[at].Id, "labour", typed);
        // 300 ft² at 20 an hour are 15 h, the machine half of that.
        Assert.Equal((15m + 8m, 7.5m + 4m, 400m), Taken(Here("2 x 4 h")));
        Assert.Equal((15m + 8m, 7.5m + 4m, 400m), Taken(Here("8 h")));
        Assert.Equal((15m + 9m, 7.5m + 3m, 400m), Taken(Here("3 x 3 h")));
        // For one of equal places.
        var twice = Here("3 x 3 h").Do(new EditPlaces([new(job.Places[0].Id, job.Places[0].Line)], "count", "2"));
        Assert.Equal((15m + 18m, 7.5m + 6m, 500m), Taken(twice));
        // It is theirs who do it.
        Assert.Equal(15m, Taken(Here("8 h").Set(work, job.Places[0].Id, "supply", Supply.Customer)).Hours);
        // In all, or here: not both.
        var all = job.Do(new SetWork(work, "labour", null, "27 h"));
        var refused = Assert.Throws<RefusedException>(() => _ = all.Set(work, job.Places[0].Id, "labour", "8 h"));
        Assert.Contains("typed in all", refused.Message);
        // The other way round, too: a job that says both could not be read again.
        var here = Here("8 h");
        refused = Assert.Throws<RefusedException>(() => _ = here.Do(new SetWork(work, "labour", null, "27 h")));
        Assert.Equal("labour", refused.Refusal.Field);
        Assert.Contains("has hours of its own for", refused.Message);
    }

    [Fact]
    public void Hours_in_all_are_work_where_nothing_is_measured()
    {
        var (job, work, _) = Sample.With("Whole job: not measured", [], StarterBook.Id(111));
        Assert.True(Sample.Reckon(job).Reckoned.Lines.Single().IsNothing);
        var typed = job.Do(new SetWork(work, "labour", null, "2 x 3 h"));
        Assert.False(Sample.Reckon(typed).Reckoned.Lines.Single().IsNothing);
        Assert.Equal(6m, Taken(typed).Hours);
        Assert.True(Sample.Reckon(typed).Price.BeforeTax.V > 0);
    }

    [Theory]
    [InlineData("3 x 9 h", 3, 9)]
    [InlineData("3x9h", 3, 9)]
    [InlineData("3 × 9.5 hours", 3, 9.5)]
    [InlineData("27 h", null, 27)]
    [InlineData(" 0.5 ", null, 0.5)]
    public void People_and_hours_are_read(string text, int? people, decimal hours)
    {
        var time = CrewTime.Read(text, "labour");
        Assert.Equal((people, hours), (time.People, time.Hours));
    }

    [Theory]
    [InlineData("three x 9 h", "Write hours like 27 h")]
    [InlineData("3 x 9 ft", "Write hours like 27 h")]
    [InlineData("3 x", "Write hours like 27 h")]
    [InlineData("", "Write hours like 27 h")]
    [InlineData("0 x 9 h", "People are 1 to 999")]
    [InlineData("1000 x 1 h", "People are 1 to 999")]
    [InlineData("3 x 0 h", "more than 0")]
    [InlineData("100001 h", "at most 100,000")]
    public void What_is_no_people_and_hours_is_refused(string text, string says)
    {
        var (job, work) = Crew();
        var refused = Assert
            .Throws<RefusedException>(() => _ = job.Do(new SetWork(work, "labour", null, text)))
            .Refusal;
        Assert.Equal("labour", refused.Field);
        Assert.Contains(says, refused.Message);
    }

    [Fact]
    public void A_part_of_an_assembly_may_be_people_and_hours_too()
    {
        var (job, _) = Crew();
        var lay = (Assembly)job.Book[job.Work[0].Entry];
        var setUp = new Component(
            Sample.NewId(),
            "Set out",
            ComponentKind.Labour,
            lay.Components[0].Entry,
            null,
            null,
            null,
            null,
            false,
            null
        )
        {
            Once = true,
            CrewTime = "2 x 1.5 h",
        };
        var changed = job.Do(new SetEntry(lay, lay with { Components = lay.Components.Add(setUp) }));
        Assert.Equal((20m + 3m, 10m + 1.5m, 400m), Taken(changed));
        var wrong = Assert.Throws<RefusedException>(() =>
            _ = job.Do(
                new SetEntry(lay, lay with { Components = lay.Components.Add(setUp with { CrewTime = "soon" }) })
            )
        );
        Assert.Equal("components[3].crewTime", wrong.Refusal.Field);
        // What has no labour takes no hours.
        var (signs, board, _) = Sample.With("Hall 10 x 10 x 8", [], StarterBook.Id(2302));
        Assert.Contains(
            "no labour",
            Assert.Throws<RefusedException>(() => _ = signs.Do(new SetWork(board, "labour", null, "3 h"))).Message
        );
    }

    private static (Job Job, Guid Work) Paint(string line)
    {
        var role = Sample.Role();
        var paint = Sample.Material(
            "Paint",
            Unit.Gallon,
            "360 ft² per gal",
            "400 ft² per gal",
            0,
            new Pack("can", 1, 48),
            new Pack("pail", 5, 215)
        );
        var rate = Sample.Rate(Measure.NetWallArea, role, paint, "160 ft² per h", "95 ft² per h");
        var (job, work, _) = Sample.With(line, [role, paint, rate], rate.Id);
        return (job, work);
    }

    [Fact]
    public void Worked_example_of_buying()
    {
        // Estimating model §5: 900 ft², 2 coats → 4.75 gal; one pail, 215.00; need cost 204.25.
        var buy = Sample.Reckon(Paint("R 30 x 15 x 10").Job).Reckoned.Costs.Buying.Single();
        Assert.Equal((4.75m, 5m, 215m, 204.25m), (buy.Need.V, buy.Bought.V, buy.BoughtCost.V, buy.NeedCost.V));
        Assert.Equal([0m, 1m], buy.Packs.Counts);
    }

    [Fact]
    public void Eight_rooms_are_bought_for_together()
    {
        // Estimating model §5: 8 rooms of 0.6 gal are 4.8 gal, one 5 gal pail.
        var role = Sample.Role();
        var paint = Sample.Material(
            "Paint",
            Unit.Gallon,
            "1000 ft² per gal",
            null,
            0,
            new Pack("can", 1, 48),
            new Pack("pail", 5, 215)
        );
        var rate = Sample.Rate(Measure.NetWallArea, role, paint, "160 ft² per h");
        var (job, _, _) = Sample.With("R 20 x 10 x 10 x8", [role, paint, rate], rate.Id);
        var buy = Sample.Reckon(job).Reckoned.Costs.Buying.Single();
        Assert.Equal((4.8m, 5m), (buy.Need.V, buy.Bought.V));
        Assert.Equal([0m, 1m], buy.Packs.Counts);
    }

    [Fact]
    public void Two_colours_are_bought_apart()
    {
        var (job, _) = Paint("R 30 x 15 x 10");
        var second = Sample.NewId();
        var entry = job.Work[0].Entry;
        job = job.Do(new AddWork(second, entry, null))
            .Fill(second, [job.Places[0].Id], CellState.Included)
            .Do(new SetWork(second, "colour", "", "Gannet white"));
        Assert.Equal(["", "Gannet white"], Sample.Reckon(job).Reckoned.Costs.Buying.Select(b => b.Colour));
    }

    [Fact]
    public void Worked_example_of_a_chained_assembly()
    {
        // Estimating model §5: path of 62 m², gravel 1 t per 31 m², 3 % waste → 2.06 t, 83 bags; laying 0.42 t per h as ordered → 4.905 h;
        // edge 44 m at 1 h per 18 m → 2.444 h; mixer with a crew of 3 → 2.450 h. A "room" with 62 m² of floor; its edge by a ratio of that area.
        var layer = Sample.Role("Layer", 30);
        var gravel = Sample.Material("Gravel", Unit.Tonne, null, null, 3, new Pack("bag", 0.025m, 9));
        var mixer = new Equipment(Sample.NewId(), 1, "Mixer", 12);
        var (stone, lay, edge, mix) = (Sample.NewId(), Sample.NewId(), Sample.NewId(), Sample.NewId());
        var path = new Assembly(
            Sample.NewId(),
            1,
            "Path",
            "Paths",
            Measure.FloorArea,
            [
                new(mix, "Mixer", ComponentKind.Equipment, mixer.Id, null, null, 3, null, false, null),
                new(
                    lay,
                    "Lay",
                    ComponentKind.Labour,
                    layer.Id,
                    null,
                    stone,
                    null,
                    Ratio.Parse("0.42 t per h"),
                    true,
                    null
                ),
                new(
                    edge,
                    "Edge",
                    ComponentKind.Labour,
                    layer.Id,
                    Measure.Perimeter,
                    null,
                    null,
                    Ratio.Parse("1 h per 18 m"),
                    false,
                    null
                ),
                new(
                    stone,
                    "Gravel",
                    ComponentKind.Material,
                    gravel.Id,
                    Measure.FloorArea,
                    null,
                    null,
                    Ratio.Parse("1 t per 31 m²"),
                    false,
                    null
                ),
            ],
            "",
            ""
        );
        // 20 m × 3.1 m is 62 m²; its perimeter is 46.2 m, so the edge is checked at 46.2 m ÷ 18.
        var (job, work, place) = Sample.With(
            "Path 20 x 3.1 x 1",
            [layer, gravel, mixer, path],
            path.Id,
            UnitSystem.Metres
        );
        var reckoning = Sample.Reckon(job);
        var line = reckoning.Reckoned.At(new(work, place))!;
        decimal Amount(string name) => line.Amounts[Array.FindIndex(line.Item.Parts, p => p.Name == name)].V;
        Assert.Equal(2.06m, Amount("Gravel"));
        Assert.Equal(4.905m, decimal.Round(Amount("Lay"), 3));
        Assert.Equal(decimal.Round(46.2m / 18, 9), decimal.Round(Amount("Edge"), 9));
        Assert.Equal(decimal.Round((2.06m / 0.42m + 46.2m / 18) / 3, 9), decimal.Round(Amount("Mixer"), 9));
        Assert.Equal(2.450m, decimal.Round((2.06m / 0.42m + 44m / 18) / 3, 3));
        Assert.Equal([83m], reckoning.Reckoned.Costs.Buying.Single().Packs.Counts);
    }

    [Fact]
    public void Parts_that_drive_each_other_are_refused_with_the_path()
    {
        var layer = Sample.Role();
        var (a, b) = (Sample.NewId(), Sample.NewId());
        Component Part(Guid id, string name, Guid of) =>
            new(
                id,
                name,
                ComponentKind.Labour,
                layer.Id,
                null,
                of,
                null,
                Ratio.Parse("1 h per 2 h".Replace("2 h", "2 each")),
                false,
                null
            );
        var assembly = new Assembly(
            Sample.NewId(),
            1,
            "Ring",
            "S",
            Measure.FloorArea,
            [Part(a, "first", b), Part(b, "second", a)],
            "",
            ""
        );
        var refused = Assert.Throws<RefusedException>(() =>
            AssemblyRules.InWorkingOrder(assembly.Components, (_, m) => RefusedException.Of("", m))
        );
        Assert.Contains("first → second → first", refused.Message);
    }

    [Fact]
    public void Loaded_cost_of_labour()
    {
        // Estimating model §3; 7.65 % is the employer's share of FICA, 6.2 % + 1.45 % (IRS Publication 15).
        var role = new LabourRole(
            Sample.NewId(),
            1,
            "Painter",
            22.00m,
            [new("FICA", 7.65m, null), new("Insurance", 4.35m, null), new("Tools", null, 1.10m)]
        );
        var rate = Sample.Rate(Measure.FloorArea, role, null, "100 ft² per h");
        Assert.Equal(
            25.74m,
            Sample
                .Reckon(Sample.With("R 10 x 10 x 8", [role, rate], rate.Id).Job)
                .Reckoned.Costs.Roles.Single()
                .LoadedCost.V
        );
    }

    [Fact]
    public void Cheapest_packs_are_as_cheap_as_trying_every_combination() =>
        Gen.Select(Gen.Int[1, 400], Gen.Select(Gen.Int[1, 25], Gen.Int[1, 500]).Array[1, 3])
            .Always(
                (tenths, raw) =>
                {
                    var need = tenths / 10m;
                    var packs = raw.Select(p => new Pack("p", p.Item1 / 2m, p.Item2)).ToImmutableArray();
                    var counts = CheapestPacks.Cover(need, packs).Counts;
                    var (cost, size) = (
                        counts.Zip(packs).Sum(p => p.First * p.Second.Price),
                        counts.Zip(packs).Sum(p => p.First * p.Second.Size)
                    );
                    return size >= need && (cost, size, counts.Sum()) == Cheapest(need, packs, 0, 0, 0, 0);
                },
                times: 300
            );

    private static (decimal, decimal, decimal) Cheapest(
        decimal need,
        ImmutableArray<Pack> packs,
        int at,
        decimal cost,
        decimal size,
        decimal count
    )
    {
        if (at == packs.Length)
            return size >= need ? (cost, size, count) : (decimal.MaxValue, 0, 0);
        var best = (decimal.MaxValue, 0m, 0m);
        for (var n = 0m; ; n++)
        {
            var tried = Cheapest(need, packs, at + 1, cost + n * packs[at].Price, size + n * packs[at].Size, count + n);
            if (tried.CompareTo(best) < 0)
                best = tried;
            if (size + n * packs[at].Size >= need)
                return best;
        }
    }

    [Fact]
    public void More_coats_never_need_less_paint_or_fewer_hours() =>
        Gen.Select(Gen.Int[5, 60], Gen.Int[5, 60], Gen.Int[7, 14])
            .Always(
                (a, b, h) =>
                {
                    var work = Sample.NewId();
                    var place = Sample.NewId();
                    var job = Sample
                        .Empty()
                        .Do(new AddPlace(place, $"R {a} x {b} x {h}", "", null))
                        .Do(new AddWork(work, StarterBook.Id(111), null))
                        .Fill(work, [place], CellState.Included);
                    var by = Enumerable
                        .Range(1, 3)
                        .Select(coats => Sample.Reckon(coats == 2 ? job : job.Do(new SetWork(work, "coats", 2, coats))))
                        .ToArray();
                    return by[0].Reckoned.Costs.Hours.V < by[1].Reckoned.Costs.Hours.V
                        && by[1].Reckoned.Costs.Hours.V < by[2].Reckoned.Costs.Hours.V
                        && by[0].Reckoned.Costs.Buying[0].Need.V < by[1].Reckoned.Costs.Buying[0].Need.V
                        && by[1].Reckoned.Costs.Buying[0].Need.V < by[2].Reckoned.Costs.Buying[0].Need.V;
                },
                times: 40
            );

    [Fact]
    public void Ordinary_paint_paces_of_the_starter_book_are_common_practice()
    {
        // Common practice: about 100–175 ft² an hour on walls, fewer as coats go up; 300–400 ft² per gallon.
        var walls = StarterBook.Entries.OfType<ProductionRate>().Single(r => r.Id == StarterBook.Id(111));
        Assert.InRange(walls.Paces[0].Pace.A, 100, 175);
        Assert.True(walls.Paces[0].Pace.A > walls.Paces[1].Pace.A && walls.Paces[1].Pace.A > walls.Paces[2].Pace.A);
        var paint = StarterBook.Entries.OfType<Material>().Single(m => m.Id == walls.Product);
        Assert.InRange(paint.Coverage!.A, 300, 400);
        Assert.InRange(paint.LaterCoverage!.A, 300, 400);
    }

    [Fact]
    public void Every_starter_entry_passes_its_own_checks()
    {
        var all = StarterBook.Entries.ToDictionary(e => e.Id);
        foreach (var entry in all.Values)
            BookRules.Check(entry, all);
        Assert.Equal(
            StarterBook.Entries.Length,
            StarterBook.Entries.Select(e => ((e as ProductionRate)?.Section, e.Name)).Distinct().Count()
        );
    }

    [Fact]
    public void An_entry_that_is_gone_is_said_so()
    {
        var job = Sample.Library();
        job = job with { Book = job.Book.Remove(StarterBook.Id(20)) };
        Assert.Contains("is gone from this job", Assert.Throws<RefusedException>(() => Sample.Reckon(job)).Message);
    }

    [Fact]
    public void Numbers_too_large_are_refused()
    {
        var (job, _) = Paint("R 30 x 15 x 10");
        var length = new Length(999_999_999m * 1_000_000_000_000m, Unit.Inch, "x");
        var huge = job.Places[0] with { Shape = new Room(new Rectangle(length, length), length, [], [], [], []) };
        Assert.Contains(
            "too large",
            Assert.Throws<RefusedException>(() => Sample.Reckon(job with { Places = [huge] })).Message
        );
    }
}
