using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Checks;

/// <summary>
/// Neighbouring rooms under one heading have equal doors or pass-throughs: often it is one that both share, typed twice. It offers to join them: then
/// it is deducted on both sides and counts once (estimating model §2). A size is asked about once a heading.
/// </summary>
internal static class SharedOpenings
{
    /// <summary>How many pairs of rooms are offered at once.</summary>
    private const int MostOffered = 12;

    private sealed record Pair(Place First, int Of, Place Second, int In);

    public static IEnumerable<Finding> In(CheckedJob job) =>
        from pair in Pairs(job.Job)
        let opening = pair.First.Openings[pair.Of]
        group pair by (
            pair.First.Group,
            opening.Kind,
            Width: opening.Width.Millimetres,
            Height: opening.Height.Millimetres
        ) into shared
        let first = shared.First()
        let size = first.First.Openings[first.Of]
        select job.Found(
            $"shared/{DerivedId.Of($"shared {shared.Key.Group} {shared.Key.Kind} {Rounding.Text(shared.Key.Width)} {Rounding.Text(shared.Key.Height)}")}",
            "One opening counted twice?",
            $"{first.First.Name} and {first.Second.Name}{(shared.Count() == 1 ? "" : $", and {shared.Count() - 1} more pairs of neighbours,")} have each a {size.Words} {size.Width.Read(job.Job.Units)} × {size.Height.Read(job.Job.Units)}.",
            "Where it is one that both share, join it: it is taken off both rooms and counts once. Where each has its own, set this aside.",
            first.First.Id,
            offers:
            [
                .. shared
                    .Take(MostOffered)
                    .Select(p => new Offer(
                        $"Join {p.First.Name} and {p.Second.Name}",
                        new JoinOpenings(new(p.First.Id, p.First.Line), p.Of, new(p.Second.Id, p.Second.Line), p.In)
                    )),
            ]
        );

    /// <summary>Rooms that stand next to each other in the list, each pair with the first opening that they have in common. An opening is offered to one neighbour only.</summary>
    private static IEnumerable<Pair> Pairs(Job job)
    {
        var taken = new HashSet<(Guid, int)>();
        for (var i = 0; i + 1 < job.Places.Length; i++)
        {
            var (first, second) = (job.Places[i], job.Places[i + 1]);
            if (!CanShare(first) || !CanShare(second) || first.Group != second.Group || Leads(first, second))
                continue;
            for (var of = 0; of < first.Openings.Length; of++)
            {
                if (!CanBeShared(first.Openings[of]) || taken.Contains((first.Id, of)))
                    continue;
                var same = -1;
                for (var at = 0; at < second.Openings.Length && same < 0; at++)
                    if (CanBeShared(second.Openings[at]) && Equal(first.Openings[of], second.Openings[at]))
                        same = at;
                if (same < 0)
                    continue;
                taken.Add((second.Id, same));
                yield return new(first, of, second, same);
                break;
            }
        }
    }

    private static bool CanShare(Place place) => place is { Shape: Room, Count: 1 };

    private static bool CanBeShared(Opening opening) => opening is { Kind: not OpeningKind.Window, Into: null };

    private static bool Leads(Place first, Place second) =>
        first.Openings.Any(o => o.Into == second.Id) || second.Openings.Any(o => o.Into == first.Id);

    private static bool Equal(Opening one, Opening other) =>
        one.Kind == other.Kind
        && one.Width.Millimetres == other.Width.Millimetres
        && one.Height.Millimetres == other.Height.Millimetres;
}
