using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Choices of product and tier, reckoned by hand.</summary>
public class ChoicesTests
{
    /// <summary>A floor of 100 ft² with boards that go ten to the hundred, at 12 each: 120 of goods, and 1 h at 20.</summary>
    private sealed class Floor
    {
        public Floor(PricingTerms? terms = null, int rooms = 1)
        {
            Job = new(terms);
            Boards = Sample.Material("Boards", Unit.Each, "10 ft² per each", null, 0, new Pack("one", 1, 12));
            Oak = Sample.Material("Oak boards", Unit.Each, "10 ft² per each", null, 0, new Pack("one", 1, 30));
            var role = Sample.Role("Layer", 20);
            var rate = Sample.Rate(Measure.FloorArea, role, Boards, "100 ft² per h", "50 ft² per h");
            Job.Pin(role, Boards, Oak, rate);
            Places = [.. Enumerable.Range(0, rooms).Select(_ => Job.Place())];
            Work = Sample.NewId();
            Job.Do(new AddWork(Work, rate.Id, null));
            Job.Set(Work, "coats", 1);
            Job.Do(new FillCells([Work], [.. Places], new('.', rooms), CellState.Included));
        }

        public PricedJob Job { get; }
        public Material Boards { get; }
        public Material Oak { get; }
        public Guid[] Places { get; }
        public Guid Work { get; }
    }

    private static ChoiceOption Option(
        string name,
        decimal? price = null,
        Guid? product = null,
        int? coats = null,
        string? colour = null
    ) =>
        new(Sample.NewId(), name)
        {
            Price = price,
            Product = product,
            Coats = coats,
            Colour = colour,
        };

    private static Choice Add(
        PricedJob job,
        string name,
        Guid work,
        ChoiceOption[] options,
        Func<Choice, Choice>? with = null
    )
    {
        var choice = new Choice(Sample.NewId(), "", name, work, [.. options], options[0].Id, options[0].Id);
        job.Do(new AddChoice(with is null ? choice : with(choice)));
        return job.Job.Choices.Single(c => c.Id == choice.Id);
    }

    private static void Take(PricedJob job, params (Choice Choice, ChoiceOption Option)[] taken) =>
        job.Do(
            new TakeChoice(
                [
                    .. taken.Select(t => new Chosen(
                        t.Choice.Id,
                        job.Job.Choices.Single(c => c.Id == t.Choice.Id).Taken,
                        t.Option.Id
                    )),
                ],
                null
            )
        );

    private static decimal Difference(PricedJob job, Choice choice, ChoiceOption option) =>
        Choices.Of(job.Estimate, Trace.Silent).Price(choice, choice.Option(option.Id)!).Price!.V;

    [Fact]
    public void Products_variations_and_coats_are_chosen_and_each_differs_from_what_is_included()
    {
        var floor = new Floor();
        Assert.Equal(140m, floor.Job.Price.BeforeTax.V);
        ChoiceOption[] options =
        [
            Option("plain"),
            Option("oak", product: floor.Oak.Id),
            Option("ash", price: 21),
            Option("laid twice", coats: 2),
        ];
        var before = JobFile.Write(floor.Job.Job);
        var choice = Add(floor.Job, "Floor", floor.Work, options);
        Assert.Equal(140m, floor.Job.Price.BeforeTax.V);
        // Ten at 30 are 180 more, ten at 21 are 90 more; laid twice takes two hours and twenty boards: 140 more.
        Assert.Equal([0m, 180m, 90m, 140m], options.Select(o => Difference(floor.Job, choice, o)));
        Take(floor.Job, (choice, options[2]));
        Assert.Equal(230m, floor.Job.Price.BeforeTax.V);
        Assert.Equal("ash", Assert.Single(floor.Job.Estimate.Reckoned.Costs.Buying).Material.Name);
        // What is printed is against the included one, whatever is taken; what is taken adds up.
        Assert.Equal(180m, Difference(floor.Job, choice, options[1]));
        var all = Choices.Of(floor.Job.Estimate, Trace.Silent);
        Assert.Equal((140m, 90m), (all.Included.V, Assert.Single(all.Taken()).Option.Price!.V));
        Assert.Equal(0m, all.Together(all.Taken().Select(t => t.Option)).V);
        Take(floor.Job, (choice, options[3]));
        Assert.Equal(280m, floor.Job.Price.BeforeTax.V);
        Take(floor.Job, (choice, options[0]));
        Assert.Equal(140m, floor.Job.Price.BeforeTax.V);
        floor.Job.Do(new RemoveChoice(choice.Id));
        // Only the variation that was taken is still pinned.
        var left = floor.Job.Job with
        {
            Book = floor.Job.Job.Book.RemoveRange(
                floor.Job.Job.Book.Values.Where(e => e.Name == "ash").Select(e => e.Id)
            ),
        };
        Assert.Equal(before, JobFile.Write(left));
    }

