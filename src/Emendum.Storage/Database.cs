using System.Globalization;
using System.Reflection;
using Emendum.Core;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>One of the firm's two SQLite files: the main one, or the one that holds files. Every connection it opens is durable and checks references (architecture decision 13).</summary>
public sealed class Database
{
    /// <summary>Name of the main one in a data folder.</summary>
    public const string FileName = "emendum.db";

    /// <summary>What a database is for: its name in a data folder, and the numbered migrations of this program, in order.</summary>
    private sealed record Tables(string FileName, (int Number, string Resource)[] Migrations)
    {
        public static readonly Tables Main = new(Database.FileName, Numbered(".Migrations."));
        public static readonly Tables Files = new("emendum-files.db", Numbered(".Migrations.Files."));

        public int Newest => Migrations[^1].Number;

        private static (int, string)[] Numbered(string folder) =>
            [
                .. Assembly
                    .GetExecutingAssembly()
                    .GetManifestResourceNames()
                    .Where(n => n.EndsWith(".sql", StringComparison.Ordinal))
                    .Where(n => n.LastIndexOf(folder, StringComparison.Ordinal) + folder.Length == Start(n))
                    .Order(StringComparer.Ordinal)
                    .Select(n => (int.Parse(n[Start(n)..].Split('-')[0], CultureInfo.InvariantCulture), n)),
            ];

        /// <summary>Where the name of the file begins in the name of a resource.</summary>
        private static int Start(string resource) => resource.LastIndexOf('.', resource.Length - 5) + 1;
    }

    /// <summary>End of the name of the mark that stands beside a database while a copy is put in its place; it says where what stood there is kept.</summary>
    internal const string Restoring = ".restoring";

    private readonly string connectionString;
    private readonly bool reads;

    private readonly Tables tables;

    private Database(string file, SqliteOpenMode mode, Tables of)
    {
        (File, tables) = (file, of);
        reads = mode == SqliteOpenMode.ReadOnly;
        connectionString = new SqliteConnectionStringBuilder
        {
            DataSource = file,
            Mode = mode,
            DefaultTimeout = 30,
        }.ToString();
    }

    /// <summary>The file.</summary>
    public string File { get; }

    /// <summary>Opens the database of a folder and brings its tables up to date. Where there is none, it is built beside its name, with what <paramref name="fill"/> puts in, and only then
    /// given the name: whatever happens meanwhile, there is a whole one or none.</summary>
    /// <exception cref="RefusedException">It cannot be used; says why.</exception>
    public static Database Open(string folder, Action<Database>? fill = null) => Open(folder, Tables.Main, fill);

    /// <summary>Opens the database of a folder's files, likewise.</summary>
    /// <exception cref="RefusedException">It cannot be used; says why.</exception>
    internal static Database OpenFiles(string folder) => Open(folder, Tables.Files, null);

    private static Database Open(string folder, Tables of, Action<Database>? fill) =>
        Guarded(
            Path.Combine(folder, of.FileName),
            file =>
            {
                if (!System.IO.File.Exists(file) && System.IO.File.Exists(file + Restoring))
                    throw Wrong(
                        file,
                        $"putting a copy in its place was broken off. What stood there is kept as {System.IO.File.ReadAllText(file + Restoring)}; run emendum restore FILE once more, with that file or another"
                    );
                if (!System.IO.File.Exists(file))
                    Build(file, of, fill);
                var database = new Database(file, SqliteOpenMode.ReadWrite, of);
                if (new FileInfo(file).Length == 0)
                    throw Wrong(file, "it is empty (0 bytes). Restore a copy, or move it away to begin anew");
                database.Migrate();
                return database;
            }
        );

    /// <summary>Opens a copy, to be read only.</summary>
    /// <exception cref="RefusedException">It is none that this program can read; says why.</exception>
    public static Database OpenCopy(string file) => OpenCopy(file, Tables.Main);

    /// <summary>Opens the database of a folder's files, to be read only; null where there is none.</summary>
    /// <exception cref="RefusedException">It is none that this program can read; says why.</exception>
    internal static Database? OpenFilesCopy(string folder) =>
        Path.Combine(folder, Tables.Files.FileName) is var file && System.IO.File.Exists(file)
            ? OpenCopy(file, Tables.Files)
            : null;

    private static Database OpenCopy(string file, Tables of) =>
        Guarded(
            file,
            _ =>
            {
                var database = new Database(file, SqliteOpenMode.ReadOnly, of);
                using var connection = database.Connect();
                database.At = database.Known(connection);
                return database.At == 0 ? throw Wrong(file, "it is empty") : database;
            }
        );

    /// <summary>Brings the tables of a copy up to date, and opens it.</summary>
    /// <exception cref="RefusedException">It cannot be.</exception>
    internal static Database Upgraded(string file) =>
        Guarded(
            file,
            _ =>
            {
                var database = new Database(file, SqliteOpenMode.ReadWrite, Tables.Main);
                database.Migrate(keep: false);
                return database;
            }
        );

    /// <summary>Up to which migration an opened copy has been brought.</summary>
    private int At { get; set; }

    /// <summary>Whether an opened copy was left by an older version.</summary>
    internal bool IsOlder => At < tables.Newest;

