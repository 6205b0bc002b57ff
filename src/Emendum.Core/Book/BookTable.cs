using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Json;
using Emendum.Core.Places;

namespace Emendum.Core.Book;

/// <summary>A row of a table of the Book, read.</summary>
/// <param name="Row">1-based.</param>
/// <param name="Name">The entry's name.</param>
/// <param name="Kind">Its kind.</param>
/// <param name="Entry">What it would become; null where it cannot be read.</param>
/// <param name="IsNew">Whether the Book has no such entry yet.</param>
/// <param name="Differences">What it would change.</param>
/// <param name="Wrong">Why it cannot be read.</param>
public sealed record BookRow(
    int Row,
    string Name,
    string Kind,
    BookEntry? Entry,
    bool IsNew,
    IReadOnlyList<Difference> Differences,
    string? Wrong
);

/// <summary>The Book as a table: a column for each thing people keep in tables, and one more with the rest as JSON, so that nothing is lost.</summary>
public static class BookTable
{
    /// <summary>A column: where it stands in an entry, and how it is written.</summary>
    private sealed record Column(
        string Field,
        string Heading,
        string Path,
        ImmutableArray<string> Known,
        Func<JsonNode?, Names, string> Write,
        Func<string, Names, JsonNode?> Read
    );

    private sealed record Names(Func<Guid, string?> NameOf, Func<string, string, Guid?> IdOf);

    private static Column Plain(string field, string heading, params string[] known) =>
        new(field, heading, field, [.. known], (node, _) => node?.ToString() ?? "", (text, _) => text);

    private static Column Optional(string field, string heading, params string[] known) =>
        Plain(field, heading, known) with
        {
            Read = (text, _) => text.Length == 0 ? null : text,
        };

    private static Column YesNo(string field, string heading, params string[] known) =>
        new(
            field,
            heading,
            field,
            [.. known],
            (node, _) => node?.GetValue<bool>() == true ? "yes" : "no",
            (text, _) =>
                text.ToLowerInvariant() switch
                {
                    "yes" or "y" or "true" or "1" or "x" => true,
                    "no" or "n" or "false" or "0" or "" => false,
                    _ => throw RefusedException.Of(field, $"{heading}: “{text}” is neither yes nor no."),
                }
        );

    private static Column Entry(string field, string heading, string kind, params string[] known) =>
        new(
            field,
            heading,
            field,
            [.. known],
            (node, names) => node is null ? "" : names.NameOf(Guid.Parse(node.ToString())) ?? node.ToString(),
            (text, names) =>
                text.Length == 0
                    ? null
                    : (
                        names.IdOf(kind, text)
                        ?? throw RefusedException.Of(
                            field,
                            $"{heading}: there is no {kind} “{text}” in the Book, or more than one."
                        )
                    ).ToString()
        );

