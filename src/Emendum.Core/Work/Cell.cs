using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Work;

/// <summary>Whether a work item is done at a place. No cell at all is 'none here'.</summary>
public enum CellState
{
    /// <summary>Done and priced.</summary>
    Included,

    /// <summary>Stated to customer and crew, priced at nothing.</summary>
    Excluded,

    /// <summary>Offered beside the price, and not in it.</summary>
    Alternate,
}

/// <summary>A work item at a place; holds only its state and what it overrides. What is null is as the work item has it.</summary>
/// <param name="State">Included, excluded or an alternate.</param>
/// <param name="Note">A sentence for customer and crew.</param>
public sealed record Cell(CellState State, string Note)
{
    /// <summary>Where its quantity comes from instead of the item's measure: a measure's name, a band (<c>bands/1</c>), an own measure (<c>own/NAME</c>); empty for the item's measure.</summary>
    public string Source { get; init; } = "";

    /// <summary>Answers here instead of the item's.</summary>
    public ImmutableArray<Answer> Answers { get; init; } = [];

    /// <summary>Conditions here, with those of item, place and job.</summary>
    public ImmutableArray<Guid> Conditions { get; init; } = [];

    /// <summary>Who supplies here.</summary>
    public Supply? Supply { get; init; }

    /// <summary>Quantity typed for one such place, instead of any measure.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public TypedQuantity? Quantity { get; init; }

    /// <summary>Coats.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? Coats { get; init; }

    /// <summary>Material.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Product { get; init; }

    /// <summary>Goods instead of those of an assembly's parts.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<ProductInstead>? Products { get; init; }

    /// <summary>Colour.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Colour { get; init; }

    /// <summary>Pace.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Ratio? Pace { get; init; }

    /// <summary>Labour for one such place, <c>27 h</c> or <c>3 x 9 h</c>, instead of what the pace gives.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Labour { get; init; }

    /// <summary>Level of difficulty by name; empty for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Difficulty { get; init; }

    /// <summary>Role.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Role { get; init; }

    /// <summary>Surface.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Surface { get; init; }

    /// <summary>Provisional sum for one such place.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? Allowance { get; init; }

    /// <summary>What a unit of it is sold at.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public UnitPrice? UnitPrice { get; init; }

    /// <summary>Whether it was in the price, and was taken out of it with the piece it belongs to: putting that back puts it back.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool TakenOut { get; init; }

    /// <summary>The alternate with a name that it belongs to; null for none. Whatever else changes its state takes it out of that.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Alternate { get; init; }

    /// <summary>Rounding step of its labour, hours.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? Step { get; init; }

    /// <summary>What the customer reads of the work.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Wording { get; init; }

    /// <summary>What the customer reads beside it.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? CustomerNote { get; init; }

    /// <summary>Hidden from the customer.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public bool? Hidden { get; init; }

    /// <summary>What the crew reads.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? CrewNote { get; init; }

    /// <summary>Entries it names.</summary>
    [JsonIgnore]
    public IEnumerable<Guid> Uses =>
        new[] { Product, Role, Surface }
            .OfType<Guid>()
            .Concat(Conditions)
            .Concat((Products ?? []).Select(p => p.Instead));

    /// <summary>Whether anything of it is not as its work item has it; a note is not such a thing.</summary>
    [JsonIgnore]
    public bool Differs =>
        Source.Length > 0
        || !Answers.IsEmpty
        || !Conditions.IsEmpty
        || Supply is not null
        || Quantity is not null
        || Allowance is not null
        || UnitPrice is not null
        || Labour is not null
        || Wording is not null
        || CustomerNote is not null
        || Hidden is not null
        || CrewNote is not null
        || WorksOtherwise;

    /// <summary>Whether the work itself is done otherwise than its item says.</summary>
    [JsonIgnore]
    public bool WorksOtherwise =>
        Coats is not null
        || Product is not null
        || Products is not null
        || Colour is not null
        || Pace is not null
        || Difficulty is not null
        || Role is not null
        || Surface is not null
        || Step is not null;

    /// <summary>The work item as it is done here.</summary>
    public WorkItem Of(WorkItem item) =>
        item with
        {
            Coats = Coats ?? item.Coats,
            Product = Product ?? item.Product,
            Products = Products ?? item.Products,
            Colour = Colour ?? item.Colour,
            Pace = Pace ?? item.Pace,
            Difficulty = Difficulty ?? item.Difficulty,
            Role = Role ?? item.Role,
            Surface = Surface ?? item.Surface,
            Step = Step ?? item.Step,
            Wording = Wording ?? item.Wording,
            CustomerNote = CustomerNote ?? item.CustomerNote,
            Hidden = Hidden ?? item.Hidden,
            CrewNote = CrewNote ?? item.CrewNote,
            UnitPrice = UnitPrice ?? item.UnitPrice,
        };
}
