using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What must hold in a whole job, however it came in.</summary>
public static class JobChecks
{
    /// <summary>Most places of one job.</summary>
    public const int MostPlaces = 5000;

    /// <summary>Most work items of one job.</summary>
    public const int MostWork = 2000;

    /// <summary>Most cells of one job's grid, empty ones too: places times work.</summary>
    public const int MostCells = 1_000_000;

    /// <summary>Most conditions on a job, a place, a piece of work or a cell.</summary>
    public const int MostConditions = 50;

    /// <summary>Most pieces of work that one waits for.</summary>
    public const int MostWaits = 1000;

    /// <summary>Checks ids, references, places, entries and terms.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public static void Check(Job job)
    {
        if (job.Id == Guid.Empty)
            throw RefusedException.Of("id", "The job has no id.");
        Info(job.Info);
        _ = job.Rule;
        Pricing(job);
        Conditions(job, job.Conditions);
        Pace(job);
        SetAside(job);
        job.Proposal.Check();
        Once(job.Places.Select(p => p.Id), "place");
        Once(job.Work.Select(w => w.Id), "work item");
        foreach (var (id, entry) in job.Book)
            BookChecks.Check(entry, job.Book);
        Size(job);
        var incoming = job.Incoming();
        foreach (var place in job.Places)
            Place(place, job, incoming);
        Once(job.Schedule.Select(s => s.Id), "row of the schedule");
        foreach (var item in job.Work)
            Item(item, job);
        WaitChecks.Check(job.Work);
        foreach (var item in job.Schedule)
            item.Check(job);
        var (places, work) = (job.Places.Select(p => p.Id).ToHashSet(), job.Work.Select(w => w.Id).ToHashSet());
        foreach (var (key, cell) in job.Cells)
        {
            if (!places.Contains(key.Place))
                throw RefusedException.Of("cells", $"A cell names a place that is not there: {key.Place}.");
            if (!work.Contains(key.Work))
                throw RefusedException.Of("cells", $"A cell names a work item that is not there: {key.Work}.");
            Cell(job, key, cell);
        }
    }

    /// <summary>Checks that a job is of a size that can be worked with.</summary>
    public static void Size(Job job)
    {
        if (job.Places.Length > MostPlaces)
            throw RefusedException.Of("places", $"A job takes at most {MostPlaces:N0} places.");
        if (job.Work.Length > MostWork)
            throw RefusedException.Of("work", $"A job takes at most {MostWork:N0} pieces of work.");
        if ((long)job.Places.Length * job.Work.Length > MostCells)
            throw RefusedException.Of(
                "places",
                $"{job.Places.Length:N0} places and {job.Work.Length:N0} pieces of work make a grid of more than {MostCells:N0} cells. Make two jobs of it."
            );
    }

    /// <summary>Checks the pricing terms, and that the set-up they name is there.</summary>
    public static void Pricing(Job job)
    {
        job.Pricing.Check();
        if (job.Pricing.SetUp is { } id && job.Book.GetValueOrDefault(id) is not SetUp)
            throw RefusedException.Of("setUp", "That set-up is not in this job's Book.");
    }

    /// <summary>Checks that what is named is a condition, and stands once.</summary>
    public static void Conditions(Job job, ImmutableArray<Guid> conditions)
    {
        if (conditions.Length > MostConditions)
            throw RefusedException.Of("conditions", $"At most {MostConditions} conditions in one place.");
        if (conditions.Distinct().Count() != conditions.Length)
            throw RefusedException.Of("conditions", "A condition stands twice.");
        if (conditions.Any(c => job.Book.GetValueOrDefault(c) is not Condition))
            throw RefusedException.Of("conditions", "A condition is not in this job's Book.");
    }

    /// <summary>Checks the factor on all labour.</summary>
    public static void Pace(Job job)
    {
        if (job.Pace is not { } pace)
            return;
        if (pace.Factor is < 0.1m or > 10)
            throw RefusedException.Of("factor", "A factor on the labour of a job is 0.1 to 10.");
        if (string.IsNullOrWhiteSpace(pace.Reason) || pace.Reason.Length > 120)
            throw RefusedException.Of("reason", "Say why in a few words.");
    }

