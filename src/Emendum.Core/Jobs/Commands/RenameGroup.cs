using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Gives a heading, with those nested in it, another name.</summary>
public sealed record RenameGroup(string Was, string Group) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var now = Group.Trim();
        if (Was.Length == 0)
            throw RefusedException.Of("group", "Places without a heading have none to rename.");
        var touched = job.Places.Where(p => PlacesInJob.Moved(p.Group, Was, now) != p.Group).ToList();
        if (touched.Count == 0 && Was != now)
            throw RefusedException.Of("group", "That heading is not in this job any more.");
        return
        [
            .. touched.Select(p => new Change($"places/{p.Id}/group", p.Group, PlacesInJob.Moved(p.Group, Was, now))),
            .. job.Schedule.SelectMany(row => InSchedule(row, now)),
        ];
    }

    /// <summary>What a row of the schedule is compared with and priced by follows; where there is no heading any more it stays, and stands for nothing.</summary>
    private IEnumerable<Change> InSchedule(ScheduleItem row, string now)
    {
        if (now.Length == 0)
            yield break;
        if (
            row.Source.Split('/', 3) is ["measure", var name, var group]
            && $"measure/{name}/{PlacesInJob.Moved(group, Was, now)}" is var source
            && source != row.Source
        )
            yield return new($"schedule/{row.Id}/source", row.Source, source);
        ImmutableArray<ScheduleWork> work =
        [
            .. row.Work.Select(w => w with { Group = PlacesInJob.Moved(w.Group, Was, now) }),
        ];
        if (!work.SequenceEqual(row.Work))
            yield return new($"schedule/{row.Id}/work", Commands.Node(row.Work), Commands.Node(work));
    }
}
