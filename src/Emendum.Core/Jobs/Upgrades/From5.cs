using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>Up to version 5 a job had its customer's name and address. Now it has the customer's id, and a file that leaves the house says beside it who that is.</summary>
internal sealed class From5 : Upgrade
{
    /// <summary>Name and address as the changes that were met left them; null where none was.</summary>
    public string? Name { get; private set; }

    /// <inheritdoc cref="Name"/>
    public string? Address { get; private set; }

    /// <inheritdoc/>
    public override void File(JsonObject file)
    {
        if (file["info"] is not JsonObject info)
            return;
        info.Remove("customer", out var name);
        info.Remove("customerAddress", out var address);
        info.Remove("customerId", out var id);
        // What is no text, or missing, is refused when the file is read: the old form had to have it.
        if (name is not JsonValue || address is not JsonValue)
            return;
        var (called, at) = (Text(name), Text(address));
        if (id is null && called.Trim().Length > 0)
            id = Party.IdOf(called.Trim(), at.Trim()).ToString();
        info["customer"] = id;
        if (id is not null)
            file["party"] = new JsonObject
            {
                ["id"] = id.DeepClone(),
                ["name"] = called,
                ["address"] = at,
            };
    }

    /// <inheritdoc/>
    public override Change? Change(Change change)
    {
        switch (change.Path)
        {
            case "info/customer":
                Name = Text(change.After);
                return null;
            case "info/customerAddress":
                Address = Text(change.After);
                return null;
            case "info/customerId":
                return change with { Path = "info/customer" };
            default:
                return change;
        }
    }

    private static string Text(JsonNode? node) =>
        node is JsonValue value && value.TryGetValue<string>(out var text) ? text : "";
}
