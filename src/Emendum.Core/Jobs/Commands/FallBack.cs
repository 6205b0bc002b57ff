using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Lets cells fall back to their work items: state and sentence stay, whatever else they have of their own goes.</summary>
public sealed record FallBack(ImmutableArray<Guid> Work, ImmutableArray<Guid> Places, string Was) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        [
            .. CellBlock
                .Seen(job, Work, Places, Was)
                .Where(c => c.Cell?.Differs == true)
                .Select(c =>
                    CellBlock.Set(
                        c.Key,
                        c.Cell,
                        Commands.Node(
                            new Cell(c.Cell!.State, c.Cell.Note)
                            {
                                TakenOut = c.Cell.TakenOut,
                                Alternate = c.Cell.Alternate,
                            }
                        )
                    )
                ),
        ];

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;
}
