using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Removes a variant that is not taken. Where only the one that is taken is left, the job has no variants any more.</summary>
public sealed record RemoveVariant(Guid Variant) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var variant = RenameVariant.Find(job, Variant);
        if (variant.Taken)
            throw RefusedException.Of(
                "variant",
                "Take another variant before this one is removed: it is what the job is."
            );
        var left = job.Variants.Remove(variant);
        return
        [
            .. Variants
                .Differences(job, Variant)
                .Select(d => $"differs/{Variants.Key(Variant, d.Path)}")
                .Select(path => new Change(path, ChangeSet.Get(job, path), null)),
            new($"variants/{Variant}", Commands.Node(variant), null),
            .. left.Length == 1
                ? [new Change($"variants/{left[0].Id}", Commands.Node(left[0]), null)]
                : ImmutableArray<Change>.Empty,
        ];
    }
}
