using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Delivery;

/// <summary>Goods as stock counts them: a material in a colour, in its unit of use (rule S1). Capitals do not tell two colours apart.</summary>
/// <param name="Material">The material.</param>
/// <param name="Colour">Colour; empty for none.</param>
/// <param name="Unit">Symbol of its unit of use; empty for pieces.</param>
public sealed record GoodsKey(Guid Material, string Colour, string Unit)
{
    /// <summary>The same for all ways to write it.</summary>
    [JsonIgnore]
    public string Text => $"{Material}/{Unit}/{Colour.Trim().ToLowerInvariant()}";

    /// <summary>A name with the colour, where there is one.</summary>
    public string Named(string name) => Colour.Length > 0 ? $"{name}, {Colour}" : name;

    /// <inheritdoc/>
    public bool Equals(GoodsKey? other) => other is not null && Text == other.Text;

    /// <inheritdoc/>
    public override int GetHashCode() => StringComparer.Ordinal.GetHashCode(Text);
}

/// <summary>What one line takes of some goods.</summary>
/// <param name="Work">The work item.</param>
/// <param name="Place">The place.</param>
/// <param name="Need">How much, with waste and what is left with the customer.</param>
public sealed record GoodsOfLine(Guid Work, Guid Place, decimal Need);

/// <summary>Goods that a job was agreed to take, as the estimate would buy them. Money is as the packs of the Book have it, with or without tax as they are.</summary>
/// <param name="Material">The material.</param>
/// <param name="Name">Brand and name.</param>
/// <param name="Colour">Colour; empty for none.</param>
/// <param name="Unit">Symbol of its unit of use; empty for pieces.</param>
/// <param name="Need">How much, with waste and what is left with the customer.</param>
/// <param name="Minimum">Least quantity of an order; 0 for none.</param>
/// <param name="Packs">What it is sold in.</param>
/// <param name="Supplier">Who sells it; empty where the Book does not say.</param>
/// <param name="Code">The supplier's code; empty for none.</param>
/// <param name="Delivery">Money for a delivery of it; the dearest of a supplier counts once.</param>
/// <param name="Buys">The packs that were estimated, in words.</param>
/// <param name="Cost">What they were to cost.</param>
/// <param name="DeliveryCost">What was estimated for a delivery with it.</param>
public sealed record AgreedGoods(
    Guid Material,
    string Name,
    string Colour,
    string Unit,
    decimal Need,
    decimal Minimum,
    ImmutableArray<Pack> Packs,
    string Supplier,
    string Code,
    decimal Delivery,
    string Buys,
    decimal Cost,
    decimal DeliveryCost
)
{
    /// <summary>What each line takes of it, where that is known; what comes once for a work item, or is mixed, belongs to no line.</summary>
    public ImmutableArray<GoodsOfLine> Lines { get; init; } = [];

    /// <summary>What counted for it as cost of the job, with delivery and with tax that does not come back, by need or as bought as the job has it.</summary>
    public decimal Counted { get; init; }

    /// <summary>How much it was for, where goods count by need: without what is left with the customer.</summary>
    public decimal NeedCounted { get; init; }

    /// <summary>What that was before tax that does not come back, or with tax that does: as packs are priced.</summary>
    public decimal CountedAsPriced { get; init; }

    /// <summary>What one of money as packs are priced counts for.</summary>
    [JsonIgnore]
    public decimal CountsFor => CountedAsPriced == 0 ? 1 : Counted / CountedAsPriced;

    /// <summary>By which stock counts them.</summary>
    [JsonIgnore]
    public GoodsKey Key => new(Material, Colour, Unit);

    /// <summary>Those of an estimate that was agreed, in order of first use.</summary>
    public static ImmutableArray<AgreedGoods> Of(Estimate agreed)
    {
        var rules = CostRules.Of(agreed.Job, Trace.Silent);
        return
        [
            .. agreed
                .Reckoned.Costs.Buying.Where(b => b.Need.V > 0)
                .Select(b =>
                    Of(b.Material, b.Colour) with
                    {
                        Need = Rounding.Kept(b.Need.V * (100m + b.Material.Rules.SparePercent) / 100m),
                        Buys = b.PacksAlone,
                        Cost = Rounding.Kept(b.BoughtCost.V),
                        DeliveryCost = Rounding.Kept(b.Delivery?.V ?? 0),
                        Lines = [.. LinesOf(b, agreed)],
                        NeedCounted = Rounding.Kept(b.Need.V),
                        Counted = Rounding.Kept(rules.Goods(b).V),
                        CountedAsPriced = Rounding.Kept(b.Cost(rules.By).V),
                    }
                ),
        ];
    }

    private static IEnumerable<GoodsOfLine> LinesOf(Purchase bought, Estimate agreed) =>
        from line in agreed.Reckoned.Lines
        where !line.IsNothing && line.Supply == Supply.We
        let need = line
            .Item.Parts.Select((part, i) => (Part: part, Amount: line.Amounts[i].V))
            .Where(x => x.Part.Entry.Id == bought.Material.Id && x.Part.Colour == bought.Colour)
            .Sum(x => x.Amount)
        where need > 0
        select new GoodsOfLine(
            line.OfItem.Item.Id,
            line.Measures.Place.Id,
            Rounding.Kept(need * (100m + bought.Material.Rules.SparePercent) / 100m)
        );

    /// <summary>What should have been used for what is done: of each line its part. Null where lines do not say all of the need, or come back visit by visit.</summary>
    /// <param name="log">What is done.</param>
    public decimal? ForDone(SiteLog log)
    {
        if (Need == 0 || Rounding.ForCompare(decimal.Round(Lines.Sum(l => l.Need) - Need, 4)) != 0)
            return null;
        var sum = 0m;
        foreach (var of in Lines)
        {
            if (log.Order.Line(of.Work, of.Place) is not { IsOnce: true } line)
                return null;
            sum += of.Need * log.PercentOf(line) / 100m;
        }
        return Rounding.Kept(sum);
    }

    /// <summary>A material of the Book of which nothing was agreed.</summary>
    public static AgreedGoods Of(Material material, string colour) =>
        new(
            material.Id,
            Called(material),
            colour,
            material.Unit.Symbol,
            0,
            material.Rules.Minimum,
            material.Packs,
            material.Supplier,
            material.Code,
            material.Rules.Delivery,
            "",
            0,
            0
        );

    /// <summary>Goods by brand and name.</summary>
    internal static string Called(BookEntry goods) =>
        goods is Material { Brand.Length: > 0 } of ? $"{of.Brand} {of.Name}" : goods.Name;
}
