using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What the commands about places do: change sets, or refusals.</summary>
internal static class PlaceCommands
{
    public static ImmutableArray<Change> Add(Job job, AddPlace command)
    {
        IsNew(job, command.Place);
        var at = command.After is { } after ? job.Places.IndexOf(Commands.Place(job, after)) + 1 : job.Places.Length;
        return [Added(Read(job, command.Place, command.Line, command.Group, RankAt(job.Places, at)))];
    }

    public static ImmutableArray<Change> AddMany(Job job, AddPlaces command, Func<Guid, BookEntry?> book)
    {
        if (command.Places.Length == 0)
            throw RefusedException.Of("places", "There is nothing to add.");
        if (command.Places.Length + job.Places.Length > JobChecks.MostPlaces)
            throw RefusedException.Of("places", $"A job takes at most {JobChecks.MostPlaces} places.");
        var changes = ImmutableArray.CreateBuilder<Change>();
        var items = AddedWork(job, command, book, changes);
        // Openings may lead into a place of the same command: all are read before names are looked up.
        var read = command.Places.Select(p => (New: p, Reading: TapeLine.ReadOrThrow(p.Line, job.Units))).ToList();
        var known = job
            .Places.Select(p => (p.Id, p.Name, p.Group))
            .Concat(read.Select(r => (Id: r.New.Place, r.Reading.Name, Group: r.New.Group.Trim())))
            .ToList();
        var rank = job.Places.IsEmpty ? null : job.Places[^1].Rank;
        foreach (var (place, reading) in read)
        {
            IsNew(job, place.Place);
            rank = Rank.Between(rank, null);
            changes.Add(
                Added(
                    reading.ToPlace(
                        place.Place,
                        place.Group.Trim(),
                        rank,
                        place.Line.Trim(),
                        name => Named(known, name, place.Place, place.Group.Trim())
                    ) with
                    {
                        Finish = place.Finish.Trim(),
                        Notes = place.Notes.Trim(),
                        Typed = place.Typed,
                    }
                )
            );
        }
        foreach (var (entry, item) in items)
        foreach (var place in command.Places.Where(p => p.Work.Contains(entry)))
            changes.Add(new($"cells/{item}/{place.Place}", null, Commands.Node(new Cell(CellState.Included, ""))));
        if (command.Places.Select(p => p.Place).Distinct().Count() != command.Places.Length)
            throw RefusedException.Of("place", "A new place needs an id of its own.");
        return changes.ToImmutable();
    }

    /// <summary>The work item of each entry that the new places use: the job's own, or one that is added.</summary>
    private static List<(Guid Entry, Guid Item)> AddedWork(
        Job job,
        AddPlaces command,
        Func<Guid, BookEntry?> book,
        ImmutableArray<Change>.Builder changes
    )
    {
        var items = new List<(Guid, Guid)>();
        var growing = job;
        foreach (var entry in command.Places.SelectMany(p => p.Work).Distinct())
        {
            if (job.Work.FirstOrDefault(w => w.Entry == entry) is { } there)
            {
                items.Add((entry, there.Id));
                continue;
            }
            var id =
                command.Work.FirstOrDefault(w => w.Entry == entry)?.Work ?? throw RefusedException.Of(
                    "work",
                    "New work needs an id of its own."
                );
            var added = WorkCommands.Add(growing, new(command.Id, id, entry, null), book);
            growing = ChangeSet.Apply(growing, added);
            changes.AddRange(added);
            items.Add((entry, id));
        }
        return items;
    }

    public static ImmutableArray<Change> Remeasure(Job job, RemeasurePlace command)
    {
        var place = Commands.Place(job, command.Place);
        if (place.Line != command.Was)
            throw new ConflictException("line", place.Line);
        if (place.Line == command.Line.Trim())
            return [];
        var now = Read(job, place.Id, command.Line, place.Group, place.Rank) with
        {
            Typed = place.Typed,
            Finish = place.Finish,
            Notes = place.Notes,
        };
        var changes = ImmutableArray.Create(new Change($"places/{place.Id}", Commands.Node(place), Commands.Node(now)));
        return now.Name == place.Name
            ? changes
            :
            [
                .. changes,
                .. Relettered(
                    job,
                    other => other.Id != place.Id && other.Openings.Any(o => o.Into == place.Id),
                    job.Units,
                    id => id == place.Id ? now.Name : job.Place(id)?.Name
                ),
            ];
    }

