using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>Up to version 7 a proposal had a letter and terms, in an order that nobody could change. Now it is made of blocks, and these are the words of two of them.</summary>
internal sealed class From7 : Upgrade
{
    /// <inheritdoc/>
    public override void File(JsonObject file)
    {
        if (file["proposal"] is not JsonObject proposal)
            return;
        var words = Taken(proposal);
        if (words.All(w => w.Words is null))
            return;
        var blocks = JsonSerializer.SerializeToNode(ProposalBlock.Starting, CoreJson.Options)!.AsArray();
        foreach (var (kind, said) in words)
            if (said is not null)
                blocks.OfType<JsonObject>().First(b => (string?)b["id"] == Id(kind))["words"] = said;
        file["blocks"] = blocks;
    }

    /// <inheritdoc/>
    public override Change? Change(Change change)
    {
        foreach (var proposal in change.Path == "proposal" ? Sides(change) : [])
            Taken(proposal);
        return change.Path switch
        {
            "proposal/letter" => Words(change, BlockKind.Letter),
            "proposal/terms" => Words(change, BlockKind.Terms),
            _ => change,
        };
    }

    private static (BlockKind Kind, JsonNode? Words)[] Taken(JsonObject proposal)
    {
        proposal.Remove("letter", out var letter);
        proposal.Remove("terms", out var terms);
        return [(BlockKind.Letter, Said(letter)), (BlockKind.Terms, Said(terms))];
    }

    private static Change Words(Change change, BlockKind kind) =>
        new($"blocks/{Id(kind)}/words", Said(change.Before), Said(change.After));

    /// <summary>No words are none of the job's own.</summary>
    private static JsonNode? Said(JsonNode? words) =>
        words is JsonValue value && value.TryGetValue<string>(out var text) && text.Length == 0
            ? null
            : words?.DeepClone();

    private static string Id(BlockKind kind) => ProposalBlock.First(kind).ToString();
}
