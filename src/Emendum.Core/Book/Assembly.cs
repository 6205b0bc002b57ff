using System.Collections.Immutable;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Something asked when an assembly is used.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Text">The question: <c>Edge length</c>.</param>
/// <param name="Unit">Unit of the answer.</param>
/// <param name="Usual">The answer where nobody gave one and no measure gives it.</param>
/// <param name="From">The measure of the place that answers it unless somebody does.</param>
public sealed record Question(Guid Id, string Text, Unit Unit, decimal Usual, Measure? From)
{
    /// <summary>Asked once for the job, and not at each place: what it drives comes once for the work item.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingDefault
    )]
    public bool Once { get; init; }

    /// <summary>The usual answer in the units of a job, to six figures: for reading only.</summary>
    public Quantity UsualIn(UnitSystem system)
    {
        var usual = new Quantity(Usual, Unit).In(system.Like(Unit));
        return usual with { Value = Rounding.Digits(usual.Value, 6) };
    }
}

/// <summary>One part of an assembly. Driven by one thing: a measure, a question, another part, the crew, or nothing (once per work item and job).</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">What it is here.</param>
/// <param name="Kind">How it is reckoned.</param>
/// <param name="Entry">The role, material, equipment or subcontract; none for a charge.</param>
/// <param name="Measure">The measure that drives it; or</param>
/// <param name="Of">the component that drives it; or</param>
/// <param name="Crew">the crew size it works with (equipment only).</param>
/// <param name="Ratio">How much per driver; none for crew-tied equipment and what comes once.</param>
/// <param name="AsOrdered">A chained component takes its driver with waste.</param>
/// <param name="WastePercent">Replaces the material's own.</param>
public sealed record Component(
    Guid Id,
    string Name,
    ComponentKind Kind,
    Guid? Entry,
    Measure? Measure,
    Guid? Of,
    int? Crew,
    Ratio? Ratio,
    bool AsOrdered,
    decimal? WastePercent
)
{
    /// <summary>The question whose answer drives it.</summary>
    public Guid? Question { get; init; }

    /// <summary>People × hours, or hours, of labour that comes once, instead of how much per each; null where that is said.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public string? CrewTime { get; init; }

    /// <summary>Comes once per work item and job: a lump sum, a fixed charge.</summary>
    public bool Once { get; init; }

    /// <summary>Thickness of the layer as typed, which makes a volume of an area; empty for none.</summary>
    public string Depth { get; init; } = "";

    /// <summary>The question that gives the thickness instead.</summary>
    public Guid? DepthAsked { get; init; }

    /// <summary>Goods hung in drops from a roll, driven by the length of the walls; null for none.</summary>
    public Drops? Drops { get; init; }

    /// <summary>Percent of loose goods on top of the built volume, or of bulking on top of the solid.</summary>
    public decimal CompactionPercent { get; init; }

    /// <summary>Counts once for each coat of the work item.</summary>
    public bool PerCoat { get; init; }

    /// <summary>Whether the level of difficulty scales it.</summary>
    public bool Scales { get; init; }

    /// <summary>Takes the colour chosen for the work item.</summary>
    public bool Coloured { get; init; }

    /// <summary>The either-or group it is one of; empty for none.</summary>
    public string Group { get; init; } = "";

    /// <summary>Left out unless it is taken.</summary>
    public bool Optional { get; init; }

    /// <summary>Its amount in a line is rounded up to this step, in its own unit.</summary>
    public decimal? Step { get; init; }

    /// <summary>Money for one, of a charge.</summary>
    public decimal Charge { get; init; }

    /// <summary>What the customer reads of it.</summary>
    public string Wording { get; init; } = "";

    /// <summary>What the crew reads of it.</summary>
    public string CrewNote { get; init; } = "";
}

/// <summary>Hanging in drops from a roll, straight match: drops to a roll = ⌊roll length ÷ (height + trim, up to the next repeat)⌋, rolls = ⌈⌈wall length ÷ roll width⌉ ÷ drops⌉
/// (the reckoning of published roll charts; roll sizes of EN 233, from memory).</summary>
/// <param name="Wide">Width of the roll as typed.</param>
/// <param name="Long">Length of the roll.</param>
/// <param name="Trim">Trim of a drop, top and bottom together; empty for none.</param>
/// <param name="Repeat">Repeat of the pattern; empty for none.</param>
/// <param name="Height">The question that gives the height of a drop.</param>
public sealed record Drops(string Wide, string Long, string Trim, string Repeat, Guid Height);

