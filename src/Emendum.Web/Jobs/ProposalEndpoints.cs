using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Checks;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Documents;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>The proposal as the page shows it.</summary>
/// <param name="Document">Its head and its blocks.</param>
/// <param name="Brand">How it looks.</param>
/// <param name="Unfinished">What it should not go out with.</param>
public sealed record ProposalView(Document Document, Brand Brand, ImmutableArray<Unfinished> Unfinished);

/// <summary>What is asked of the proposal.</summary>
public static class ProposalEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapProposal(this IEndpointRouteBuilder jobs)
    {
        jobs.MapGet(
            "/{id:guid}/proposal",
            (
                Guid id,
                OpenJobs open,
                CustomerStore customers,
                SettingStore settings,
                RevisionStore revisions,
                FirmDay day
            ) => View(open.Get(id).Estimate, open, customers, settings.Brand(), revisions.Life(id).Next, day.Today)
        );
        jobs.MapGet(
            "/{id:guid}/proposal.pdf",
            (
                Guid id,
                OpenJobs open,
                CustomerStore customers,
                SettingStore settings,
                bool? inline,
                RevisionStore revisions,
                Pictures pictures
            ) =>
                Pdf(
                    open.Get(id).Estimate,
                    open,
                    customers,
                    settings.Brand(),
                    revisions.Life(id).Next,
                    pictures,
                    inline is true
                )
        );
    }

    /// <summary>How the firm's documents look.</summary>
    public static Brand Brand(this SettingStore settings) =>
        settings.Get(Core.Proposals.Brand.Setting, Core.Proposals.Brand.Starting);

    /// <summary>A new job with the blocks and the detail of the firm's usual pattern.</summary>
    public static Job AsUsual(Job job, SettingStore settings, Shelf shelf)
    {
        var pattern = settings.Get(ProposalPatterns.Setting, ProposalPatterns.Starting).OfNewJobs();
        // A text that has been taken out of the Book since is left out.
        ImmutableArray<ProposalBlock> blocks =
        [
            .. pattern.Blocks.Select(b => shelf.Find(b.Text ?? Guid.Empty) is BookText ? b : b with { Text = null }),
        ];
        return Commands.Apply(job, new TakePattern(pattern with { Blocks = blocks }), shelf.Find).Job;
    }

    private static ProposalView View(
        Estimate estimate,
        OpenJobs open,
        CustomerStore customers,
        Brand brand,
        string revision,
        DateOnly today
    )
    {
        var party = customers.Party(estimate.Job.Info.Customer);
        var document = Proposal.Of(
            estimate,
            party,
            brand,
            Trace.Silent,
            revision,
            FurtherEstimates.Of(estimate.Job, open)
        );
        return new(
            document,
            brand,
            [
                .. BeforeSending.Of(estimate, document, today),
                .. FurtherEstimates.Holes(estimate.Job, open, party, today),
            ]
        );
    }

    private static async Task<IResult> Pdf(
        Estimate estimate,
        OpenJobs open,
        CustomerStore customers,
        Brand brand,
        string revision,
        Pictures pictures,
        bool inline
    )
    {
        var document = Proposal.Of(
            estimate,
            customers.Party(estimate.Job.Info.Customer),
            brand,
            Trace.Silent,
            revision,
            FurtherEstimates.Of(estimate.Job, open)
        );
        return Results.File(
            await Set(document, estimate.Job.Info, brand, pictures),
            "application/pdf",
            inline ? null : $"Proposal {estimate.Job.Info.Number}.pdf"
        );
    }

    /// <summary>A proposal set as a PDF, with the firm's mark and its pictures.</summary>
    internal static async Task<byte[]> Set(Document document, JobInfo info, Brand brand, Pictures pictures) =>
        ProposalPdf.Write(document, info, brand, await pictures.Bytes(brand.Mark), await pictures.Of(document));
}