    private static void Build(string file, Tables of, Action<Database>? fill)
    {
        var fresh = file + ".new";
        Remove(fresh);
        var database = new Database(fresh, SqliteOpenMode.ReadWriteCreate, of);
        database.Migrate();
        fill?.Invoke(database);
        database.Close();
        System.IO.File.Move(fresh, file);
    }

    /// <summary>Removes a database file with what SQLite keeps beside it.</summary>
    internal static void Remove(string file)
    {
        foreach (var end in new[] { "", "-wal", "-shm" })
            System.IO.File.Delete(file + end);
    }

    /// <summary>Writes everything into the one file and lets go of it.</summary>
    public void Close()
    {
        using (var connection = Connect())
        {
            connection.Run("PRAGMA wal_checkpoint(TRUNCATE)");
            SqliteConnection.ClearPool(connection);
        }
    }

    /// <summary>Copies the whole database as it stands, also while it is written to, by SQLite's online backup.</summary>
    public void CopyTo(string file)
    {
        using var connection = Connect();
        using var copy = new SqliteConnection(
            new SqliteConnectionStringBuilder { DataSource = file, Pooling = false }.ToString()
        );
        copy.Open();
        connection.BackupDatabase(copy);
        // One file, with nothing beside it.
        copy.Run("PRAGMA journal_mode=DELETE");
        copy.Close();
        OwnerOnly(file);
    }

    /// <summary>Lets nobody but its owner read a file.</summary>
    public static void OwnerOnly(string file)
    {
        if (!OperatingSystem.IsWindows())
            System.IO.File.SetUnixFileMode(file, UnixFileMode.UserRead | UnixFileMode.UserWrite);
    }

    private readonly Lock writing = new();

    /// <summary>A transaction that writes, when its turn has come.</summary>
    public Writing Writes() => new(writing, Connect);

    /// <summary>An open connection.</summary>
    public SqliteConnection Connect() =>
        Open(reads ? "" : "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;");

    private SqliteConnection Open(string pragmas)
    {
        var connection = new SqliteConnection(connectionString);
        connection.Open();
        if (pragmas.Length > 0)
            connection.Run(pragmas);
        return connection;
    }

    /// <summary>Up to which migration the file has been brought; 0 for a new one.</summary>
    /// <exception cref="RefusedException">It is no database of ours, or one of a newer version.</exception>
    private int Known(SqliteConnection connection)
    {
        var names = connection.Rows("SELECT name FROM sqlite_master WHERE type = 'table'", r => r.GetString(0));
        if (names.Count == 0)
            return 0;
        if (!names.Contains("migration"))
            throw Wrong(File, "it is not one of Emendum");
        var at = connection.Rows("SELECT coalesce(max(number), 0) FROM migration", r => r.GetInt32(0))[0];
        if (at > tables.Newest)
            throw Wrong(
                File,
                $"it was written by a newer version of Emendum (its tables are of step {at}, this version knows {tables.Newest}). Start that version, or restore a copy from before it"
            );
        return at;
    }

    /// <summary>Runs the numbered migrations that have not run, each in a transaction; before the first, a copy of the file is kept.</summary>
    private void Migrate(bool keep = true)
    {
        using var connection = Connect();
        OwnerOnly(File);
        var at = Known(connection);
        var ahead = tables.Migrations.Where(m => m.Number > at).ToList();
        if (keep && at > 0 && ahead.Count > 0)
            Keep(at);
        connection.Run("CREATE TABLE IF NOT EXISTS migration (number INTEGER PRIMARY KEY) STRICT");
        foreach (var (number, resource) in ahead)
        {
            using var transaction = connection.BeginTransaction();
            using var reader = new StreamReader(Assembly.GetExecutingAssembly().GetManifestResourceStream(resource)!);
            connection.Run(reader.ReadToEnd());
            connection.Run("INSERT INTO migration VALUES ($n)", ("$n", number));
            transaction.Commit();
        }
    }

    /// <summary>Keeps a copy of the file as the last version left it: <c>emendum.before-step-4.db</c>. One that is there already is older and stays.</summary>
    private void Keep(int at)
    {
        var copy = Path.ChangeExtension(File, $".before-step-{at + 1}.db");
        if (System.IO.File.Exists(copy))
            return;
        Remove(copy + ".new");
        CopyTo(copy + ".new");
        System.IO.File.Move(copy + ".new", copy);
    }

    private static T Guarded<T>(string file, Func<string, T> open)
    {
        try
        {
            return open(file);
        }
        catch (SqliteException wrong)
        {
            throw Wrong(file, Says(wrong) ?? wrong.Message);
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            throw Wrong(file, "it cannot be read or written");
        }
    }

    /// <summary>A failure while the database is read for the first time, in a sentence.</summary>
    public RefusedException Refused(SqliteException wrong) => Wrong(File, Says(wrong) ?? wrong.Message);

    private static RefusedException Wrong(string file, string says) =>
        RefusedException.Of("data", $"The database {file} cannot be used: {says}.");

    /// <summary>What a failure of the database means for whoever works with it; null where it is ours to explain.</summary>
    public static string? Says(SqliteException wrong) =>
        wrong.SqliteErrorCode switch
        {
            8 or 14 =>
                "it cannot be written. See who owns the data folder, and whether its disk is mounted for reading only",
            10 => "its disk cannot be read or written",
            11 => "it is damaged. Stop Emendum and restore a backup: emendum restore FILE",
            13 => "the disk is full. Free some space, then try again",
            26 => "it is not a database",
            _ => null,
        };
}
