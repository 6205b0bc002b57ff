using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Hours of a machine, or visits where they are what is counted.</summary>
public sealed class EquipmentPart() : KindOfPart<Equipment>("equipment")
{
    /// <inheritdoc/>
    public override ComponentKind Kind => ComponentKind.Equipment;

    /// <inheritdoc/>
    public override CostClass Class => CostClass.Equipment;

    /// <inheritdoc/>
    public override bool FollowsCrew => true;

    /// <summary>Hours; visits where the rate gives those, and the one day or visit of a machine that comes once for no time that was said.</summary>
    public override Unit UnitOf(Component part, BookEntry? entry)
    {
        var per = ((Equipment)entry!).Per;
        var counted = part.Ratio is { } ratio
            ? per == EquipmentPer.Visit
                && part.Crew is null
                && ratio.UnitA.Kind != Quantities.Kind.Time
                && ratio.UnitB.Kind != Quantities.Kind.Time
            : part.Once && per != EquipmentPer.Hour;
        return counted ? Unit.Each : Unit.Hour;
    }

    /// <inheritdoc/>
    public override decimal Factor(Condition condition) => condition.Equipment;
}
