using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>How finely something is shown.</summary>
public enum Detail
{
    Total,
    Section,
    Place,
    Line,

    /// <summary>By sentences that bundle sections.</summary>
    Headline,

    /// <summary>By the rows of the customer's own schedule of quantities.</summary>
    Schedule,
}

/// <summary>A sentence that stands for the work of some sections, with one price for all of it.</summary>
/// <param name="Words">The sentence.</param>
/// <param name="Sections">The sections; one that is gone counts no more.</param>
public sealed record Headline(string Words, ImmutableArray<Guid> Sections);

/// <summary>How much the customer sees. What stands in the proposal, and in which order, is its blocks (<see cref="ProposalBlock"/>).</summary>
/// <param name="Detail">How finely the price is shown.</param>
/// <param name="Coats">Whether coats are named.</param>
/// <param name="ValidDays">How many days the price holds.</param>
public sealed record ProposalTerms(Detail Detail, bool Coats, int ValidDays)
{
    /// <summary>How what we will do is told: by section, by place or by line.</summary>
    public Detail ScopeBy { get; init; } = Detail.Section;

    /// <summary>Whether quantities are shown.</summary>
    public bool Quantities { get; init; }

    /// <summary>Whether unit prices are shown, where the price is by line; what they do not come to stands in rows of its own.</summary>
    public bool UnitPrices { get; init; }

    /// <summary>Whether products are named.</summary>
    public bool Products { get; init; }

    /// <summary>Whether colours are named.</summary>
    public bool Colours { get; init; } = true;

    /// <summary>Whether hours are shown.</summary>
    public bool Hours { get; init; }

    /// <summary>Most headlines.</summary>
    public const int MostHeadlines = 40;

    /// <summary>Headlines, where the price is by them; a section that is in none stands by itself.</summary>
    public ImmutableArray<Headline> Headlines { get; init; } = [];

    /// <summary>Checks days, and headlines.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (ValidDays is < 1 or > 3650)
            throw RefusedException.Of("validDays", "A price holds for 1 to 3650 days.");
        if (Headlines.Length > MostHeadlines)
            throw RefusedException.Of("headlines", $"At most {MostHeadlines} headlines.");
        foreach (var headline in Headlines)
            if (string.IsNullOrWhiteSpace(headline.Words) || headline.Words.Length > 500)
                throw RefusedException.Of("headlines", "A headline is a sentence of at most 500 characters.");
        if (Headlines.SelectMany(h => h.Sections).GroupBy(s => s).Any(of => of.Count() > 1))
            throw RefusedException.Of("headlines", "A section stands under one headline.");
        if (ScopeBy is Detail.Total or Detail.Headline or Detail.Schedule)
            throw RefusedException.Of("scopeBy", "What we will do is told by section, by place or by line.");
    }
}
