using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of a block of the proposal. Words that say a figure by name must name one that there is.</summary>
public sealed record SetBlock(Guid Block, string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Field == "words" && Now is JsonValue value && value.TryGetValue<string>(out var words))
            FigureNames.Check(words, "words");
        return Commands.Set(job, Commands.Field($"blocks/{MoveBlock.Find(job, Block).Id}", Field), Was, Now);
    }
}
