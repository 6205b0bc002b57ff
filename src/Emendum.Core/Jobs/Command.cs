using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;

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
[JsonDerivedType(typeof(SetPlaces), "setPlaces")]
[JsonDerivedType(typeof(SetMeasure), "setMeasure")]
[JsonDerivedType(typeof(SetUnits), "setUnits")]
[JsonDerivedType(typeof(AddSchedule), "addSchedule")]
[JsonDerivedType(typeof(SetScheduleItem), "setScheduleItem")]
[JsonDerivedType(typeof(RemoveSchedule), "removeSchedule")]
[JsonDerivedType(typeof(AddWork), "addWork")]
[JsonDerivedType(typeof(SetWork), "setWork")]
[JsonDerivedType(typeof(RemoveWork), "removeWork")]
[JsonDerivedType(typeof(MoveWork), "moveWork")]
[JsonDerivedType(typeof(FillCells), "fillCells")]
[JsonDerivedType(typeof(CopyCells), "copyCells")]
[JsonDerivedType(typeof(PasteCells), "pasteCells")]
[JsonDerivedType(typeof(FallBack), "fallBack")]
[JsonDerivedType(typeof(ReplaceProduct), "replaceProduct")]
[JsonDerivedType(typeof(SetEntry), "setEntry")]
[JsonDerivedType(typeof(TakeFromBook), "takeFromBook")]
[JsonDerivedType(typeof(SetAside), "setAside")]
[JsonDerivedType(typeof(SetNote), "setNote")]
[JsonDerivedType(typeof(SetCells), "setCells")]
[JsonDerivedType(typeof(SetConditions), "setConditions")]
[JsonDerivedType(typeof(SetPace), "setPace")]
[JsonDerivedType(typeof(SetDeduction), "setDeduction")]
[JsonDerivedType(typeof(SetInfo), "setInfo")]
[JsonDerivedType(typeof(SetPricing), "setPricing")]
[JsonDerivedType(typeof(SetProposal), "setProposal")]
public abstract record Command(Guid Id);

/// <summary>Sets the conditions on all work of the job, and pins them.</summary>
public sealed record SetConditions(Guid Id, ImmutableArray<Guid> Was, ImmutableArray<Guid> Conditions) : Command(Id);

/// <summary>Sets the factor on all labour of the job; null for none.</summary>
public sealed record SetPace(Guid Id, PaceFactor? Was, PaceFactor? Pace) : Command(Id);

/// <summary>Sets a check aside with a reason; an empty reason brings it back.</summary>
public sealed record SetAside(Guid Id, string Check, string Was, string Reason) : Command(Id);

/// <summary>Sets the rule by which openings are taken off.</summary>
public sealed record SetDeduction(Guid Id, string Was, string Rule) : Command(Id);

/// <summary>Sets a field of the job's heading.</summary>
public sealed record SetInfo(Guid Id, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);

/// <summary>Sets a pricing term.</summary>
public sealed record SetPricing(Guid Id, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);

/// <summary>Sets what the customer sees.</summary>
public sealed record SetProposal(Guid Id, string Field, JsonNode? Was, JsonNode? Now) : Command(Id);
