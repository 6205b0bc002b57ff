using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of a rhythm.</summary>
public sealed record SetRhythm(Guid Rhythm, string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(job, Commands.Field($"rhythms/{Find(job, Rhythm).Id}", Field), Was, Now);

    /// <summary>The rhythm with that id.</summary>
    /// <exception cref="RefusedException">There is none.</exception>
    internal static Rhythm Find(Job job, Guid id) =>
        job.Rhythm(id) ?? throw RefusedException.Of("rhythm", "That rhythm is not in this job any more.");
}
