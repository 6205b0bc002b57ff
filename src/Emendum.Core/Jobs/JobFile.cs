using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Emendum.Core.Book;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>One cell as it stands in a job file.</summary>
public sealed record CellInFile(Guid Work, Guid Place, Cell Cell);

/// <summary>A job as one JSON document that stands alone (docs/job-file.md). The same job gives the same bytes.</summary>
public sealed record JobFile(
    int SchemaVersion,
    Guid Id,
    JobInfo Info,
    UnitSystem Units,
    string Deduct,
    ImmutableArray<Place> Places,
    ImmutableArray<Section> Sections,
    ImmutableArray<WorkItem> Work,
    ImmutableArray<CellInFile> Cells,
    ImmutableArray<BookEntry> Book,
    CrewTerms Crew,
    PricingTerms Pricing,
    ProposalTerms Proposal,
    ImmutableArray<ScheduleItem> Schedule
)
{
    /// <summary>Conditions on all work of the job.</summary>
    public ImmutableArray<Guid> Conditions { get; init; } = [];

    /// <summary>A factor on all labour of the job.</summary>
    public PaceFactor? Pace { get; init; }

    /// <summary>The price policy that the job took, as it was then.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public PricePolicy? Policy { get; init; }

    /// <summary>Alternates that have a name; missing where there are none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<Alternate>? Alternates { get; init; }

    /// <summary>Variants of the estimate; missing where there are none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<Variant>? Variants { get; init; }

    /// <summary>In what those that are not taken differ from the job, in order; missing where in nothing.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<Differing>? Differs { get; init; }

    /// <summary>Choices of product or tier; missing where there are none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<Choice>? Choices { get; init; }

    /// <summary>Quotes of other firms for its sections; missing where there are none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<Quote>? Quotes { get; init; }

    /// <summary>Tasks of its schedule; missing where nothing is laid out.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<PlannedTask>? Tasks { get; init; }

    /// <summary>The blocks of its proposal; missing where they are those that every job starts with.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<ProposalBlock>? Blocks { get; init; }

    /// <summary>How often its work comes; missing where all is done once.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<Rhythm>? Rhythms { get; init; }

    /// <summary>Terms of the work that comes back; missing where nobody has said anything.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public RoundTerms? Round { get; init; }

    /// <summary>How sure the job is; missing where nobody has said.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Sureness? Sureness { get; init; }

    /// <summary>Checks that somebody has set aside, by key, with the reason.</summary>
    public ImmutableSortedDictionary<string, string> SetAside { get; init; } = Job.NothingSetAside;

    /// <summary>Who the customer is, copied for whoever takes the file in; null in what is kept at home.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Party? Party { get; init; }

    /// <summary>The version this program writes.</summary>
    public const int CurrentVersion = 8;

    /// <summary>Most bytes that are read.</summary>
    public const int MostBytes = 20_000_000;

    /// <summary>The job as file bytes, UTF-8; with <paramref name="party"/> as it leaves the house.</summary>
    public static byte[] Write(Job job, bool indented = true, Party? party = null)
    {
        var cells =
            from work in job.Work
            from place in job.Places
            let key = new CellKey(work.Id, place.Id)
            where job.Cells.ContainsKey(key)
            let cell = job.Cells[key]
            select new CellInFile(work.Id, place.Id, cell);
        var file = new JobFile(
            CurrentVersion,
            job.Id,
            job.Info,
            job.Units,
            job.Deduct,
            job.Places,
            job.Sections,
            job.Work,
            [.. cells],
            [.. job.Book.Values.OrderBy(e => e.Id)],
            job.Crew,
            job.Pricing,
            job.Proposal,
            job.Schedule
        )
        {
            Conditions = job.Conditions,
            Pace = job.Pace,
            SetAside = job.SetAside,
            Policy = job.Policy,
            Sureness = job.Sureness,
            Choices = job.Choices.IsEmpty ? null : job.Choices,
            Quotes = job.Quotes.IsEmpty ? null : job.Quotes,
            Tasks = job.Tasks.IsEmpty ? null : job.Tasks,
            Blocks = job.Blocks.SequenceEqual(ProposalBlock.Starting) ? null : job.Blocks,
            Rhythms = job.Rhythms.IsEmpty ? null : job.Rhythms,
            Round = job.Round.IsStarting ? null : job.Round,
            Alternates = job.Alternates.IsEmpty ? null : job.Alternates,
            Variants = job.Variants.IsEmpty ? null : job.Variants,
            Differs = job.Differs.IsEmpty
                ? null
                :
                [
                    .. job.Differs.Select(d => new Differing(
                        Jobs.Variants.Parsed(d.Key).Variant,
                        Jobs.Variants.Parsed(d.Key).Path,
                        d.Value == Jobs.Variants.Nothing ? null : JsonElement.Parse(d.Value)
                    )),
                ],
            Party = party,
        };
        return JsonSerializer.SerializeToUtf8Bytes(file, indented ? CoreJson.Indented : CoreJson.Options);
    }

    /// <summary>Reads and checks a job file.</summary>
    /// <exception cref="RefusedException">Not a job file, or one that contradicts itself; says where.</exception>
    public static Job Read(ReadOnlySpan<byte> bytes) => Read(bytes, out _);

    /// <summary>Reads and checks a job file, and who the customer is, where it says so.</summary>
    /// <exception cref="RefusedException">Not a job file, or one that contradicts itself; says where.</exception>
    public static Job Read(ReadOnlySpan<byte> bytes, out Party? party)
    {
        if (bytes.Length > MostBytes)
            throw RefusedException.Of(
                "file",
                $"A job file is at most {MostBytes / 1_000_000} MB; this one is {bytes.Length / 1_000_000} MB."
            );
        if (!System.Text.Unicode.Utf8.IsValid(bytes))
            throw RefusedException.Of(
                "file",
                "This is not a job file that can be read: it holds bytes that are no text (UTF-8)."
            );
        JobFile file;
        try
        {
            file =
                (
                    JobUpgrade.File(bytes) is { } upgraded
                        ? upgraded.Deserialize<JobFile>(CoreJson.Options)
                        : JsonSerializer.Deserialize<JobFile>(bytes, CoreJson.Options)
                ) ?? throw RefusedException.Of("file", "The file is empty.");
        }
        catch (JsonException wrong)
        {
            throw RefusedException.Of(
                "file",
                $"This is not a job file that can be read. Line {wrong.LineNumber + 1}{(string.IsNullOrEmpty(wrong.Path) || wrong.Path == "$" ? "" : $", at {wrong.Path}")}: {Plain(wrong)}"
            );
        }
        catch (Exception wrong) when (wrong is NotSupportedException or InvalidOperationException or ArgumentException)
        {
            throw RefusedException.Of(
                "file",
                "This is not a job file that can be read: a part of it is of an unknown kind."
            );
        }
        if (file.SchemaVersion != CurrentVersion)
            throw RefusedException.Of(
                "file",
                $"The file is of version {file.SchemaVersion}; this program reads versions 1 to {CurrentVersion}."
            );
        var job = new Job(
            file.Id,
            file.Info,
            file.Units,
            file.Deduct,
            InOrder(file.Places, p => p.Rank, p => p.Id),
            file.Work,
            ToDictionary(file.Cells, c => new CellKey(c.Work, c.Place), c => c.Cell, "cell"),
            ToDictionary(file.Book, e => e.Id, e => e, "Book entry"),
            file.Pricing,
            file.Proposal,
            InOrder(file.Schedule, s => s.Rank, s => s.Id)
        )
        {
            Crew = file.Crew,
            Sections = InOrder(file.Sections, s => s.Rank, s => s.Id),
            Conditions = file.Conditions,
            Pace = file.Pace,
            Policy = file.Policy,
            Sureness = file.Sureness,
            Choices = InOrder(file.Choices ?? [], c => c.Rank, c => c.Id),
            Quotes = InOrder(file.Quotes ?? [], q => q.Rank, q => q.Id),
            Tasks = InOrder(file.Tasks ?? [], t => t.Rank, t => t.Id),
            Blocks = file.Blocks is { } blocks ? InOrder(blocks, b => b.Rank, b => b.Id) : ProposalBlock.Starting,
            Rhythms = InOrder(file.Rhythms ?? [], r => r.Rank, r => r.Id),
            Round = file.Round ?? RoundTerms.Starting,
            Alternates = InOrder(file.Alternates ?? [], a => a.Rank, a => a.Id),
            Variants = InOrder(file.Variants ?? [], v => v.Rank, v => v.Id),
            Differs = ToDictionary(
                    file.Differs ?? [],
                    d => Jobs.Variants.Key(d.Variant, d.Path),
                    d =>
                        d.Value is { } value
                            ? Jobs.Variants.Write(JsonNode.Parse(value.GetRawText()))
                            : Jobs.Variants.Nothing,
                    "difference of a variant"
                )
                .ToImmutableSortedDictionary(StringComparer.Ordinal),
            SetAside = file.SetAside.WithComparers(StringComparer.Ordinal),
        };
        job = job with { Work = WorkPart.InOrder(job) };
        JobRules.Check(job);
        party = file.Party;
        return job;
    }

    private static ImmutableArray<T> InOrder<T>(ImmutableArray<T> things, Func<T, string> rank, Func<T, Guid> id) =>
        [.. things.OrderBy(rank, StringComparer.Ordinal).ThenBy(id)];

    private static ImmutableDictionary<TKey, TValue> ToDictionary<T, TKey, TValue>(
        ImmutableArray<T> items,
        Func<T, TKey> key,
        Func<T, TValue> value,
        string what
    )
        where TKey : notnull
    {
        var builder = ImmutableDictionary.CreateBuilder<TKey, TValue>();
        foreach (var item in items)
        {
            if (builder.ContainsKey(key(item)))
                throw RefusedException.Of("file", $"A {what} stands twice: {key(item)}.");
            builder.Add(key(item), value(item));
        }
        return builder.ToImmutable();
    }

    private static string Plain(JsonException wrong)
    {
        var message = wrong.Message;
        return wrong is PlainJsonException ? message
            : message.Contains("maximum", StringComparison.OrdinalIgnoreCase) ? "it is nested too deep."
            : message.Contains("missing required", StringComparison.Ordinal)
                ? "something that belongs there is missing."
            : message.Contains("could not be mapped", StringComparison.Ordinal)
                ? "there is something a job file does not have."
            : message.Contains("uplicate", StringComparison.Ordinal) ? "a name stands twice."
            : message.Contains("could not be converted", StringComparison.Ordinal)
                ? "a value is not of the kind that belongs there."
            : "the text breaks off or is not JSON.";
    }
}
