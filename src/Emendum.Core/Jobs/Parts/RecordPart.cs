using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>A part that is one record, its fields set by their names.</summary>
internal abstract class RecordPart<T>(string name) : JobPart(name)
    where T : class
{
    /// <summary>It, in a job.</summary>
    protected abstract T Of(Job job);

    /// <summary>The job with another.</summary>
    protected abstract Job With(Job job, T value);

    /// <inheritdoc/>
    public override bool Settable(string field) => HasField<T>(field);

    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => Node(Of(job), at);

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) => With(job, Changed(Of(job), at, value)!);
}