    [Fact]
    public void A_choice_at_some_places_stands_in_their_cells_and_another_at_the_others()
    {
        var floor = new Floor(rooms: 3);
        ChoiceOption[] options = [Option("plain"), Option("ash", price: 21)];
        var hall = Add(floor.Job, "Hall", floor.Work, options, c => c with { Places = [floor.Places[0]] });
        ChoiceOption[] others = [Option("plain"), Option("elm", price: 15)];
        var rest = Add(floor.Job, "Rest", floor.Work, others, c => c with { Places = [.. floor.Places[1..]] });
        Take(floor.Job, (hall, options[1]), (rest, others[1]));
        // 90 more in the hall, 30 more in each of two.
        Assert.Equal(3 * 140 + 90 + 60, floor.Job.Price.BeforeTax.V);
        Assert.Equal(
            "work",
            Assert
                .Throws<RefusedException>(() =>
                    Add(floor.Job, "All", floor.Work, [Option("a", price: 1), Option("b", price: 2)])
                )
                .Refusal.Field
        );
        // Colours are another matter.
        Add(floor.Job, "Colour", floor.Work, [Option("oil", colour: "clear"), Option("wax", colour: "white")]);
    }

    [Fact]
    public void What_does_not_go_together_is_explained_and_nothing_is_changed()
    {
        var floor = new Floor();
        ChoiceOption[] boards = [Option("plain"), Option("ash", price: 21)];
        var choice = Add(floor.Job, "Boards", floor.Work, boards);
        ChoiceOption[] finish =
        [
            Option("oil", colour: "oil"),
            Option("lye", colour: "lye") with
            {
                Needs = [boards[1].Id],
            },
            Option("stain", colour: "stain") with
            {
                RulesOut = [boards[1].Id],
            },
        ];
        var finishes = Add(floor.Job, "Finish", floor.Work, finish);
        var bytes = JobFile.Write(floor.Job.Job);
        var refused = Assert.Throws<RefusedException>(() => Take(floor.Job, (finishes, finish[1])));
        Assert.Equal(
            ("taken", "“lye” (Finish) is only to be had with “ash” (Boards); “plain” is taken there."),
            (refused.Refusal.Field, refused.Refusal.Message)
        );
        Assert.Equal(bytes, JobFile.Write(floor.Job.Job));
        // Both at once go together; then what is needed stays.
        Take(floor.Job, (finishes, finish[1]), (choice, boards[1]));
        Assert.Throws<RefusedException>(() => Take(floor.Job, (choice, boards[0])));
        refused = Assert.Throws<RefusedException>(() => Take(floor.Job, (finishes, finish[2])));
        Assert.Contains(
            "is not to be had with “ash” (Boards), which is taken.",
            refused.Refusal.Message,
            StringComparison.Ordinal
        );
        // Locked is locked.
        floor.Job.Do(new SetChoice(finishes.Id, "locked", false, true));
        Assert.Contains(
            "locked",
            Assert.Throws<RefusedException>(() => Take(floor.Job, (finishes, finish[0]))).Refusal.Message,
            StringComparison.Ordinal
        );
        // What nobody needs any more may go.
        floor.Job.Do(new RemoveChoice(choice.Id));
        Assert.Empty(floor.Job.Job.Choices.Single().Options.SelectMany(o => o.Needs.Concat(o.RulesOut)));
    }

