using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>What a block of the proposal says.</summary>
public enum BlockKind
{
    /// <summary>A first page with nothing else on it.</summary>
    Cover,

    /// <summary>A letter to the customer.</summary>
    Letter,

    /// <summary>Who the firm is.</summary>
    About,

    /// <summary>What we will do.</summary>
    Scope,

    /// <summary>What the customer will do.</summary>
    Theirs,

    /// <summary>What is not included, and why.</summary>
    Exclusions,

    /// <summary>A year of a round.</summary>
    Year,

    /// <summary>The price.</summary>
    Price,

    /// <summary>Options and choices.</summary>
    Options,

    /// <summary>Payment steps.</summary>
    Payment,

    /// <summary>How long it takes.</summary>
    Time,

    /// <summary>What to expect while the work is done.</summary>
    Expect,

    /// <summary>Terms.</summary>
    Terms,

    /// <summary>Other words, under a heading of their own.</summary>
    Words,

    /// <summary>Pictures with captions.</summary>
    Pictures,

    /// <summary>Files that go with it.</summary>
    Attachments,

    /// <summary>Further estimates of the customer, accepted together with this one.</summary>
    Estimates,

    /// <summary>Where both sign.</summary>
    Signatures,
}

/// <summary>A block of the proposal as it is set in a job: what it says, where it stands, and whose words it has. What it then reads is made by <c>Proposals</c>.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What it says.</param>
/// <param name="Rank">Sort key among the blocks.</param>
public sealed record ProposalBlock(Guid Id, BlockKind Kind, string Rank)
{
    /// <summary>Most blocks of a proposal.</summary>
    public const int Most = 60;

    /// <summary>Most characters of the words of a block.</summary>
    public const int MostWords = 20_000;

    /// <summary>A heading of its own; empty for the usual one.</summary>
    public string Title { get; init; } = "";

    /// <summary>The pinned text of the Book whose words it has; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Text { get; init; }

    /// <summary>Words of this job alone; null where it has those of the Book, or none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Words { get; init; }

    /// <summary>Pictures or attachments, in order; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<BlockFile>? Files { get; init; }

    /// <summary>Other jobs of the same customer whose estimates go out with this one, in order; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<Guid>? Estimates { get; init; }

    /// <summary>Most further estimates in one proposal.</summary>
    public const int MostEstimates = 9;

    /// <summary>Most pictures in a row; null for the usual <see cref="UsualAcross"/>.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? Across { get; init; }

    /// <summary>How many pictures usually stand in a row.</summary>
    public const int UsualAcross = 2;

    /// <summary>Whether the customer does not read it.</summary>
    public bool Hidden { get; init; }

    /// <summary>Whether it begins on a new page.</summary>
    public bool NewPage { get; init; }

    /// <summary>Whether a proposal may have several of a kind: of those that are nothing but words or pictures.</summary>
    public static bool Several(BlockKind kind) =>
        kind is BlockKind.Expect or BlockKind.Terms or BlockKind.Words or BlockKind.Pictures;

    /// <summary>The texts of the Book that a block of a kind may have; null for any.</summary>
    public static TextUse? Use(BlockKind kind) =>
        kind switch
        {
            BlockKind.Cover => TextUse.Cover,
            BlockKind.Letter => TextUse.Letter,
            BlockKind.About => TextUse.About,
            BlockKind.Scope => TextUse.Scope,
            BlockKind.Exclusions => TextUse.Exclusions,
            BlockKind.Expect => TextUse.WhatToExpect,
            BlockKind.Terms => TextUse.Terms,
            _ => null,
        };

    /// <summary>Id of the block of a kind that every job starts with.</summary>
    public static Guid First(BlockKind kind) => DerivedId.Of($"proposal/{kind}");

    /// <summary>The blocks a job starts with. What is empty is not printed.</summary>
    public static readonly ImmutableArray<ProposalBlock> Starting =
    [
        Start(BlockKind.Letter, "1"),
        Start(BlockKind.Scope, "2"),
        Start(BlockKind.Theirs, "3"),
        Start(BlockKind.Exclusions, "4"),
        Start(BlockKind.Year, "5"),
        Start(BlockKind.Price, "6"),
        Start(BlockKind.Options, "7"),
        Start(BlockKind.Payment, "8"),
        Start(BlockKind.Expect, "9"),
        Start(BlockKind.Terms, "a"),
        Start(BlockKind.Signatures, "b"),
    ];

    private static ProposalBlock Start(BlockKind kind, string rank) => new(First(kind), kind, rank);

    /// <summary>Checks the blocks of one proposal.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public static void Check(ImmutableArray<ProposalBlock> blocks)
    {
        if (blocks.Length > Most)
            throw RefusedException.Of("blocks", $"A proposal has at most {Most} blocks.");
        foreach (var block in blocks)
            block.Check();
        if (blocks.GroupBy(b => b.Kind).FirstOrDefault(of => of.Count() > 1 && !Several(of.Key)) is { } twice)
            throw RefusedException.Of("kind", $"A proposal has one block “{BlockNames.Of(twice.Key)}”.");
    }

    private void Check()
    {
        if (Title.Length > 200)
            throw RefusedException.Of("title", "A heading is at most 200 characters.");
        if (Words?.Length > MostWords)
            throw RefusedException.Of("words", $"The words of a block are at most {MostWords:#,0} characters.");
        if (Kind == BlockKind.Words && string.IsNullOrWhiteSpace(Title))
            throw RefusedException.Of("title", "Words of your own need a heading.");
        BlockFile.Check(Kind, Files ?? []);
        if (Estimates is { Length: > 0 } estimates)
        {
            if (Kind != BlockKind.Estimates)
                throw RefusedException.Of("estimates", $"“{BlockNames.Of(Kind)}” holds no estimates.");
            if (estimates.Length > MostEstimates || estimates.Distinct().Count() != estimates.Length)
                throw RefusedException.Of("estimates", $"Each estimate once, and at most {MostEstimates}.");
        }
        if (Across is not (null or 1 or 2 or 3))
            throw RefusedException.Of("across", "One, two or three pictures in a row.");
    }
}
