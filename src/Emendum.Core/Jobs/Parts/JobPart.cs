using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>One part of a job: its name in files and paths, how it is read and set there, and what it must be. Each stands in a file of its own.</summary>
/// <param name="name">Its name.</param>
internal abstract class JobPart(string name)
{
    /// <summary>Its name in files and at the start of paths.</summary>
    public string Name => name;

    /// <summary>What stands at a place within it: the path after its name.</summary>
    public abstract JsonNode? Get(Job job, string at);

    /// <summary>The job with something else there.</summary>
    /// <exception cref="RefusedException">That cannot stand there.</exception>
    public abstract Job Set(Job job, string at, JsonNode? value);

    /// <summary>Whether a field can be set by its name, by a command that names it.</summary>
    public virtual bool Settable(string field) => false;

    /// <summary>Checks the whole of it.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public abstract void Check(Job job);

    /// <summary>Checks what changes of it have touched, in the changed job.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public virtual void CheckTouched(Job job, IReadOnlyList<Change> changes) => Check(job);

    /// <summary>What stands at a path, after the name.</summary>
    protected string At(Change change) => change.Path.Length == name.Length ? "" : change.Path[(name.Length + 1)..];

    /// <summary>A value as JSON, or one field of it.</summary>
    protected static JsonNode? Node<T>(T? value, string field = "")
    {
        if (value is null)
            return null;
        var node = JsonSerializer.SerializeToNode(value, CoreJson.Options);
        return field.Length == 0 ? node : node![field]?.DeepClone();
    }

    /// <summary>Whether a record has a field of that name that is read.</summary>
    protected static bool HasField<T>(string field) =>
        CoreJson.Options.GetTypeInfo(typeof(T)).Properties.Any(p => p.Name == field && p.Set is not null);

    /// <summary>The thing with one field set, or (no field) the whole of it replaced.</summary>
    protected static T? Changed<T>(T? old, string field, JsonNode? value)
        where T : class
    {
        if (field.Length == 0)
            return value?.Deserialize<T>(CoreJson.Options);
        var node = JsonSerializer.SerializeToNode(old, CoreJson.Options)!.AsObject();
        // A field that is null may be left out of what is written.
        if (!node.ContainsKey(field) && !HasField<T>(field))
            throw RefusedException.Of(field, $"There is no field “{field}” here.");
        node[field] = value?.DeepClone();
        try
        {
            return node.Deserialize<T>(CoreJson.Options);
        }
        catch (JsonException wrong)
        {
            throw RefusedException.Of(
                field,
                wrong is not PlainJsonException ? "That is not a value this field takes."
                    : wrong.Message.StartsWith("A number", StringComparison.Ordinal) ? "Write a number, like 12.5."
                    : wrong.Message
            );
        }
    }
}
