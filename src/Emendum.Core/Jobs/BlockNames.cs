namespace Emendum.Core.Jobs;

/// <summary>What blocks of the proposal are called, in lists and where they have no heading of their own.</summary>
public static class BlockNames
{
    /// <summary>Its name.</summary>
    public static string Of(BlockKind kind) =>
        kind switch
        {
            BlockKind.Cover => "Cover",
            BlockKind.Letter => "Letter",
            BlockKind.About => "About us",
            BlockKind.Scope => "What we will do",
            BlockKind.Theirs => "What you will do",
            BlockKind.Exclusions => "What is not included",
            BlockKind.Year => "A year of it",
            BlockKind.Price => "Price",
            BlockKind.Options => "Your choices",
            BlockKind.Payment => "Payment steps",
            BlockKind.Time => "How long it takes",
            BlockKind.Expect => "What to expect",
            BlockKind.Terms => "Terms",
            BlockKind.Pictures => "Pictures",
            BlockKind.Attachments => "Attached",
            BlockKind.Estimates => "Further estimates",
            BlockKind.Signatures => "Signatures",
            _ => "Words of your own",
        };
}
