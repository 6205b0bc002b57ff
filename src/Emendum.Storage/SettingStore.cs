using System.Text.Json;
using Emendum.Core.Json;

namespace Emendum.Storage;

/// <summary>What the firm has set, by name, as JSON: usual sizes, lists of usual places, mappings of columns.</summary>
public sealed class SettingStore(Database database)
{
    /// <summary>A setting, or null where it was never set.</summary>
    public T? Get<T>(string name)
        where T : class
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT content FROM setting WHERE name = $name",
                r => JsonSerializer.Deserialize<T>(r.GetString(0), CoreJson.Options),
                ("$name", name)
            )
            .FirstOrDefault();
    }

    /// <summary>Sets it.</summary>
    public void Put<T>(string name, T value)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO setting VALUES ($name, $content) ON CONFLICT (name) DO UPDATE SET content = excluded.content",
            ("$name", name),
            ("$content", JsonSerializer.Serialize(value, CoreJson.Options))
        );
    }
}
