using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Puts a section with its work after another, or (null) before all.</summary>
public sealed record MoveSection(Guid Section, Guid? After) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var section = Find(job, Section);
        if (After == Section)
            throw RefusedException.Of("after", "A section cannot stand after itself.");
        var staying = job.Sections.Remove(section);
        var to = After is { } after ? staying.IndexOf(Find(job, after)) + 1 : 0;
        if (job.Sections.IndexOf(section) == to)
            return [];
        var now = section with { Rank = Rank.At(staying, to, s => s.Rank) };
        return [new($"sections/{Section}", Commands.Node(section), Commands.Node(now))];
    }

    private static Section Find(Job job, Guid id) =>
        job.Section(id) ?? throw RefusedException.Of("section", "That section is not in this job any more.");
}
