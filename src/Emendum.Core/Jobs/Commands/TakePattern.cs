using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Gives the proposal the blocks and the detail of one of the firm's patterns. Words and files of this job go on with the block of their kind; a block of the pattern has the words of its text, and
/// its own files where the job has none.</summary>
/// <param name="Pattern">The pattern, as it stands in the Office.</param>
public sealed record TakePattern(ProposalPattern Pattern) : Command
{
    /// <inheritdoc/>
    public override IReadOnlyCollection<BlockFile> Files => [.. Pattern.Blocks.SelectMany(b => b.Files ?? [])];

    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        Pattern.Check();
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var text in Pattern.Blocks.Select(b => b.Text).OfType<Guid>().Distinct())
            changes.AddRange(TakeText.Newest(job, text, book));
        changes.AddRange(Commands.Set(job, "proposal", Commands.Node(job.Proposal), Commands.Node(Pattern.Terms)));
        var written = job
            .Blocks.Where(b => (b.Words is not null || b.Files is not null) && Pattern.Blocks.All(p => p.Id != b.Id))
            .ToLookup(b => b.Kind);
        var now = ImmutableArray.CreateBuilder<ProposalBlock>(Pattern.Blocks.Length);
        foreach (var block in Pattern.Blocks)
        {
            var (same, other) = (job.Blocks.FirstOrDefault(b => b.Id == block.Id), written[block.Kind].ToList());
            now.Add(
                block with
                {
                    Rank = Rank.Between(now.LastOrDefault()?.Rank, null),
                    // A pattern has no words of a job, whatever it was sent with.
                    Words = same?.Words ?? other.Find(b => b.Words is not null)?.Words,
                    Files = same?.Files ?? other.Find(b => b.Files is not null)?.Files ?? block.Files,
                    // Which estimates go out with it is this job's affair.
                    Estimates =
                        block.Kind == BlockKind.Estimates
                            ? job.Blocks.FirstOrDefault(b => b.Kind == BlockKind.Estimates)?.Estimates
                            : null,
                }
            );
        }
        foreach (var gone in job.Blocks.Where(b => now.All(n => n.Id != b.Id)))
            changes.Add(new($"blocks/{gone.Id}", Commands.Node(gone), null));
        foreach (var block in now)
        {
            var old = job.Blocks.FirstOrDefault(b => b.Id == block.Id);
            var change = new Change(
                $"blocks/{block.Id}",
                old is null ? null : Commands.Node(old),
                Commands.Node(block)
            );
            if (!ChangeSet.Same(change.Before, change.After))
                changes.Add(change);
        }
        return changes.ToImmutable();
    }
}
