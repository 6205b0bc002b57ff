using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Something the firm knows about its own work, as one immutable (id, version) (estimating model §3).</summary>
/// <param name="Id">UUIDv7, the same through all versions.</param>
/// <param name="Version">1 and up; every save is a new one.</param>
/// <param name="Name">Own name.</param>
/// <param name="Section">Heading in Book, grid and proposal.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(LabourRole), "role")]
[JsonDerivedType(typeof(Material), "material")]
[JsonDerivedType(typeof(Equipment), "equipment")]
[JsonDerivedType(typeof(Subcontract), "subcontract")]
[JsonDerivedType(typeof(ProductionRate), "rate")]
[JsonDerivedType(typeof(Assembly), "assembly")]
[JsonDerivedType(typeof(PriceOnlyItem), "priceOnly")]
[JsonDerivedType(typeof(Condition), "condition")]
[JsonDerivedType(typeof(SurfaceFactor), "surface")]
[JsonDerivedType(typeof(SetUp), "setUp")]
[JsonDerivedType(typeof(BookText), "text")]
public abstract record BookEntry(Guid Id, int Version, string Name, string Section = "")
{
    /// <summary>Every kind with its name in files and its words on screen, in the order they are listed.</summary>
    public static readonly ImmutableArray<(Type Type, string Kind, string Words, string Many)> Kinds =
    [
        (typeof(ProductionRate), "rate", "rate", "Rates"),
        (typeof(Assembly), "assembly", "assembly", "Assemblies"),
        (typeof(PriceOnlyItem), "priceOnly", "price-only", "Price-only items"),
        (typeof(Material), "material", "material", "Materials"),
        (typeof(LabourRole), "role", "role", "Labour roles"),
        (typeof(Equipment), "equipment", "equipment", "Equipment"),
        (typeof(Subcontract), "subcontract", "subcontract", "Subcontract"),
        (typeof(Condition), "condition", "condition", "Conditions"),
        (typeof(SurfaceFactor), "surface", "surface", "Surfaces"),
        (typeof(SetUp), "setUp", "set-up", "Set-up and travel"),
        (typeof(BookText), "text", "text", "Texts"),
    ];

    /// <summary>The trade it belongs to, in the firm's words.</summary>
    public string Trade { get; init; } = "";

    /// <summary>Words to find it by.</summary>
    public ImmutableArray<string> Tags { get; init; } = [];

    /// <summary>Where its figures come from: a standard, a sheet of the maker, the firm's own jobs, <c>common practice</c>; null where nobody has said.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Source { get; init; }

    /// <summary>Its place among the entries of its section; the same for two: by name.</summary>
    public int Order { get; init; }

    /// <summary>No longer offered; what uses it goes on using it.</summary>
    public bool Archived { get; init; }

    /// <summary>What is still to be filled in before it can be used; nothing of a whole entry. The Book keeps an unfinished entry, a job takes none.</summary>
    [JsonIgnore]
    public virtual IEnumerable<Lack> Lacks => [];

    /// <summary>Entries this one cannot be reckoned without.</summary>
    [JsonIgnore]
    public virtual IEnumerable<Guid> Needs => [];

    /// <summary>The entry with what follows from the rest of it put right; done at every save.</summary>
    public virtual BookEntry Settled() => this;

    /// <summary>Its kind as files name it.</summary>
    public string KindName() => Kinds.First(k => k.Type == GetType()).Kind;

    /// <summary>Refuses what cannot be reckoned with.</summary>
    internal abstract void Check(BookCheck check);
}