    private static readonly ImmutableArray<Column> Columns =
    [
        Plain("section", "Section", "group", "heading"),
        Plain("trade", "Trade"),
        new(
            "tags",
            "Tags",
            "tags",
            [],
            (node, _) => string.Join("; ", (node as JsonArray ?? []).Select(t => t!.ToString())),
            (text, _) => new JsonArray([.. Parts(text).Select(t => (JsonNode)t)])
        ),
        YesNo("archived", "Archived"),
        Plain("unit", "Unit", "unit of use", "uom"),
        new(
            "packs",
            "Packs",
            "packs",
            ["pack", "packs and prices"],
            (node, _) =>
                string.Join("; ", (node as JsonArray ?? []).Select(p => $"{p!["name"]}: {p["size"]} at {p["price"]}")),
            (text, _) => new JsonArray([.. Parts(text).Select(Pack)])
        ),
        Optional("coverage", "Coverage", "spread", "spreading rate"),
        Optional("laterCoverage", "Later coverage"),
        Plain("wastePercent", "Waste %", "waste"),
        YesNo("taxed", "Taxed"),
        Plain("brand", "Brand", "maker", "manufacturer"),
        Plain("category", "Category"),
        Plain("supplier", "Supplier", "vendor"),
        Plain("code", "Code", "sku", "article", "article no."),
        Plain("colour", "Colour", "color"),
        Plain("wage", "Wage"),
        Optional("sellRate", "Sell rate"),
        new(
            "burden",
            "Burden",
            "burden",
            [],
            (node, _) =>
                string.Join(
                    "; ",
                    (node as JsonArray ?? []).Select(b =>
                        $"{b!["name"]}: {(b["percent"] is { } p ? p + " %" : b["perHour"] + " per h")}{(b["followsPremiums"]?.GetValue<bool>() == false ? " fixed" : "")}"
                    )
                ),
            (text, _) => new JsonArray([.. Parts(text).Select(Burden)])
        ),
        Plain("cost", "Cost"),
        Plain("per", "Per"),
        Plain("price", "Price", "unit price"),
        YesNo("lumpSum", "Lump sum"),
        new(
            "measure",
            "Measured against",
            "measure",
            ["measure", "measured by"],
            (node, _) => node?.ToString() ?? "",
            (text, _) =>
                Measures.All.FirstOrDefault(
                    m =>
                        m.Name() == text
                        || m.Label(Quantities.UnitSystem.Metres).Equals(text, StringComparison.OrdinalIgnoreCase),
                    (Measure)(-1)
                )
                    is var measure
                && (int)measure >= 0
                    ? measure.Name()
                    : throw RefusedException.Of("measure", $"“{text}” is not a measure.")
        ),
        new(
            "paces",
            "Rate",
            "paces",
            ["pace", "production rate", "rates"],
            (node, _) =>
                node is JsonArray { Count: 1 } one && one[0]!["coats"]!.ToString() == "1"
                    ? one[0]!["pace"]!.ToString()
                    : string.Join("; ", (node as JsonArray ?? []).Select(p => $"{p!["coats"]}: {p["pace"]}")),
            (text, _) =>
                new JsonArray(
                    [
                        .. Parts(text)
                            .Select(
                                (p, i) =>
                                    p.IndexOf(':') is var at and > 0
                                        ? new JsonObject
                                        {
                                            ["coats"] = int.TryParse(p[..at], out var coats)
                                                ? coats
                                                : throw RefusedException.Of(
                                                    "paces",
                                                    $"Rate: “{p[..at]}” is not a number of coats."
                                                ),
                                            ["pace"] = p[(at + 1)..].Trim(),
                                        }
                                        : (JsonNode)new JsonObject { ["coats"] = i + 1, ["pace"] = p }
                            ),
                    ]
                )
        ),
        Entry("role", "Role", "role"),
        Entry("product", "Product", "material", "material"),
        Plain("wording", "Customer reads", "wording", "description"),
        Plain("crewNote", "Crew reads", "crew note"),
        Plain("reason", "Reason"),
        Plain("body", "Text"),
    ];

    /// <summary>What a column can be.</summary>
    public static readonly ImmutableArray<TableField> Fields =
    [
        new("id", "Id", []),
        new("kind", "Kind", ["type"]),
        new("name", "Name", ["entry", "item", "product name"]),
        .. Columns.Select(c => new TableField(c.Field, c.Heading, c.Known)),
        new("rest", "Rest (JSON)", ["rest"]),
    ];

    /// <summary>All entries as a table, text only.</summary>
    public static (IReadOnlyList<string> Columns, IReadOnlyList<IReadOnlyList<string>> Rows) Write(
        IReadOnlyCollection<BookEntry> entries
    )
    {
        var names = NamesOf(entries.ToDictionary(e => e.Id));
        var rows = new List<IReadOnlyList<string>>();
        foreach (var entry in entries)
        {
            var node = JsonSerializer.SerializeToNode(entry, CoreJson.Options)!.AsObject();
            var row = new List<string> { entry.Id.ToString(), entry.KindName(), entry.Name };
            foreach (var column in Columns)
                row.Add(node.Remove(column.Path, out var value) ? column.Write(value, names) : "");
            foreach (var told in new[] { "id", "kind", "name", "version" })
                node.Remove(told);
            row.Add(node.ToJsonString(CoreJson.Options));
            rows.Add(row);
        }
        return ([.. Fields.Select(f => f.Heading)], rows);
    }

