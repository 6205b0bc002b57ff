using System.Collections.Immutable;
using System.Text;
using System.Text.Json.Nodes;
using CsCheck;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

public class JobTests
{
    internal static string File(Job job) => Encoding.UTF8.GetString(JobFile.Write(job));

    internal static Job Read(string text) => JobFile.Read(Encoding.UTF8.GetBytes(text));

    [Fact]
    public void A_job_file_read_and_written_again_is_the_same_bytes() =>
        Assert.Equal(File(Sample.Library()), File(Read(File(Sample.Library()))));

    [Fact]
    public void The_demo_job_has_thirty_rooms() =>
        Assert.Equal(30, Sample.Library().Places.Count(p => p.Shape is Places.Room));

    [Fact]
    public void Changes_are_made_and_taken_back_by_any_run_of_commands() =>
        Gen
            .Int.Array[1, 25]
            .Always(
                seeds =>
                {
                    var job = Sample.Library();
                    var start = File(job);
                    var log = new List<ImmutableArray<Change>>();
                    foreach (var seed in seeds)
                    {
                        var (next, changes) = Commands.Apply(
                            job,
                            RandomCommand(job, new Random(seed)),
                            id => StarterBook.Entries.FirstOrDefault(e => e.Id == id)
                        );
                        log.Add(changes);
                        job = next;
                    }
                    var end = File(job);
                    foreach (var changes in Enumerable.Reverse(log))
                        job = ChangeSet.Apply(job, ChangeSet.Reversed(changes));
                    var back = File(job);
                    foreach (var changes in log)
                        job = ChangeSet.Apply(job, changes);
                    return back == start && File(job) == end;
                },
                times: 30
            );

    [Fact]
    public void Reckoning_what_changed_gives_the_same_bytes_as_reckoning_all() =>
        Gen
            .Int.Array[1, 15]
            .Always(
                seeds =>
                {
                    var job = Sample.Library();
                    var reckoning = Sample.Reckon(job);
                    foreach (var seed in seeds)
                    {
                        job = job.Do(RandomCommand(job, new Random(seed)));
                        reckoning = Estimate.Of(job, Trace.Silent, reckoning);
                    }
                    return Dump(reckoning) == Dump(Sample.Reckon(Read(File(job))));
                },
                times: 30
            );

    private static Command RandomCommand(Job job, Random random)
    {
        T Any<T>(IReadOnlyList<T> list) => list[random.Next(list.Count)];
        var (place, item) = (Any(job.Places), Any(job.Work));
        var cell = job.Cells.GetValueOrDefault(new(item.Id, place.Id));
        return random.Next(11) switch
        {
            0 => new AddPlace(
                Sample.NewId(),
                $"New {random.Next(5, 30)} x {random.Next(5, 30)} x 9; door 3 x 7",
                Any(new[] { "Ground floor", "Attic" }),
                random.Next(2) == 0 ? null : place.Id
            ),
            1 => new RemeasurePlace(
                place.Id,
                place.Line,
                $"{place.Name} {random.Next(5, 30)}'{random.Next(12)} x 12 x 9 x{random.Next(1, 4)}"
            ),
            2 => new RemovePlaces([place.Id]),
            3 => new AddWork(Sample.NewId(), StarterBook.Id(Any(new[] { 100, 111, 120, 130, 133, 141, 121 })), null),
            4 when job.Work.Length > 4 => new RemoveWork(item.Id),
            5 => new SetDeduction(job.Deduct, Any(DeductionRule.All).Name),
            6 => new SetPricing("overhead", Rounding.Text(job.Pricing.Overhead), Rounding.Text(random.Next(0, 40))),
            7 => new SetWork(item.Id, "colour", item.Colour, Any(new[] { "", "Tern", "Slate" })),
            8 => new SetPricing(
                "materialCost",
                job.Pricing.MaterialCost == MaterialCost.Need ? "need" : "purchase",
                Any(new[] { "need", "purchase" })
            ),
            9 when cell is not null => new SetNote(item.Id, place.Id, cell.Note, "note " + random.Next()),
            _ => new FillCells(
                [item.Id],
                [.. job.Places.Select(p => p.Id)],
                job.Seen([item.Id], [.. job.Places.Select(p => p.Id)]),
                Any(new CellState?[] { CellState.Included, CellState.Excluded, CellState.Alternate, null })
            ),
        };
    }

