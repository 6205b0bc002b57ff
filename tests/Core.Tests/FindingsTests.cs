using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Checks;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Each check finds what it is for, and keeps quiet beside it.</summary>
public class FindingsTests
{
    private static IReadOnlyList<Finding> Of(Job job) =>
        Findings.Of(Sample.Reckon(job), StarterBook.Entries, StarterPlaces.Sizes);

    private static string[] Kinds(Job job) =>
        [.. Of(job).Where(f => f.Reason.Length == 0).Select(f => f.Key.Split('/')[0])];

    /// <summary>A painted room, in which there is nothing to find.</summary>
    private static (Job Job, Guid Work, Guid Place) Quiet() =>
        Sample.With("Study 12 x 10 x 8; door 3 x 6'8", [], StarterBook.Id(111));

    private static Job Add(Job job, string line, string group = "") =>
        job.Do(new AddPlace(Sample.NewId(), line, group, null));

    [Fact]
    public void A_plain_job_has_nothing_to_check() => Assert.Empty(Of(Quiet().Job));

    [Fact]
    public void A_place_without_work()
    {
        var job = Add(Quiet().Job, "Loft 9 x 9 x 7");
        Assert.Equal(["noWork"], Kinds(job));
        Assert.Empty(Kinds(job.Fill(job.Work[0].Id, [job.Places[1].Id], CellState.Excluded)));
    }

    [Fact]
    public void A_place_measured_twice_by_name_or_by_size()
    {
        var (job, work, _) = Quiet();
        Job Both(string line, string group = "") =>
            Add(job, line, group) is var two ? two.Fill(work, [two.Places[1].Id], CellState.Included) : job;
        Assert.Equal(["twice"], Kinds(Both("study 11 x 10 x 8")));
        // Its door could be the study's, too.
        Assert.Equal(["alike", "shared"], Kinds(Both("Den 12 x 10 x 8; door 3 x 6'8")));
        Assert.Equal(["shared"], Kinds(Both("Den 12 x 10'1 x 8; door 3 x 6'8")));
        Assert.Empty(Kinds(Both("Study 11 x 10 x 8", "Upstairs")));
        // Bare cells of one size are common, and say nothing.
        Assert.Empty(Kinds(Both("Den 12 x 10 x 8")));
    }

    [Fact]
    public void Work_without_a_place_and_without_a_measure()
    {
        var (job, _, place) = Quiet();
        var windows = Sample.NewId();
        job = job.Do(new AddWork(windows, StarterBook.Id(131), null));
        Assert.Equal(["nowhere"], Kinds(job));
        job = job.Fill(windows, [place], CellState.Included);
        Assert.Equal(["noMeasure"], Kinds(job));
        // What a sum is allowed for needs no measure; the sum is a cost that brings nothing.
        Assert.Equal(["belowFloor"], Kinds(job.Do(new SetWork(windows, "allowance", null, "90"))));
    }

    /// <summary>A stair of 12 × 7" + 11 × 10" by 3 ft is 3 · 194/12 = 48.5 ft² developed; its stringers are 2 · √(84² + 110²) = 276.8".</summary>
    private const string Stair = "Back stair 12 rise 7\" going 10\" wide 3'";

    [Fact]
    public void Work_of_nothing_takes_a_measure_that_the_place_has()
    {
        // Skirting boards have no length of their own on a stair; its stringers have one.
        var (job, work, place) = Sample.With(Stair, [], StarterBook.Id(132));
        var found = Of(job).Single();
        Assert.Equal($"noMeasure/{work}/stringerLength", found.Key);
        Assert.Contains("comes to nothing in Back.", found.Says);
        Assert.Contains("stringers 23.07 ft, step edges 33 ft", found.Why);
        var offer = Assert.Single(found.Offers);
        static Line LineOf(Job now) => Sample.Reckon(now).Reckoned.Lines.Single();
        Assert.True(LineOf(job).IsNothing);
        var taken = job.Do(offer.Does);
        Assert.Equal(23.0675m, LineOf(taken).Quantity.V, 4);
        Assert.False(LineOf(taken).IsNothing);
        Assert.Empty(Kinds(taken));
        // Somebody else has set it meanwhile: the offer was made from something else.
        Assert.Throws<ConflictException>(() => _ = job.Set(work, place, "source", "edgeLength").Do(offer.Does));
    }