    /// <summary>Reads rows against the Book as it is. A row is the entry of its id, else of its kind and name, else a new one; columns that are not mapped keep what they were. <paramref name="newId"/> gives new entries their ids.</summary>
    public static IReadOnlyList<BookRow> Read(
        IReadOnlyList<IReadOnlyList<string>> rows,
        IReadOnlyDictionary<string, int> mapping,
        IReadOnlyDictionary<Guid, BookEntry> book,
        Func<Guid> newId
    )
    {
        var all = new Dictionary<Guid, BookEntry>(book);
        var byName = book
            .Values.GroupBy(e => (e.KindName(), e.Name.ToLowerInvariant()))
            .ToDictionary(g => g.Key, g => g.First());
        var names = NamesOf(all);
        var read = new BookRow[rows.Count];
        var seen = new Dictionary<Guid, int>();
        // Rates and assemblies last: what they name may stand in the same table.
        var order = Enumerable
            .Range(0, rows.Count)
            .OrderBy(i =>
                Of(i, "kind").ToLowerInvariant() switch
                {
                    "assembly" => 2,
                    "rate" or "setup" => 1,
                    _ => 0,
                }
            );
        foreach (var i in order)
        {
            var (kind, name) = (Of(i, "kind"), Of(i, "name"));
            try
            {
                var old =
                    Guid.TryParse(Of(i, "id"), out var id) && book.TryGetValue(id, out var same)
                        ? same
                        : byName.GetValueOrDefault((kind, name.ToLowerInvariant()))
                            ?? (kind.Length == 0 ? Only(name, book) : null);
                kind =
                    old?.KindName()
                    ?? BookEntry
                        .Kinds.FirstOrDefault(k =>
                            k.Kind.Equals(kind, StringComparison.OrdinalIgnoreCase)
                            || k.Words.Equals(kind, StringComparison.OrdinalIgnoreCase)
                        )
                        .Kind
                    ?? throw RefusedException.Of(
                        "kind",
                        kind.Length == 0
                            ? "Say what kind of entry it is."
                            : $"“{kind}” is not a kind of entry: {string.Join(", ", BookEntry.Kinds.Select(k => k.Kind))}."
                    );
                var entry = Entry(i, old, kind, name, id);
                if (!seen.TryAdd(entry.Id, i + 1))
                    throw RefusedException.Of("name", $"The same entry stands in row {seen[entry.Id]}.");
                BookRules.Check(entry, all, named: false, unfinished: true);
                all[entry.Id] = entry;
                read[i] = new(
                    i + 1,
                    entry.Name,
                    kind,
                    entry,
                    old is null,
                    old is null ? [] : Differences.Between(old, entry, names.NameOf),
                    null
                );
            }
            catch (RefusedException wrong)
            {
                read[i] = new(i + 1, name, kind, null, false, [], wrong.Refusal.Message);
            }
        }
        return read;

        string Of(int row, string field) =>
            mapping.TryGetValue(field, out var column) && column >= 0 && column < rows[row].Count
                ? rows[row][column].Trim()
                : "";

        bool Mapped(string field) => mapping.TryGetValue(field, out var column) && column >= 0;

        BookEntry Entry(int row, BookEntry? old, string kind, string name, Guid id)
        {
            if (name.Length == 0)
                throw RefusedException.Of("name", "The name is missing.");
            var start = old ?? Blank.Of(kind, id == Guid.Empty ? newId() : id, name);
            var node = JsonSerializer.SerializeToNode(start, CoreJson.Options)!.AsObject();
            node["name"] = name;
            try
            {
                if (Of(row, "rest") is { Length: > 0 } rest)
                    foreach (var (key, value) in JsonNode.Parse(rest)?.AsObject() ?? [])
                        if (key is not ("id" or "kind" or "version"))
                            node[key] = value?.DeepClone();
                foreach (var column in Columns)
                {
                    if (!Mapped(column.Field))
                        continue;
                    var text = Of(row, column.Field);
                    if (!node.ContainsKey(column.Path))
                    {
                        if (text.Length > 0 && text != "no")
                            throw RefusedException.Of(
                                column.Field,
                                $"A {kind} has no {column.Heading.ToLowerInvariant()}."
                            );
                        continue;
                    }
                    // A new entry keeps its default where nothing is said.
                    if (
                        text.Length == 0
                        && old is null
                        && Of(row, "rest").Length == 0
                        && column.Field is not ("section" or "trade")
                    )
                        continue;
                    node[column.Path] = column.Read(text, names);
                }
                return node.Deserialize<BookEntry>(CoreJson.Options)!;
            }
            catch (JsonException wrong)
            {
                var at = (wrong.Path ?? "").TrimStart('$', '.');
                var heading =
                    Columns.FirstOrDefault(c => at.StartsWith(c.Path, StringComparison.Ordinal))?.Heading
                    ?? (at.Length == 0 ? "Rest (JSON)" : at);
                throw RefusedException.Of(
                    at,
                    $"{heading}: {(wrong is PlainJsonException ? wrong.Message : "that is not a value that belongs there.")}"
                );
            }
            catch (Exception wrong)
                when (wrong is NotSupportedException or InvalidOperationException or ArgumentException)
            {
                throw RefusedException.Of("rest", "Rest (JSON): that is not a value that belongs there.");
            }
        }
    }

