using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Work;

/// <summary>An answer to a question of an assembly.</summary>
public sealed record Answer(Guid Question, decimal Value)
{
    /// <summary>The unit it was given in; null for the question's own.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public Unit? Unit { get; init; }
}

/// <summary>A role in the work of an assembly, and who does its part in this job instead.</summary>
public sealed record RoleInstead(Guid Role, Guid Instead);

/// <summary>Goods in the parts of an assembly, and what is taken in this job instead.</summary>
public sealed record ProductInstead(Guid Product, Guid Instead);

/// <summary>Who supplies what a line needs.</summary>
public enum Supply
{
    /// <summary>We do.</summary>
    We,

    /// <summary>The customer supplies the material: labour only.</summary>
    CustomerMaterial,

    /// <summary>The customer does it: on the crew sheet, not in the cost.</summary>
    Customer,
}

/// <summary>A Book entry as used in this job.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Rank">Sort key among the work of its section.</param>
/// <param name="Entry">The pinned rate, assembly or price-only item.</param>
/// <param name="Section">The section it stands under in grid and proposal.</param>
/// <param name="Name">Short name over the column.</param>
/// <param name="Coats">How many coats.</param>
/// <param name="Product">Material instead of the rate's own.</param>
/// <param name="Colour">Colour, for buying and wording; empty for none.</param>
/// <param name="Pace">Pace for this job instead of the rate's.</param>
/// <param name="Wording">What the customer reads.</param>
public sealed record WorkItem(
    Guid Id,
    string Rank,
    Guid Entry,
    Guid Section,
    string Name,
    int Coats,
    Guid? Product,
    string Colour,
    Ratio? Pace,
    string Wording
)
{
    /// <summary>Role instead of the rate's own.</summary>
    public Guid? Role { get; init; }

    /// <summary>Roles instead of those of an assembly's parts.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public ImmutableArray<RoleInstead>? Roles { get; init; }

    /// <summary>Goods instead of those of an assembly's parts.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public ImmutableArray<ProductInstead>? Products { get; init; }

    /// <summary>Level of difficulty by name; empty for none.</summary>
    public string Difficulty { get; init; } = "";

    /// <summary>Unit its quantity is counted in here, instead of the entry's own.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public Unit? CountedIn { get; init; }

    /// <summary>Surface instead of the entry's own.</summary>
    public Guid? Surface { get; init; }

    /// <summary>Conditions on all its lines.</summary>
    public ImmutableArray<Guid> Conditions { get; init; } = [];

    /// <summary>Answers to an assembly's questions.</summary>
    public ImmutableArray<Answer> Answers { get; init; } = [];

    /// <summary>Parts taken: one of an either-or group instead of its first, and optional ones.</summary>
    public ImmutableArray<Guid> Picks { get; init; } = [];

    /// <summary>Who supplies.</summary>
    public Supply Supply { get; init; }

    /// <summary>Hours of a line are rounded up to this step, instead of the entry's own.</summary>
    public decimal? Step { get; init; }

    /// <summary>Work items that must be done, and dry, before this one begins.</summary>
    public ImmutableArray<Guid> WaitsFor { get; init; } = [];

    /// <summary>Hours it dries, instead of the entry's own.</summary>
    public decimal? DryingHours { get; init; }

    /// <summary>What was found of the hazard the entry names; empty while nobody has answered.</summary>
    public string HazardAnswer { get; init; } = "";

    /// <summary>What the crew reads, instead of the entry's own.</summary>
    public string? CrewNote { get; init; }

    /// <summary>What the customer reads beside the wording, instead of the entry's own.</summary>
    public string? CustomerNote { get; init; }

    /// <summary>Whether the customer is not shown it, instead of the entry's own.</summary>
    public bool? Hidden { get; init; }

    /// <summary>Labour in all, <c>27 h</c> or <c>3 x 9 h</c>, instead of what any pace gives; null where paces hold.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public string? Labour { get; init; }

    /// <summary>Provisional sum for each place instead of what is reckoned, in the job's currency; null for none.</summary>
    public decimal? Allowance { get; init; }

    /// <summary>What a unit of it is sold at in this job, instead of the entry's price.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public UnitPrice? UnitPrice { get; init; }

    /// <summary>Least charge for it in the job; null for none.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public decimal? Least { get; init; }

    /// <summary>How far it may come out otherwise; null for as its section says.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public Doubt? Doubt { get; init; }

    /// <summary>How often it is done: a rhythm of the job, or the id that stands for once; null for as the job says.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public Guid? Rhythm { get; init; }

    /// <summary>Entries it cannot be reckoned without, beside its own.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IEnumerable<Guid> Uses =>
        new[] { Product, Role, Surface }
            .OfType<Guid>()
            .Concat(Conditions)
            .Concat((Roles ?? []).Select(r => r.Instead))
            .Concat((Products ?? []).Select(p => p.Instead));
}
