using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What each command does to a job: a change set, or a refusal. Nothing here touches disk, clock or chance.</summary>
public static class Commands
{
    /// <summary>Most cells one command may touch.</summary>
    public const int MostCells = 60_000;

    /// <summary>The changed job and what changed. <paramref name="book"/> finds an entry of the Book's newest version.</summary>
    /// <exception cref="RefusedException">With the field and a sentence; the job is as it was.</exception>
    public static (Job Job, ImmutableArray<Change> Changes) Apply(Job job, Command command, Func<Guid, BookEntry?> book)
    {
        if (command.Id == Guid.Empty)
            throw RefusedException.Of("id", "A command needs an id.");
        ImmutableArray<Change> changes = command switch
        {
            AddPlace c => PlaceCommands.Add(job, c),
            AddPlaces c => PlaceCommands.AddMany(job, c, book),
            RemeasurePlace c => PlaceCommands.Remeasure(job, c),
            EditPlaces c => PlaceCommands.Edit(job, c),
            ClonePlaces c => PlaceCommands.Clone(job, c),
            MovePlaces c => PlaceCommands.Move(job, c),
            RenameGroup c => PlaceCommands.RenameGroup(job, c),
            RemovePlaces c => PlaceCommands.Remove(job, c),
            SetPlaces { Field: "finish" or "notes" or "conditions" } c => Pinning(
                job,
                SetAll(job, "places", c.Field, c.At),
                changed =>
                    c.Field == "conditions"
                        ? c.At.SelectMany(at => changed.Place(at.Place)!.Conditions.Select(x => x.Condition))
                        : [],
                c.Field,
                book
            ),
            SetCells { Field: not ("state" or "note") } c => CellCommands.Set(job, c, book),
            SetConditions c => Pinning(
                job,
                Set(job, "conditions", Node(c.Was), Node(c.Conditions)),
                changed => changed.Conditions,
                "conditions",
                book
            ),
            SetMeasure c => PlaceCommands.SetMeasure(job, c),
            SetUnits c => PlaceCommands.SetUnits(job, c),
            AddSchedule c => PlaceCommands.AddSchedule(job, c),
            SetScheduleItem c => Set(
                job,
                $"schedule/{(job.Schedule.Any(s => s.Id == c.Item) ? c.Item : throw RefusedException.Of("item", "That row is not in the schedule any more."))}/source",
                c.Was,
                c.Source
            ),
            RemoveSchedule => [.. job.Schedule.Select(s => new Change($"schedule/{s.Id}", Node(s), null))],
            AddWork c => WorkCommands.Add(job, c, book),
            SetWork c => WorkCommands.Set(job, c, book),
            MoveWork c => WorkCommands.Move(job, c),
            RemoveWork c => WorkCommands.Remove(job, c),
            FillCells c => CellCommands.Fill(job, c),
            CopyCells c => CellCommands.Copy(job, c),
            PasteCells c => CellCommands.Paste(job, c),
            FallBack c => CellCommands.FallBack(job, c),
            SetNote c => CellCommands.Note(job, c),
            ReplaceProduct c => WorkCommands.Replace(job, c, book),
            SetEntry c => WorkCommands.SetEntry(job, c, book),
            TakeFromBook c => WorkCommands.Take(job, c, book),
            SetPace c => Set(job, "pace", Node(c.Was), Node(c.Pace)),
            SetAside c => Set(
                job,
                "setAside/" + c.Check,
                c.Was.Length == 0 ? null : c.Was,
                c.Reason.Trim().Length == 0 ? null : c.Reason.Trim()
            ),
            SetDeduction c => Set(
                job,
                "deduct",
                c.Was,
                DeductionRule.Find(c.Rule)?.Name
                    ?? throw RefusedException.Of("rule", $"There is no deduction rule “{c.Rule}”.")
            ),
            SetInfo c => Set(job, Field("info", c.Field), c.Was, c.Now),
            SetPricing c => Pinning(
                job,
                Set(job, Field("pricing", c.Field), c.Was, c.Now),
                changed => changed.Pricing.SetUp is { } setUp ? [setUp] : [],
                c.Field,
                book
            ),
            SetProposal c => Set(job, Field("proposal", c.Field), c.Was, c.Now),
            _ => throw RefusedException.Of("type", "That command is not known."),
        };
        if (changes.IsEmpty)
            return (job, changes);
        var changed = ChangeSet.Apply(job, changes);
        CheckTouched(changed, command, changes);
        return (changed, changes);
    }

