using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Jobs;

/// <summary>One of the products or tiers that a choice is between. What is null is as the work has it without a choice.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">As the customer reads it.</param>
public sealed record ChoiceOption(Guid Id, string Name)
{
    /// <summary>Who sells it.</summary>
    public string Supplier { get; init; } = "";

    /// <summary>The supplier's code.</summary>
    public string Code { get; init; } = "";

    /// <summary>Goods of the Book that are taken; null for those that the work has.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Product { get; init; }

    /// <summary>What one of the goods' units costs, of a variation that is like them but for its price; of work that is sold by the unit, what that is sold at. Null for the goods' own packs.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? Price { get; init; }

    /// <summary>Coats.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? Coats { get; init; }

    /// <summary>Colour.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Colour { get; init; }

    /// <summary>Options of other choices without which it is not to be had.</summary>
    public ImmutableArray<Guid> Needs { get; init; } = [];

    /// <summary>Options of other choices with which it is not to be had.</summary>
    public ImmutableArray<Guid> RulesOut { get; init; } = [];
}

/// <summary>A choice of product or tier for a piece of work, everywhere or at some places (estimating model §8). What is taken stands in the work and its cells.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Rank">Sort key.</param>
/// <param name="Name">As the customer reads it: the floor of the hall.</param>
/// <param name="Work">The piece of work.</param>
/// <param name="Options">What it is between.</param>
/// <param name="Included">The option that the price is printed with.</param>
/// <param name="Taken">The option that is taken.</param>
public sealed record Choice(
    Guid Id,
    string Rank,
    string Name,
    Guid Work,
    ImmutableArray<ChoiceOption> Options,
    Guid Included,
    Guid Taken
)
{
    /// <summary>Most options of a choice.</summary>
    public const int MostOptions = 2000;

    /// <summary>At which places; empty for everywhere.</summary>
    public ImmutableArray<Guid> Places { get; init; } = [];

    /// <summary>Goods of an assembly that it varies; null where the work is a rate or sold by the unit.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Of { get; init; }

    /// <summary>The choice whose option of the same name it takes; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Follows { get; init; }

    /// <summary>Nothing else is taken until it is unlocked.</summary>
    public bool Locked { get; init; }

    /// <summary>The customer is not offered it.</summary>
    public bool Hidden { get; init; }

    /// <summary>The customer reads who sells it, and the code.</summary>
    public bool SupplierShown { get; init; }

    /// <summary>The option with that id, or null.</summary>
    public ChoiceOption? Option(Guid id) => Options.FirstOrDefault(o => o.Id == id);

    /// <summary>The option of that name, or null.</summary>
    public ChoiceOption? Named(string name) =>
        Options.FirstOrDefault(o => string.Equals(o.Name, name, StringComparison.OrdinalIgnoreCase));

    /// <summary>Checks it by itself.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 120)
            throw RefusedException.Of("name", "A choice has a name of at most 120 characters.");
        if (Options.Length is < 2 or > MostOptions)
            throw RefusedException.Of("options", $"A choice is between 2 and {MostOptions:N0} options.");
        if (Options.Select(o => o.Id).Distinct().Count() != Options.Length)
            throw RefusedException.Of("options", "An option stands twice.");
        var names = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var option in Options)
        {
            if (string.IsNullOrWhiteSpace(option.Name) || option.Name.Length > 200)
                throw RefusedException.Of("options", "An option has a name of at most 200 characters.");
            if (!names.Add(option.Name))
                throw RefusedException.Of("options", $"There is an option “{option.Name}” already.");
            if (option.Supplier.Length > 120 || option.Code.Length > 120 || option.Colour?.Length > 120)
                throw RefusedException.Of("options", "A supplier, code or colour is at most 120 characters.");
            PricingTerms.NotBelowZero(option.Price ?? 0, "options", "A price");
            if (option.Coats is < 1 or > 20)
                throw RefusedException.Of("options", "Coats are 1 to 20.");
            if (option.Needs.Length > 100 || option.RulesOut.Length > 1000)
                throw RefusedException.Of("options", "An option needs at most 100 others and rules out at most 1,000.");
        }
        if (Option(Included) is null || Option(Taken) is null)
            throw RefusedException.Of("taken", "That option is not in this choice any more.");
    }
}