    [Fact]
    public void A_linked_choice_takes_what_has_the_same_name_and_the_rest_is_said_together()
    {
        // The colour of every bay follows the first; packs of three boards are shared.
        var floor = new Floor(PricedJob.Plain with { MaterialCost = MaterialCost.Purchase }, rooms: 2);
        ChoiceOption[] first = [Option("white", price: 12), Option("black", price: 20)];
        ChoiceOption[] second = [Option("White", price: 12), Option("Black", price: 25)];
        var one = Add(floor.Job, "Bay 1", floor.Work, first, c => c with { Places = [floor.Places[0]] });
        var two = Add(floor.Job, "Bay 2", floor.Work, second, c => c with { Places = [floor.Places[1]] });
        floor.Job.Do(new SetChoice(two.Id, "follows", null, one.Id.ToString()));
        Assert.Equal(80m + 130m, Difference(floor.Job, one, first[1]));
        Take(floor.Job, (one, first[1]));
        Assert.Equal(second[1].Id, floor.Job.Job.Choices.Single(c => c.Id == two.Id).Taken);
        Assert.Equal(280 + 210, floor.Job.Price.BeforeTax.V);
        Assert.Equal(
            "follows",
            Assert
                .Throws<RefusedException>(() => floor.Job.Do(new SetChoice(one.Id, "follows", null, two.Id.ToString())))
                .Refusal.Field
        );
        // Which is taken is one step, and one step back.
        var all = Choices.Of(floor.Job.Estimate, Trace.Silent);
        Assert.Equal(0m, all.Together(all.Taken().Select(t => t.Option)).V);
    }

    [Fact]
    public void Chosen_differences_that_do_not_sum_are_made_up_by_what_is_taken_together()
    {
        // Two choices of which each alone brings the job over its least of 300: 140 and 90, 60 more.
        var floor = new Floor(PricedJob.Plain with { LeastJob = 200 });
        ChoiceOption[] boards = [Option("plain"), Option("ash", price: 21)];
        ChoiceOption[] coats = [Option("once"), Option("twice", coats: 2)];
        var a = Add(floor.Job, "Boards", floor.Work, boards);
        var b = Add(floor.Job, "Laid", floor.Work, coats);
        // 200 stands; 230 is 30 more, 280 is 80 more; both are 2 · 210 + 40 = 460.
        Assert.Equal((30m, 80m), (Difference(floor.Job, a, boards[1]), Difference(floor.Job, b, coats[1])));
        Take(floor.Job, (a, boards[1]), (b, coats[1]));
        Assert.Equal(460m, floor.Job.Price.BeforeTax.V);
        var all = Choices.Of(floor.Job.Estimate, Trace.Silent);
        Assert.Equal((200m, 150m), (all.Included.V, all.Together(all.Taken().Select(t => t.Option)).V));
    }

    [Fact]
    public void Goods_of_an_assembly_and_work_sold_by_the_unit_are_chosen_too()
    {
        var job = new PricedJob();
        var can = Sample.Material("Sealer", Unit.Each, null, null, 0, new Pack("one", 1, 40));
        var work = job.Work(goods: 1, labour: 20, of: _ => can);
        ChoiceOption[] options = [Option("usual"), Option("hard", price: 65)];
        var choice = Add(job, "Sealer", work, options, c => c with { Of = can.Id });
        Take(job, (choice, options[1]));
        Assert.Equal(85m, job.Price.BeforeTax.V);
        var sold = new PricedJob();
        var signs = sold.Sold(2);
        ChoiceOption[] tiers = [Option("plain", price: 2), Option("gilt", price: 5)];
        var tier = Add(sold, "Lettering", signs, tiers);
        Take(sold, (tier, tiers[1]));
        Assert.Equal(500m, sold.Price.BeforeTax.V);
        sold.Set<UnitPrice?>(signs, "unitPrice", null);
        Assert.True(Choosing.IsByHand(sold.Job, sold.Job.Choices[0]));
    }

