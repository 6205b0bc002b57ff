using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Something a person asks of a job (architecture decision 4). Ids of what it makes come from the client; one that sets something carries what it replaces. It travels with an id of its own beside it, by which the same thing asked twice is told.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "type")]
[JsonDerivedType(typeof(AddPlace), "addPlace")]
[JsonDerivedType(typeof(RemeasurePlace), "remeasurePlace")]
[JsonDerivedType(typeof(AddPlaces), "addPlaces")]
[JsonDerivedType(typeof(EditPlaces), "editPlaces")]
[JsonDerivedType(typeof(JoinOpenings), "joinOpenings")]
[JsonDerivedType(typeof(ClonePlaces), "clonePlaces")]
[JsonDerivedType(typeof(MovePlaces), "movePlaces")]
[JsonDerivedType(typeof(RenameGroup), "renameGroup")]
[JsonDerivedType(typeof(RemovePlaces), "removePlaces")]
[JsonDerivedType(typeof(SetPlaces), "setPlaces")]
[JsonDerivedType(typeof(SetMeasure), "setMeasure")]
[JsonDerivedType(typeof(SetUnits), "setUnits")]
[JsonDerivedType(typeof(AddSchedule), "addSchedule")]
[JsonDerivedType(typeof(SetScheduleItem), "setScheduleItem")]
[JsonDerivedType(typeof(SetScheduleWork), "setScheduleWork")]
[JsonDerivedType(typeof(PriceAsCompared), "priceAsCompared")]
[JsonDerivedType(typeof(RemoveSchedule), "removeSchedule")]
[JsonDerivedType(typeof(AddWork), "addWork")]
[JsonDerivedType(typeof(SetWork), "setWork")]
[JsonDerivedType(typeof(RemoveWork), "removeWork")]
[JsonDerivedType(typeof(MoveWork), "moveWork")]
[JsonDerivedType(typeof(SetSection), "setSection")]
[JsonDerivedType(typeof(MoveSection), "moveSection")]
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
[JsonDerivedType(typeof(SetCrew), "setCrew")]
[JsonDerivedType(typeof(SetPricing), "setPricing")]
[JsonDerivedType(typeof(ChooseBasis), "chooseBasis")]
[JsonDerivedType(typeof(TypePrice), "typePrice")]
[JsonDerivedType(typeof(TakePolicy), "takePolicy")]
[JsonDerivedType(typeof(FallToPolicy), "fallToPolicy")]
[JsonDerivedType(typeof(SetPiece), "setPiece")]
[JsonDerivedType(typeof(SetSureness), "setSureness")]
[JsonDerivedType(typeof(AddChoice), "addChoice")]
[JsonDerivedType(typeof(SetChoice), "setChoice")]
[JsonDerivedType(typeof(SetOption), "setOption")]
[JsonDerivedType(typeof(RemoveChoice), "removeChoice")]
[JsonDerivedType(typeof(TakeChoice), "takeChoice")]
[JsonDerivedType(typeof(AddQuote), "addQuote")]
[JsonDerivedType(typeof(SetQuote), "setQuote")]
[JsonDerivedType(typeof(RemoveQuote), "removeQuote")]
[JsonDerivedType(typeof(TakeQuote), "takeQuote")]
[JsonDerivedType(typeof(AddRhythm), "addRhythm")]
[JsonDerivedType(typeof(SetRhythm), "setRhythm")]
[JsonDerivedType(typeof(TakeFrequency), "takeFrequency")]
[JsonDerivedType(typeof(SetVisit), "setVisit")]
[JsonDerivedType(typeof(RemoveRhythm), "removeRhythm")]
[JsonDerivedType(typeof(SetRound), "setRound")]
[JsonDerivedType(typeof(GroupAlternate), "groupAlternate")]
[JsonDerivedType(typeof(RenameAlternate), "renameAlternate")]
[JsonDerivedType(typeof(UngroupAlternate), "ungroupAlternate")]
[JsonDerivedType(typeof(TakeAlternate), "takeAlternate")]
[JsonDerivedType(typeof(AddVariant), "addVariant")]
[JsonDerivedType(typeof(RenameVariant), "renameVariant")]
[JsonDerivedType(typeof(RemoveVariant), "removeVariant")]
[JsonDerivedType(typeof(TakeVariant), "takeVariant")]
[JsonDerivedType(typeof(SetProposal), "setProposal")]
[JsonDerivedType(typeof(AddBlock), "addBlock")]
[JsonDerivedType(typeof(SetBlock), "setBlock")]
[JsonDerivedType(typeof(MoveBlock), "moveBlock")]
[JsonDerivedType(typeof(RemoveBlock), "removeBlock")]
[JsonDerivedType(typeof(TakeText), "takeText")]
[JsonDerivedType(typeof(TakePattern), "takePattern")]
[JsonDerivedType(typeof(ChangeTasks), "changeTasks")]
public abstract record Command
{
    /// <summary>Files that it puts into the job; what it names has to be there.</summary>
    [JsonIgnore]
    public virtual IReadOnlyCollection<BlockFile> Files => [];

    /// <summary>What it changes in a job. <paramref name="book"/> finds an entry of the Book's newest version.</summary>
    /// <exception cref="RefusedException">It cannot be done.</exception>
    internal abstract ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book);

    /// <summary>Whether the cells that it touches hold nothing that they, or cells like them, did not hold before: tens of thousands need not be looked at again.</summary>
    internal virtual bool CellsAreSound => false;

    /// <summary>Whether it says itself what the variants that are not taken keep.</summary>
    internal virtual bool IsOfVariants => false;
}
