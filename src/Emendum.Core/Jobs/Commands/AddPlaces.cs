using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Adds many places at once, from a list of usual places or a table, with the work that is usual there; at the end.</summary>
/// <param name="Places">In order.</param>
/// <param name="Work">An id for each Book entry that the job does not use yet.</param>
public sealed record AddPlaces(ImmutableArray<NewPlace> Places, ImmutableArray<NewWork> Work) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Places.Length == 0)
            throw RefusedException.Of("places", "There is nothing to add.");
        if (Places.Length + job.Places.Length > JobRules.MostPlaces)
            throw RefusedException.Of("places", $"A job takes at most {JobRules.MostPlaces} places.");
        var changes = ImmutableArray.CreateBuilder<Change>();
        var items = AddedWork(job, book, changes);
        // Openings may lead into a place of the same command: all are read before names are looked up.
        var read = Places.Select(p => (New: p, Reading: TapeLine.ReadOrThrow(p.Line, job.Units))).ToList();
        var known = job
            .Places.Select(p => (p.Id, p.Name, p.Group))
            .Concat(read.Select(r => (Id: r.New.Place, r.Reading.Name, Group: r.New.Group.Trim())))
            .ToList();
        var rank = job.Places.IsEmpty ? null : job.Places[^1].Rank;
        foreach (var (place, reading) in read)
        {
            PlacesInJob.IsNew(job, place.Place);
            rank = Rank.Between(rank, null);
            changes.Add(
                PlacesInJob.Added(
                    reading.ToPlace(
                        place.Place,
                        place.Group.Trim(),
                        rank,
                        place.Line.Trim(),
                        name => PlacesInJob.Named(known, name, place.Place, place.Group.Trim())
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
        foreach (var place in Places.Where(p => p.Work.Contains(entry)))
            changes.Add(new($"cells/{item}/{place.Place}", null, Commands.Node(new Cell(CellState.Included, ""))));
        if (Places.Select(p => p.Place).Distinct().Count() != Places.Length)
            throw RefusedException.Of("place", "A new place needs an id of its own.");
        return changes.ToImmutable();
    }

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;

    /// <summary>The work item of each entry that the new places use: the job's own, or one that is added.</summary>
    private List<(Guid Entry, Guid Item)> AddedWork(
        Job job,
        Func<Guid, BookEntry?> book,
        ImmutableArray<Change>.Builder changes
    )
    {
        var items = new List<(Guid, Guid)>();
        var growing = job;
        foreach (var entry in Places.SelectMany(p => p.Work).Distinct())
        {
            if (job.Work.FirstOrDefault(w => w.Entry == entry) is { } there)
            {
                items.Add((entry, there.Id));
                continue;
            }
            var id =
                Work.FirstOrDefault(w => w.Entry == entry)?.Work
                ?? throw RefusedException.Of("work", "New work needs an id of its own.");
            var added = new AddWork(id, entry, null).Changes(growing, book);
            growing = ChangeSet.Apply(growing, added);
            changes.AddRange(added);
            items.Add((entry, id));
        }
        return items;
    }
}

/// <summary>A place to be added.</summary>
/// <param name="Place">Its id.</param>
/// <param name="Line">Its tape line.</param>
/// <param name="Group">Its heading.</param>
/// <param name="Finish">Substrate or finish.</param>
/// <param name="Notes">Notes.</param>
/// <param name="Typed">Overrides and own measures.</param>
/// <param name="Work">Book entries to be included there.</param>
public sealed record NewPlace(
    Guid Place,
    string Line,
    string Group,
    string Finish,
    string Notes,
    ImmutableArray<TypedMeasure> Typed,
    ImmutableArray<Guid> Work
);

/// <summary>A Book entry and the id its work item is to have.</summary>
public sealed record NewWork(Guid Entry, Guid Work);
