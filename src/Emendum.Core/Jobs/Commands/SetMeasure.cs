using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>Types a measure of a place: its own name for one of the user's own, a measure's name to override it; null takes it back.</summary>
public sealed record SetMeasure(Guid Place, string Name, TypedQuantity? Was, TypedQuantity? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var place = Commands.Place(job, Place);
        var name = Name.Trim();
        var old = place.Typed.FirstOrDefault(t => t.Name == name);
        if (!Equals(old?.Quantity, Was))
            throw new ConflictException("measure", Commands.Node(old?.Quantity));
        if (Was == Now)
            return [];
        var typed =
            Now is null ? place.Typed.Remove(old!)
            : old is null ? place.Typed.Add(new(name, Now))
            : place.Typed.Replace(old, new(name, Now));
        return [new($"places/{place.Id}/typed", Commands.Node(place.Typed), Commands.Node(typed))];
    }
}
