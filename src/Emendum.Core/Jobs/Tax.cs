using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>What a tax can fall on: a class of cost with what the price puts on it, or what has a price of its own.</summary>
public enum TaxOn
{
    Labour,
    Material,
    Equipment,
    Subcontract,
    Fixed,
    PriceOnly,
}

/// <summary>How a firm has to do with a tax.</summary>
public enum TaxWay
{
    /// <summary>It charges it on the price; what it paid itself stays a cost, and what was bought with tax is not taxed again.</summary>
    Charged,

    /// <summary>It charges it on the price, and what it paid itself it gets back.</summary>
    Reclaimed,

    /// <summary>It pays it on what it buys, as part of the cost before markup, and charges none.</summary>
    Paid,
}

/// <summary>A tax by its rate. Rates on one amount add up; none falls on another tax.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">As the customer reads it.</param>
/// <param name="Rate">Percent.</param>
/// <param name="On">What it falls on.</param>
/// <param name="Way">How the firm has to do with it.</param>
public sealed record Tax(Guid Id, string Name, decimal Rate, ImmutableArray<TaxOn> On, TaxWay Way)
{
    /// <summary>Id of the tax that every job begins with, and of the one tax that jobs of older versions had.</summary>
    public static readonly Guid First = DerivedId.Of("tax/first");

    /// <summary>All that a tax can fall on.</summary>
    public static readonly ImmutableArray<TaxOn> Everything = [.. Enum.GetValues<TaxOn>()];

    /// <summary>Whether it is charged to the customer.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsCharged => Way != TaxWay.Paid;

    /// <summary>What a tax on a class of cost is called.</summary>
    public static TaxOn Of(CostClass of) => (TaxOn)(int)of;

    internal void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 60)
            throw RefusedException.Of("taxes", "A tax has a name of at most 60 characters.");
        if (Rate is < 0 or >= 100)
            throw RefusedException.Of("taxes", $"{Name}: a rate is 0 to under 100 percent.");
        if (On.Distinct().Count() != On.Length)
            throw RefusedException.Of("taxes", $"{Name}: what it falls on stands twice.");
        if (Way == TaxWay.Paid && On.Any(o => o is not (TaxOn.Material or TaxOn.Equipment or TaxOn.Subcontract)))
            throw RefusedException.Of(
                "taxes",
                $"{Name}: tax that is paid on purchases falls on materials, equipment and subcontracts."
            );
    }
}

/// <summary>Kinds of reason for which a customer is charged no tax, as EN 16931 tells them apart.</summary>
public enum ExemptKind
{
    /// <summary>Category E.</summary>
    Exempt,

    /// <summary>Category AE: the customer owes the tax.</summary>
    ReverseCharge,

    /// <summary>Category O: outside the scope of the tax.</summary>
    Outside,
}

/// <summary>Why no tax is charged to a customer.</summary>
public sealed record Exemption(ExemptKind Kind, string Reason)
{
    /// <summary>Checks that there is a reason.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Reason) || Reason.Length > 200)
            throw RefusedException.Of("exemption", "Say in at most 200 characters why no tax is charged.");
    }
}
