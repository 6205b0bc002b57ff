using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Money for each of so many, without an entry of its own.</summary>
public sealed class ChargePart : KindOfPart
{
    /// <inheritdoc/>
    public override ComponentKind Kind => ComponentKind.Charge;

    /// <inheritdoc/>
    public override CostClass Class => CostClass.Fixed;

    /// <inheritdoc/>
    public override Unit UnitOf(Component part, BookEntry? entry) => Unit.Each;

    /// <inheritdoc/>
    internal override BookEntry? Entry(Component part, string field, BookCheck check) => null;
}