    /// <summary>Checks the parts of a job that a change set touched; used after undo too.</summary>
    /// <exception cref="RefusedException">The changed job would contradict itself.</exception>
    public static void CheckReferences(Job job, IEnumerable<Change> changes)
    {
        var incoming = job.Incoming();
        var (places, work) = (job.Places.Select(p => p.Id).ToHashSet(), job.Work.Select(w => w.Id).ToHashSet());
        foreach (var change in changes)
        {
            if (ChangeSet.CellOf(change.Path) is { } key)
            {
                if (change.After is not null && (!work.Contains(key.Work) || !places.Contains(key.Place)))
                    throw RefusedException.Of("", "The place or the work has since been taken away.");
                continue;
            }
            var parts = change.Path.Split('/');
            if (
                change.After is null
                && parts.Length == 2
                && parts[0] is "places" or "work"
                && job.Cells.Keys.Any(k =>
                    parts[0] == "places" ? k.Place == Guid.Parse(parts[1]) : k.Work == Guid.Parse(parts[1])
                )
            )
                throw RefusedException.Of("", "Somebody has since put work there, so it cannot be taken away.");
            if (parts[0] == "places" && job.Place(Guid.Parse(parts[1])) is { } place)
                JobChecks.Place(place, job, incoming);
            if (parts[0] == "work" && job.Item(Guid.Parse(parts[1])) is { } item)
                JobChecks.Item(item, job);
        }
        JobChecks.Size(job);
        WaitChecks.Check(job.Work);
    }

    private static void CheckTouched(Job job, Command command, ImmutableArray<Change> changes)
    {
        switch (command)
        {
            case SetPricing:
                JobChecks.Pricing(job);
                break;
            case SetCells or CopyCells or PasteCells:
                JobChecks.Cells(job, changes.Select(c => ChangeSet.CellOf(c.Path)).OfType<CellKey>());
                break;
            case SetPace:
                JobChecks.Pace(job);
                break;
            case SetAside c:
                JobChecks.SetAside(job);
                break;
            case SetConditions:
                JobChecks.Conditions(job, job.Conditions);
                break;
            case SetProposal:
                job.Proposal.Check();
                break;
            case SetInfo:
                JobChecks.Info(job.Info);
                break;
            case SetWork c:
                JobChecks.Item(Item(job, c.Work), job);
                WaitChecks.Check(job.Work, c.Work);
                break;
            case AddWork c:
                JobChecks.Size(job);
                foreach (var id in c.With.Select(w => w.Work).Append(c.Work))
                    if (job.Item(id) is { } added)
                        JobChecks.Item(added, job);
                break;
            case ReplaceProduct or SetEntry or TakeFromBook:
                JobChecks.Check(job);
                break;
            case AddPlace
            or AddPlaces
            or RemeasurePlace
            or EditPlaces
            or ClonePlaces
            or MovePlaces
            or RenameGroup
            or RemovePlaces
            or SetPlaces
            or SetMeasure
            or SetUnits:
                JobChecks.Size(job);
                var incoming = job.Incoming();
                foreach (
                    var id in changes
                        .Where(c => c.Path.StartsWith("places/", StringComparison.Ordinal))
                        .Select(c => Guid.Parse(c.Path.AsSpan(7, 36)))
                        .Distinct()
                )
                    if (job.Place(id) is { } place)
                        JobChecks.Place(place, job, incoming);
                break;
            case AddSchedule or SetScheduleItem:
                foreach (var item in job.Schedule)
                    item.Check(job);
                break;
        }
    }

