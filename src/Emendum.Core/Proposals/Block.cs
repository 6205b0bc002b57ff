using System.Collections.Immutable;
using System.Text.Json.Serialization;
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
/// <param name="Title">What it is called, and its heading where it has one.</param>
/// <param name="IsTitled">Whether it has a heading.</param>
/// <param name="Hidden">Whether the customer does not read it.</param>
/// <param name="NewPage">Whether it begins on a new page.</param>
/// <param name="WordsOf">Whose words it has.</param>
/// <param name="Words">The words.</param>
/// <param name="Made">What is reckoned; empty where it is nothing but words, or where there is nothing to tell.</param>
public sealed record Block(
    Guid Id,
    BlockKind Kind,
    string Title,
    bool IsTitled,
    bool Hidden,
    bool NewPage,
    WordsOf WordsOf,
    ImmutableArray<Element> Words,
    ImmutableArray<Element> Made
)
{
    /// <summary>Figures that its words name and that come to nothing here.</summary>
    public ImmutableArray<string> Missing { get; init; } = [];

    /// <summary>Whether its words come after what is reckoned.</summary>
    public bool WordsAfter => Kind == BlockKind.Exclusions;

    /// <summary>Whether there is something to read. The words of what is reckoned say nothing by themselves: where there is no year, nobody reads about one.</summary>
    public bool HasSomething =>
        Kind == BlockKind.Cover || (KindsOfBlock.IsReckoned(Kind) ? !Made.IsEmpty : !Words.IsEmpty || !Made.IsEmpty);

    /// <summary>Whether the customer reads it.</summary>
    public bool IsRead => !Hidden && HasSomething;

    /// <summary>All of it in reading order, its heading first.</summary>
    [JsonIgnore]
    public IEnumerable<Element> Elements
    {
        get
        {
            if (IsTitled)
                yield return new Heading(1, Title);
            foreach (var element in WordsAfter ? Made.Concat(Words) : Words.Concat(Made))
                yield return element;
        }
    }
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
    [JsonIgnore]
    public IEnumerable<Element> Elements => Blocks.Where(b => b.IsRead).SelectMany(b => b.Elements);
}