    [Fact]
    public void Seven_hundred_combinations_with_links_and_rules_are_taken_without_reckoning_what_does_not_change()
    {
        var floor = new Floor(rooms: 3);
        ChoiceOption[] colours = [.. Enumerable.Range(0, 700).Select(i => Option($"Colour {i}", price: 10 + i / 100m))];
        var first = Add(floor.Job, "Bay 1", floor.Work, colours, c => c with { Places = [floor.Places[0]] });
        ChoiceOption[] same = [.. Enumerable.Range(0, 700).Select(i => Option($"Colour {i}", price: 10 + i / 50m))];
        Add(floor.Job, "Bay 2", floor.Work, same, c => c with { Places = [floor.Places[1]], Follows = first.Id });
        ChoiceOption[] edges =
        [
            .. Enumerable
                .Range(0, 700)
                .Select(i =>
                    Option($"Edge {i}", price: 9) with
                    {
                        RulesOut = i % 2 == 1 ? [.. colours.Where((_, n) => n % 2 == 0).Select(o => o.Id)] : [],
                    }
                ),
        ];
        var edge = Add(floor.Job, "Edge", floor.Work, edges, c => c with { Places = [floor.Places[2]] });
        var (taken, refused) = (0, 0);
        for (var i = 0; i < 700; i += 23)
        {
            Take(floor.Job, (first, colours[i]));
            Assert.Equal(
                140 - 120 + 10 * (10 + i / 100m) + 20 + 10 * (10 + i / 50m) + 20 + 90,
                floor.Job.Price.BeforeTax.V
            );
            try
            {
                Take(floor.Job, (edge, edges[i + 1 - i % 2]));
                taken++;
                Take(floor.Job, (edge, edges[0]));
            }
            catch (RefusedException)
            {
                refused++;
            }
        }
        // An odd edge goes with odd colours only.
        Assert.Equal((15, 16), (taken, refused));
    }

    [Fact]
    public void A_suppliers_table_is_read_row_by_row()
    {
        string[][] rows =
        [
            ["Panel", "600 x 600", "white", "12.40", "P-1"],
            ["Panel", "600 x 600", "black", "1,013.90", "P-2"],
            ["", "", "", "", ""],
            ["Panel", "600 x 600", "White", "3", "P-3"],
            ["Panel", "600 x 600", "red", "dear", "P-4"],
            ["Panel", "600 x 600", "blue", "-2", "P-5"],
        ];
        string[] columns = ["Product", "Size", "Finish", "Trade price", "SKU"];
        var mapping = TableField.Guess(ChoiceTable.Fields, columns);
        var read = ChoiceTable.Read(rows, mapping);
        Assert.Equal([1, 2, 4, 5, 6], read.Select(r => r.Row));
        Assert.Equal(
            ("Panel, 600 x 600, white", 12.40m, "P-1", null),
            (read[0].Name, read[0].Price, read[0].Code, read[0].Wrong)
        );
        Assert.Equal(1_013.90m, read[1].Price);
        Assert.Equal("“Panel, 600 x 600, White” stands in row 1 already.", read[2].Wrong);
        Assert.Equal("“dear” is not a price.", read[3].Wrong);
        Assert.Equal("A price is not below zero.", read[4].Wrong);
    }

    [Fact]
    public void Every_figure_of_a_choice_is_recomputed_from_its_workings_and_undo_brings_back_the_bytes()
    {
        var floor = new Floor(PricedJob.Worked);
        ChoiceOption[] options = [Option("plain"), Option("ash", price: 21.35m), Option("twice", coats: 2)];
        var choice = Add(floor.Job, "Floor", floor.Work, options);
        var before = JobFile.Write(floor.Job.Job);
        var (after, changes) = Commands.Apply(
            floor.Job.Job,
            new TakeChoice([new(choice.Id, options[0].Id, options[1].Id)], null),
            _ => null
        );
        Assert.Equal(before, JobFile.Write(ChangeSet.Apply(after, ChangeSet.Reversed(changes))));
        Assert.Equal(JobFile.Write(after), JobFile.Write(JobFile.Read(JobFile.Write(after))));
        var trace = Trace.Recording();
        var choices = Choices.Of(Estimate.Of(after, trace), trace);
        choices.Together(choices.Taken().Select(t => t.Option));
        choices.Price(choice, options[2]);
        Assert.True(trace.Figures.ContainsKey(Choices.Within(options[2].Id) + "choice/price"));
        foreach (var path in trace.Figures.Keys)
        {
            using var json = JsonDocument.Parse(Explanation.Of(trace, path)!.ToJsonString());
            new WorkingsChecker(json.RootElement).Figure(path);
        }
    }
}
