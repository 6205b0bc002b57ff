using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>What has to be done to bring a job of one version to the next: its file, and each change of its log. Each stands in a file of its own.</summary>
internal abstract class Upgrade
{
    /// <summary>Brings a whole job file up.</summary>
    public abstract void File(JsonObject file);

    /// <summary>Brings one change up; null where what it changed is no part of a job any more.</summary>
    public virtual Change? Change(Change change) => change;

    /// <summary>The objects in a list of a file.</summary>
    protected static IEnumerable<JsonObject> In(JsonObject file, string list) =>
        (file[list] as JsonArray ?? []).OfType<JsonObject>();

    /// <summary>What a change says that is an object.</summary>
    protected static IEnumerable<JsonObject> Sides(Change change) =>
        new[] { change.Before, change.After }.OfType<JsonObject>();
}
