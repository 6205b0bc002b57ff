using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Brings what older versions wrote to the present form, by a chain with one link a version: job files, and the change sets of a job's log.</summary>
public static class JobUpgrade
{
    /// <summary>The chain; the first brings version 1 to version 2. Links may carry state, so each file and each log has its own.</summary>
    private static Upgrade[] Chain() =>
        [new From1(), new From2(), new From3(), new From4(), new From5(), new From6(), new From7()];

    /// <summary>A file of an older version in the present form; null when it is of the present version, or of none known.</summary>
    /// <exception cref="JsonException">Not JSON.</exception>
    public static JsonNode? File(ReadOnlySpan<byte> bytes)
    {
        var chain = Chain();
        var version = VersionOf(bytes);
        if (version < 1 || version > chain.Length)
            return null;
        var file = JsonNode
            .Parse(bytes, documentOptions: new() { MaxDepth = CoreJson.Deepest, AllowDuplicateProperties = false })!
            .AsObject();
        foreach (var link in chain.Skip(version - 1))
            link.File(file);
        file["schemaVersion"] = JobFile.CurrentVersion;
        return file;
    }

    /// <summary>An entry of the Book of any older version in the present form.</summary>
    public static void Entry(JsonObject entry) => From2.Entry(entry);

    /// <summary>The log of one job, brought up entry by entry from its beginning.</summary>
    public sealed class Log
    {
        private readonly Upgrade[] chain = Chain();

        /// <summary>The changes of an entry that was written with <paramref name="schema"/>. What is older than version 4 was not told apart, so all links look at it: each knows the form it changes.</summary>
        public ImmutableArray<Change> Changes(ImmutableArray<Change> changes, int schema) =>
            schema >= JobFile.CurrentVersion ? changes : [.. changes.Select(c => Brought(c, schema)).OfType<Change>()];

        /// <summary>The customer as the file has it, with what the entries that were brought up changed of the name and address; null where an older version knew of none.</summary>
        public Party? Changed(Party? party)
        {
            var from5 = chain.OfType<From5>().Single();
            var (name, address) = (from5.Name ?? party?.Name ?? "", from5.Address ?? party?.Address ?? "");
            return name.Trim().Length == 0
                ? null
                : new(party?.Id ?? Party.IdOf(name.Trim(), address.Trim()), name.Trim(), address.Trim());
        }

        private Change? Brought(Change was, int schema)
        {
            var change = was;
            foreach (var link in schema <= 4 ? chain : chain.Skip(schema - 1))
                if (link.Change(change) is { } brought)
                    change = brought;
                else
                    return null;
            // Whole things are written as today's types write them, so that undo finds what it put there.
            var parts = change.Path.Split('/');
            return (parts[0], parts.Length) switch
            {
                ("places", 2) => Written<Place>(change),
                ("work", 2) => Written<WorkItem>(change),
                ("cells", 3) => Written<Cell>(change),
                ("book", 2) => Written<BookEntry>(change),
                _ => change,
            };
        }

        private static Change Written<T>(Change change)
            where T : class
        {
            static JsonNode? Side(JsonNode? side) =>
                side is null
                    ? null
                    : JsonSerializer.SerializeToNode(side.Deserialize<T>(CoreJson.Options), CoreJson.Options);
            return change with { Before = Side(change.Before), After = Side(change.After) };
        }

        /// <summary>The job with all sections that its log has ever named, so that whatever is taken back finds its own.</summary>
        public Job Completed(Job job) => ChangeSet.Apply(job, Missing(job));

        /// <summary>What makes the sections that were named and that a job does not have.</summary>
        public ImmutableArray<Change> Missing(Job job)
        {
            var made = ImmutableArray.CreateBuilder<Change>();
            foreach (var name in chain.OfType<From4>().Single().Names)
            {
                if (job.Section(Section.IdOf(name)) is not null || job.Sections.Any(s => s.Name == name))
                    continue;
                made.Add(WorkInJob.Made(job, Section.IdOf(name), name));
                job = ChangeSet.Apply(job, [made[^1]]);
            }
            return made.ToImmutable();
        }
    }

    private static int VersionOf(ReadOnlySpan<byte> bytes)
    {
        var reader = new Utf8JsonReader(bytes, new JsonReaderOptions { MaxDepth = CoreJson.Deepest });
        while (reader.Read())
            if (
                reader.CurrentDepth == 1
                && reader.TokenType == JsonTokenType.PropertyName
                && reader.ValueTextEquals("schemaVersion")
            )
                return reader.Read() && reader.TokenType == JsonTokenType.Number && reader.TryGetInt32(out var version)
                    ? version
                    : 0;
        return 0;
    }
}
