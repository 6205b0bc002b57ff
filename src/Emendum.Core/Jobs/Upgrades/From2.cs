using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>Up to version 2 equipment had a cost per hour only.</summary>
internal sealed class From2 : Upgrade
{
    /// <inheritdoc/>
    public override void File(JsonObject file)
    {
        foreach (var entry in In(file, "book"))
            Entry(entry);
    }

    /// <inheritdoc/>
    public override Change? Change(Change change)
    {
        if (change.Path.StartsWith("book/", StringComparison.Ordinal))
            foreach (var entry in Sides(change))
                Entry(entry);
        return change;
    }

    /// <summary>An entry of the Book, wherever it stands.</summary>
    public static void Entry(JsonObject entry)
    {
        if (entry["kind"]?.ToString() == "equipment" && entry.Remove("costPerHour", out var cost))
            entry["cost"] = cost;
    }
}