/// <summary>An entry that can be put to work in a job: what it is measured against and what people read.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Section">Heading in grid and proposal.</param>
/// <param name="Measure">What it is measured against.</param>
/// <param name="Wording">What the customer reads.</param>
/// <param name="CrewNote">What the crew reads.</param>
public abstract record WorkEntry(
    Guid Id,
    int Version,
    string Name,
    string Section,
    Places.Measure Measure,
    string Wording,
    string CrewNote
) : BookEntry(Id, Version, Name, Section)
{
    /// <summary>A further note for the customer.</summary>
    public string CustomerNote { get; init; } = "";

    /// <summary>Not shown to the customer as a line of its own.</summary>
    public bool Hidden { get; init; }

    /// <summary>Named levels of difficulty.</summary>
    public ImmutableArray<Level> Levels { get; init; } = [];

    /// <summary>How much longer it takes the rarer it is done, the most frequent first; empty where that makes no difference.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<BuildUp>? BuildUp { get; init; }

    /// <summary>What rarer work is multiplied by: the row of the largest number of times that is reached, and where it is rarer than all of them, the last.</summary>
    public BuildUp? BuiltUp(decimal timesAYear) =>
        BuildUp is { IsDefaultOrEmpty: false } rows
            ? rows.FirstOrDefault(r => r.Times <= timesAYear) ?? rows[^1]
            : null;

    /// <summary>Other work that is offered when this is added to a job.</summary>
    public ImmutableArray<Guid> Accessories { get; init; } = [];

    /// <summary>The measure that leads it where a place has not its own: carpet goes by floor, and on stairs by developed area.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Places.Measure? WhereNone { get; init; }

    /// <summary>The unit of the trade its quantity is counted in: a lot in yd², a roof in squares of 100 ft²; null for the job's.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Unit? CountedIn { get; init; }

    /// <summary>What it is sold at where a job goes by unit prices; null for no such price.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public UnitPrice? UnitPrice { get; init; }

    /// <summary>What a unit of it is sold at; null where it has no such price.</summary>
    [JsonIgnore]
    public virtual UnitPrice? Sold => UnitPrice;

    /// <summary>Why no tax is charged on it; null where it is.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? TaxExempt { get; init; }

    /// <summary>The surface it is usually done on.</summary>
    public Guid? Surface { get; init; }

    /// <summary>Hours it dries after each coat, and before what waits for it.</summary>
    public decimal DryingHours { get; init; }

    /// <summary>Hours of a line are rounded up to this step.</summary>
    public decimal? Step { get; init; }

    /// <summary>What its quantity is at a place: its own measure, or the other one where the place has not that.</summary>
    public Places.Measure LedAt(Places.PlaceMeasures measures) =>
        !measures.Has(Measure) && WhereNone is { } other && measures.Has(other) ? other : Measure;

    /// <summary>The unit its quantity is in: the one that stands instead of its own, its own, or the job's.</summary>
    public Unit UnitIn(UnitSystem system, Unit? instead) =>
        instead ?? CountedIn ?? Places.Measures.UnitIn(Measure, system);

    /// <summary>How many coats it has unless somebody says otherwise.</summary>
    public virtual int UsualCoats() => 1;

    private static void CheckBuildUp(BookCheck check, ImmutableArray<BuildUp> rows)
    {
        check.Most(rows.Length, 20, "buildUp", "rows of build-up");
        for (var i = 0; i < rows.Length; i++)
        {
            if (rows[i].Times is < 1 or > 1000)
                throw check.Wrong($"buildUp[{i}].times", "work comes 1 to 1,000 times a year.");
            if (rows[i].Factor is <= 0 or > 100)
                throw check.Wrong($"buildUp[{i}].factor", "the factor of a build-up is more than 0 and at most 100.");
            if (i > 0 && rows[i].Times >= rows[i - 1].Times)
                throw check.Wrong(
                    $"buildUp[{i}].times",
                    "rows of build-up go from the most frequent to the rarest, each once."
                );
        }
    }

    /// <summary>Checks what all work has.</summary>
    internal void CheckWork(BookCheck check)
    {
        check.Text(Wording, "wording", 2000);
        check.Text(CrewNote, "crewNote", 2000);
        check.Text(CustomerNote, "customerNote", 2000);
        if (WhereNone is { } other && Places.Measures.Kind(other) != Places.Measures.Kind(Measure))
            throw check.Wrong(
                "whereNone",
                $"{Places.Measures.Name(other)} is {BookCheck.Words(Places.Measures.Kind(other))}, and {Places.Measures.Name(Measure)} {BookCheck.Words(Places.Measures.Kind(Measure))}."
            );
        if (CountedIn is { } unit && unit.Kind != Places.Measures.Kind(Measure))
            throw check.Wrong(
                "countedIn",
                $"{Places.Measures.Name(Measure)} is {BookCheck.Words(Places.Measures.Kind(Measure))}, not counted in {unit}."
            );
        if (UnitPrice?.Wrong(Measure) is var (field, message))
            throw check.Wrong("unitPrice." + field, message);
        if (TaxExempt is not null && string.IsNullOrWhiteSpace(TaxExempt))
            throw check.Wrong("taxExempt", "say why no tax is charged on it.");
        check.Text(TaxExempt ?? "", "taxExempt", 200);
        check.Most(Levels.Length, 20, "levels", "levels of difficulty");
        CheckBuildUp(check, BuildUp ?? []);
        check.Most(Accessories.Length, 100, "accessories", "accessories");
        for (var i = 0; i < Levels.Length; i++)
        {
            if (string.IsNullOrWhiteSpace(Levels[i].Name) || Levels[i].Name.Length > 60)
                throw check.Wrong($"levels[{i}].name", "a level of difficulty needs a short name.");
            if (Levels[i].Factor is <= 0 or > 100)
                throw check.Wrong($"levels[{i}].factor", "the factor of a level is more than 0 and at most 100.");
        }
        if (Levels.Select(l => l.Name).Distinct(StringComparer.OrdinalIgnoreCase).Count() != Levels.Length)
            throw check.Wrong("levels", "a level of difficulty stands twice.");
        if (DryingHours is < 0 or > 10_000)
            throw check.Wrong("dryingHours", "drying is 0 to 10,000 hours.");
        if (Step is <= 0 or > 1000)
            throw check.Wrong("step", "a rounding step is more than 0 and at most 1,000 hours.");
        if (Surface is { } surface)
            check.Needed<SurfaceFactor>(surface, "surface", "surface");
        if (Accessories.Contains(Id))
            throw check.Wrong("accessories", "it cannot be its own accessory.");
    }
}

