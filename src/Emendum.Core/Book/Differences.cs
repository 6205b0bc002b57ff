using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Json;

namespace Emendum.Core.Book;

/// <summary>One field in which two versions differ; empty where one has nothing.</summary>
public sealed record Difference(string Field, string Was, string Now);

/// <summary>Where two versions of an entry differ, in words that can be shown.</summary>
public static class Differences
{
    /// <summary>Field by field; <paramref name="name"/> gives the name of an entry that is named by id.</summary>
    public static IReadOnlyList<Difference> Between(BookEntry? was, BookEntry? now, Func<Guid, string?> name)
    {
        var (before, after) = (new Dictionary<string, string>(), new Dictionary<string, string>());
        Flatten(was, before, name);
        Flatten(now, after, name);
        return
        [
            .. before
                .Keys.Union(after.Keys)
                .Where(k => k != "version" && before.GetValueOrDefault(k, "") != after.GetValueOrDefault(k, ""))
                .Select(k => new Difference(Words(k), before.GetValueOrDefault(k, ""), after.GetValueOrDefault(k, ""))),
        ];
    }

    private static void Flatten(BookEntry? entry, Dictionary<string, string> into, Func<Guid, string?> name)
    {
        if (entry is not null)
            Walk(JsonSerializer.SerializeToNode(entry, CoreJson.Options), "");

        void Walk(JsonNode? node, string path)
        {
            switch (node)
            {
                case JsonObject thing:
                    foreach (var (key, value) in thing)
                        Walk(value, path.Length == 0 ? key : $"{path}.{key}");
                    break;
                case JsonArray list:
                    for (var i = 0; i < list.Count; i++)
                        Walk(list[i], $"{path}[{i}]");
                    break;
                case not null:
                    var text = node.ToString();
                    into[path] = Guid.TryParse(text, out var id) ? name(id) ?? text : text;
                    break;
            }
        }
    }

    /// <summary><c>packs[0].price</c> as <c>packs 1: price</c>, <c>wastePercent</c> as <c>waste percent</c>.</summary>
    private static string Words(string path)
    {
        var words = new System.Text.StringBuilder();
        for (var i = 0; i < path.Length; i++)
        {
            var c = path[i];
            if (c == '[')
            {
                var end = path.IndexOf(']', i);
                words
                    .Append(' ')
                    .Append(
                        int.Parse(path.AsSpan(i + 1, end - i - 1), System.Globalization.CultureInfo.InvariantCulture)
                            + 1
                    );
                i = end;
            }
            else if (c == '.')
                words.Append(": ");
            else if (char.IsAsciiLetterUpper(c))
                words.Append(' ').Append(char.ToLowerInvariant(c));
            else
                words.Append(c);
        }
        return words.ToString();
    }
}
