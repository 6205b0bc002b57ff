using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes another variant: the job becomes it, and what the job was is kept as the variant that was taken before.</summary>
/// <param name="Was">The variant that is taken.</param>
/// <param name="Variant">The one to be.</param>
public sealed record TakeVariant(Guid Was, Guid Variant) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var (now, then) = (job.Variants.FirstOrDefault(v => v.Taken), RenameVariant.Find(job, Variant));
        if (now?.Id != Was)
            throw new ConflictException("taken", Commands.Node(now?.Name));
        if (Was == Variant)
            return [];
        var things = Variants.Changes(job, Variant);
        var own = Variants.Differences(job, Variant).Select(d => d.Path).ToArray();
        // As it will stand in the job, where that changes.
        var after = things.ToDictionary(c => c.Path, c => Variants.Write(c.After), StringComparer.Ordinal);
        var changes = things.ToBuilder();
        foreach (var other in job.Variants.Where(v => v.Id != Variant))
        {
            var its = other.Taken
                ? []
                : Variants.Differences(job, other.Id).ToDictionary(d => d.Path, d => d.Raw, StringComparer.Ordinal);
            foreach (var path in its.Keys.Union(own).Order(StringComparer.Ordinal))
            {
                var here = Variants.Write(ChangeSet.Get(job, path));
                var key = Variants.Key(other.Id, path);
                if (
                    Variants.Kept(key, its.GetValueOrDefault(path), here, after.GetValueOrDefault(path) ?? here) is
                    { } kept
                )
                    changes.Add(kept);
            }
        }
        foreach (var path in own)
            changes.Add(
                new(
                    $"differs/{Variants.Key(Variant, path)}",
                    ChangeSet.Get(job, $"differs/{Variants.Key(Variant, path)}"),
                    null
                )
            );
        changes.Add(new($"variants/{Was}", Commands.Node(now), Commands.Node(now with { Taken = false })));
        changes.Add(new($"variants/{Variant}", Commands.Node(then), Commands.Node(then with { Taken = true })));
        return changes.ToImmutable();
    }

    /// <inheritdoc/>
    internal override bool IsOfVariants => true;
}
