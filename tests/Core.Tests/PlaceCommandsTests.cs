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

public class PlaceCommandsTests
{
    private static readonly string[] Lines =
    [
        "Hall 20 x 6 x 9; door 3 x 7",
        "Study 14 x 11 x 9; door 3 x 7 into Hall; window 4 x 5 x2",
        "Bedroom 12 x 10 x 8",
        "Loft 14 x 10 slope 4, 4, 8, 8",
        "Front face 40 x 18; gable 40 x 9",
        "Court site 24 x 15 + 10 x 10",
    ];

    private static Job House()
    {
        var job = Sample.Empty();
        foreach (var line in Lines)
            job = job.Do(
                new AddPlace(
                    Sample.NewId(),
                    line,
                    line.StartsWith("Front") || line.StartsWith("Court") ? "House / Outside" : "House / Ground floor",
                    null
                )
            );
        var work = Sample.NewId();
        job = job.Do(new AddWork(work, StarterBook.Id(111), null));
        return job.Fill(work, [.. job.Places.Select(p => p.Id)], CellState.Included);
    }

    private static Place Named(Job job, string name) => job.Places.Single(p => p.Name == name);

    private static (Job Job, Job Undone) Both(Job job, Command command)
    {
        var (now, changes) = Commands.Apply(job, command, id => StarterBook.Entries.FirstOrDefault(e => e.Id == id));
        JobRules.Check(now);
        return (now, ChangeSet.Apply(now, ChangeSet.Reversed(changes)));
    }

    private static void UndoneIs(Job before, Job undone) => Assert.Equal(JobFile.Write(before), JobFile.Write(undone));

    [Fact]
    public void The_height_of_many_rooms_is_set_at_once_and_their_lines_say_so()
    {
        var job = House();
        var rooms = new[] { "Hall", "Study", "Bedroom" }.Select(n => Named(job, n)).ToList();
        var (now, undone) = Both(
            job,
            new EditPlaces([.. rooms.Select(r => new PlaceWas(r.Id, r.Line))], "height", "9'6")
        );
        Assert.Equal("Study 14 x 11 x 9'6; door 3 x 7 into Hall; window 4 x 5 x2", Named(now, "Study").Line);
        Assert.Equal(52 * 9.5m, Sample.Reckon(now).Reckoned.Measures[rooms[0].Id][Measure.GrossWallArea].V);
        UndoneIs(job, undone);
        var loft = Named(job, "Loft");
        Assert.Contains(
            "Loft has no one height",
            Assert
                .Throws<RefusedException>(() => job.Do(new EditPlaces([new(loft.Id, loft.Line)], "height", "9")))
                .Message
        );
        Assert.Throws<ConflictException>(() => job.Do(new EditPlaces([new(loft.Id, "something else")], "height", "9")));
    }

    [Fact]
    public void Many_places_get_an_opening_a_count_a_finish()
    {
        var job = House();
        PlaceWas[] Was(Job j, params string[] names) =>
            [.. names.Select(n => new PlaceWas(Named(j, n).Id, Named(j, n).Line))];
        var now = Both(job, new EditPlaces([.. Was(job, "Hall", "Bedroom")], "opening", "window 3 x 4 x2 sill")).Job;
        Assert.Equal(2, Sample.Reckon(now).Reckoned.Measures[Named(now, "Bedroom").Id][Measure.WindowCount].V);
        now = Both(now, new EditPlaces([.. Was(now, "Bedroom", "Front")], "count", "3")).Job;
        Assert.Equal("Front face 40 x 18; x3; gable 40 x 9", Named(now, "Front").Line);
        now = Both(now, new EditPlaces([new(Named(now, "Bedroom").Id, "")], "finish", "bare plaster")).Job;
        Assert.Equal("bare plaster", Named(now, "Bedroom").Finish);
        // The hall has a connecting door: it cannot stand for several.
        Assert.Contains(
            "an opening cannot lead into it",
            Assert
                .Throws<RefusedException>(() => Both(now, new EditPlaces([.. Was(now, "Hall")], "count", "2")))
                .Message
        );
    }

