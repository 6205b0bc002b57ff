using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>Shows the job in other units. Stored sizes stay as they are; tape lines get the units they were typed in.</summary>
public sealed record SetUnits(UnitSystem Was, UnitSystem Units) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (job.Units != Was)
            throw new ConflictException("units", Commands.Node(job.Units));
        if (Was == Units)
            return [];
        return
        [
            new("units", Commands.Node(Was), Commands.Node(Units)),
            .. PlacesInJob.Relettered(job, _ => true, Units, id => job.Place(id)?.Name),
        ];
    }
}
