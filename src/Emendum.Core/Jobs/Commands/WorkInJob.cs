using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Work of a job as commands add and rank it, and the sections it stands under.</summary>
internal static class WorkInJob
{
    public static ImmutableArray<Change> Added(
        Job job,
        Guid id,
        Guid entry,
        Guid? after,
        ImmutableArray<Answer> answers,
        Func<Guid, BookEntry?> book
    )
    {
        if (id == Guid.Empty || job.Item(id) is not null)
            throw RefusedException.Of("work", "New work needs an id of its own.");
        var pins = Commands.Pin(job, entry, "entry", book);
        var found = job.Book.GetValueOrDefault(entry) ?? book(entry)!;
        if (found is not WorkEntry of)
            throw RefusedException.Of(
                "entry",
                $"{found.Name} is not work: add a rate, an assembly or a price-only item."
            );
        var (section, made) = SectionNamed(job, of.Section);
        var rank = RankAfter(
            job.Work,
            section,
            after is { } left ? Commands.Item(job, left) : job.Work.LastOrDefault()
        );
        var item = new WorkItem(id, rank, of.Id, section, of.Name, of.UsualCoats(), null, "", null, of.Wording)
        {
            Answers = answers,
        };
        return [.. pins, .. made, new($"work/{id}", null, Commands.Node(item))];
    }

    /// <summary>The section of that name, and what makes it where the job has none; it then stands last.</summary>
    public static (Guid Id, ImmutableArray<Change> Made) SectionNamed(Job job, string name)
    {
        if (job.Sections.FirstOrDefault(s => s.Name.Equals(name, StringComparison.OrdinalIgnoreCase)) is { } there)
            return (there.Id, []);
        var id = Section.IdOf(name);
        // A section that has had this name may be called otherwise by now.
        for (var n = 2; job.Section(id) is not null; n++)
            id = Section.IdOf($"{name}/{n}");
        return (id, [Made(job, id, name)]);
    }

    /// <summary>Makes a section that stands last.</summary>
    public static Change Made(Job job, Guid id, string name) =>
        new(
            $"sections/{id}",
            null,
            Commands.Node(new Section(id, name, Rank.Between(job.Sections.LastOrDefault()?.Rank, null)))
        );

    /// <summary>Takes a section away, with what others ask for it, when the work that leaves was its last.</summary>
    public static IEnumerable<Change> Emptied(Job job, WorkItem leaving) =>
        job.Work.Any(w => w.Section == leaving.Section && w.Id != leaving.Id)
            ? []
            :
            [
                .. job
                    .Quotes.Where(q => q.Section == leaving.Section)
                    .Select(q => new Change($"quotes/{q.Id}", Commands.Node(q), null)),
                new($"sections/{leaving.Section}", Commands.Node(job.Section(leaving.Section)), null),
            ];

    /// <summary>A rank after work of a section; where that stands in another, at the section's end; first where there is none.</summary>
    public static string RankAfter(ImmutableArray<WorkItem> work, Guid section, WorkItem? after)
    {
        var there = work.Where(w => w.Section == section).ToList();
        var at =
            after is null ? 0
            : after.Section == section ? there.IndexOf(after) + 1
            : there.Count;
        return Rank.At(there, at, w => w.Rank);
    }
}
