using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>Conditions on all work of a job.</summary>
internal sealed class ConditionsPart() : JobPart("conditions")
{
    /// <summary>Most conditions on a job, a place, a piece of work or a cell.</summary>
    public const int Most = 50;

    private sealed record Listed(ImmutableArray<Guid> Ids);

    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) =>
        JsonSerializer.SerializeToNode(job.Conditions, CoreJson.Options);

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            Conditions = Changed(new Listed(job.Conditions), "ids", value)!.Ids,
        };

    /// <inheritdoc/>
    public override void Check(Job job) => Check(job, job.Conditions);

    /// <summary>Checks that what is named is a condition, and stands once.</summary>
    public static void Check(Job job, ImmutableArray<Guid> conditions)
    {
        if (conditions.Length > Most)
            throw RefusedException.Of("conditions", $"At most {Most} conditions in one place.");
        if (conditions.Distinct().Count() != conditions.Length)
            throw RefusedException.Of("conditions", "A condition stands twice.");
        if (conditions.Any(c => job.Book.GetValueOrDefault(c) is not Condition))
            throw RefusedException.Of("conditions", "A condition is not in this job's Book.");
    }
}
