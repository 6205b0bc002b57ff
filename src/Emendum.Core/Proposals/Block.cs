using System.Collections.Immutable;
using Emendum.Core.Jobs;

namespace Emendum.Core.Proposals;

/// <summary>Whose words a block has.</summary>
public enum WordsOf
{
    /// <summary>It has none.</summary>
    Nobody,

    /// <summary>Those of a text of the Book.</summary>
    Book,

    /// <summary>The job's own.</summary>
    Job,
}

/// <summary>A block of the proposal as the customer reads it.</summary>
/// <param name="Id">Its id in the job.</param>
/// <param name="Kind">What it says.</param>
/// <param name="Title">Its heading.</param>
/// <param name="Hidden">Whether the customer does not read it.</param>
/// <param name="NewPage">Whether it begins on a new page.</param>
/// <param name="WordsOf">Whose words it has.</param>
/// <param name="Elements">What it is made of; empty where there is nothing to say: then it is not printed.</param>
public sealed record Block(
    Guid Id,
    BlockKind Kind,
    string Title,
    bool Hidden,
    bool NewPage,
    WordsOf WordsOf,
    ImmutableArray<Element> Elements
)
{
    /// <summary>Figures that its words name and that come to nothing here.</summary>
    public ImmutableArray<string> Missing { get; init; } = [];

    /// <summary>Whether the customer reads it.</summary>
    public bool IsRead => !Hidden && !Elements.IsEmpty;
}

/// <summary>Who writes to whom, about what, when.</summary>
public sealed record Letterhead(
    string Firm,
    string FirmAddress,
    string Slogan,
    string Customer,
    string CustomerAddress,
    string Title,
    string Subtitle,
    string Reference,
    string Validity
);

/// <summary>The whole proposal.</summary>
/// <param name="Head">What stands at its head.</param>
/// <param name="Blocks">All blocks, in order, also those that are not read.</param>
public sealed record Document(Letterhead Head, ImmutableArray<Block> Blocks)
{
    /// <summary>What the customer reads, in order.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IEnumerable<Element> Elements => Blocks.Where(b => b.IsRead).SelectMany(b => b.Elements);
}
