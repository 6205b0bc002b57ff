using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>What a component of an assembly costs as.</summary>
public enum ComponentKind
{
    Labour,
    Material,
    Equipment,
    Subcontract,
    Charge,
}

/// <summary>What holds of every part of one kind, before anybody reckons: what it is made from, what its amount is, what scales it.
/// What its amounts cost is said on the side of the reckoning (<c>Reckoning/Parts</c>).</summary>
public abstract class KindOfPart
{
    /// <summary>The closed set, in the order of <see cref="ComponentKind"/>.</summary>
    private static readonly ImmutableArray<KindOfPart> All =
    [
        new LabourPart(),
        new MaterialPart(),
        new EquipmentPart(),
        new SubcontractPart(),
        new ChargePart(),
    ];

    /// <summary>What holds of a kind.</summary>
    public static KindOfPart Of(ComponentKind kind) => All[(int)kind];

    /// <summary>Which kind.</summary>
    public abstract ComponentKind Kind { get; }

    /// <summary>Its name in files and lists.</summary>
    public string Name => Kind.ToString().ToLowerInvariant();

    /// <summary>What it costs as.</summary>
    public abstract CostClass Class { get; }

    /// <summary>Whether its amount is labour hours.</summary>
    public virtual bool IsLabour => false;

    /// <summary>Whether it is goods: spread in coats, lost in part as waste, and the customer's where the customer supplies the material.</summary>
    public virtual bool IsGoods => false;

    /// <summary>Whether it can be there while a crew works.</summary>
    public virtual bool FollowsCrew => false;

    /// <summary>Whether it must be said how much of it comes once.</summary>
    public virtual bool AmountOnce => false;

    /// <summary>Unit of its amount.</summary>
    public abstract Unit UnitOf(Component part, BookEntry? entry);

    /// <summary>What turns its mass into a volume and back; null where there is no such thing.</summary>
    public virtual Ratio? Density(BookEntry? entry) => null;

    /// <summary>Waste that its entry brings, percent.</summary>
    public virtual decimal Waste(BookEntry? entry) => 0;

    /// <summary>What a condition makes of its amount.</summary>
    public virtual decimal Factor(Condition condition) => 1;

    /// <summary>The entry it is made from, if any.</summary>
    /// <exception cref="RefusedException">It is not there, or of another kind.</exception>
    internal abstract BookEntry? Entry(Component part, string field, BookCheck check);
}

/// <summary>A kind that is made from an entry of the Book.</summary>
/// <param name="what">What that entry is called.</param>
public abstract class KindOfPart<TEntry>(string what) : KindOfPart
    where TEntry : BookEntry
{
    /// <inheritdoc/>
    internal sealed override BookEntry Entry(Component part, string field, BookCheck check) =>
        check.Needed<TEntry>(part.Entry ?? Guid.Empty, field, what);
}
