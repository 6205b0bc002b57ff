using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of a block of the proposal. Words that say a figure by name must name one that there is.</summary>
public sealed record SetBlock(Guid Block, string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    public override IReadOnlyCollection<BlockFile> Files
    {
        get
        {
            try
            {
                return Field == "files" && Now is JsonArray now
                    ? [.. now.Deserialize<ImmutableArray<BlockFile?>>(CoreJson.Options).OfType<BlockFile>()]
                    : [];
            }
            catch (JsonException)
            {
                // What is no list of files is refused when it is set.
                return [];
            }
        }
    }

    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Field == "words" && Now is JsonValue value && value.TryGetValue<string>(out var words))
            FigureNames.Check(words, "words");
        return Commands.Set(job, Commands.Field($"blocks/{MoveBlock.Find(job, Block).Id}", Field), Was, Now);
    }
}