/// <summary>Something that an entry cannot do without.</summary>
/// <param name="Field">Where it is filled in.</param>
/// <param name="What">What it is: <c>a pace</c>.</param>
public sealed record Lack(string Field, string What)
{
    /// <summary>Those of a list that are lacking.</summary>
    internal static IEnumerable<Lack> Of(params (bool Lacking, string Field, string What)[] all) =>
        all.Where(l => l.Lacking).Select(l => new Lack(l.Field, l.What));
}

/// <summary>A named level of difficulty with the factor on what it scales.</summary>
public sealed record Level(string Name, decimal Factor);

/// <summary>Build-up of dirt, growth: what the labour of work is multiplied by where it comes so often a year, or more.</summary>
public sealed record BuildUp(int Times, decimal Factor);

/// <summary>An entry while it is checked against those it stands with; makes its refusals.</summary>
internal sealed class BookCheck(BookEntry entry, IReadOnlyDictionary<Guid, BookEntry> all, bool named)
{
    /// <summary>A refusal of one field.</summary>
    public RefusedException Wrong(string field, string message) =>
        RefusedException.Of(
            field,
            named ? $"{entry.Name}: {message}" : char.ToUpperInvariant(message[0]) + message[1..]
        );

    /// <summary>The entry of that kind.</summary>
    public T Needed<T>(Guid id, string field, string what)
        where T : BookEntry =>
        all.GetValueOrDefault(id) as T
        ?? throw Wrong(field, id == Guid.Empty ? $"choose the {what}." : $"the {what} it uses is not there ({id}).");

    /// <summary>Refuses a ratio that does not turn one kind into another.</summary>
    public void Fits(Ratio ratio, Kind from, Kind to, string field, string what)
    {
        if (ratio.A <= 0 || ratio.B <= 0)
            throw Wrong(field, $"{what} “{ratio}” must be more than zero.");
        if (ratio.UnitB.Kind != from && ratio.UnitA.Kind != from)
            throw Wrong(field, $"{what} “{ratio}” does not apply to {Words(from)}.");
        if (ratio.Turn(from).To.Kind != to)
            throw Wrong(field, $"{what} “{ratio}” does not give {Words(to)}.");
    }

    /// <summary>Refuses a text that is too long.</summary>
    public void Text(string text, string field, int most)
    {
        if (text.Length > most)
            throw Wrong(field, $"at most {most:#,0} characters.");
    }

    /// <summary>Refuses a list that is too long.</summary>
    public void Most(int count, int most, string field, string what)
    {
        if (count > most)
            throw Wrong(field, $"at most {most} {what}.");
    }

    /// <summary>Refuses a percentage below zero or beyond reason.</summary>
    public void Percent(decimal? percent, string field, string what)
    {
        if (percent is < 0 or > 1000)
            throw Wrong(field, $"{what} is 0 to 1000 percent.");
    }

    /// <summary>A kind in words.</summary>
    public static string Words(Kind kind) =>
        kind switch
        {
            Kind.Area => "an area",
            Kind.Time => "hours",
            _ => "a " + kind.ToString().ToLowerInvariant(),
        };
}