    internal static string Dump(Estimate r)
    {
        var text = new StringBuilder();
        void Put(Val? value) => text.Append(value is { } v ? Rounding.Text(v.V) : "-").Append('\n');
        foreach (var line in r.Reckoned.Lines)
        {
            text.Append(line.Item.Item.Id).Append(line.Measures.Place.Id);
            Put(line.Quantity);
            foreach (var amount in line.Amounts)
                Put(amount);
            foreach (var measure in Enum.GetValues<Measure>())
                Put(line.Measures[measure]);
        }
        foreach (var role in r.Reckoned.Costs.Roles)
            Put(role.Cost);
        foreach (var buy in r.Reckoned.Costs.Buying)
        {
            Put(buy.Need);
            Put(buy.BoughtCost);
            Put(buy.NeedCost);
        }
        foreach (var equipment in r.Reckoned.Costs.Equipment)
            Put(equipment.Cost);
        foreach (
            var value in new Val?[]
            {
                r.Reckoned.Costs.Hours,
                r.Reckoned.Costs.CrewDays,
                r.Reckoned.Costs.FloorArea,
                r.Price.BeforeTax,
                r.Price.Tax,
                r.Price.Total,
                r.Price.Readouts.Margin?.Value,
                r.Price.Readouts.PerFloor?.Value,
            }
        )
            Put(value);
        foreach (var share in Spread.Of(r, Trace.Silent).Lines)
            Put(share);
        return text.ToString();
    }

    [Fact]
    public void The_reckoning_is_the_same_in_any_culture()
    {
        var before = System.Globalization.CultureInfo.CurrentCulture;
        try
        {
            var all = new[] { "en-US", "de-DE", "ar-SA" }
                .Select(name =>
                {
                    System.Globalization.CultureInfo.CurrentCulture = new(name);
                    return Reported.Of(Read(File(Sample.Library()))).ToJsonString();
                })
                .Distinct();
            Assert.Single(all);
        }
        finally
        {
            System.Globalization.CultureInfo.CurrentCulture = before;
        }
    }

    [Fact]
    public void A_field_that_has_changed_since_is_a_conflict_and_not_overwritten()
    {
        var job = Sample.Library();
        Assert.Throws<ConflictException>(() => job.Do(new SetPricing("overhead", "13", "20")));
        Assert.Throws<ConflictException>(() =>
            job.Do(new RemeasurePlace(job.Places[0].Id, "another line", "Hall 3 x 3 x 3"))
        );
        Assert.Throws<ConflictException>(() =>
            job.Do(new FillCells([job.Work[0].Id], [job.Places[0].Id], ".", CellState.Excluded))
        );
    }

    [Fact]
    public void An_entry_that_is_not_in_the_Book_is_refused() =>
        Assert.Equal(
            "entry",
            Assert
                .Throws<RefusedException>(() => Sample.Empty().Do(new AddWork(Sample.NewId(), Sample.NewId(), null)))
                .Refusal.Field
        );

    [Theory]
    [InlineData("pace", "0 ft² per h", "more than zero")]
    [InlineData("pace", "3 gal per h", "is measured against")]
    [InlineData("pace", "soon", "not a rate")]
    [InlineData("product", "01930000-0000-7000-8000-000000000024", "does not cover")]
    [InlineData("product", "01930000-0000-7000-8000-000000099999", "not in the Book")]
    public void Settings_of_work_are_refused_with_a_sentence(string field, string value, string says)
    {
        var job = Sample.Library();
        var paint = job.Work.Single(w => w.Entry == StarterBook.Id(111));
        Assert.Contains(
            says,
            Assert.Throws<RefusedException>(() => job.Do(new SetWork(paint.Id, field, null, value))).Message
        );
    }