    /// <summary>Checks what was set aside.</summary>
    public static void SetAside(Job job)
    {
        if (job.SetAside.Count > 5000)
            throw RefusedException.Of("check", "Too many checks are set aside.");
        if (job.SetAside.Any(s => s.Key.Length > 200 || s.Value.Length is 0 or > 300))
            throw RefusedException.Of("reason", "A reason is at most 300 characters.");
    }

    /// <summary>Checks these cells, where they are.</summary>
    public static void Cells(Job job, IEnumerable<CellKey> keys)
    {
        foreach (var key in keys)
            if (job.Cells.TryGetValue(key, out var cell))
                Cell(job, key, cell);
    }

    /// <summary>Checks what a cell overrides.</summary>
    public static void Cell(Job job, CellKey key, Cell cell)
    {
        Note(cell.Note);
        if (!cell.Differs)
            return;
        if (!cell.Conditions.IsEmpty)
            Conditions(job, cell.Conditions);
        var item = job.Item(key.Work)!;
        Item(cell.Of(item), job);
        if (cell.Allowance is < 0)
            throw RefusedException.Of("allowance", "A sum is not below zero.");
        var entry = job.Book.GetValueOrDefault(item.Entry) as WorkEntry;
        if (cell.Quantity is { } typed && entry is not null)
        {
            if (typed.Kind != entry.Measure.Kind())
                throw RefusedException.Of(
                    "quantity",
                    $"{entry.Name} is measured against {BookCheck.Words(entry.Measure.Kind())}."
                );
            if (TypedQuantities.Read(typed).Value < 0)
                throw RefusedException.Of("quantity", "A quantity is not below zero.");
        }
        if (cell.Answers.IsEmpty && cell.Source.Length == 0)
            return;
        Answers(entry, cell.Answers);
        if (cell.Source.Length == 0 || entry is null)
            return;
        if (cell.Source.Length > 80)
            throw RefusedException.Of("source", "That is not a quantity of this place.");
        var measures = job.Measured(job.Place(key.Place)!, Trace.Silent);
        var kind =
            Measures.Find(cell.Source) is { } named && measures.Has(named)
                ? named.Kind()
                : measures.Extras.FirstOrDefault(e => e.Leaf == cell.Source)?.Kind ?? throw RefusedException.Of(
                        "source",
                        $"{job.Place(key.Place)!.Name} has no such quantity."
                    );
        if (kind != entry.Measure.Kind())
            throw RefusedException.Of(
                "source",
                $"{entry.Name} is measured against {BookCheck.Words(entry.Measure.Kind())}."
            );
    }

    private static void Answers(WorkEntry? entry, ImmutableArray<Answer> answers)
    {
        foreach (var answer in answers)
        {
            if ((entry as Assembly)?.Questions.Any(q => q.Id == answer.Question) != true)
                throw RefusedException.Of("answers", "That question is not asked here.");
            if (answer.Value < 0)
                throw RefusedException.Of("answers", "An answer is not below zero.");
        }
        if (answers.Select(a => a.Question).Distinct().Count() != answers.Length)
            throw RefusedException.Of("answers", "A question is answered twice.");
    }

    /// <summary>Checks names and addresses.</summary>
    public static void Info(JobInfo info)
    {
        if (string.IsNullOrWhiteSpace(info.Name))
            throw RefusedException.Of("name", "Give the job a name.");
        foreach (
            var (text, field) in new[]
            {
                (info.Name, "name"),
                (info.Subtitle, "subtitle"),
                (info.Number, "number"),
                (info.Customer, "customer"),
                (info.CustomerAddress, "customerAddress"),
                (info.Firm, "firm"),
                (info.FirmAddress, "firmAddress"),
                (info.Currency, "currency"),
                (info.Date, "date"),
            }
        )
            if (text.Length > 300)
                throw RefusedException.Of(field, "At most 300 characters.");
        Currency.Check(info.Currency);
        if (
            !DateOnly.TryParseExact(
                info.Date,
                "yyyy-MM-dd",
                System.Globalization.CultureInfo.InvariantCulture,
                System.Globalization.DateTimeStyles.None,
                out _
            )
        )
            throw RefusedException.Of("date", "A date is written like 2026-11-23.");
    }