    [Fact]
    public void A_place_is_cloned_beside_itself_with_its_work()
    {
        var job = House();
        var (study, copy) = (Named(job, "Study"), Sample.NewId());
        var (now, undone) = Both(job, new ClonePlaces([new(study.Id, copy)], null, null));
        Assert.Equal(["Hall", "Study", "Study 2", "Bedroom"], now.Places.Take(4).Select(p => p.Name));
        Assert.Equal("Study 2 14 x 11 x 9; door 3 x 7 into Hall; window 4 x 5 x2", now.Place(copy)!.Line);
        Assert.True(now.Cells.ContainsKey(new(now.Work[0].Id, copy)));
        UndoneIs(job, undone);
        // Both studies' doors lead into the hall now.
        Assert.Equal(
            52 - 3 - 3 - 3,
            Sample.Reckon(now).Reckoned.Measures[Named(now, "Hall").Id][Measure.SkirtingLength].V
        );
    }

    [Fact]
    public void A_group_is_cloned_with_doors_that_lead_into_the_copies()
    {
        var job = House();
        var ground = job.Places.Where(p => p.Group == "House / Ground floor").ToList();
        var (now, undone) = Both(
            job,
            new ClonePlaces(
                [.. ground.Select(p => new PlaceCopy(p.Id, Sample.NewId()))],
                "House / Ground floor",
                "House / First floor"
            )
        );
        var first = now.Places.Where(p => p.Group == "House / First floor").ToList();
        Assert.Equal(ground.Select(p => p.Name), first.Select(p => p.Name));
        Assert.Equal(first[0].Id, first[1].Openings[0].Into);
        Assert.Equal(JobFile.Write(now), JobFile.Write(JobFile.Read(JobFile.Write(now))));
        UndoneIs(job, undone);
    }

    [Fact]
    public void Places_move_before_after_and_under_another_heading_and_headings_are_renamed_with_what_is_in_them()
    {
        var job = House();
        var (bedroom, hall) = (Named(job, "Bedroom"), Named(job, "Hall"));
        var (now, undone) = Both(
            job,
            new MovePlaces([new(bedroom.Id, bedroom.Group)], "House / Ground floor", hall.Id, null)
        );
        Assert.Equal(["Bedroom", "Hall", "Study"], now.Places.Take(3).Select(p => p.Name));
        UndoneIs(job, undone);
        now = Both(
            job,
            new MovePlaces([new(hall.Id, hall.Group), new(bedroom.Id, bedroom.Group)], "House / Outside", null, null)
        ).Job;
        Assert.Equal(["Study", "Loft", "Front", "Court", "Hall", "Bedroom"], now.Places.Select(p => p.Name));
        var renamed = Both(now, new RenameGroup("House", "Mill house")).Job;
        Assert.All(renamed.Places, p => Assert.StartsWith("Mill house / ", p.Group));
        Assert.Contains(
            "not in this job",
            Assert.Throws<RefusedException>(() => now.Do(new RenameGroup("Hous", "X"))).Message
        );
    }

    [Fact]
    public void A_renamed_room_is_renamed_in_the_lines_that_lead_into_it_and_a_removed_one_leaves_plain_doors()
    {
        var job = House();
        var hall = Named(job, "Hall");
        var (now, undone) = Both(job, new RemeasurePlace(hall.Id, hall.Line, "Lobby 20 x 6 x 9; door 3 x 7"));
        Assert.Equal("Study 14 x 11 x 9; door 3 x 7 into Lobby; window 4 x 5 x2", Named(now, "Study").Line);
        UndoneIs(job, undone);
        (now, undone) = Both(job, new RemovePlaces([hall.Id]));
        Assert.Equal("Study 14 x 11 x 9; door 3 x 7; window 4 x 5 x2", Named(now, "Study").Line);
        UndoneIs(job, undone);
    }

    [Fact]
    public void Other_units_move_no_stored_number_and_no_price()
    {
        var job = Sample.Library();
        foreach (var line in Lines)
            job = job.Do(new AddPlace(Sample.NewId(), line, "", null));
        var (now, undone) = Both(job, new SetUnits(UnitSystem.Feet, UnitSystem.Metres));
        Assert.Equal(Sample.Reckon(job).Price.Total.V, Sample.Reckon(now).Price.Total.V);
        foreach (var (a, b) in job.Places.Zip(now.Places))
            Assert.Equal(
                a.Shape.Lengths.Concat(a.Openings.SelectMany(o => o.Lengths)),
                b.Shape.Lengths.Concat(b.Openings.SelectMany(o => o.Lengths))
            );
        UndoneIs(job, undone);
        // Every line, read anew in metres, is the same place.
        foreach (var place in now.Places)
        {
            var again = Both(now, new RemeasurePlace(place.Id, place.Line, place.Line + " ")).Job.Place(place.Id)!;
            Assert.Equal(
                place.Shape.Lengths.Select(l => l.Millimetres),
                again.Shape.Lengths.Select(l => l.Millimetres)
            );
        }
    }

