using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>
/// Makes one opening of two that were typed in neighbouring rooms and are the same: it leads from the one into the other, is deducted on both sides, and counts once (estimating
/// model §2). Of several alike one is joined.
/// </summary>
/// <param name="From">The room that keeps it, with the line it is seen with.</param>
/// <param name="Of">Which of its openings, from 0.</param>
/// <param name="Into">The room that gives its own up, likewise.</param>
/// <param name="In">Which of its openings, from 0.</param>
public sealed record JoinOpenings(PlaceWas From, int Of, PlaceWas Into, int In) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        Commands.OnceEach([From.Place, Into.Place]);
        var (keeper, giver) = (Seen(job, From), Seen(job, Into));
        var (kept, given) = (OpeningOf(keeper, Of), OpeningOf(giver, In));
        if (
            kept.Kind != given.Kind
            || kept.Width.Millimetres != given.Width.Millimetres
            || kept.Height.Millimetres != given.Height.Millimetres
        )
            throw RefusedException.Of("openings", "Only openings of one size can be one.");
        if (kept.Into is not null || given.Into is not null)
            throw RefusedException.Of("openings", "One of them leads into another room already.");
        var joined = kept with { Count = 1, Into = giver.Id };
        var rest = kept.Count == 1 ? keeper.Openings.RemoveAt(Of) : keeper.Openings.SetItem(Of, OneLess(kept));
        var keeps = keeper with { Openings = rest.Insert(Of, joined) };
        var gives = giver with
        {
            Openings = given.Count == 1 ? giver.Openings.RemoveAt(In) : giver.Openings.SetItem(In, OneLess(given)),
        };
        return [Changed(job, keeper, keeps), Changed(job, giver, gives)];
    }

    private static Place Seen(Job job, PlaceWas was) =>
        Commands.Place(job, was.Place) is var place && place.Line == was.Was
            ? place
            : throw new ConflictException("line", place.Line);

    private static Opening OneLess(Opening opening) => opening with { Count = opening.Count - 1 };

    private static Opening OpeningOf(Place place, int at) =>
        at >= 0 && at < place.Openings.Length
            ? place.Openings[at]
            : throw RefusedException.Of("openings", $"{place.Name} has no such opening.");

    private static Change Changed(Job job, Place was, Place now) =>
        new(
            $"places/{was.Id}",
            Commands.Node(was),
            Commands.Node(now with { Line = PlaceLine.Print(now, job.Units, id => job.Place(id)?.Name) })
        );
}
