using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;

namespace Emendum.Core.Proposals;

/// <summary>Further estimates of the customer: each with what it says of its work and its own total, and one sum of all (L22). Their choices are offered in proposals of their own: here they go as they are taken.</summary>
internal static class EstimatesBlock
{
    public static IEnumerable<Element> Of(ProposalBlock block, Writing writing)
    {
        Estimate[] further = [.. (block.Estimates ?? []).SelectMany(id => writing.Further.Where(f => f.Job.Id == id))];
        if (further.Length == 0)
            yield break;
        var said = Words(writing.Job);
        foreach (var estimate in further)
        foreach (var element in Of(estimate, writing, said))
            yield return element;
        yield return new Heading(1, "All together");
        yield return writing.Table(Together(writing, further));
    }

    private static IEnumerable<Element> Of(Estimate estimate, Writing with, HashSet<string> said)
    {
        var job = estimate.Job;
        var writing = new Writing(estimate, with.Party, with.Brand, Trace.Silent) { Revision = with.Revision };
        yield return new Heading(1, job.Info.Name);
        if (job.Info.Subtitle.Length > 0)
            yield return Writing.Plain(job.Info.Subtitle);
        foreach (
            var block in job.Blocks.Where(b =>
                IsTold(b.Kind) && !(b.Kind == BlockKind.Terms && said.Contains(job.WordsOf(b)))
            )
        )
        {
            var made = Proposal.Made(block, writing);
            if (!made.IsRead)
                continue;
            if (made.IsTitled)
                yield return new Heading(2, made.Title);
            // The ways to workings would lead to those of the other job.
            foreach (var element in Bare.Of(made.Elements.SkipWhile(e => e is Heading { Level: 1 })))
                // Headings within its blocks stand below theirs.
                yield return element is Heading heading ? new Paragraph([new(heading.Text, Stress.Slanted)]) : element;
        }
    }

    /// <summary>What is told of a further estimate: what a proposal says once, the first one says.</summary>
    private static bool IsTold(BlockKind kind) =>
        kind
            is not (
                BlockKind.Cover
                or BlockKind.Letter
                or BlockKind.About
                or BlockKind.Options
                or BlockKind.Signatures
                or BlockKind.Estimates
            );

    private static HashSet<string> Words(Job job) => [.. job.Blocks.Where(b => !b.Hidden).Select(job.WordsOf)];

    private static IEnumerable<PriceRow> Together(Writing writing, Estimate[] further)
    {
        Estimate[] all = [writing.Estimate, .. further];
        foreach (var estimate in all)
            yield return writing.Row(
                RowKind.Part,
                estimate.Job.Info.Name,
                estimate.Job.Info.Subtitle,
                estimate.Price.BeforeTax.V,
                null
            );
        var (before, total) = (all.Sum(e => e.Price.BeforeTax.V), all.Sum(e => e.Price.Total.V));
        yield return writing.Row(RowKind.Subtotal, "All estimates, before tax", "", before, null);
        if (total != before)
            yield return writing.Row(RowKind.Tax, "Tax", "as each estimate says", total - before, null);
        yield return writing.Row(RowKind.Total, "All estimates, with tax", "", total, null);
    }
}