    internal static Place Place(Job job, Guid id) =>
        job.Place(id) ?? throw RefusedException.Of("place", "That place is not in this job any more.");

    internal static WorkItem Item(Job job, Guid id) =>
        job.Item(id) ?? throw RefusedException.Of("work", "That work is not in this job any more.");

    /// <summary>Refuses a command that names one place twice.</summary>
    internal static void OnceEach(IEnumerable<Guid> places)
    {
        var seen = new HashSet<Guid>();
        if (!places.All(seen.Add))
            throw RefusedException.Of("places", "A place stands twice in one command.");
    }

    internal static JsonNode? Node<T>(T value) => JsonSerializer.SerializeToNode(value, CoreJson.Options);

    /// <summary>The path of a field of a thing. A field is one name: what lies deeper is not reached through it, nor is a guard of it got round.</summary>
    /// <exception cref="RefusedException">It is not a name.</exception>
    internal static string Field(string under, string field) =>
        field.Length is > 0 and <= 60 && field.All(char.IsAsciiLetter)
            ? $"{under}/{field}"
            : throw RefusedException.Of("field", "That is not the name of a field.");

    internal static ImmutableArray<Change> Set(Job job, string path, JsonNode? was, JsonNode? now)
    {
        var current = ChangeSet.Get(job, path);
        if (!ChangeSet.Same(current, was))
            throw new ConflictException(path[(path.LastIndexOf('/') + 1)..], current);
        return ChangeSet.Same(current, now) ? [] : [new(path, current, now?.DeepClone())];
    }

    /// <summary>Sets one field of many things that lie under a path by place.</summary>
    internal static ImmutableArray<Change> SetAll(Job job, string under, string field, ImmutableArray<AtPlace> all)
    {
        if (all.Length > MostCells || all.Select(at => at.Place).Distinct().Count() != all.Length)
            throw RefusedException.Of("at", $"Each place once, and at most {MostCells} at a time.");
        return [.. all.SelectMany(at => Set(job, Field($"{under}/{Place(job, at.Place).Id}", field), at.Was, at.Now))];
    }

    /// <summary>The cells that go with what is taken away.</summary>
    internal static IEnumerable<Change> CellsGone(Job job, Func<CellKey, bool> concerns) =>
        job
            .Cells.Where(c => concerns(c.Key))
            .OrderBy(c => c.Key.Work)
            .ThenBy(c => c.Key.Place)
            .Select(c => new Change($"cells/{c.Key.Work}/{c.Key.Place}", Node(c.Value), null));

    /// <summary>Pins an entry and what it needs, unless the job has them.</summary>
    internal static ImmutableArray<Change> Pin(Job job, Guid id, string field, Func<Guid, BookEntry?> book)
    {
        if (job.Book.ContainsKey(id))
            return [];
        var entry = book(id) ?? throw RefusedException.Of(field, "That entry is not in the Book any more.");
        return
        [
            .. entry.Needs.Where(need => !job.Book.ContainsKey(need)).SelectMany(need => Pin(job, need, field, book)),
            new($"book/{id}", null, Node(entry)),
        ];
    }

    /// <summary>The changes, after those that pin the entries which the changed job then names.</summary>
    internal static ImmutableArray<Change> Pinning(
        Job job,
        ImmutableArray<Change> changes,
        Func<Job, IEnumerable<Guid>> named,
        string field,
        Func<Guid, BookEntry?> book
    )
    {
        if (changes.IsEmpty)
            return changes;
        var pins = named(ChangeSet.Apply(job, changes))
            .Distinct()
            .SelectMany(id => Pin(job, id, field, book))
            .DistinctBy(c => c.Path);
        return [.. pins, .. changes];
    }
}

/// <summary>A command was made from a value that has changed since; it is shown, not overwritten.</summary>
public sealed class ConflictException(string field, JsonNode? current) : Exception("Changed since")
{
    /// <summary>The field.</summary>
    public string Field { get; } = field;

    /// <summary>What stands there now.</summary>
    public JsonNode? Current { get; } = current;
}
