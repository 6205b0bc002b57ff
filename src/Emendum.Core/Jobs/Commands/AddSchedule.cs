using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes in a customer's schedule of quantities, after what there is of it.</summary>
public sealed record AddSchedule(ImmutableArray<ScheduleRow> Rows) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Rows.IsEmpty)
            throw RefusedException.Of("rows", "There is nothing to take in.");
        if (Rows.Length + job.Schedule.Length > JobRules.MostPlaces)
            throw RefusedException.Of("rows", $"A schedule takes at most {JobRules.MostPlaces} rows.");
        var rank = job.Schedule.IsEmpty ? null : job.Schedule[^1].Rank;
        if (
            Rows.Select(r => r.Id).Concat(job.Schedule.Select(s => s.Id)).Distinct().Count()
            != Rows.Length + job.Schedule.Length
        )
            throw RefusedException.Of("rows", "A new row needs an id of its own.");
        return
        [
            .. Rows.Select(r => new Change(
                $"schedule/{r.Id}",
                null,
                Commands.Node(
                    new ScheduleItem(
                        r.Id,
                        rank = Rank.Between(rank, null),
                        r.Number.Trim(),
                        r.Wording.Trim(),
                        r.Unit.Trim(),
                        r.Quantity,
                        ""
                    )
                )
            )),
        ];
    }
}

/// <summary>A row of a schedule as it comes in.</summary>
public sealed record ScheduleRow(Guid Id, string Number, string Wording, string Unit, decimal Quantity);