    /// <summary>Checks a work item against the entries it uses.</summary>
    public static void Item(WorkItem item, Job job)
    {
        if (string.IsNullOrWhiteSpace(item.Name))
            throw RefusedException.Of("name", "Give the work a name.");
        if (item.Name.Length > 120 || item.Section.Length > 120 || item.Colour.Length > 120)
            throw RefusedException.Of("name", "A name, section or colour is at most 120 characters.");
        if (item.Wording.Length > 2000)
            throw RefusedException.Of("wording", "The wording is at most 2,000 characters.");
        if (item.Product is { } id)
        {
            if (job.Book.GetValueOrDefault(id) is not Material product)
                throw RefusedException.Of("product", "That product is not in this job's Book.");
            if (
                job.Book.GetValueOrDefault(item.Entry) is ProductionRate of
                && (
                    product.Coverage is null
                    || (
                        product.Coverage.UnitA.Kind != of.Measure.Kind()
                        && product.Coverage.UnitB.Kind != of.Measure.Kind()
                    )
                )
            )
                throw RefusedException.Of(
                    "product",
                    $"{product.Name} does not cover a {of.Measure.Kind().ToString().ToLowerInvariant()}."
                );
        }
        if (item.Pace is { } pace && job.Book.GetValueOrDefault(item.Entry) is ProductionRate rate)
        {
            var kind = rate.Measure.Kind();
            if ((pace.UnitA.Kind != kind && pace.UnitB.Kind != kind) || pace.Turn(kind).To.Kind != Kind.Time)
                throw RefusedException.Of(
                    "pace",
                    $"{rate.Name} is measured against {rate.Measure.Label(job.Units).ToLowerInvariant()}: write its pace like {rate.Paces[0].Pace}."
                );
        }
        var entry = job.Book.GetValueOrDefault(item.Entry) as WorkEntry;
        if (item.Role is { } role && job.Book.GetValueOrDefault(role) is not LabourRole)
            throw RefusedException.Of("role", "That role is not in this job's Book.");
        if (item.Surface is { } surface && job.Book.GetValueOrDefault(surface) is not SurfaceFactor)
            throw RefusedException.Of("surface", "That surface is not in this job's Book.");
        if (item.Difficulty.Length > 0 && entry?.Levels.Any(l => l.Name == item.Difficulty) == false)
            throw RefusedException.Of("difficulty", $"{entry.Name} has no difficulty “{item.Difficulty}”.");
        if (item.Coats is < 1 or > 20)
            throw RefusedException.Of("coats", "Coats are 1 to 20.");
        if (item.Step is <= 0 or > 1000)
            throw RefusedException.Of("step", "A rounding step is more than 0 and at most 1,000 hours.");
        if (item.DryingHours is < 0 or > 10_000)
            throw RefusedException.Of("dryingHours", "Drying is 0 to 10,000 hours.");
        if (item.Allowance is < 0)
            throw RefusedException.Of("allowance", "A sum is not below zero.");
        if (item.CrewNote?.Length > 2000)
            throw RefusedException.Of("crewNote", "At most 2,000 characters.");
        if (item.CustomerNote?.Length > 2000)
            throw RefusedException.Of("customerNote", "At most 2,000 characters.");
        if (item.HazardAnswer.Length > 500)
            throw RefusedException.Of("hazardAnswer", "At most 500 characters.");
        if (item.Picks.Length > Assembly.MostComponents || item.WaitsFor.Length > MostWaits)
            throw RefusedException.Of("picks", "Too many are chosen.");
        Conditions(job, item.Conditions);
        Answers(entry, item.Answers);
        CompiledItem.Of(item, job.Book);
    }

    /// <summary>Checks a sentence at a cell.</summary>
    public static void Note(string note)
    {
        if (note.Length > 500)
            throw RefusedException.Of("note", "A note is at most 500 characters.");
    }