    [Theory]
    [InlineData("", "breaks off")]
    [InlineData("{", "breaks off")]
    [InlineData("[]", "not of the kind")]
    [InlineData("null", "empty")]
    [InlineData("{\"schemaVersion\":1}", "missing")]
    public void Files_that_are_no_job_files(string text, string says) =>
        Assert.Contains(says, Assert.Throws<RefusedException>(() => Read(text)).Message);

    [Fact]
    public void A_truncated_file_is_refused_wherever_it_breaks_off()
    {
        var text = File(Sample.Library());
        for (var length = 1; length < text.Length - 2; length += 997)
            Assert.Throws<RefusedException>(() => Read(text[..length]));
    }

    [Fact]
    public void A_file_nested_ten_thousand_deep_is_refused() =>
        Assert.Throws<RefusedException>(() => Read(string.Concat(Enumerable.Repeat("{\"info\":", 10_000))));

    [Fact]
    public void A_file_of_the_first_version_is_read_as_the_same_job()
    {
        // No alternate had a name then, and nothing was a choice.
        var library = Sample.Library();
        library = library.Do(new UngroupAlternate(library.Alternates.Single().Id));
        library = library.Choices.Aggregate(library, (so, choice) => so.Do(new RemoveChoice(choice.Id)));
        var now = JsonNode.Parse(File(library))!.AsObject();
        var old = JsonNode.Parse(now.ToJsonString())!.AsObject();
        // As version 1 wrote it: rectangular rooms only, sizes beside the name.
        (old["schemaVersion"], _) = (1, old.Remove("schedule"));
        old.Remove("conditions");
        var names = old["sections"]!.AsArray().ToDictionary(s => (string)s!["id"]!, s => (string)s!["name"]!);
        foreach (var item in old["work"]!.AsArray())
            item!["section"] = names[(string)item["section"]!];
        (old["pricing"]!["crewSize"], old["pricing"]!["hoursPerDay"]) = (
            old["crew"]!["size"]!.DeepClone(),
            old["crew"]!["hoursPerDay"]!.DeepClone()
        );
        foreach (var gone in new[] { "sections", "crew" })
            old.Remove(gone);
        foreach (var cell in old["cells"]!.AsArray().Select(c => c!.AsObject()))
        {
            (cell["state"], cell["note"]) = (cell["cell"]!["state"]!.DeepClone(), cell["cell"]!["note"]!.DeepClone());
            cell.Remove("cell");
        }
        foreach (
            var equipment in old["book"]!
                .AsArray()
                .Select(e => e!.AsObject())
                .Where(e => (string)e["kind"]! == "equipment")
        )
        {
            equipment["costPerHour"] = equipment["cost"]!.DeepClone();
            foreach (var gone in new[] { "cost", "per" })
                equipment.Remove(gone);
        }
        var rooms = old["places"]!
            .AsArray()
            .Where(p => (string)p!["shape"]!["kind"]! == "room" && (string)p["shape"]!["outline"]!["by"]! == "sides")
            .ToList();
        foreach (var place in rooms.Select(p => p!.AsObject()))
        {
            var shape = place["shape"]!;
            (place["kind"], place["long"], place["wide"], place["high"]) = (
                "room",
                shape["outline"]!["long"]!.DeepClone(),
                shape["outline"]!["wide"]!.DeepClone(),
                shape["high"]!.DeepClone()
            );
            foreach (var gone in new[] { "shape", "typed", "finish", "notes", "conditions" })
                place.Remove(gone);
            foreach (var opening in place["openings"]!.AsArray())
            foreach (var gone in new[] { "wall", "reachesFloor", "bottom", "into" })
                opening!.AsObject().Remove(gone);
        }
        Assert.InRange(rooms.Count, 25, 40);
        var info = old["info"]!.AsObject();
        info["customerId"] = info["customer"]!.DeepClone();
        (info["customer"], info["customerAddress"]) = ("Whoever", "Somewhere");
        Assert.Equal(now.ToJsonString(), JsonNode.Parse(File(Read(old.ToJsonString())))!.ToJsonString());
        var log = new JobUpgrade.Log();
        var change = log.Changes([new("places/x", null, old["places"]![0]!.DeepClone())], 4)[0];
        Assert.True(JsonNode.DeepEquals(now["places"]![0], change.After));
        var cellChange = log.Changes([new("cells/x/y", JsonNode.Parse("""{"state":"included","note":""}"""), null)], 4)[
            0
        ];
        Assert.True(JsonNode.DeepEquals(now["cells"]![0]!["cell"], cellChange.Before));
    }

