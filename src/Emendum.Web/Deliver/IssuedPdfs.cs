using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>PDFs of what was issued under a number: each is made when it is first asked for, of its frozen document, and is the same from then on.</summary>
public sealed class IssuedPdfs(FileStore files, Pictures pictures, TimeProvider time)
{
    /// <summary>The file of one.</summary>
    /// <param name="document">The document.</param>
    /// <param name="issued">The day of issue.</param>
    /// <param name="kept">Hash of the file that was made before; null for none.</param>
    /// <param name="keep">Says which file it is.</param>
    public async Task<StoredFile> Of(SentDocument document, DateOnly issued, string? kept, Action<string> keep)
    {
        if (kept is not null && files.Find(kept) is { } there)
            return there;
        var (paper, brand) = document;
        var info = new JobInfo(paper.Head.Title, "", "", null, paper.Head.Firm, "", "", Day.Written(issued));
        using var content = new MemoryStream(await ProposalEndpoints.Set(paper, info, brand, pictures));
        var file = await files.Take(content, FileEndpoints.Kind, time.GetUtcNow().UtcDateTime, CancellationToken.None);
        files.Name(file.Hash);
        keep(file.Hash);
        return file;
    }

    /// <summary>It, sent.</summary>
    /// <param name="file">The file.</param>
    /// <param name="title">What it is called.</param>
    /// <param name="inline">Whether it is shown in the browser rather than saved.</param>
    public IResult Sent(StoredFile file, string title, bool inline) =>
        Results.Stream(files.Read(file), "application/pdf", inline ? null : $"{title}.pdf");
}
