using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes a choice away. What is taken stays in the work; what followed it stands by itself, and nothing needs or rules out its options any more.</summary>
public sealed record RemoveChoice(Guid Choice) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var choice = SetChoice.Find(job, Choice);
        var gone = choice.Options.Select(o => o.Id).ToHashSet();
        return
        [
            .. job
                .Choices.Where(c => c.Follows == Choice)
                .Select(c => new Change($"choices/{c.Id}/follows", JsonValue.Create(Choice.ToString()), null)),
            .. job
                .Choices.Where(c =>
                    c.Id != Choice && c.Options.Any(o => o.Needs.Any(gone.Contains) || o.RulesOut.Any(gone.Contains))
                )
                .Select(c => new Change(
                    $"choices/{c.Id}/options",
                    Commands.Node(c.Options),
                    Commands.Node<ImmutableArray<ChoiceOption>>(
                        [
                            .. c.Options.Select(o =>
                                o with
                                {
                                    Needs = [.. o.Needs.Where(n => !gone.Contains(n))],
                                    RulesOut = [.. o.RulesOut.Where(r => !gone.Contains(r))],
                                }
                            ),
                        ]
                    )
                )),
            new($"choices/{Choice}", Commands.Node(choice), null),
        ];
    }
}