    [Fact]
    public void Usual_places_bring_their_usual_work()
    {
        var job = Sample.Empty();
        var (paint, ceiling) = (StarterBook.Id(111), StarterBook.Id(120));
        var places = Enumerable
            .Range(1, 20)
            .Select(i => new NewPlace(
                Sample.NewId(),
                $"Office {i}: not measured",
                "First floor",
                "",
                "",
                [],
                [paint, ceiling]
            ))
            .ToList();
        var (now, undone) = Both(
            job,
            new AddPlaces([.. places], [new(paint, Sample.NewId()), new(ceiling, Sample.NewId())])
        );
        Assert.Equal((20, 2, 40), (now.Places.Length, now.Work.Length, now.Cells.Count));
        Assert.Equal(0, Sample.Reckon(now).Reckoned.Costs.Hours.V);
        UndoneIs(job, undone);
        // A second lot uses the work that is there.
        var more = Both(now, new AddPlaces([places[0] with { Place = Sample.NewId() }], [])).Job;
        Assert.Equal((21, 2), (more.Places.Length, more.Work.Length));
    }

    [Fact]
    public void Nothing_of_a_table_is_taken_when_one_line_is_wrong()
    {
        NewPlace New(string line) => new(Sample.NewId(), line, "", "", "", [], []);
        var job = House();
        Assert.Contains(
            "height is missing",
            Assert
                .Throws<RefusedException>(() => job.Do(new AddPlaces([New("A 3 x 4 x 5"), New("B 3 x 4")], [])))
                .Message
        );
        // An opening may lead into a place of the same table, wherever it stands.
        var now = job.Do(
            new AddPlaces([New("Cell 8 x 8 x 8; door 3 x 7 into Passage"), New("Passage 30 x 5 x 8")], [])
        );
        Assert.Equal(Named(now, "Passage").Id, Named(now, "Cell").Openings[0].Into);
    }

    [Fact]
    public void Places_go_out_as_a_table_and_come_in_again_without_loss()
    {
        var job = House();
        job = job.Do(
                new SetMeasure(job.Places[2].Id, "Coving (plain)", null, new(Kind.Length, "12 + 3'6", UnitSystem.Feet))
            )
            .Do(new SetMeasure(job.Places[2].Id, "netWallArea", null, new(Kind.Area, "300", UnitSystem.Feet)))
            .Do(new SetPlaces("notes", [new(job.Places[2].Id, "", "=SUM(A1)\nsecond line, with \"marks\"")]))
            .Do(new SetPlaces("finish", [new(job.Places[0].Id, "", "'=profiled")]));
        foreach (var units in new[] { UnitSystem.Feet, UnitSystem.Metres })
        {
            var (columns, rows) = PlaceList.Of(Sample.Reckon(job).Reckoned);
            var read = PlaceTable.Read(
                [.. rows.Select(r => (IReadOnlyList<string>)[.. r.Select(c => c.Text)])],
                TableField.Guess(PlaceTable.Fields, columns),
                units
            );
            Assert.All(read, r => Assert.Null(r.Wrong));
            var again = Sample
                .Empty(units)
                .Do(
                    new AddPlaces(
                        [
                            .. read.Select(r => new NewPlace(
                                Sample.NewId(),
                                r.Line,
                                r.Group,
                                r.Finish,
                                r.Notes,
                                r.Typed,
                                []
                            )),
                        ],
                        []
                    )
                );
            foreach (var (a, b) in job.Places.Zip(again.Places))
            {
                Assert.Equal(
                    (a.Name, a.Group, a.Count, a.Finish, a.Notes),
                    (b.Name, b.Group, b.Count, b.Finish, b.Notes)
                );
                Assert.Equal(
                    a.Shape.Lengths.Select(l => (l.Value, l.Unit)),
                    b.Shape.Lengths.Select(l => (l.Value, l.Unit))
                );
                Assert.Equal(
                    a.Openings.Select(o =>
                        (o.Words, o.Count, o.Width.Value, o.Into is { } i ? job.Place(i)!.Name : "")
                    ),
                    b.Openings.Select(o =>
                        (o.Words, o.Count, o.Width.Value, o.Into is { } i ? again.Place(i)!.Name : "")
                    )
                );
                Assert.Equal<TypedMeasure>(a.Typed.ToArray(), b.Typed.ToArray());
                foreach (var measure in a.Shape.Has)
                    Assert.Equal(
                        Sample.Reckon(job).Reckoned.Measures[a.Id][measure].V,
                        Sample.Reckon(again with { Units = UnitSystem.Feet }).Reckoned.Measures[b.Id][measure].V
                    );
            }
        }
    }