    private static BookEntry? Only(string name, IReadOnlyDictionary<Guid, BookEntry> book)
    {
        var same = book.Values.Where(e => e.Name.Equals(name, StringComparison.OrdinalIgnoreCase)).Take(2).ToArray();
        return same.Length == 1 ? same[0] : null;
    }

    private static Names NamesOf(Dictionary<Guid, BookEntry> all)
    {
        var counted = 0;
        var ids = new Dictionary<(string, string), Guid?>();
        return new(
            id => all.GetValueOrDefault(id)?.Name,
            (kind, name) =>
            {
                // Entries of the table itself come to stand here while it is read.
                if (counted != all.Count)
                {
                    ids = all
                        .Values.GroupBy(e => (e.KindName(), e.Name.ToLowerInvariant()))
                        .ToDictionary(g => g.Key, g => g.Take(2).Count() == 1 ? g.First().Id : (Guid?)null);
                    counted = all.Count;
                }
                return ids.GetValueOrDefault((kind, name.ToLowerInvariant()));
            }
        );
    }

    private static IEnumerable<string> Parts(string text) =>
        text.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    /// <summary><c>5 gal pail: 5 at 215</c>.</summary>
    private static JsonNode Pack(string text)
    {
        var (colon, at) = (text.LastIndexOf(':'), text.LastIndexOf(" at ", StringComparison.Ordinal));
        if (colon < 0 || at < colon)
            throw RefusedException.Of(
                "packs",
                $"Packs: “{text}” is not a pack. Write NAME: SIZE at PRICE, like 5 gal pail: 5 at 215."
            );
        return new JsonObject
        {
            ["name"] = text[..colon].Trim(),
            ["size"] = text[(colon + 1)..at].Trim(),
            ["price"] = text[(at + 4)..].Trim(),
        };
    }

    /// <summary><c>Social insurance: 7.65 %</c> or <c>Tools: 1.10 per h</c>, with <c>fixed</c> behind it where it does not follow premiums.</summary>
    private static JsonNode Burden(string text)
    {
        var colon = text.LastIndexOf(':');
        var value = text[(colon + 1)..].Trim();
        var follows = !value.EndsWith("fixed", StringComparison.Ordinal);
        if (!follows)
            value = value[..^5].Trim();
        var (percent, perHour) =
            value.EndsWith('%') ? (value[..^1].Trim(), (string?)null)
            : value.EndsWith("per h", StringComparison.Ordinal) ? ((string?)null, value[..^5].Trim())
            : throw RefusedException.Of(
                "burden",
                $"Burden: “{text}” is neither like Insurance: 4.35 % nor like Tools: 1.10 per h."
            );
        return new JsonObject
        {
            ["name"] = colon < 0 ? "" : text[..colon].Trim(),
            ["percent"] = percent,
            ["perHour"] = perHour,
            ["followsPremiums"] = follows,
        };
    }
}