    /// <summary>Checks one place, and the places its openings lead into.</summary>
    public static void Place(Place place, Job job, Dictionary<Guid, ImmutableArray<Opening>> incoming)
    {
        try
        {
            if (string.IsNullOrWhiteSpace(place.Name))
                throw RefusedException.Of("line", "A place needs a name.");
            PlaceLimits.Name(place.Name, "A place's name");
            if (place.Line.Length > TapeLine.LongestLine)
                throw RefusedException.Of("line", $"A tape line is at most {TapeLine.LongestLine} characters.");
            if (place.Group.Length > 200 || place.Group.Any(char.IsControl))
                throw RefusedException.Of("group", "A heading is at most 200 characters.");
            if (place.Finish.Length > 120)
                throw RefusedException.Of("finish", "A finish is at most 120 characters.");
            if (
                place.Notes.Length > 4000
                || place.Notes.Concat(place.Finish).Any(c => char.IsControl(c) && c is not ('\n' or '\t'))
            )
                throw RefusedException.Of("notes", "Notes are at most 4,000 characters of plain text.");
            PlaceLimits.Check(place.Shape, place.Openings, place.Count, job.Units);
            CheckTyped(place);
            if (place.Conditions.Length > MostConditions)
                throw RefusedException.Of("conditions", $"At most {MostConditions} conditions in one place.");
            if (!place.Conditions.IsEmpty)
                Conditions(job, [.. place.Conditions.Where(c => c.Band.Length == 0).Select(c => c.Condition)]);
            if (
                place.Conditions.Any(c =>
                    job.Book.GetValueOrDefault(c.Condition) is not Condition || c.Band.Length > 20
                )
            )
                throw RefusedException.Of("conditions", "A condition is not in this job's Book.");
        }
        catch (RefusedException wrong) when (wrong.Refusal.Field == "line" && job.Places.Length > 1)
        {
            throw RefusedException.Of("line", $"{place.Name}: {wrong.Refusal.Message}");
        }
        foreach (var into in place.Openings.Select(o => o.Into).OfType<Guid>().Distinct())
        {
            var other =
                job.Place(into)
                ?? throw RefusedException.Of(
                    "line",
                    $"{place.Name}: an opening leads into a place that is not in this job."
                );
            if (other.Id == place.Id)
                throw RefusedException.Of("line", $"An opening of {place.Name} cannot lead into {place.Name} itself.");
            if (place.Count > 1)
                throw RefusedException.Of(
                    "line",
                    $"{place.Name} stands for {place.Count} equal places, so its openings cannot lead into {other.Name}."
                );
        }
        // Both ends of an opening: what leads in here, and where ours lead.
        foreach (var end in place.Openings.Select(o => o.Into).OfType<Guid>().Append(place.Id).Distinct())
        {
            if (incoming.TryGetValue(end, out var from))
                PlaceLimits.CheckIncoming(job.Place(end)!, from, job.Units);
        }
    }

    private static void CheckTyped(Place place)
    {
        if (place.Typed.Length > 100)
            throw RefusedException.Of("measure", "A place takes at most 100 typed measures.");
        if (place.Typed.Select(t => t.Name).Distinct(StringComparer.Ordinal).Count() != place.Typed.Length)
            throw RefusedException.Of("measure", "A measure is typed twice.");
        foreach (var typed in place.Typed)
        {
            if (
                string.IsNullOrWhiteSpace(typed.Name)
                || typed.Name.Length > 60
                || typed.Name.IndexOfAny(['/', '=', ';', '\n']) >= 0
            )
                throw RefusedException.Of("measure", "A measure's name is at most 60 characters, without / = and ;.");
            TypedQuantities.Read(typed.Quantity);
            if (Measures.Find(typed.Name) is not { } measure)
                continue;
            if (typed.Quantity.Kind != measure.Kind())
                throw RefusedException.Of(
                    "measure",
                    $"{measure.Label(typed.Quantity.Units)} is a {measure.Kind().ToString().ToLowerInvariant()}."
                );
            if (!place.Shape.Has.Contains(measure))
                throw RefusedException.Of(
                    "measure",
                    $"{place.Name} has no {measure.Label(typed.Quantity.Units).ToLowerInvariant()}."
                );
        }
    }

    private static void Once(IEnumerable<Guid> ids, string what)
    {
        var seen = new HashSet<Guid>();
        foreach (var id in ids)
            if (!seen.Add(id))
                throw RefusedException.Of("file", $"A {what} stands twice: {id}.");
    }
}
