using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>Up to version 3 the content of a cell stood beside its work and place. What version 4 added has a default that means what it did before.</summary>
internal sealed class From3 : Upgrade
{
    /// <inheritdoc/>
    public override void File(JsonObject file)
    {
        foreach (var entry in In(file, "book"))
            From2.Entry(entry);
        foreach (var cell in In(file, "cells"))
        {
            var content = new JsonObject();
            foreach (var name in new[] { "state", "note" })
                if (cell.Remove(name, out var value))
                    content[name] = value;
            cell["cell"] = content;
        }
    }
}
