using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Begins another variant, like the job as it stands. The first one gives the job as it stands a name too.</summary>
/// <param name="Variant">Id of the new one.</param>
/// <param name="Name">Its name.</param>
/// <param name="Base">Id of the job as it stands, where there are no variants yet.</param>
/// <param name="BaseName">What that is called.</param>
public sealed record AddVariant(Guid Variant, string Name, Guid Base, string BaseName) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var changes = ImmutableArray.CreateBuilder<Change>();
        var last = job.Variants.LastOrDefault()?.Rank;
        Variant Made(Guid id, string name, bool taken)
        {
            var made = new Variant(id, name.Trim(), Rank.Between(last, null), taken);
            last = made.Rank;
            changes.Add(new($"variants/{id}", null, Commands.Node(made)));
            return made;
        }
        if (job.Variants.Any(v => v.Id == Variant) || (job.Variants.IsEmpty && Base == Variant))
            throw RefusedException.Of("variant", "There is a variant of that id already.");
        if (job.Variants.IsEmpty)
            Made(Base, BaseName, true);
        Made(Variant, Name, false);
        // It begins as the variant that is taken: it differs in nothing.
        return changes.ToImmutable();
    }
}
