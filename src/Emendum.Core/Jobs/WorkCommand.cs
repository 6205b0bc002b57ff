using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Uses a Book entry in this job: pins it with everything that hangs on it.</summary>
/// <param name="Id">The command's id.</param>
/// <param name="Work">Id of the work item.</param>
/// <param name="Entry">The entry.</param>
/// <param name="After">The work item it stands after; at the end when null.</param>
public sealed record AddWork(Guid Id, Guid Work, Guid Entry, Guid? After) : Command(Id)
{
    /// <summary>Places where it, and what comes with it, is included.</summary>
    public ImmutableArray<Guid> Places { get; init; } = [];

    /// <summary>Answers to its questions.</summary>
    public ImmutableArray<Answer> Answers { get; init; } = [];

    /// <summary>Accessories added with it. One that the job has already is included in the same places.</summary>
    public ImmutableArray<NewWork> With { get; init; } = [];
}

/// <summary>Sets a field of a work item, but its id, rank and entry. Entries it names are pinned.</summary>
public sealed record SetWork(Guid Id, Guid Work, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);

/// <summary>Puts a work item under a section, after another or (null) before all.</summary>
public sealed record MoveWork(Guid Id, Guid Work, string Section, Guid? After) : Command(Id);

/// <summary>Removes a work item with its cells.</summary>
public sealed record RemoveWork(Guid Id, Guid Work) : Command(Id);

/// <summary>What the cells of these work items at these places are to be: included, excluded, alternate, or (null) none here.</summary>
/// <param name="Id">The command's id.</param>
/// <param name="Work">Columns.</param>
/// <param name="Places">Rows.</param>
/// <param name="Was">How the cells are seen, a letter each, row by row: <c>i</c>, <c>x</c>, <c>a</c>, or <c>.</c> for none.</param>
/// <param name="State">What they are to be.</param>
public sealed record FillCells(
    Guid Id,
    ImmutableArray<Guid> Work,
    ImmutableArray<Guid> Places,
    string Was,
    CellState? State
) : Command(Id);

/// <summary>Copies a block of cells over a larger or equal one, as often as it goes into it. A cell that goes to another work item takes state, sentence, conditions and
/// supply along; to another place, everything but a source of quantity that is not there.</summary>
/// <param name="Id">The command's id.</param>
/// <param name="FromWork">Columns of the block.</param>
/// <param name="FromPlaces">Rows of the block.</param>
/// <param name="Work">Columns it is copied to.</param>
/// <param name="Places">Rows it is copied to.</param>
/// <param name="Was">How the cells it is copied to are seen, as in <see cref="FillCells"/>.</param>
public sealed record CopyCells(
    Guid Id,
    ImmutableArray<Guid> FromWork,
    ImmutableArray<Guid> FromPlaces,
    ImmutableArray<Guid> Work,
    ImmutableArray<Guid> Places,
    string Was
) : Command(Id);

/// <summary>Reads a block of cells from texts, as they come from a spreadsheet.</summary>
/// <param name="Id">The command's id.</param>
/// <param name="Work">Columns.</param>
/// <param name="Places">Rows.</param>
/// <param name="Was">How the cells are seen, as in <see cref="FillCells"/>.</param>
/// <param name="Texts">One for each cell, row by row.</param>
/// <param name="Quantities">Whether numbers are quantities; otherwise a number above zero only says that the work is done.</param>
public sealed record PasteCells(
    Guid Id,
    ImmutableArray<Guid> Work,
    ImmutableArray<Guid> Places,
    string Was,
    ImmutableArray<string> Texts,
    bool Quantities
) : Command(Id);

/// <summary>Lets cells fall back to their work items: state and sentence stay, whatever else they have of their own goes.</summary>
public sealed record FallBack(Guid Id, ImmutableArray<Guid> Work, ImmutableArray<Guid> Places, string Was)
    : Command(Id);

/// <summary>Sets the sentence at a cell.</summary>
public sealed record SetNote(Guid Id, Guid Work, Guid Place, string Was, string Note) : Command(Id);

/// <summary>Sets a field of cells of one work item, but their state and sentence; null lets them fall back to it. Entries they name are pinned.</summary>
public sealed record SetCells(Guid Id, Guid Work, string Field, ImmutableArray<AtPlace> At) : Command(Id);

/// <summary>Takes one product for another wherever the job uses it: in work items, in cells, and in the parts of its assemblies.</summary>
public sealed record ReplaceProduct(Guid Id, Guid From, Guid To) : Command(Id);

/// <summary>Changes an entry inside this job alone; the Book stays as it is.</summary>
public sealed record SetEntry(Guid Id, BookEntry Was, BookEntry Entry) : Command(Id);

/// <summary>Takes the newest versions of entries from the Book.</summary>
/// <param name="Id">The command's id.</param>
/// <param name="Entries">Which; the job uses them already.</param>
/// <param name="Work">A work item that gives up what it has instead of its entry; none when null.</param>
public sealed record TakeFromBook(Guid Id, ImmutableArray<Guid> Entries, Guid? Work) : Command(Id);
