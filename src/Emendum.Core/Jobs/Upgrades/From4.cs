using System.Text.Json.Nodes;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Up to version 4 work named its section, and the crew, its hours and its set-up were terms of the price. Ids of sections derive from their names, so that files and logs agree.</summary>
internal sealed class From4 : Upgrade
{
    private static readonly (string Was, string Now)[] Crew =
    [
        ("crewSize", "size"),
        ("hoursPerDay", "hoursPerDay"),
        ("setUp", "setUp"),
    ];

    private readonly List<string> names = [];

    /// <summary>Names of sections that were met, in order.</summary>
    public IReadOnlyList<string> Names => names;

    /// <inheritdoc/>
    public override void File(JsonObject file)
    {
        var crew = new JsonObject();
        if (file["pricing"] is JsonObject pricing)
            foreach (var (was, now) in Crew)
                if (pricing.Remove(was, out var value))
                    crew[now] = value;
        crew.TryAdd("setUp", null);
        file["crew"] = crew;
        foreach (var item in In(file, "work").OrderBy(w => w["rank"]?.ToString(), StringComparer.Ordinal))
            Item(item);
        var rank = default(string);
        file["sections"] = new JsonArray(
            [
                .. names.Select(name => new JsonObject
                {
                    ["id"] = Section.IdOf(name).ToString(),
                    ["name"] = name,
                    ["rank"] = rank = Rank.Between(rank, null),
                }),
            ]
        );
    }

    /// <inheritdoc/>
    public override Change? Change(Change change)
    {
        var parts = change.Path.Split('/');
        if (parts is ["pricing", var term] && Array.Find(Crew, c => c.Was == term).Now is { } now)
            return change with { Path = "crew/" + now };
        if (parts is ["work", _, "section"])
            return change with { Before = Id(change.Before), After = Id(change.After) };
        if (parts is ["work", _])
            foreach (var item in Sides(change))
                Item(item);
        return change;
    }

    private void Item(JsonObject item) => item["section"] = Id(item["section"]);

    private JsonValue? Id(JsonNode? name)
    {
        // What is no text is left to be refused when it is read.
        if (name is not JsonValue value || !value.TryGetValue<string>(out var text))
            return null;
        if (!names.Contains(text))
            names.Add(text);
        return JsonValue.Create(Section.IdOf(text).ToString());
    }
}
