using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>How the firm makes proposals of a kind: which blocks, with which texts, and how much they show. A job takes one with a copy of it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Trade">The trade it is for, in the firm's words; empty for any.</param>
/// <param name="Terms">How much is shown.</param>
/// <param name="Blocks">The blocks, in the order in which they stand here; none has words of a job.</param>
public sealed record ProposalPattern(
    Guid Id,
    string Name,
    string Trade,
    ProposalTerms Terms,
    ImmutableArray<ProposalBlock> Blocks
)
{
    /// <summary>Refuses what no pattern is.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 120)
            throw RefusedException.Of("name", "A pattern has a name of at most 120 characters.");
        if (Trade.Length > 120)
            throw RefusedException.Of("trade", "A trade is at most 120 characters.");
        if (Blocks.IsEmpty)
            throw RefusedException.Of("blocks", "A pattern has a block at the least.");
        if (Blocks.Select(b => b.Id).Distinct().Count() != Blocks.Length)
            throw RefusedException.Of("blocks", "A block stands twice.");
        ProposalBlock.Check(Blocks);
        Terms.Check();
    }
}

/// <summary>The firm's patterns, and which of them new jobs take.</summary>
public sealed record ProposalPatterns(ImmutableArray<ProposalPattern> All, Guid Usual)
{
    /// <summary>Name of the firm's setting.</summary>
    public const string Setting = "proposalPatterns";

    /// <summary>What a firm starts with.</summary>
    public static readonly ProposalPatterns Starting = Made();

    private static ProposalPatterns Made()
    {
        static ProposalPattern Pattern(string name, ProposalTerms terms, params BlockKind[] kinds) =>
            new(
                DerivedId.Of($"pattern/{name}"),
                name,
                "",
                terms,
                kinds.Length == 0
                    ? ProposalBlock.Starting
                    : [.. kinds.Select(k => new ProposalBlock(ProposalBlock.First(k), k, ""))]
            );
        var usual = Pattern("Usual", new(Detail.Section, true, 30));
        return new(
            [
                usual,
                Pattern(
                    "Headlines only",
                    new(Detail.Headline, false, 30),
                    BlockKind.Letter,
                    BlockKind.Price,
                    BlockKind.Terms,
                    BlockKind.Signatures
                ),
                Pattern(
                    "One page",
                    new(Detail.Total, false, 30),
                    BlockKind.Letter,
                    BlockKind.Scope,
                    BlockKind.Price,
                    BlockKind.Signatures
                ),
                Pattern(
                    "Full",
                    new(Detail.Place, true, 30) { Products = true },
                    BlockKind.Cover,
                    BlockKind.Letter,
                    BlockKind.About,
                    BlockKind.Scope,
                    BlockKind.Theirs,
                    BlockKind.Exclusions,
                    BlockKind.Year,
                    BlockKind.Price,
                    BlockKind.Options,
                    BlockKind.Payment,
                    BlockKind.Time,
                    BlockKind.Expect,
                    BlockKind.Terms,
                    BlockKind.Signatures
                ),
                Pattern(
                    "Tender",
                    new(Detail.Line, true, 60)
                    {
                        ScopeBy = Detail.Line,
                        Quantities = true,
                        UnitPrices = true,
                    },
                    BlockKind.Scope,
                    BlockKind.Theirs,
                    BlockKind.Exclusions,
                    BlockKind.Price,
                    BlockKind.Options,
                    BlockKind.Terms,
                    BlockKind.Signatures
                ),
            ],
            usual.Id
        );
    }

    /// <summary>What new jobs take.</summary>
    public ProposalPattern OfNewJobs() => All.First(p => p.Id == Usual);

    /// <summary>Refuses what cannot be kept.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        NamedOnes.Check(All, Usual, p => p.Id, p => p.Name, "pattern", "patterns of proposals", "pattern");
        foreach (var pattern in All)
            pattern.Check();
    }
}
