using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Json;

namespace Emendum.Core.Book;

/// <summary>The whole Book as one JSON file (docs/book-file.md).</summary>
public sealed record BookFile(int SchemaVersion, ImmutableArray<BookEntry> Entries)
{
    /// <summary>The version this program writes.</summary>
    public const int CurrentVersion = 1;

    /// <summary>Most entries that are read.</summary>
    public const int MostEntries = 50_000;

    /// <summary>The entries as file bytes, in order of id.</summary>
    public static byte[] Write(IEnumerable<BookEntry> entries) =>
        JsonSerializer.SerializeToUtf8Bytes(
            new BookFile(CurrentVersion, [.. entries.OrderBy(e => e.Id)]),
            CoreJson.Indented
        );

    /// <summary>Reads a file and holds it against the Book: every entry with what it would change. Entries are known by id.</summary>
    /// <exception cref="RefusedException">Not such a file; says where.</exception>
    public static IReadOnlyList<BookRow> Read(ReadOnlySpan<byte> bytes, IReadOnlyDictionary<Guid, BookEntry> book)
    {
        JsonArray entries;
        // Names are turned into text only when they are asked for; what is no text is found now.
        if (!System.Text.Unicode.Utf8.IsValid(bytes))
            throw RefusedException.Of("file", "This is not a Book file: it holds bytes that are no text (UTF-8).");
        try
        {
            var file =
                JsonNode
                    .Parse(
                        bytes,
                        documentOptions: new() { MaxDepth = CoreJson.Deepest, AllowDuplicateProperties = false }
                    )
                    ?.AsObject() ?? throw RefusedException.Of("file", "The file is empty.");
            if (
                file["schemaVersion"] is not JsonValue version
                || !version.TryGetValue<int>(out var number)
                || number != CurrentVersion
            )
                throw RefusedException.Of("file", $"This is not a Book file of version {CurrentVersion}.");
            entries = file["entries"] as JsonArray ?? throw RefusedException.Of("file", "The file has no entries.");
        }
        catch (Exception wrong) when (wrong is JsonException or InvalidOperationException or ArgumentException)
        {
            throw RefusedException.Of("file", "This is not a Book file: the text breaks off or is not JSON.");
        }
        if (entries.Count > MostEntries)
            throw RefusedException.Of("file", $"A Book file has at most {MostEntries:#,0} entries.");
        var all = new Dictionary<Guid, BookEntry>(book);
        var (read, wrongs) = (new BookEntry?[entries.Count], new string?[entries.Count]);
        var seen = new HashSet<Guid>();
        for (var i = 0; i < entries.Count; i++)
        {
            try
            {
                var entry = entries[i]?.Deserialize<BookEntry>(CoreJson.Options);
                if (entry is null)
                    wrongs[i] = "There is a hole in the list.";
                else if (!seen.Add(entry.Id))
                    wrongs[i] = "The same entry stands twice.";
                else
                    all[entry.Id] = read[i] = entry;
            }
            catch (Exception wrong)
                when (wrong is JsonException or NotSupportedException or InvalidOperationException or ArgumentException)
            {
                wrongs[i] =
                    wrong is PlainJsonException
                        ? wrong.Message
                        : $"Something in it is not as it should be{(wrong is JsonException { Path: { Length: > 2 } path } ? $", at {path[2..]}" : "")}.";
            }
        }
        var rows = new List<BookRow>();
        for (var i = 0; i < read.Length; i++)
        {
            var name = read[i]?.Name ?? (entries[i] as JsonObject)?["name"]?.ToString() ?? "";
            var kind = read[i]?.KindName() ?? (entries[i] as JsonObject)?["kind"]?.ToString() ?? "";
            if (wrongs[i] is null)
            {
                try
                {
                    BookRules.Check(read[i]!, all, named: false, unfinished: true);
                    var old = book.GetValueOrDefault(read[i]!.Id);
                    rows.Add(
                        new(
                            i + 1,
                            name,
                            kind,
                            read[i],
                            old is null,
                            old is null ? [] : Differences.Between(old, read[i], id => all.GetValueOrDefault(id)?.Name),
                            null
                        )
                    );
                    continue;
                }
                catch (RefusedException refused)
                {
                    wrongs[i] = refused.Refusal.Message;
                }
            }
            rows.Add(new(i + 1, name, kind, null, false, [], wrongs[i]));
        }
        return rows;
    }
}
