using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes one quote of a section, another instead of it, or none: then the work is ours.</summary>
/// <param name="Section">The section.</param>
/// <param name="Was">The quote that is taken; null for none.</param>
/// <param name="Now">The one to be taken; null for none.</param>
public sealed record TakeQuote(Guid Section, Guid? Was, Guid? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var taken = job.Quotes.FirstOrDefault(q => q.Section == Section && q.Taken);
        if (taken?.Id != Was)
            throw new ConflictException("taken", Commands.Node(taken?.Id));
        if (Now is { } id && SetQuote.Find(job, id).Section != Section)
            throw RefusedException.Of("quote", "That quote is for another section.");
        if (Was == Now)
            return [];
        Change Become(Guid quote, bool now) => new($"quotes/{quote}/taken", Commands.Node(!now), Commands.Node(now));
        return
        [
            .. Was is { } before ? [Become(before, false)] : ImmutableArray<Change>.Empty,
            .. Now is { } after ? [Become(after, true)] : ImmutableArray<Change>.Empty,
        ];
    }
}
