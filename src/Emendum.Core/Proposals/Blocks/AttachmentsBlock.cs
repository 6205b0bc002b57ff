using Emendum.Core.Jobs;

namespace Emendum.Core.Proposals;

/// <summary>Names of the files that go with the proposal.</summary>
internal static class AttachmentsBlock
{
    public static IEnumerable<Element> Of(ProposalBlock block)
    {
        if (block.Files is { IsEmpty: false } files)
            yield return new Attached([.. files.Select(f => new AttachedFile(f.File, f.Words))]);
    }
}
