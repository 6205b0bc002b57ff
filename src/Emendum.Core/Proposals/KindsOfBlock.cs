using Emendum.Core.Jobs;

namespace Emendum.Core.Proposals;

/// <summary>What each kind of block is made of, beside the words that are typed for it.</summary>
internal static class KindsOfBlock
{
    /// <summary>What makes it.</summary>
    public static Func<Writing, IEnumerable<Element>> Of(ProposalBlock block) =>
        block.Kind switch
        {
            BlockKind.Scope => ScopeBlock.Of,
            BlockKind.Theirs => TheirsBlock.Of,
            BlockKind.Exclusions => ExclusionsBlock.Of,
            BlockKind.Year => YearBlock.Of,
            BlockKind.Price => PriceBlock.Of,
            BlockKind.Options => OptionsBlock.Of,
            BlockKind.Payment => PaymentBlock.Of,
            BlockKind.Time => TimeBlock.Of,
            BlockKind.Signatures => SignaturesBlock.Of,
            BlockKind.Pictures => _ => PicturesBlock.Of(block),
            BlockKind.Attachments => _ => AttachmentsBlock.Of(block),
            BlockKind.Estimates => writing => EstimatesBlock.Of(block, writing),
            _ => _ => [],
        };

    /// <summary>Whether it is read only where there is something reckoned to be told.</summary>
    public static bool IsReckoned(BlockKind kind) =>
        kind
            is BlockKind.Scope
                or BlockKind.Theirs
                or BlockKind.Year
                or BlockKind.Price
                or BlockKind.Options
                or BlockKind.Payment
                or BlockKind.Time
                or BlockKind.Signatures
                or BlockKind.Pictures
                or BlockKind.Attachments
                or BlockKind.Estimates;

    /// <summary>Its usual heading; empty where it has none.</summary>
    public static string Title(BlockKind kind, Writing writing) =>
        kind switch
        {
            BlockKind.Cover or BlockKind.Letter or BlockKind.Signatures => "",
            BlockKind.Price when !writing.Estimate.Price.Occurrences.IsEmpty => "Price of the first year",
            _ => BlockNames.Of(kind),
        };
}
