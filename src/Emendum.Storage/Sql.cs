using System.Text.Json;
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

    /// <summary>SQLITE_CORRUPT.</summary>
    private const int Corrupt = 11;

    /// <summary>All rows of a query. A value that is not what we write is a damage of the file, and refused as SQLite refuses one.</summary>
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
        try
        {
            while (reader.Read())
                rows.Add(read(reader));
        }
        catch (Exception wrong)
            when (wrong
                    is FormatException
                        or InvalidCastException
                        or ArgumentException
                        or OverflowException
                        or JsonException
            )
        {
            throw new SqliteException("A value in the database is not what it should be.", Corrupt);
        }
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
