using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Gives a block of the proposal the words of a text of the Book, as it stands there now; words of the job alone give way.</summary>
/// <param name="Block">The block.</param>
/// <param name="Text">The text; null for none.</param>
public sealed record TakeText(Guid Block, Guid? Text) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var block = MoveBlock.Find(job, Block);
        var changes = ImmutableArray.CreateBuilder<Change>();
        if (Text is { } id)
        {
            if ((book(id) ?? job.Book.GetValueOrDefault(id)) is not BookText text)
                throw RefusedException.Of("text", "That text is not in the Book any more.");
            if (ProposalBlock.Use(block.Kind) is { } use && text.Use != use && text.Use != TextUse.Other)
                throw RefusedException.Of("text", $"{text.Name} is not for “{BlockNames.Of(block.Kind)}”.");
            changes.AddRange(Newest(job, id, book));
        }
        var now = block with { Text = Text, Words = null };
        if (now != block)
            changes.Add(new($"blocks/{Block}", Commands.Node(block), Commands.Node(now)));
        return changes.ToImmutable();
    }

    /// <summary>Pins the newest version of a text.</summary>
    internal static ImmutableArray<Change> Newest(Job job, Guid id, Func<Guid, BookEntry?> book)
    {
        if (job.Book.GetValueOrDefault(id) is not { } there || book(id) is not { } newest)
            return Commands.Pin(job, id, "text", book);
        var change = new Change($"book/{id}", Commands.Node(there), Commands.Node(newest));
        return ChangeSet.Same(change.Before, change.After) ? [] : [change];
    }
}
