using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Makes a choice of what a piece of work has. The option that is included is taken; goods that options name are pinned.</summary>
public sealed record AddChoice(Choice Choice) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (job.Choices.Any(c => c.Id == Choice.Id))
            throw RefusedException.Of("choice", "There is a choice of that id already.");
        Commands.Item(job, Choice.Work);
        var made = Choice with
        {
            Name = Choice.Name.Trim(),
            Rank = Rank.Between(job.Choices.LastOrDefault()?.Rank, null),
            Taken = Choice.Included,
        };
        made.Check();
        made = Choosing.Filled(job, made);
        ImmutableArray<Change> pins =
        [
            .. made
                .Options.Select(o => o.Product)
                .OfType<Guid>()
                .Distinct()
                .SelectMany(id => Commands.Pin(job, id, "options", book))
                .DistinctBy(c => c.Path),
        ];
        var pinned = ChangeSet.Apply(job, pins);
        return
        [
            .. pins,
            new($"choices/{made.Id}", null, Commands.Node(made)),
            .. Choosing.Changes(pinned, made, made.Option(made.Included)!),
        ];
    }
}