    public static ImmutableArray<Change> Edit(Job job, EditPlaces command)
    {
        if (command.Places.IsEmpty)
            throw RefusedException.Of("places", "No place is chosen.");
        Commands.OnceEach(command.Places.Select(p => p.Place));
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var (id, was) in command.Places)
        {
            var place = Commands.Place(job, id);
            if ((command.Field == "finish" ? place.Finish : place.Line) != was)
                throw new ConflictException(command.Field, command.Field == "finish" ? place.Finish : place.Line);
            var now = Edited(job, place, command);
            if (command.Field != "finish")
                now = now with { Line = PlaceLine.Print(now, job.Units, other => job.Place(other)?.Name) };
            if (!ChangeSet.Same(Commands.Node(place), Commands.Node(now)))
                changes.Add(new($"places/{id}", Commands.Node(place), Commands.Node(now)));
        }
        return changes.ToImmutable();
    }

    private static Place Edited(Job job, Place place, EditPlaces command)
    {
        switch (command.Field)
        {
            case "finish":
                return place with { Finish = command.Value.Trim() };
            case "count":
                return int.TryParse(
                    command.Value.Trim(),
                    System.Globalization.NumberStyles.None,
                    System.Globalization.CultureInfo.InvariantCulture,
                    out var count
                )
                    ? place with
                    {
                        Count = count,
                    }
                    : throw RefusedException.Of("value", "A count is a whole number, like 2.");
            case "height":
                var height = TypedQuantities.Length(command.Value, job.Units, "height");
                return place.Shape switch
                {
                    Room { Slope.IsEmpty: true } room => place with { Shape = room with { High = height } },
                    Elevation { Faces.Length: 1 } face => place with
                    {
                        Shape = face with { Faces = [face.Faces[0] with { High = height }] },
                    },
                    _ => throw RefusedException.Of("value", $"{place.Name} has no one height to set."),
                };
            case "opening":
                if (!place.Shape.TakesOpenings)
                    throw RefusedException.Of("value", $"{place.Name} takes no openings.");
                var reading = TapeLine.ReadOrThrow($"Any 10000 m x 10000 m x 10000 m; {command.Value}", job.Units);
                if (reading.Openings.Length != 1 || command.Value.Contains(';'))
                    throw RefusedException.Of("value", "Write one opening, like door 3 x 6'8.");
                var opening = reading.Openings[0];
                return place with
                {
                    Openings = place.Openings.Add(
                        reading.Into[0] is { } name
                            ? opening with
                            {
                                Into = Named(Known(job), name, place.Id, place.Group),
                            }
                            : opening
                    ),
                };
            default:
                throw RefusedException.Of("field", "That cannot be set for many places at once.");
        }
    }

    public static ImmutableArray<Change> Clone(Job job, ClonePlaces command)
    {
        if (command.Places.IsEmpty)
            throw RefusedException.Of("places", "No place is chosen.");
        if (command.Places.Length + job.Places.Length > JobChecks.MostPlaces)
            throw RefusedException.Of("places", $"A job takes at most {JobChecks.MostPlaces} places.");
        Commands.OnceEach(command.Places.Select(p => p.From));
        Commands.OnceEach(command.Places.Select(p => p.To));
        var copies = command.Places.ToDictionary(p => p.From, p => p.To);
        var places = job.Places;
        var taken = job.Places.Select(p => (p.Group, p.Name)).ToHashSet();
        var changes = ImmutableArray.CreateBuilder<Change>();
        var added = new List<Place>();
        foreach (var original in job.Places.Where(p => copies.ContainsKey(p.Id)))
        {
            var id = copies[original.Id];
            IsNew(job, id);
            var group = command is { GroupWas: { } was, Group: { } now }
                ? Moved(original.Group, was, now.Trim())
                : original.Group;
            var name = FreeName(original.Name, n => taken.Contains((group, n)));
            taken.Add((group, name));
            // A group's copy stands after the group; a place's copy after the place.
            var at = command.Group is null
                ? places.IndexOf(places.First(p => p.Id == original.Id)) + 1
                : EndOfGroup(places, group);
            var copy = original with
            {
                Id = id,
                Name = name,
                Group = group,
                Rank = RankAt(places, at),
                Openings =
                [
                    .. original.Openings.Select(o =>
                        o.Into is { } into && copies.TryGetValue(into, out var other) ? o with { Into = other } : o
                    ),
                ],
            };
            places = places.Insert(at, copy);
            added.Add(copy);
        }
        if (added.Count != command.Places.Length)
            throw RefusedException.Of("places", "That place is not in this job any more.");
        var names = added.ToDictionary(p => p.Id, p => p.Name);
        foreach (var copy in added)
            changes.Add(
                Added(
                    copy with
                    {
                        Line = PlaceLine.Print(
                            copy,
                            job.Units,
                            id => names.GetValueOrDefault(id) ?? job.Place(id)?.Name
                        ),
                    }
                )
            );
        foreach (var work in job.Work)
        foreach (var copy in command.Places)
            if (job.Cells.TryGetValue(new(work.Id, copy.From), out var cell))
                changes.Add(new($"cells/{work.Id}/{copy.To}", null, Commands.Node(cell)));
        return changes.ToImmutable();
    }

    public static ImmutableArray<Change> Move(Job job, MovePlaces command)
    {
        var group = command.Group.Trim();
        Commands.OnceEach(command.Places.Select(p => p.Place));
        var moving = command.Places.Select(p => Commands.Place(job, p.Place)).ToList();
        foreach (var (place, was) in moving.Zip(command.Places))
            if (place.Group != was.Was)
                throw new ConflictException("group", place.Group);
        var staying = job.Places.RemoveAll(moving.Contains);
        var at =
            command.Before is { } before ? staying.IndexOf(Commands.Place(job, before))
            : command.After is { } after ? staying.IndexOf(Commands.Place(job, after)) + 1
            : EndOfGroup(staying, group);
        if (at < 0 || (command.After is not null && at == 0))
            throw RefusedException.Of("places", "A place cannot be put beside itself.");
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var place in moving)
        {
            var now = place with { Group = group, Rank = RankAt(staying, at) };
            staying = staying.Insert(at++, now);
            changes.Add(new($"places/{place.Id}", Commands.Node(place), Commands.Node(now)));
        }
        return [.. changes.Where(c => !ChangeSet.Same(c.Before, c.After))];
    }

    public static ImmutableArray<Change> RenameGroup(Job job, RenameGroup command)
    {
        var now = command.Group.Trim();
        if (command.Was.Length == 0)
            throw RefusedException.Of("group", "Places without a heading have none to rename.");
        var touched = job.Places.Where(p => Moved(p.Group, command.Was, now) != p.Group).ToList();
        if (touched.Count == 0 && command.Was != now)
            throw RefusedException.Of("group", "That heading is not in this job any more.");
        return [.. touched.Select(p => new Change($"places/{p.Id}/group", p.Group, Moved(p.Group, command.Was, now)))];
    }

    public static ImmutableArray<Change> Remove(Job job, RemovePlaces command)
    {
        var ids = command.Places.ToHashSet();
        if (ids.Count == 0)
            throw RefusedException.Of("places", "No place is chosen.");
        // Openings that led into a place that goes stay where they were entered, as openings of that room alone.
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (
            var other in job.Places.Where(p =>
                !ids.Contains(p.Id) && p.Openings.Any(o => o.Into is { } into && ids.Contains(into))
            )
        )
        {
            var now = other with
            {
                Openings =
                [
                    .. other.Openings.Select(o =>
                        o.Into is { } into && ids.Contains(into) ? o with { Into = null } : o
                    ),
                ],
            };
            changes.Add(
                new(
                    $"places/{other.Id}",
                    Commands.Node(other),
                    Commands.Node(now with { Line = PlaceLine.Print(now, job.Units, id => job.Place(id)?.Name) })
                )
            );
        }
        changes.AddRange(Commands.CellsGone(job, key => ids.Contains(key.Place)));
        changes.AddRange(
            command
                .Places.Distinct()
                .Select(id => new Change($"places/{id}", Commands.Node(Commands.Place(job, id)), null))
        );
        return changes.ToImmutable();
    }

    public static ImmutableArray<Change> SetMeasure(Job job, SetMeasure command)
    {
        var place = Commands.Place(job, command.Place);
        var name = command.Name.Trim();
        var old = place.Typed.FirstOrDefault(t => t.Name == name);
        if (!Equals(old?.Quantity, command.Was))
            throw new ConflictException("measure", Commands.Node(old?.Quantity));
        if (command.Was == command.Now)
            return [];
        var typed =
            command.Now is null ? place.Typed.Remove(old!)
            : old is null ? place.Typed.Add(new(name, command.Now))
            : place.Typed.Replace(old, new(name, command.Now));
        return [new($"places/{place.Id}/typed", Commands.Node(place.Typed), Commands.Node(typed))];
    }

    public static ImmutableArray<Change> SetUnits(Job job, SetUnits command)
    {
        if (job.Units != command.Was)
            throw new ConflictException("units", Commands.Node(job.Units));
        if (command.Was == command.Units)
            return [];
        return
        [
            new("units", Commands.Node(command.Was), Commands.Node(command.Units)),
            .. Relettered(job, _ => true, command.Units, id => job.Place(id)?.Name),
        ];
    }

    public static ImmutableArray<Change> AddSchedule(Job job, AddSchedule command)
    {
        if (command.Rows.IsEmpty)
            throw RefusedException.Of("rows", "There is nothing to take in.");
        if (command.Rows.Length + job.Schedule.Length > JobChecks.MostPlaces)
            throw RefusedException.Of("rows", $"A schedule takes at most {JobChecks.MostPlaces} rows.");
        var rank = job.Schedule.IsEmpty ? null : job.Schedule[^1].Rank;
        if (
            command.Rows.Select(r => r.Id).Concat(job.Schedule.Select(s => s.Id)).Distinct().Count()
            != command.Rows.Length + job.Schedule.Length
        )
            throw RefusedException.Of("rows", "A new row needs an id of its own.");
        return
        [
            .. command.Rows.Select(r => new Change(
                $"schedule/{r.Id}",
                null,
                Commands.Node(
                    new ScheduleItem(
                        r.Id,
                        rank = Rank.Between(rank, null),
                        r.Number.Trim(),
                        r.Wording.Trim(),
                        r.Unit.Trim(),
                        r.Quantity,
                        ""
                    )
                )
            )),
        ];
    }

    /// <summary>New lines for places whose lengths or neighbours' names are to be written differently.</summary>
    private static IEnumerable<Change> Relettered(
        Job job,
        Func<Place, bool> which,
        UnitSystem system,
        Func<Guid, string?> nameOf
    ) =>
        job
            .Places.Where(which)
            .Select(p => (Place: p, Line: PlaceLine.Print(p, system, nameOf)))
            .Where(p => p.Line != p.Place.Line)
            .Select(p => new Change($"places/{p.Place.Id}/line", p.Place.Line, p.Line));

    private static Place Read(Job job, Guid id, string line, string group, string rank) =>
        TapeLine
            .ReadOrThrow(line, job.Units)
            .ToPlace(id, group.Trim(), rank, line.Trim(), name => Named(Known(job), name, id, group.Trim()));

    private static List<(Guid Id, string Name, string Group)> Known(Job job) =>
        [.. job.Places.Select(p => (p.Id, p.Name, p.Group))];

    /// <summary>The place of that name; one under the same heading first.</summary>
    private static Guid Named(List<(Guid Id, string Name, string Group)> known, string name, Guid from, string group)
    {
        var found = known.Where(p => p.Id != from && p.Name.Equals(name, StringComparison.OrdinalIgnoreCase)).ToList();
        if (found.Count > 1 && found.Where(p => p.Group == group).ToList() is { Count: > 0 } near)
            found = near;
        return found.Count switch
        {
            1 => found[0].Id,
            0 => throw RefusedException.Of(
                "line",
                $"There is no place called “{name}” to lead into yet. Add it first, or leave out into."
            ),
            _ => throw RefusedException.Of(
                "line",
                $"There are {found.Count} places called “{name}”: give them different names first."
            ),
        };
    }

    private static string Moved(string group, string was, string now) =>
        group == was ? now
        : group.StartsWith(was + Groups.Separator, StringComparison.Ordinal)
            ? Groups.Under(now, group[(was.Length + Groups.Separator.Length)..])
        : group;

    private static string FreeName(string name, Func<string, bool> taken)
    {
        if (!taken(name))
            return name;
        var cut = name.LastIndexOf(' ');
        var (stem, number) =
            cut > 0
            && int.TryParse(
                name.AsSpan(cut + 1),
                System.Globalization.NumberStyles.None,
                System.Globalization.CultureInfo.InvariantCulture,
                out var n
            )
            && n < 1_000_000
                ? (name[..cut], n)
                : (name, 1);
        if (stem.Length > TapeLine.LongestName - 8)
            stem = stem[..(TapeLine.LongestName - 8)].Trim();
        do number++;
        while (taken($"{stem} {number}"));
        return $"{stem} {number}";
    }

    private static int EndOfGroup(ImmutableArray<Place> places, string group)
    {
        for (var i = places.Length - 1; i >= 0; i--)
            if (
                places[i].Group == group
                || places[i].Group.StartsWith(group + Groups.Separator, StringComparison.Ordinal)
            )
                return i + 1;
        return places.Length;
    }

    private static string RankAt(ImmutableArray<Place> places, int at) =>
        Rank.Between(at == 0 ? null : places[at - 1].Rank, at == places.Length ? null : places[at].Rank);

    private static void IsNew(Job job, Guid id)
    {
        if (id == Guid.Empty || job.Place(id) is not null)
            throw RefusedException.Of("place", "A new place needs an id of its own.");
    }

    private static Change Added(Place place) => new($"places/{place.Id}", null, Commands.Node(place));
}

/// <summary>Headings nest by a sign between their names: <c>House / First floor</c>.</summary>
public static class Groups
{
    /// <summary>What stands between a heading and one nested in it.</summary>
    public const string Separator = " / ";

    /// <summary>A heading under another; the outer may be empty.</summary>
    public static string Under(string outer, string inner) => outer.Length == 0 ? inner : outer + Separator + inner;
}
