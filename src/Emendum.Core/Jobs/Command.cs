using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Something a person asks of a job (architecture decision 4). Ids are made by the client; one that sets something carries what it replaces.</summary>
/// <param name="Id">UUIDv7 of the command; the same id again gets the first answer again.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "type")]
[JsonDerivedType(typeof(AddPlace), "addPlace")]
[JsonDerivedType(typeof(RemeasurePlace), "remeasurePlace")]
[JsonDerivedType(typeof(AddPlaces), "addPlaces")]
[JsonDerivedType(typeof(EditPlaces), "editPlaces")]
[JsonDerivedType(typeof(ClonePlaces), "clonePlaces")]
[JsonDerivedType(typeof(MovePlaces), "movePlaces")]
[JsonDerivedType(typeof(RenameGroup), "renameGroup")]
[JsonDerivedType(typeof(RemovePlaces), "removePlaces")]
[JsonDerivedType(typeof(SetPlace), "setPlace")]
[JsonDerivedType(typeof(SetMeasure), "setMeasure")]
[JsonDerivedType(typeof(SetUnits), "setUnits")]
[JsonDerivedType(typeof(AddSchedule), "addSchedule")]
[JsonDerivedType(typeof(SetScheduleItem), "setScheduleItem")]
[JsonDerivedType(typeof(RemoveSchedule), "removeSchedule")]
[JsonDerivedType(typeof(AddWork), "addWork")]
[JsonDerivedType(typeof(SetWork), "setWork")]
[JsonDerivedType(typeof(RemoveWork), "removeWork")]
[JsonDerivedType(typeof(FillCells), "fillCells")]
[JsonDerivedType(typeof(SetNote), "setNote")]
[JsonDerivedType(typeof(SetCell), "setCell")]
[JsonDerivedType(typeof(SetConditions), "setConditions")]
[JsonDerivedType(typeof(SetDeduction), "setDeduction")]
[JsonDerivedType(typeof(SetInfo), "setInfo")]
[JsonDerivedType(typeof(SetPricing), "setPricing")]
[JsonDerivedType(typeof(SetProposal), "setProposal")]
public abstract record Command(Guid Id);

/// <summary>Uses a Book entry in this job: pins it with everything that hangs on it.</summary>
public sealed record AddWork(Guid Id, Guid Work, Guid Entry, Guid? After) : Command(Id);

/// <summary>Sets a field of a work item, but its id, rank and entry. Entries it names are pinned.</summary>
public sealed record SetWork(Guid Id, Guid Work, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);

/// <summary>Removes a work item with its cells.</summary>
public sealed record RemoveWork(Guid Id, Guid Work) : Command(Id);

/// <summary>What cells are to be: included, excluded, or (null) none here.</summary>
public sealed record FillCells(Guid Id, ImmutableArray<CellWas> Cells, CellState? State) : Command(Id);

/// <summary>A cell and the state it is seen in.</summary>
public sealed record CellWas(Guid Work, Guid Place, CellState? Was);

/// <summary>Sets the sentence at a cell.</summary>
public sealed record SetNote(Guid Id, Guid Work, Guid Place, string Was, string Note) : Command(Id);

/// <summary>Sets what a cell overrides: <c>source</c>, <c>answers</c>, <c>conditions</c> or <c>supply</c>. Entries it names are pinned.</summary>
public sealed record SetCell(Guid Id, Guid Work, Guid Place, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);

/// <summary>Sets the conditions on all work of the job, and pins them.</summary>
public sealed record SetConditions(Guid Id, ImmutableArray<Guid> Was, ImmutableArray<Guid> Conditions) : Command(Id);

/// <summary>Sets the rule by which openings are taken off.</summary>
public sealed record SetDeduction(Guid Id, string Was, string Rule) : Command(Id);

/// <summary>Sets a field of the job's heading.</summary>
public sealed record SetInfo(Guid Id, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);

/// <summary>Sets a pricing term.</summary>
public sealed record SetPricing(Guid Id, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);

/// <summary>Sets what the customer sees.</summary>
public sealed record SetProposal(Guid Id, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);