    [Fact]
    public void A_file_of_a_hundred_megabytes_is_refused() =>
        Assert.Contains(
            "at most 20 MB",
            Assert.Throws<RefusedException>(() => JobFile.Read(new byte[100_000_000])).Message
        );

    private static void Spoiled(Action<JsonObject> spoil, string says)
    {
        var node = JsonNode.Parse(File(Sample.Library()))!.AsObject();
        spoil(node);
        Assert.Contains(says, Assert.Throws<RefusedException>(() => Read(node.ToJsonString())).Message);
    }

    [Fact]
    public void A_file_that_contradicts_itself_is_refused()
    {
        Spoiled(f => f["pricing"]!["overhead"] = "1e999", "A number is written as text");
        Spoiled(f => f["pricing"]!["overhead"] = 14, "A number is written as text");
        Spoiled(f => f["places"]![0]!["shape"]!["outline"]!["long"]!["value"] = "-3", "more than zero");
        Spoiled(f => f["places"]![1]!["id"] = f["places"]![0]!["id"]!.DeepClone(), "stands twice");
        Spoiled(f => f["cells"]![0]!["place"] = Guid.CreateVersion7().ToString(), "not there");
        Spoiled(f => f["cells"]![0]!["work"] = Guid.CreateVersion7().ToString(), "not there");
        Spoiled(f => f["cells"]!.AsArray().Add(f["cells"]![0]!.DeepClone()), "stands twice");
        Spoiled(f => f["work"]![0]!["entry"] = Guid.CreateVersion7().ToString(), "gone from this job");
        Spoiled(f => f["book"]!.AsArray().RemoveAt(0), "not there");
        Spoiled(f => f["deduct"] = "all", "no deduction rule");
        Spoiled(f => f["extra"] = 1, "does not have");
        Spoiled(f => f["schemaVersion"] = 99, "version 99");
        Spoiled(
            f => f["book"]!.AsArray().First(b => (string)b!["kind"]! == "rate")!["paces"]![0]!["pace"] = "0 ft² per h",
            "more than zero"
        );
        Spoiled(f => f["places"]![0]!["openings"]![0]!["width"]!["value"] = "9000", "larger than the largest wall");
        Spoiled(
            f =>
                f["places"]![0]!["shape"]!["bands"] = new JsonArray(
                    new JsonObject { ["name"] = "a", ["top"] = f["places"]![0]!["shape"]!["high"]!.DeepClone() },
                    new JsonObject { ["name"] = "b", ["top"] = f["places"]![0]!["shape"]!["high"]!.DeepClone() }
                ),
            "go upwards"
        );
        Spoiled(f => f["places"]![0]!["openings"]![0]!["into"] = Guid.CreateVersion7().ToString(), "not in this job");
        Spoiled(f => f["places"]![0]!["name"] = "Hall; door 9 x 9", "no semicolon");
        Spoiled(f => f["places"]![0]!["shape"]!["kind"] = "cave", "can be read");
        Spoiled(f => f["places"]![0] = null, "a hole");
        Spoiled(f => f["places"]![0]!["openings"] = null, "not of the kind");
    }

    [Fact]
    public void Ranks_always_leave_room_between() =>
        Gen.Int[0, 1000]
            .Array[1, 200]
            .Always(picks =>
            {
                var ranks = new List<string>();
                foreach (var pick in picks)
                {
                    var at = pick % (ranks.Count + 1);
                    ranks.Insert(
                        at,
                        Rank.Between(at == 0 ? null : ranks[at - 1], at == ranks.Count ? null : ranks[at])
                    );
                }
                return ranks.Zip(ranks.Skip(1)).All(p => string.CompareOrdinal(p.First, p.Second) < 0);
            });
}
