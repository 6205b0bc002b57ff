using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of a section, as its name.</summary>
public sealed record SetSection(Guid Section, string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        job.Section(Section) is null
            ? throw RefusedException.Of("section", "That section is not in this job any more.")
            : Commands.Set(job, Commands.Field($"sections/{Section}", Field), Was, Now);
}
