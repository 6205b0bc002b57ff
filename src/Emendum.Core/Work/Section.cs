using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Work;

/// <summary>A heading under which work stands in grid and proposal (architecture decision 26).</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name; empty for work without a heading.</param>
/// <param name="Rank">Sort key among the job's sections. Work stands by section, then by its own rank.</param>
public sealed record Section(Guid Id, string Name, string Rank)
{
    /// <summary>Least charge of the section; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? Least { get; init; }

    /// <summary>How it is priced, instead of as the job; null for as the job.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public OwnBasis? Pricing { get; init; }

    /// <summary>How far its work may come out otherwise; null for as the job says.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Doubt? Doubt { get; init; }

    /// <summary>The id of a section that is made from nothing but a name: the same everywhere, so that files and logs of older versions are brought up to date alike, and two people who
    /// begin the same section make one.</summary>
    public static Guid IdOf(string name) => DerivedId.Of("section/" + name);
}