    [Fact]
    public void Work_of_nothing_with_no_measure_of_its_kind_can_be_taken_out()
    {
        var (job, work, place) = Sample.With(Stair, [], StarterBook.Id(131));
        var found = Of(job).Single();
        Assert.Equal($"noMeasure/{work}", found.Key);
        Assert.Contains("no measure of that kind", found.Why);
        var without = job.Do(Assert.Single(found.Offers).Does);
        Assert.DoesNotContain(new CellKey(work, place), without.Cells.Keys);
        // So is what was typed as nothing.
        var typed = Quiet();
        var zero = typed.Job.Set(
            typed.Work,
            typed.Place,
            "quantity",
            new TypedQuantity(Kind.Area, "0 ft²", UnitSystem.Feet)
        );
        Assert.StartsWith(
            "A quantity of nothing was typed",
            Of(zero).Single(f => f.Key.StartsWith("noMeasure", StringComparison.Ordinal)).Why
        );
    }

    [Fact]
    public void A_place_that_is_still_to_be_measured_is_asked_about_once_whatever_work_it_has()
    {
        var (job, _, place) = Sample.With("Study: not measured", [], StarterBook.Id(111));
        job = job.Do(new AddWork(Sample.NewId(), StarterBook.Id(120), null) { Places = [place] });
        Assert.Equal([$"notMeasured/{place}"], Of(job).Select(f => f.Key));
        // Without work there is nothing that waits for its sizes.
        Assert.Equal(["noWork"], Kinds(Add(Sample.Empty(), "Study: not measured")));
    }

    [Fact]
    public void Carpet_leads_itself_by_developed_area_on_stairs()
    {
        foreach (var (entry, expected) in new[] { (140, 48.5m), (141, 48.5m) })
        {
            var (job, _, _) = Sample.With(Stair, [], StarterBook.Id(entry));
            Assert.Equal(expected, Sample.Reckon(job).Reckoned.Lines.Single().Quantity.V);
            Assert.Empty(Kinds(job));
        }
    }

    [Fact]
    public void The_usual_answer_in_several_places_is_asked_about()
    {
        var beads = StarterBook.Entries.OfType<Assembly>().First(a => a.Name == "Corner beads");
        var (job, work, study) = Sample.With("Study 12 x 10 x 8", [], beads.Id);
        Assert.Empty(Kinds(job));
        job = Add(job, "Den 9 x 9 x 8");
        job = job.Fill(work, [job.Places[1].Id], CellState.Included);
        Assert.Equal(["usual"], Kinds(job));
        Assert.Contains("24 ft in 2 places", Of(job).Single().Says);
        var answers = new[] { new Answer(beads.Questions[0].Id, 24m) };
        // Said once for all, or at one of the two, it is no more silent.
        Assert.Empty(Kinds(job.Answer(work, answers)));
        Assert.Empty(Kinds(job.Set(work, study, "answers", answers)));
    }

    [Fact]
    public void A_margin_below_the_floor_is_a_finding()
    {
        var job = Quiet().Job;
        var margin = Sample.Reckon(job).Price.Readouts.Margin!.V;
        Job Floor(decimal floor) => job with { Pricing = job.Pricing with { FloorMargin = floor } };
        Assert.Equal(["belowFloor"], Kinds(Floor(decimal.Round(margin, 2) + 0.01m)));
        Assert.Empty(Kinds(Floor(margin)));
        // A job without a price has no margin to be below anything.
        Assert.Empty(Kinds(Sample.Empty() with { Pricing = job.Pricing with { FloorMargin = 90 } }));
    }

