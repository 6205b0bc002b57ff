using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Uses a Book entry in this job: pins it with everything that hangs on it.</summary>
/// <param name="Work">Id of the work item.</param>
/// <param name="Entry">The entry.</param>
/// <param name="After">The work item it stands after; at the end when null.</param>
public sealed record AddWork(Guid Work, Guid Entry, Guid? After) : Command
{
    /// <summary>Places where it, and what comes with it, is included.</summary>
    public ImmutableArray<Guid> Places { get; init; } = [];

    /// <summary>Answers to its questions.</summary>
    public ImmutableArray<Answer> Answers { get; init; } = [];

    /// <summary>Accessories added with it. One that the job has already is included in the same places.</summary>
    public ImmutableArray<NewWork> With { get; init; } = [];

    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var changes = ImmutableArray.CreateBuilder<Change>();
        var growing = job;
        void Make(ImmutableArray<Change> made)
        {
            changes.AddRange(made);
            growing = ChangeSet.Apply(growing, made);
        }
        Make(WorkInJob.Added(growing, Work, Entry, After, Answers, book));
        var included = new List<Guid> { Work };
        foreach (var (entry, work) in With)
        {
            var there = growing.Work.FirstOrDefault(w => w.Entry == entry)?.Id;
            if (there is null)
                Make(WorkInJob.Added(growing, work, entry, included[^1], [], book));
            included.Add(there ?? work);
        }
        var cell = Commands.Node(new Cell(CellState.Included, ""));
        foreach (var place in Places.Distinct())
        {
            Commands.Place(job, place);
            foreach (var work in included.Where(w => !growing.Cells.ContainsKey(new(w, place))))
                changes.Add(new($"cells/{work}/{place}", null, cell?.DeepClone()));
        }
        return changes.ToImmutable();
    }

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;
}
