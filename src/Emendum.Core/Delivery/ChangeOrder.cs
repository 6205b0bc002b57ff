using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Jobs;

namespace Emendum.Core.Delivery;

/// <summary>What a change does to a line.</summary>
public enum ChangeKind
{
    /// <summary>It is done, and was not in the contract.</summary>
    Added,

    /// <summary>It is not done any more.</summary>
    Dropped,

    /// <summary>More or less of it, at the unit price that was shown (M16).</summary>
    Remeasured,

    /// <summary>It is done otherwise: dropped and added (M16).</summary>
    Repriced,
}

/// <summary>A line of a change.</summary>
/// <param name="Work">The work item.</param>
/// <param name="Place">The place.</param>
/// <param name="Kind">What happens to it.</param>
/// <param name="Name">Section and name of the work.</param>
/// <param name="At">The place with its count.</param>
/// <param name="Says">How it differs, in a few words: <c>12 → 18 m²</c>; what of it is done already.</param>
/// <param name="Credit">What is taken off for what is not done any more: nothing or less, before tax.</param>
/// <param name="Charge">What is added for what is done now, or otherwise.</param>
/// <param name="Hidden">Whether the customer does not read it.</param>
/// <param name="Left">What the line is worth in the contract from then on, by tax category.</param>
public sealed record ChangedLine(
    Guid Work,
    Guid Place,
    ChangeKind Kind,
    string Name,
    string At,
    string Says,
    decimal Credit,
    decimal Charge,
    bool Hidden,
    ImmutableArray<AgreedCategory> Left
)
{
    /// <summary>What it moves the contract sum by, before goods that stay and the job's least charge.</summary>
    [JsonIgnore]
    public decimal Amount => Credit + Charge;

    /// <summary>Which line.</summary>
    [JsonIgnore]
    public CellKey Key => new(Work, Place);

    /// <summary>How much of it was done when the change was made, percent: done since, it could not be dropped as it was priced.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public decimal Done { get; init; }
}

/// <summary>Goods that were ordered for dropped work and cannot go back: the customer's then (M14).</summary>
/// <param name="Name">What.</param>
/// <param name="Amount">How much, as it is read.</param>
/// <param name="Cost">At what they cost us.</param>
public sealed record KeptGoods(string Name, string Amount, decimal Cost);

/// <summary>
/// A change order (estimating model §13): only what is added, dropped or repriced against what was agreed. It is sent and signed like a proposal, as a revision in a chain of its own, and is in the contract sum when it is accepted.
/// </summary>
/// <param name="Revision">Id of the revision that it is.</param>
/// <param name="Number">Its number in the job, from 1 (L23).</param>
/// <param name="Title">What it is about.</param>
/// <param name="Lines">What it touches.</param>
/// <param name="Goods">Goods that stay with the customer.</param>
/// <param name="Steps">What moves the sum beside the lines, with its label: goods that stay, the job's least charge.</param>
/// <param name="Categories">What it adds to the contract sum, by tax category; less than nothing for what is dropped.</param>
/// <param name="Beside">What of it is no line's, by tax category: what goods and the job's least charge keep of dropped work, contingency that is shown.</param>
/// <param name="Tax">Its own tax.</param>
/// <param name="Hours">Labour hours that it adds, or takes off.</param>
/// <param name="Base">The fact that the contract rested on when it was made: of the acceptance, or of the last change before it.</param>
public sealed record ChangeOrder(
    Guid Revision,
    int Number,
    string Title,
    ImmutableArray<ChangedLine> Lines,
    ImmutableArray<KeptGoods> Goods,
    ImmutableArray<ChangeStep> Steps,
    ImmutableArray<AgreedCategory> Categories,
    ImmutableArray<AgreedCategory> Beside,
    decimal Tax,
    decimal Hours,
    Guid Base
)
{
    /// <summary>Most change orders of a job.</summary>
    public const int Most = 200;

    /// <summary>Most characters of its title.</summary>
    public const int MostTitle = 120;

    /// <summary>Most characters of its words.</summary>
    public const int MostWords = 4000;

    /// <summary>Number, from 0, of the step of the payment plan that bills it, too; null where it is billed on its own, or with the last (M6).</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? WithStep { get; init; }

    /// <summary>Whether it was priced at the Book as it was then, and not at that of the accepted revision (M17).</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool TodaysBook { get; init; }

    /// <summary>What it adds to the contract sum, before tax.</summary>
    [JsonIgnore]
    public decimal Net => Categories.Sum(c => c.Amount);

    /// <summary>With its own tax.</summary>
    [JsonIgnore]
    public decimal Total => Net + Tax;
}

/// <summary>Something that moves the sum of a change beside its lines.</summary>
/// <param name="Label">What it is.</param>
/// <param name="Amount">Before tax.</param>
public sealed record ChangeStep(string Label, decimal Amount);