    [Fact]
    public void A_schedule_is_held_against_our_takeoff()
    {
        var job = House();
        var (walls, paint) = (Sample.NewId(), Sample.NewId());
        job = job.Do(
            new AddSchedule(
                [
                    new(walls, "1.01", "Walls, prepare and paint", "m²", 120m),
                    new(paint, "1.02", "Paint", "ft2", 1500m),
                    new(Sample.NewId(), "2", "Doors", "no", 2m),
                ]
            )
        );
        job = job.Do(new SetScheduleItem(walls, "", "measure/netWallArea/House"))
            .Do(new SetScheduleItem(paint, "", $"work/{job.Work[0].Id}"));
        var checks = ScheduleCompared.Of(Sample.Reckon(job).Reckoned, Trace.Silent);
        var net = Sample
            .Reckon(job)
            .Job.Places.Sum(p => Sample.Reckon(job).Reckoned.Measures[p.Id][Measure.NetWallArea].V);
        Assert.Equal((double)net * 0.09290304, (double)checks[0].Ours!.Value.V, 1e-9);
        Assert.True(checks[0].Apart);
        Assert.Equal(net - 1500, checks[1].Difference!.Value.V);
        Assert.Null(checks[2].Ours);
        Assert.Contains(
            "counts this in m²",
            Assert
                .Throws<RefusedException>(() =>
                    job.Do(new SetScheduleItem(walls, "measure/netWallArea/House", "measure/doorCount"))
                )
                .Message
        );
        Assert.Contains($"schedule/{walls}/difference", Reported.Record(job).Trace.Figures.Keys);
        Assert.Empty(job.Do(new RemoveSchedule()).Schedule);
    }

    [Fact]
    public void Any_run_of_place_commands_is_undone_to_the_same_bytes_and_reckons_as_if_from_the_start() =>
        Gen.Select(Gen.Int[0, 7], Gen.Int[0, 50], Gen.Int[0, 50])
            .Array[1, 12]
            .Always(
                picks =>
                {
                    var start = House();
                    var (job, reckoned) = (start, Sample.Reckon(start));
                    var undo = new Stack<IReadOnlyList<Change>>();
                    foreach (var (kind, a, b) in picks)
                    {
                        if (job.Places.IsEmpty)
                            break;
                        var (one, other) = (job.Places[a % job.Places.Length], job.Places[b % job.Places.Length]);
                        Command command = kind switch
                        {
                            0 => new ClonePlaces([new(one.Id, Sample.NewId())], null, null),
                            1 => new MovePlaces([new(one.Id, one.Group)], other.Group, other.Id, null),
                            2 => new RemovePlaces([one.Id]),
                            3 => new SetUnits(
                                job.Units,
                                job.Units == UnitSystem.Feet ? UnitSystem.Metres : UnitSystem.Feet
                            ),
                            4 => new SetMeasure(
                                one.Id,
                                "Own",
                                one.Typed.FirstOrDefault()?.Quantity,
                                new(Kind.Length, $"{a + 1}", job.Units)
                            ),
                            5 => new RenameGroup(one.Group, $"G{b}"),
                            6 => new EditPlaces([new(one.Id, one.Line)], "opening", "window 1 ft x 1 ft"),
                            _ => new SetDeduction(job.Deduct, DeductionRule.All[b % 5].Name),
                        };
                        try
                        {
                            var (now, changes) = Commands.Apply(job, command, _ => null);
                            (job, reckoned) = (now, Estimate.Of(now, Trace.Silent, reckoned));
                            undo.Push(changes);
                        }
                        catch (RefusedException)
                        {
                            // A move beside itself, a window in a run: refused, and nothing has changed.
                        }
                    }
                    JobRules.Check(job);
                    var whole = Sample.Reckon(job);
                    foreach (var place in job.Places)
                    foreach (var measure in place.Shape.Has)
                        if (
                            whole.Reckoned.Measures[place.Id][measure].V
                            != reckoned.Reckoned.Measures[place.Id][measure].V
                        )
                            return false;
                    while (undo.TryPop(out var changes))
                        job = ChangeSet.Apply(job, ChangeSet.Reversed([.. changes]));
                    return JobFile.Write(job).AsSpan().SequenceEqual(JobFile.Write(start))
                        && whole.Price.Total.V == reckoned.Price.Total.V;
                },
                times: 300
            );
}