    [Fact]
    public void Equal_doors_of_neighbours_are_joined()
    {
        var (job, work, study) = Sample.With(
            "Study 12 x 10 x 8; window 3 x 4; door 3 x 6'8 x2",
            [],
            StarterBook.Id(111)
        );
        job = Add(job, "Den 12 x 11 x 8; door 3 x 80\"; window 3 x 4");
        var den = job.Places[1].Id;
        job = job.Fill(work, [den], CellState.Included);
        var found = Of(job).Single();
        Assert.StartsWith("shared/", found.Key, StringComparison.Ordinal);
        var offer = Assert.Single(found.Offers);
        Assert.Equal("Join Study and Den", offer.Words);
        decimal Measured(Job now, Guid place, Measure measure) =>
            Sample.Reckon(now).Reckoned.Measures[place][measure].V;
        var joined = job.Do(offer.Does);
        // Three doors were two and one; now one of them is both's: it counts once, and is off both rooms as before.
        Assert.Equal((2m, 0m), (Measured(joined, study, Measure.DoorCount), Measured(joined, den, Measure.DoorCount)));
        foreach (var place in new[] { study, den })
        foreach (var measure in new[] { Measure.NetWallArea, Measure.SkirtingLength })
            Assert.Equal(Measured(job, place, measure), Measured(joined, place, measure));
        Assert.Equal(
            ["Study 12 x 10 x 8; window 3 x 4; door 3 x 6'8 into Den; door 3 x 6'8", "Den 12 x 11 x 8; window 3 x 4"],
            joined.Places.Select(p => p.Line)
        );
        Assert.Empty(Kinds(joined));
        // Read again it is the same place.
        Assert.Equal(
            joined.Places[0].Openings,
            joined.Do(new RemeasurePlace(study, joined.Places[0].Line, joined.Places[0].Line + " ")).Places[0].Openings
        );
        Assert.Throws<ConflictException>(() => _ = joined.Do(offer.Does));
    }

    [Theory]
    // Another size, another heading, windows, several equal rooms, a place between.
    [InlineData("Den 12 x 11 x 8; door 2'8 x 6'8", "")]
    [InlineData("Den 12 x 11 x 8; door 3 x 6'8", "Upstairs")]
    [InlineData("Den 12 x 11 x 8; door 3 x 6'8 x2; x2", "")]
    [InlineData("Den 12 x 11 x 8; window 3 x 6'8", "")]
    public void Openings_that_are_not_shared_are_not_asked_about(string line, string group)
    {
        var (job, work, _) = Quiet();
        job = Add(job, line, group);
        Assert.Empty(Kinds(job.Fill(work, [job.Places[1].Id], CellState.Included)));
    }

    [Fact]
    public void Only_openings_of_one_size_are_joined()
    {
        var job = Add(Quiet().Job, "Den 12 x 11 x 8; door 2'8 x 6'8");
        PlaceWas Was(int at) => new(job.Places[at].Id, job.Places[at].Line);
        RefusedException Refused(JoinOpenings join) => Assert.Throws<RefusedException>(() => _ = job.Do(join));
        Assert.Contains("one size", Refused(new(Was(0), 0, Was(1), 0)).Message);
        Assert.Contains("no such opening", Refused(new(Was(0), 1, Was(1), 0)).Message);
        Assert.Contains("twice", Refused(new(Was(0), 0, Was(0), 0)).Message);
    }

    [Theory]
    [InlineData("151 ft²", true)]
    [InlineData("100 ft²", false)]
    [InlineData("80 ft²", true)]
    public void A_typed_figure_far_from_the_reckoned_one(string typed, bool far)
    {
        var (job, _, place) = Quiet();
        Assert.Equal(
            far ? ["typed"] : [],
            Kinds(job.Do(new SetMeasure(place, "floorArea", null, new(Kind.Area, typed, UnitSystem.Feet))))
        );
    }

    [Theory]
    [InlineData("500 ft²", true)]
    [InlineData("300 ft²", false)]
    public void A_quantity_typed_at_a_cell_far_from_its_measure(string typed, bool far)
    {
        // 2 · 22 · 8 − 20 = 332 ft² of wall.
        var (job, work, place) = Quiet();
        Assert.Equal(
            far ? ["typedHere"] : [],
            Kinds(job.Set(work, place, "quantity", new TypedQuantity(Kind.Area, typed, UnitSystem.Feet)))
        );
    }

