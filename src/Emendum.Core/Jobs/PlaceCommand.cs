using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>Adds a place read from a tape line, after another or at the end.</summary>
public sealed record AddPlace(Guid Id, Guid Place, string Line, string Group, Guid? After) : Command(Id);

/// <summary>Adds many places at once, from a list of usual places or a table, with the work that is usual there; at the end.</summary>
/// <param name="Id">The command's id.</param>
/// <param name="Places">In order.</param>
/// <param name="Work">An id for each Book entry that the job does not use yet.</param>
public sealed record AddPlaces(Guid Id, ImmutableArray<NewPlace> Places, ImmutableArray<NewWork> Work) : Command(Id);

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

/// <summary>Reads a place anew from an edited tape line.</summary>
public sealed record RemeasurePlace(Guid Id, Guid Place, string Was, string Line) : Command(Id);

/// <summary>Sets the same of many places at once: <c>height</c>, <c>count</c>, <c>finish</c>, or adds an <c>opening</c>.</summary>
public sealed record EditPlaces(Guid Id, ImmutableArray<PlaceWas> Places, string Field, string Value) : Command(Id);

/// <summary>A place and the line, or heading, it is seen with.</summary>
public sealed record PlaceWas(Guid Place, string Was);

/// <summary>Copies places with their work. A heading given is replaced at the front of theirs; without one the copies get a free name beside the original.</summary>
public sealed record ClonePlaces(Guid Id, ImmutableArray<PlaceCopy> Places, string? GroupWas, string? Group)
    : Command(Id);

/// <summary>A place and the id of its copy.</summary>
public sealed record PlaceCopy(Guid From, Guid To);

/// <summary>Puts places, in the order given, under a heading: before a place of it, after one, or (both null) at its end.</summary>
public sealed record MovePlaces(Guid Id, ImmutableArray<PlaceWas> Places, string Group, Guid? Before, Guid? After)
    : Command(Id);

/// <summary>Gives a heading, with those nested in it, another name.</summary>
public sealed record RenameGroup(Guid Id, string Was, string Group) : Command(Id);

/// <summary>Removes places with their cells.</summary>
public sealed record RemovePlaces(Guid Id, ImmutableArray<Guid> Places) : Command(Id);

/// <summary>Sets <c>finish</c>, <c>notes</c> or <c>conditions</c> of places. Conditions they name are pinned.</summary>
public sealed record SetPlaces(Guid Id, string Field, ImmutableArray<AtPlace> At) : Command(Id);

/// <summary>A field at a place: as it is seen, and as it is to be.</summary>
public sealed record AtPlace(Guid Place, JsonNode? Was, JsonNode? Now);

/// <summary>Types a measure of a place: its own name for one of the user's own, a measure's name to override it; null takes it back.</summary>
public sealed record SetMeasure(Guid Id, Guid Place, string Name, TypedQuantity? Was, TypedQuantity? Now) : Command(Id);

/// <summary>Shows the job in other units. Stored sizes stay as they are; tape lines get the units they were typed in.</summary>
public sealed record SetUnits(Guid Id, UnitSystem Was, UnitSystem Units) : Command(Id);

/// <summary>Takes in a customer's schedule of quantities, after what there is of it.</summary>
public sealed record AddSchedule(Guid Id, ImmutableArray<ScheduleRow> Rows) : Command(Id);

/// <summary>A row of a schedule as it comes in.</summary>
public sealed record ScheduleRow(Guid Id, string Number, string Wording, string Unit, decimal Quantity);

/// <summary>Says what of our own takeoff a row of the schedule is compared with; empty for nothing.</summary>
public sealed record SetScheduleItem(Guid Id, Guid Item, string Was, string Source) : Command(Id);

/// <summary>Takes the schedule out of the job.</summary>
public sealed record RemoveSchedule(Guid Id) : Command(Id);
