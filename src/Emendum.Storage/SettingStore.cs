using System.Text.Json;
using Emendum.Core.Json;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>What the firm has set, by name, as JSON: usual sizes, lists of usual places, mappings of columns.</summary>
public sealed class SettingStore(Database database)
{
    /// <summary>A setting, or null where it was never set.</summary>
    public T? Get<T>(string name)
        where T : class
    {
        using var connection = database.Connect();
        return Get<T>(connection, name);
    }

    /// <summary>A setting, or what a firm starts with where it was never set.</summary>
    public T Get<T>(string name, T starting)
        where T : class => Get<T>(name) ?? starting;

    private static T? Get<T>(SqliteConnection connection, string name)
        where T : class =>
        connection
            .Rows(
                "SELECT content FROM setting WHERE name = $name",
                r => JsonSerializer.Deserialize<T>(r.GetString(0), CoreJson.Options),
                ("$name", name)
            )
            .FirstOrDefault();

    /// <summary>Changes it as it stands, or sets it; nobody else does meanwhile.</summary>
    public T Change<T>(string name, Func<T?, T> change)
        where T : class
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var value = change(Get<T>(connection, name));
        Put(connection, name, value);
        writing.Commit();
        return value;
    }

    /// <summary>Sets it.</summary>
    public void Put<T>(string name, T value)
    {
        using var connection = database.Connect();
        Put(connection, name, value);
    }

    private static void Put<T>(SqliteConnection connection, string name, T value) =>
        connection.Run(
            "INSERT INTO setting VALUES ($name, $content) ON CONFLICT (name) DO UPDATE SET content = excluded.content",
            ("$name", name),
            ("$content", JsonSerializer.Serialize(value, CoreJson.Options))
        );
}
