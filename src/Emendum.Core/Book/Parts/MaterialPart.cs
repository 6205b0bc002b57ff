using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Goods, in the unit they are used in.</summary>
public sealed class MaterialPart() : KindOfPart<Material>("material")
{
    /// <inheritdoc/>
    public override ComponentKind Kind => ComponentKind.Material;

    /// <inheritdoc/>
    public override CostClass Class => CostClass.Material;

    /// <inheritdoc/>
    public override bool IsGoods => true;

    /// <inheritdoc/>
    public override bool AmountOnce => true;

    /// <inheritdoc/>
    public override Unit UnitOf(Component part, BookEntry? entry) => ((Material)entry!).Unit;

    /// <inheritdoc/>
    public override Ratio? Density(BookEntry? entry) => ((Material)entry!).Density;

    /// <inheritdoc/>
    public override decimal Waste(BookEntry? entry) => ((Material)entry!).WastePercent;

    /// <inheritdoc/>
    public override decimal Factor(Condition condition) => condition.Material;
}
