using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Plain ADO.NET in few words; values are always parameters.</summary>
public static class Sql
{
    /// <summary>Runs a statement; the number of rows it touched.</summary>
    public static int Run(
        this SqliteConnection connection,
        string sql,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    )
    {
        using var command = Command(connection, sql, parameters);
        return command.ExecuteNonQuery();
    }

    /// <summary>All rows of a query.</summary>
    public static List<T> Rows<T>(
        this SqliteConnection connection,
        string sql,
        Func<SqliteDataReader, T> read,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    )
    {
        using var command = Command(connection, sql, parameters);
        using var reader = command.ExecuteReader();
        var rows = new List<T>();
        while (reader.Read())
            rows.Add(read(reader));
        return rows;
    }

    private static SqliteCommand Command(
        SqliteConnection connection,
        string sql,
        ReadOnlySpan<(string Name, object? Value)> parameters
    )
    {
        var command = connection.CreateCommand();
        command.CommandText = sql;
        foreach (var (name, value) in parameters)
            command.Parameters.AddWithValue(
                name,
                value switch
                {
                    null => DBNull.Value,
                    Guid id => id.ToString(),
                    _ => value,
                }
            );
        return command;
    }
}
