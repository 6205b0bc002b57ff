using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What must hold in a whole job, however it came in.</summary>
public static class JobChecks
{
    /// <summary>Checks ids, references, places, entries and terms.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public static void Check(Job job)
    {
        if (job.Id == Guid.Empty) throw RefusedException.Of("id", "The job has no id.");
        Info(job.Info);
        _ = job.Rule;
        job.Pricing.Check();
        job.Proposal.Check();
        Once(job.Places.Select(p => p.Id), "place");
        Once(job.Work.Select(w => w.Id), "work item");
        foreach (var (id, entry) in job.Book) BookChecks.Check(entry, job.Book);
        foreach (var place in job.Places) Place(place, job.Units);
        foreach (var item in job.Work) Item(item, job);
        var (places, work) = (job.Places.Select(p => p.Id).ToHashSet(), job.Work.Select(w => w.Id).ToHashSet());
        foreach (var (key, cell) in job.Cells)
        {
            if (!places.Contains(key.Place)) throw RefusedException.Of("cells", $"A cell names a place that is not there: {key.Place}.");
            if (!work.Contains(key.Work)) throw RefusedException.Of("cells", $"A cell names a work item that is not there: {key.Work}.");
            Note(cell.Note);
        }
    }

    /// <summary>Checks names and addresses.</summary>
    public static void Info(JobInfo info)
    {
        if (string.IsNullOrWhiteSpace(info.Name)) throw RefusedException.Of("name", "Give the job a name.");
        foreach (var (text, field) in new[] { (info.Name, "name"), (info.Subtitle, "subtitle"), (info.Number, "number"), (info.Customer, "customer"), (info.CustomerAddress, "customerAddress"), (info.Firm, "firm"), (info.FirmAddress, "firmAddress"), (info.Currency, "currency"), (info.Date, "date") })
            if (text.Length > 300) throw RefusedException.Of(field, "At most 300 characters.");
        if (!DateOnly.TryParseExact(info.Date, "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture, System.Globalization.DateTimeStyles.None, out _))
            throw RefusedException.Of("date", "A date is written like 2026-11-23.");
    }

    /// <summary>Checks a work item against the entries it uses.</summary>
    public static void Item(WorkItem item, Job job)
    {
        if (string.IsNullOrWhiteSpace(item.Name)) throw RefusedException.Of("name", "Give the work a name.");
        if (item.Name.Length > 120 || item.Section.Length > 120 || item.Colour.Length > 120) throw RefusedException.Of("name", "A name, section or colour is at most 120 characters.");
        if (item.Wording.Length > 2000) throw RefusedException.Of("wording", "The wording is at most 2,000 characters.");
        if (item.Product is { } id)
        {
            if (job.Book.GetValueOrDefault(id) is not Material product) throw RefusedException.Of("product", "That product is not in this job's Book.");
            if (job.Book.GetValueOrDefault(item.Entry) is ProductionRate of && (product.Coverage is null || (product.Coverage.UnitA.Kind != of.Measure.Kind() && product.Coverage.UnitB.Kind != of.Measure.Kind())))
                throw RefusedException.Of("product", $"{product.Name} does not cover a {of.Measure.Kind().ToString().ToLowerInvariant()}.");
        }
        if (item.Pace is { } pace && job.Book.GetValueOrDefault(item.Entry) is ProductionRate rate)
        {
            var kind = rate.Measure.Kind();
            if ((pace.UnitA.Kind != kind && pace.UnitB.Kind != kind) || pace.Turn(kind).To.Kind != Kind.Time)
                throw RefusedException.Of("pace", $"{rate.Name} is measured against {rate.Measure.Label().ToLowerInvariant()}: write its pace like {rate.Paces[0].Pace}.");
        }
        Reckoning.CompiledItem.Of(item, job.Book);
    }

    /// <summary>Checks a sentence at a cell.</summary>
    public static void Note(string note)
    {
        if (note.Length > 500) throw RefusedException.Of("note", "A note is at most 500 characters.");
    }

    /// <summary>Checks one place.</summary>
    public static void Place(Place place, UnitSystem system)
    {
        if (place.Kind != "room") throw RefusedException.Of("places", $"“{place.Kind}” is not a kind of place known here.");
        if (string.IsNullOrWhiteSpace(place.Name) || place.Name.Length > 120) throw RefusedException.Of("places", "A place needs a name of at most 120 characters.");
        if (place.Group.Length > 120) throw RefusedException.Of("group", "A group's name is at most 120 characters.");
        if (place.Count > 9999) throw RefusedException.Of("line", "A count is 1 to 9999.");
        RoomLimits.Check(new(place.Name, place.Count, place.Long, place.Wide, place.High, place.Openings), system);
    }

    private static void Once(IEnumerable<Guid> ids, string what)
    {
        var seen = new HashSet<Guid>();
        foreach (var id in ids)
            if (!seen.Add(id)) throw RefusedException.Of("file", $"A {what} stands twice: {id}.");
    }
}
