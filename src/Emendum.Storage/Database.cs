using System.Reflection;
using Emendum.Core;
using Emendum.Core.Jobs;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>The firm's main SQLite file. Every connection it opens is durable and checks references (architecture decision 13).</summary>
public sealed class Database
{
    private readonly string connectionString;

    private Database(string file) =>
        connectionString = new SqliteConnectionStringBuilder
        {
            DataSource = file,
            Mode = SqliteOpenMode.ReadWriteCreate,
            DefaultTimeout = 30,
        }.ToString();

    /// <summary>Opens the file in <paramref name="folder"/>, making both where missing, and brings its tables up to date.</summary>
    /// <exception cref="RefusedException">The folder cannot be written.</exception>
    public static Database Open(string folder)
    {
        try
        {
            Directory.CreateDirectory(folder);
            var database = new Database(Path.Combine(folder, "emendum.db"));
            database.Migrate();
            return database;
        }
        catch (Exception wrong)
            when (wrong
                    is IOException
                        or UnauthorizedAccessException
                        or SqliteException { SqliteErrorCode: 8 or 14 or 26 }
            )
        {
            throw RefusedException.Of(
                "data",
                $"The data folder {folder} cannot be used: {(wrong is SqliteException { SqliteErrorCode: 26 } ? "emendum.db in it is not a database" : "it cannot be written")}."
            );
        }
    }

    /// <summary>An open connection.</summary>
    public SqliteConnection Connect()
    {
        var connection = new SqliteConnection(connectionString);
        connection.Open();
        using var pragmas = connection.CreateCommand();
        pragmas.CommandText = "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;";
        pragmas.ExecuteNonQuery();
        return connection;
    }

    /// <summary>Runs the numbered migrations that have not run, each in a transaction.</summary>
    private void Migrate()
    {
        using var connection = Connect();
        connection.Run("CREATE TABLE IF NOT EXISTS migration (number INTEGER PRIMARY KEY) STRICT");
        var assembly = Assembly.GetExecutingAssembly();
        foreach (
            var resource in assembly
                .GetManifestResourceNames()
                .Where(n => n.EndsWith(".sql", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal)
        )
        {
            var number = int.Parse(
                resource.Split('.')[^2].Split('-')[0],
                System.Globalization.CultureInfo.InvariantCulture
            );
            using var transaction = connection.BeginTransaction();
            if (
                connection
                    .Rows("SELECT number FROM migration WHERE number = $n", r => r.GetInt32(0), ("$n", number))
                    .Count > 0
            )
                continue;
            using var reader = new StreamReader(assembly.GetManifestResourceStream(resource)!);
            connection.Run(reader.ReadToEnd());
            connection.Run("INSERT INTO migration VALUES ($n)", ("$n", number));
            transaction.Commit();
        }
    }
}

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