/// <summary>Parts that are dropped in as one so that nothing is forgotten.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Section">Heading in grid and proposal.</param>
/// <param name="Measure">The measure shown as the line's quantity.</param>
/// <param name="Components">In the order they are worked.</param>
/// <param name="Wording">What the customer reads.</param>
/// <param name="CrewNote">What the crew reads.</param>
public sealed record Assembly(
    Guid Id,
    int Version,
    string Name,
    string Section,
    Measure Measure,
    ImmutableArray<Component> Components,
    string Wording,
    string CrewNote
) : WorkEntry(Id, Version, Name, Section, Measure, Wording, CrewNote)
{
    /// <summary>Most parts of one assembly.</summary>
    public const int MostComponents = 100;

    /// <summary>What is asked when it is used.</summary>
    public ImmutableArray<Question> Questions { get; init; } = [];

    /// <summary>Usual number of coats; only parts marked so are counted for each.</summary>
    public int Coats { get; init; } = 1;

    /// <summary>A hazard that must be ruled out or dealt with before the work starts; empty for none.</summary>
    public string Hazard { get; init; } = "";

    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Guid> Needs =>
        Components.Select(c => c.Entry).Append(Surface).OfType<Guid>().Distinct();

    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Lack> Lacks => Lack.Of((Components.IsEmpty, "components", "a part"));

    /// <inheritdoc/>
    public override int UsualCoats() => Coats;

    /// <summary>What its parts are driven by: measures of the place, and those that answer a question.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IEnumerable<Measure> Drivers =>
        Components.Select(c => c.Measure).Concat(Questions.Select(q => q.From)).OfType<Measure>().Distinct();

    /// <summary>It is shown and led by a measure that its parts are driven by: when the last part driven by it goes, by the first of the others (estimating model §4).</summary>
    public override BookEntry Settled()
    {
        if (!Drivers.Any() || Drivers.Contains(Measure))
            return this;
        var led = Drivers.First();
        return this with { Measure = led, WhereNone = WhereNone?.Kind() == led.Kind() ? WhereNone : null };
    }

    internal override void Check(BookCheck check)
    {
        CheckWork(check);
        if (Components.Length > MostComponents)
            throw check.Wrong("components", $"at most {MostComponents} parts.");
        if (
            Components.Select(c => c.Id).Concat(Questions.Select(q => q.Id)).Distinct().Count()
            != Components.Length + Questions.Length
        )
            throw check.Wrong("components", "a part or question stands twice.");
        check.Most(Questions.Length, MostComponents, "questions", "questions");
        if (Coats is < 1 or > 20)
            throw check.Wrong("coats", "coats are 1 to 20.");
        check.Text(Hazard, "hazard", 500);
        for (var i = 0; i < Questions.Length; i++)
        {
            if (string.IsNullOrWhiteSpace(Questions[i].Text) || Questions[i].Text.Length > 200)
                throw check.Wrong($"questions[{i}].text", "a question needs a text.");
            if (Questions[i].Usual < 0)
                throw check.Wrong($"questions[{i}].usual", "a usual answer is not below zero.");
            if (Questions[i] is { Once: true, From: not null })
                throw check.Wrong(
                    $"questions[{i}].from",
                    "asked once for the job, it is answered by no measure of a place."
                );
            if (Questions[i].From is { } from && from.Kind() != Questions[i].Unit.Kind)
                throw check.Wrong(
                    $"questions[{i}].from",
                    $"{from.Name()} is {BookCheck.Words(from.Kind())}; the answer is in {Questions[i].Unit}."
                );
        }
        for (var i = 0; i < Components.Length; i++)
            AssemblyRules.Part(this, i, check);
        foreach (var group in Components.Where(c => c.Group.Length > 0).GroupBy(c => c.Group))
            if (group.Count() == 1)
                throw check.Wrong(
                    $"components[{Components.IndexOf(group.First())}].group",
                    $"“{group.Key}” has only one part: an either-or group needs two or more."
                );
        _ = AssemblyRules.InWorkingOrder(
            Components,
            (part, message) =>
                check.Wrong(part is null ? "components" : $"components[{Components.IndexOf(part)}].of", message)
        );
    }
}
