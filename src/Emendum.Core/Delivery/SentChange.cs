using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;

namespace Emendum.Core.Delivery;

/// <summary>A change order that was sent, with what happened to it: a chain of its own (L23).</summary>
/// <param name="Order">What it holds.</param>
/// <param name="Life">Its life.</param>
public sealed record SentChange(ChangeOrder Order, ProposalLife Life)
{
    /// <summary>Those that were accepted and stand, in the order of their acceptance.</summary>
    public static ImmutableArray<SentChange> Accepted(IEnumerable<SentChange> all) =>
        [
            .. all.Where(c => c.Life.Acceptance is not null)
                .OrderBy(c => c.Life.Acceptance!.At)
                .ThenBy(c => c.Order.Number),
        ];

    /// <summary>The fact that the contract rests on: that of the acceptance, or of what was last accepted or annulled of a change.</summary>
    /// <param name="yes">The acceptance.</param>
    /// <param name="all">All change orders of the job.</param>
    public static Guid RestsOn(Fact yes, IEnumerable<SentChange> all) =>
        all.SelectMany(c => c.Life.Facts)
            .Where(f => f.Kind is FactKind.Accepted or FactKind.YesRecorded or FactKind.Annulled)
            .Prepend(yes)
            .OrderBy(f => f.At)
            .Last()
            .Id;

    /// <summary>Refuses its acceptance where a line that it touches has changed since it was sent (L23).</summary>
    /// <param name="all">All change orders of the job.</param>
    /// <param name="done">How much of a line is done by now, percent.</param>
    /// <exception cref="RefusedException">One has; says which.</exception>
    public void CheckAccepted(IEnumerable<SentChange> all, Func<CellKey, decimal> done)
    {
        var sent = Life.Facts[0].At;
        foreach (var line in Order.Lines)
        {
            var other = all.FirstOrDefault(c =>
                c.Order.Revision != Order.Revision
                && c.Life.Facts.Any(f =>
                    f.At > sent && f.Kind is FactKind.Accepted or FactKind.YesRecorded or FactKind.Annulled
                )
                && c.Order.Lines.Any(l => l.Key == line.Key)
            );
            if (other is not null)
                throw RefusedException.Of(
                    "revision",
                    $"{line.Name}, {line.At}, was changed by change order {other.Order.Number} since this one was sent: it cannot be accepted as it is. Ask for a new one."
                );
            if (line.Kind == ChangeKind.Dropped && done(line.Key) > line.Done)
                throw RefusedException.Of(
                    "revision",
                    $"{line.Name}, {line.At}, was worked on since this change order was sent: it cannot be accepted as it is. Ask for a new one."
                );
        }
    }
}
