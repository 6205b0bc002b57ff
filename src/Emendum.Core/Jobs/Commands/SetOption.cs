using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of one option of a choice: what it needs, what it rules out, what it costs. Where it is taken, the work follows.</summary>
public sealed record SetOption(Guid Choice, Guid Option, string Field, JsonNode? Was, JsonNode? Now) : Command
{
    private static readonly ImmutableArray<string> Fields =
    [
        "name",
        "supplier",
        "code",
        "product",
        "price",
        "coats",
        "colour",
        "needs",
        "rulesOut",
    ];

    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var choice = SetChoice.Find(job, Choice);
        var at = choice.Options.IndexOf(
            choice.Option(Option) ?? throw RefusedException.Of("option", "That option is not in this choice any more.")
        );
        if (!Fields.Contains(Field))
            throw RefusedException.Of("field", "That is not a field of an option.");
        var node = Commands.Node(choice.Options[at])!.AsObject();
        if (!ChangeSet.Same(node[Field], Was))
            throw new ConflictException(Field, node[Field]);
        if (ChangeSet.Same(node[Field], Now))
            return [];
        node[Field] = Now?.DeepClone();
        var path = $"choices/{Choice}/options";
        var options = Commands.Node(choice.Options)!.AsArray();
        options[at] = node;
        var said = SetChoice.Find(ChangeSet.Apply(job, [new Change(path, null, options)]), Choice);
        ImmutableArray<Change> set =
        [
            new(path, Commands.Node(choice.Options), Commands.Node(Choosing.Filled(job, said).Options)),
        ];
        var pinned = Commands.Pinning(
            job,
            set,
            changed => SetChoice.Find(changed, Choice).Options.Select(o => o.Product).OfType<Guid>(),
            Field,
            book
        );
        var after = ChangeSet.Apply(job, pinned);
        var now = SetChoice.Find(after, Choice);
        // What the choice decides may be more now, and what is taken stands in the work as it is said.
        return [.. pinned, .. Choosing.Changes(after, now, now.Option(now.Taken)!)];
    }
}
