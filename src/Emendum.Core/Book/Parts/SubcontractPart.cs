using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Work of another firm, in the unit it is charged by.</summary>
public sealed class SubcontractPart() : KindOfPart<Subcontract>("subcontract")
{
    /// <inheritdoc/>
    public override ComponentKind Kind => ComponentKind.Subcontract;

    /// <inheritdoc/>
    public override CostClass Class => CostClass.Subcontract;

    /// <inheritdoc/>
    public override Unit UnitOf(Component part, BookEntry? entry) => ((Subcontract)entry!).Unit;
}
