using System.Text.Json.Serialization;

namespace Emendum.Core.Work;

/// <summary>How the price follows from the cost (estimating model §7).</summary>
public enum PriceBasis
{
    /// <summary>Cost with a markup by class, overhead, contingency and profit on it.</summary>
    Markup,

    /// <summary>Cost ÷ (1 − margin).</summary>
    TargetMargin,

    /// <summary>Hours at a charge rate; the rest with its markups.</summary>
    SellRate,

    /// <summary>Quantity at a price for its unit.</summary>
    UnitPrice,

    /// <summary>A typed price.</summary>
    Fixed,
}

/// <summary>How one section is priced instead of as the job; what is null is as the job has it.</summary>
public sealed record OwnBasis(PriceBasis Basis)
{
    /// <summary>Its price, where that is fixed, in the job's currency.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? FixedPrice { get; init; }

    /// <summary>Its charge rate per hour.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? SellRate { get; init; }

    /// <summary>Its margin, percent.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? TargetMargin { get; init; }

    /// <summary>Its profit markup, percent.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? Profit { get; init; }
}
