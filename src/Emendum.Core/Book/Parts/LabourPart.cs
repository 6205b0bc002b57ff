using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Hours of a role.</summary>
public sealed class LabourPart() : KindOfPart<LabourRole>("role")
{
    /// <inheritdoc/>
    public override ComponentKind Kind => ComponentKind.Labour;

    /// <inheritdoc/>
    public override CostClass Class => CostClass.Labour;

    /// <inheritdoc/>
    public override bool IsLabour => true;

    /// <inheritdoc/>
    public override bool AmountOnce => true;

    /// <inheritdoc/>
    public override Unit UnitOf(Component part, BookEntry? entry) => Unit.Hour;

    /// <inheritdoc/>
    public override decimal Factor(Condition condition) => condition.Labour;
}
