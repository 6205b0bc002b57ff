using System.Collections.Immutable;
using System.Text;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;

namespace Emendum.Core.Proposals;

/// <summary>Makes the proposal of a reckoned job as blocks in reading order (estimating model §9).</summary>
public static class Proposal
{
    /// <summary>The proposal, at the job's own detail, for <paramref name="party"/>, as <paramref name="brand"/> writes days and numbers; <paramref name="revision"/> says by its letters which
    /// it is, empty where that is not to be read; <paramref name="further"/> are the estimates that its block of further estimates names, as far as they are there.</summary>
    public static Document Of(
        Estimate estimate,
        Party party,
        Brand brand,
        Trace trace,
        string revision = "",
        ImmutableArray<Estimate>? further = null
    )
    {
        var job = estimate.Job;
        var writing = new Writing(estimate, party, brand, trace) { Revision = revision, Further = further ?? [] };
        var info = job.Info;
        return new(
            new(
                info.Firm,
                info.FirmAddress,
                brand.Slogan,
                party.Name,
                party.Address,
                info.Name,
                info.Subtitle,
                $"Proposal {info.Number}{(revision.Length > 0 ? $", revision {revision}" : "")} · {writing.Day(Quantities.Day.Of(info.Date))}",
                $"Prices hold until {writing.Day(job.PricesHoldUntil)}"
            ),
            [.. job.Blocks.Select(block => Made(block, writing))]
        );
    }

    /// <summary>The price alone, at the job's own detail.</summary>
    public static PriceTable Price(Estimate estimate, Trace trace)
    {
        var writing = new Writing(estimate, Party.None, Brand.Starting, trace);
        return writing.Table(PriceBlock.Rows(writing));
    }

    /// <summary>A subject and words with the figures of a job that they say by name.</summary>
    /// <returns>Them, and names that come to nothing in this job, which stand there as they were typed.</returns>
    public static (string Subject, string Words, IReadOnlyList<string> Missing) Filled(
        Estimate estimate,
        Party party,
        Brand brand,
        string revision,
        string subject,
        string words
    )
    {
        var figures = new NamedFigures(new(estimate, party, brand, Trace.Silent) { Revision = revision });
        return (Filled(subject, figures), Filled(words, figures), figures.Missing);
    }

    private static string Filled(string text, NamedFigures figures)
    {
        var (filled, from) = (new StringBuilder(), 0);
        foreach (var (at, length, name) in FigureNames.In(text))
        {
            if (figures.Of(name) is not { } said)
                continue;
            filled.Append(text, from, at - from).Append(said.Text);
            from = at + length;
        }
        return filled.Append(text, from, text.Length - from).ToString();
    }

    /// <summary>A block of a job as it is read.</summary>
    internal static Block Made(ProposalBlock block, Writing writing)
    {
        var (job, figures) = (writing.Job, new NamedFigures(writing));
        var usual = KindsOfBlock.Title(block.Kind, writing);
        var title = block.Title.Length > 0 ? block.Title : usual;
        return new(
            block.Id,
            block.Kind,
            title.Length > 0 ? title : BlockNames.Of(block.Kind),
            title.Length > 0,
            block.Hidden,
            block.NewPage,
            block.Words is not null ? WordsOf.Job
                : block.Text is not null ? WordsOf.Book
                : WordsOf.Nobody,
            [.. Marks.Read(job.WordsOf(block), figures.Of)],
            // What is hidden is not made: an option is the whole job reckoned once more.
            block.Hidden
                ? []
                : [.. KindsOfBlock.Of(block)(writing)]
        )
        {
            Missing = [.. figures.Missing],
        };
    }
}