    [Fact]
    public void A_hazard_that_nobody_has_answered()
    {
        var (job, work, _) = Sample.With("Study 12 x 10 x 8", [], StarterBook.Id(2230));
        Assert.Equal(["hazard"], Kinds(job));
        Assert.Empty(Kinds(job.Do(new SetWork(work, "hazardAnswer", "", "none found"))));
    }

    [Theory]
    [InlineData("door 3 x 7", false)]
    [InlineData("door 12 x 9", true)]
    [InlineData("window 4 x 5", false)]
    [InlineData("window 40 x 7", true)]
    public void An_opening_larger_than_usual(string opening, bool large)
    {
        var (job, _, _) = Sample.With($"Shop 60 x 30 x 12; {opening}", [], StarterBook.Id(111));
        Assert.Equal(large, Kinds(job).Contains("opening"));
    }

    [Fact]
    public void A_rate_far_from_others_of_its_kind()
    {
        var (job, work, _) = Quiet();
        Job Pace(string pace) => job.Do(new SetWork(work, "pace", null, pace));
        Assert.Contains("rate", Kinds(Pace("9.5 ft² per h")));
        Assert.Equal(["rate"], Kinds(Pace("30 ft² per h")));
        Assert.Empty(Kinds(Pace("80 ft² per h")));
        var others = Enumerable
            .Range(1, 3)
            .Select(i => Sample.Rate(Measure.FloorArea, Sample.Role(), null, $"{i * 10 + 80} ft² per h"))
            .ToArray();
        var slow = Sample.Rate(Measure.FloorArea, Sample.Role(), null, "25 ft² per h");
        var (one, _, _) = Sample.With(
            "Study 12 x 10 x 8",
            [slow, new LabourRole(slow.Role, 1, "Painter", 20, [])],
            slow.Id
        );
        Assert.Equal(
            "rate",
            Assert.Single(Findings.Of(Sample.Reckon(one), [.. others], StarterPlaces.Sizes)).Key.Split('/')[0]
        );
        Assert.Empty(Findings.Of(Sample.Reckon(one), [.. others.Take(2)], StarterPlaces.Sizes));
    }

    [Fact]
    public void A_coverage_above_what_the_film_thickness_allows()
    {
        // 35 % solids at 1.5 mil dry cover 374.3 ft² a gallon at the very most (estimating model §5).
        var thin = Sample.Material("Thin paint", Unit.Gallon, "400 ft² per gal", null, 0, new Pack("1 gal", 1, 40)) with
        {
            SolidsPercent = 35,
            DryFilm = "1.5 mil",
        };
        var role = Sample.Role();
        var rate = Sample.Rate(Measure.FloorArea, role, thin, "100 ft² per h");
        Job With(Material material) => Sample.With("Study 12 x 10 x 8", [role, material, rate], rate.Id).Job;
        Assert.Equal(["coverage"], Kinds(With(thin)));
        Assert.Empty(Kinds(With(thin with { Coverage = Ratio.Parse("370 ft² per gal") })));
    }

    [Fact]
    public void No_equipment_where_a_crew_works()
    {
        // A crew's day of painting with nothing to stand on.
        var (job, _, _) = Sample.With("Hall 60 x 40 x 12", [], StarterBook.Id(111));
        Assert.Equal(["equipment"], Kinds(job));
        var tower = Sample.NewId();
        var with = job.Do(new AddWork(tower, StarterBook.Id(121), null) { Places = [job.Places[0].Id] });
        Assert.Empty(Kinds(with));
    }

    [Fact]
    public void What_is_set_aside_stays_with_its_reason_and_comes_back()
    {
        var job = Add(Quiet().Job, "Loft 9 x 9 x 7");
        var key = Of(job).Single().Key;
        var aside = job.Do(new Jobs.SetAside(key, "", "next year"));
        Assert.Equal("next year", Of(JobFile.Read(JobFile.Write(aside))).Single().Reason);
        Assert.Throws<ConflictException>(() => aside.Do(new Jobs.SetAside(key, "", "never")));
        Assert.Equal(JobFile.Write(job), JobFile.Write(aside.Do(new Jobs.SetAside(key, "next year", ""))));
        Assert.Equal(
            "reason",
            Assert
                .Throws<RefusedException>(() => job.Do(new Jobs.SetAside(key, "", new string('x', 301))))
                .Refusal.Field
        );
    }

