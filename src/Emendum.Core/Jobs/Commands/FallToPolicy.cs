using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>Lets a pricing term of the job fall back to its policy.</summary>
public sealed record FallToPolicy(string Field) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var policy = job.Policy ?? throw RefusedException.Of("policy", "This job has no price policy.");
        if (PricePolicy.OfTheJob.Contains(Field))
            throw RefusedException.Of(Field, "That belongs to this job and to no policy.");
        var path = Commands.Field("pricing", Field);
        var terms = JsonSerializer.SerializeToNode(policy.Terms, CoreJson.Options)!.AsObject();
        return Commands.Set(job, path, ChangeSet.Get(job, path), terms[Field]);
    }
}
