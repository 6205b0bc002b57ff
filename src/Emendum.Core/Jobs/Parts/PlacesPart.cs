using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>Places, in order.</summary>
internal sealed class PlacesPart() : ThingsPart<Place>("places")
{
    /// <inheritdoc/>
    protected override ImmutableArray<Place> Of(Job job) => job.Places;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<Place> things) => job with { Places = things };

    /// <inheritdoc/>
    protected override Place? Find(Job job, Guid id) => job.Place(id);

    /// <inheritdoc/>
    protected override Guid IdOf(Place thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(Place thing) => thing.Rank;

    /// <inheritdoc/>
    public override bool Settable(string field) => field is "finish" or "notes" or "conditions";

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "place");
        JobRules.Size(job);
        var incoming = job.Incoming();
        foreach (var place in job.Places)
            Check(place, job, incoming);
    }

    /// <inheritdoc/>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        JobRules.Size(job);
        var incoming = job.Incoming();
        foreach (var (id, place) in Touched(job, changes))
        {
            if (place is not null)
                Check(place, job, incoming);
            else if (job.Work.Any(w => job.Cells.ContainsKey(new(w.Id, id))))
                throw RefusedException.Of("", "Somebody has since put work there, so it cannot be taken away.");
        }
    }

    /// <summary>Checks one place, and the places its openings lead into.</summary>
    public static void Check(Place place, Job job, Dictionary<Guid, ImmutableArray<Opening>> incoming)
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
            if (place.Conditions.Length > ConditionsPart.Most)
                throw RefusedException.Of("conditions", $"At most {ConditionsPart.Most} conditions in one place.");
            if (!place.Conditions.IsEmpty)
                ConditionsPart.Check(
                    job,
                    [.. place.Conditions.Where(c => c.Band.Length == 0).Select(c => c.Condition)]
                );
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
}