    [Fact]
    public void Every_finding_says_why_and_leads_somewhere()
    {
        foreach (var finding in DemoJobs.Fixed().SelectMany(Of))
        {
            Assert.NotEmpty(finding.Says);
            Assert.NotEmpty(finding.Why);
            Assert.True(
                finding.Key == "equipment" || (finding.Place ?? finding.Work ?? finding.Entry) is not null,
                finding.Key
            );
        }
    }

    [Fact]
    public void Cost_that_no_unit_price_covers_is_said_with_its_parts()
    {
        // Hidden work of 60; a visit of 10 miles at 2.00, and 15 + 20 minutes of two people at 30.00.
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.UnitPrice });
        var role = Sample.Role("Driver", 30);
        var place = job.Place();
        job.Work(labour: 40, at: [place], entry: e => e with { UnitPrice = new(1, Unit.SquareFoot) });
        Assert.DoesNotContain("unpriced", Kinds(job.Job));
        var hidden = job.Work(labour: 60, at: [place], entry: e => e with { Hidden = true });
        Finding Unpriced(Job of) => Of(of).Single(f => f.Key == "unpriced");
        Assert.Equal(
            "60.00 of the cost is in no unit price: hidden work without a unit price 60.00.",
            Unpriced(job.Job).Says
        );
        var setUp = new SetUp(Sample.NewId(), 1, "Van", role.Id, 15, TravelPer.Visit, 10, DistanceUnit.Mile, 20, 2);
        var travels = job.Job.Do(new SetCrew("setUp", null, setUp.Id.ToString()), [setUp, role]);
        var hours = travels.Crew.Size * 35m / 60m;
        var way = Rounding.Money(
            20 + hours * Sample.Reckon(travels).Reckoned.Costs.Roles.Single(r => r.Role.Id == role.Id).LoadedCost.V
        );
        Assert.Equal(
            $"{way + 60:0.00} of the cost is in no unit price: set-up and the way to the site {way:0.00}, hidden work without a unit price 60.00.",
            Unpriced(travels).Says
        );
        // Priced in another way, it is in the price.
        Assert.DoesNotContain(
            "unpriced",
            Kinds(travels with { Pricing = travels.Pricing with { Basis = PriceBasis.Markup } })
        );
        job.Set(hidden, "unitPrice", new UnitPrice(2, Unit.SquareFoot));
        Assert.DoesNotContain("unpriced", Kinds(job.Job));
    }

    [Fact]
    public void A_unit_price_stands_where_the_customer_supplies_the_material()
    {
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.UnitPrice });
        var (a, b) = (job.Place(), job.Place());
        var work = job.Work(
            labour: 40,
            goods: 20,
            at: [a, b],
            entry: e => e with { UnitPrice = new(1, Unit.SquareFoot) }
        );
        string[] Supplied(Job of) => [.. Of(of).Where(f => f.Key == $"supplied/{work}").Select(f => f.Says)];
        Assert.Empty(Supplied(job.Job));
        var there = job.Job.Set<Supply?>(work, b, "supply", Supply.CustomerMaterial);
        Assert.Equal(
            ["S: Work 1 is sold at 1.00 per ft² also where the customer supplies the material: R1."],
            Supplied(there)
        );
        Assert.Empty(Supplied(there.Set(work, b, "unitPrice", new UnitPrice(0.6m, Unit.SquareFoot))));
        // Typed for work of which the customer supplies all material.
        job.Set(work, "supply", Supply.CustomerMaterial);
        Assert.Single(Supplied(job.Job));
        job.Set(work, "unitPrice", new UnitPrice(0.6m, Unit.SquareFoot));
        Assert.Empty(Supplied(job.Job));
    }
}
