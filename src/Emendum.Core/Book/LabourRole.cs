using System.Collections.Immutable;
using Emendum.Core.Figures;

namespace Emendum.Core.Book;

/// <summary>A named addition to a wage: a percent of it or money per hour.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Percent">Percent of the wage; or</param>
/// <param name="PerHour">money per hour.</param>
public sealed record BurdenItem(string Name, decimal? Percent, decimal? PerHour)
{
    /// <summary>Whether it grows with premiums, as social insurance on overtime does.</summary>
    public bool FollowsPremiums { get; init; } = true;
}

/// <summary>A multiplier on the wage for a share of the hours: overtime, night work, a required rate.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Multiplier">On the wage: 1.5 for time and a half.</param>
/// <param name="SharePercent">Percent of the hours it falls on.</param>
public sealed record Premium(string Name, decimal Multiplier, decimal SharePercent)
{
    /// <summary>Whether it is sold on: it multiplies the charge rate, too, for its share of the hours.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingDefault
    )]
    public bool SoldOn { get; init; }
}

/// <summary>A labour role. Loaded cost = wage · (1 + Σ%) + Σ per hour, with premiums on their share of the hours.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Wage">Money per hour.</param>
/// <param name="Burden">Named items.</param>
public sealed record LabourRole(Guid Id, int Version, string Name, decimal Wage, ImmutableArray<BurdenItem> Burden)
    : BookEntry(Id, Version, Name)
{
    /// <summary>Premiums that usually fall on some of its hours.</summary>
    public ImmutableArray<Premium> Premiums { get; init; } = [];

    /// <summary>Money per hour a customer pays where work is sold by the hour.</summary>
    public decimal? SellRate { get; init; }

    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Lack> Lacks => Lack.Of((Wage == 0, "wage", "a wage above zero"));

    internal override void Check(BookCheck check)
    {
        if (Wage < 0)
            throw check.Wrong("wage", "the wage must be more than zero.");
        check.Most(Burden.Length, 40, "burden", "items of burden");
        check.Most(Premiums.Length, 20, "premiums", "premiums");
        for (var i = 0; i < Burden.Length; i++)
        {
            var item = Burden[i];
            if (string.IsNullOrWhiteSpace(item.Name) || item.Name.Length > 120)
                throw check.Wrong($"burden[{i}].name", "a burden item needs a name.");
            if (item.Percent is null == item.PerHour is null || item.Percent < 0 || item.PerHour < 0)
                throw check.Wrong(
                    $"burden[{i}].percent",
                    "a burden item is a percent or money per hour, not below zero."
                );
        }
        for (var i = 0; i < Premiums.Length; i++)
        {
            if (string.IsNullOrWhiteSpace(Premiums[i].Name))
                throw check.Wrong($"premiums[{i}].name", "a premium needs a name.");
            if (Premiums[i].Multiplier is < 1 or > 10)
                throw check.Wrong($"premiums[{i}].multiplier", "a premium multiplies the wage by 1 to 10.");
            if (Premiums[i].SharePercent is < 0 or > 100)
                throw check.Wrong($"premiums[{i}].sharePercent", "a share of the hours is 0 to 100 percent.");
        }
        if (Premiums.Sum(p => p.SharePercent) > 100)
            throw check.Wrong("premiums", "the shares of all premiums are at most 100 percent of the hours.");
        if (SellRate < 0)
            throw check.Wrong("sellRate", "a sell rate is not below zero.");
    }
}
