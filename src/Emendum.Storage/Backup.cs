using System.Globalization;
using Emendum.Core;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>What a whole copy of the database holds.</summary>
/// <param name="Jobs">Jobs.</param>
/// <param name="Edits">Edits of all their logs.</param>
/// <param name="Entries">Entries of the Book.</param>
/// <param name="Files">Files in the pool beside it.</param>
/// <param name="Lacking">Pictures of the Book that are not among them.</param>
public sealed record BackedUp(int Jobs, long Edits, int Entries, int Files = 0, int Lacking = 0);

/// <summary>Whole copies of the database: made while it is in use, proved readable, put back. Files stand in one pool beside the copies, each once for all of them.</summary>
public static class Backup
{
    /// <summary>Copies the database to a new file, and proves that the copy can be read before it gets its name; then the files that the pool beside it lacks.</summary>
    /// <exception cref="RefusedException">There is such a file already, or the copy is not whole.</exception>
    public static BackedUp Make(Database database, FileStore? files, string file, DateTime now)
    {
        if (File.Exists(file))
            throw RefusedException.Of(
                "file",
                $"{file} is there already. A backup is never written over; choose another name."
            );
        try
        {
            Database.Remove(file + ".new");
            database.CopyTo(file + ".new");
            var made = Verify(file + ".new");
            // After the database: what it names is in the files by then.
            if (files?.Named().Count > 0)
            {
                var pool = FileStore.OpenPool(FolderOf(file));
                files.CopyTo(pool, now);
                made = made with { Files = pool.Named().Count };
                pool.Close();
            }
            File.Move(file + ".new", file);
            return made;
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            throw RefusedException.Of("file", $"The backup {file} cannot be written: {wrong.Message}");
        }
        catch (SqliteException wrong)
        {
            throw RefusedException.Of(
                "file",
                $"The backup {file} could not be made: {Database.Says(wrong) ?? wrong.Message}."
            );
        }
        finally
        {
            Database.Remove(file + ".new");
        }
    }

    private static string FolderOf(string file) => Path.GetDirectoryName(Path.GetFullPath(file))!;

    /// <summary>Reads a copy from one end to the other, and every file of the pool beside it.</summary>
    /// <exception cref="RefusedException">It is not whole; says what is hurt.</exception>
    public static BackedUp VerifyWithFiles(string file)
    {
        var made = Verify(file);
        var pool = FileStore.OpenCopy(FolderOf(file));
        var named = pool?.Named() ?? [];
        if (named.Find(f => !pool!.IsWhole(f)) is { } hurt)
            throw Hurt(file, $"the file {hurt.Hash} beside it is not whole");
        return made with
        {
            Files = named.Count,
            Lacking = BookPictures.Of(Database.OpenCopy(file)).Except(named.Select(f => f.Hash)).Count(),
        };
    }

    /// <summary>Reads a copy from one end to the other: its pages, its references, every job with its whole log, every entry of the Book.</summary>
    /// <exception cref="RefusedException">It is not whole; says what is hurt.</exception>
    public static BackedUp Verify(string file)
    {
        if (!File.Exists(file))
            throw RefusedException.Of("file", $"There is no file {file}.");
        var database = Database.OpenCopy(file);
        if (database.IsOlder)
            return AsUpgraded(file);
        try
        {
            using var connection = database.Connect();
            var pages = connection.Rows("PRAGMA integrity_check(5)", r => r.GetString(0));
            if (pages is not ["ok"])
                throw Hurt(file, string.Join("; ", pages));
            if (connection.Rows("PRAGMA foreign_key_check", r => r.GetString(0)) is [var table, ..])
                throw Hurt(file, $"rows of {table} refer to what is not there");
            var edits = 0L;
            var jobs = connection.Rows("SELECT id, name FROM job", r => (Id: r.GetGuid(0), Name: r.GetString(1)));
            foreach (var (id, name) in jobs)
                edits += Edits(file, database, id, name);
            var (entries, unread) = new BookStore(database).Everything();
            return unread is [var entry, ..]
                ? throw Hurt(file, $"the Book's entry {entry} cannot be read")
                : new(jobs.Count, edits, entries.Count);
        }
        catch (SqliteException wrong)
        {
            throw Hurt(file, Database.Says(wrong) ?? wrong.Message);
        }
        finally
        {
            using var connection = database.Connect();
            SqliteConnection.ClearPool(connection);
        }
    }

    /// <summary>What an older version left is read as it will be when it is restored: brought up to date, in a copy of its own.</summary>
    private static BackedUp AsUpgraded(string file)
    {
        var folder = Directory.CreateTempSubdirectory("emendum-verify-");
        try
        {
            var copy = Path.Combine(folder.FullName, Database.FileName);
            Database.OpenCopy(file).CopyTo(copy);
            Database.Upgraded(copy).Close();
            return Verify(copy);
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    private static int Edits(string file, Database database, Guid id, string name)
    {
        try
        {
            return new JobStore(database).Prove(id);
        }
        catch (RefusedException wrong)
        {
            throw Hurt(file, $"the job {name} ({id}): {wrong.Message}");
        }
    }

    /// <summary>Puts a copy in the place of a folder's database. What stood there is kept under another name, which is given back; null where there was none. The folder must be held.</summary>
    /// <exception cref="RefusedException">The copy is not whole; nothing has changed.</exception>
    public static string? Restore(DataFolder folder, string file, DateTime now)
    {
        VerifyWithFiles(file);
        var target = Path.Combine(folder.Path, Database.FileName);
        var kept = default(string);
        try
        {
            Database.Remove(target + ".new");
            // Not the bytes of the file: what it has not written into itself yet would be left behind.
            Database.OpenCopy(file).CopyTo(target + ".new");
            // Files first: they harm nothing where the database is not put back after all.
            if (FileStore.OpenCopy(FolderOf(file)) is { } pool && FolderOf(file) != Path.GetFullPath(folder.Path))
            {
                var files = FileStore.Open(folder.Path);
                pool.CopyTo(files, now);
                files.Close();
            }
            var mark = target + Database.Restoring;
            // An earlier one that was broken off has put aside what stood there.
            kept = File.Exists(mark) ? File.ReadAllText(mark) : null;
            if (File.Exists(target))
            {
                kept = Path.Combine(
                    folder.Path,
                    $"emendum.before-restore-{now.ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture)}.db"
                );
                File.WriteAllText(mark, kept);
                // With what it has not written into itself yet.
                foreach (var end in new[] { "-wal", "-shm", "" })
                    if (File.Exists(target + end))
                        File.Move(target + end, kept + end);
            }
            File.Move(target + ".new", target);
            File.Delete(mark);
            return kept;
        }
        catch (SqliteException wrong)
        {
            throw RefusedException.Of(
                "file",
                $"{file} could not be put back: {Database.Says(wrong) ?? wrong.Message}."
            );
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            throw RefusedException.Of("file", $"{file} could not be put back: {wrong.Message}");
        }
    }

    private static RefusedException Hurt(string file, string what) =>
        RefusedException.Of("file", $"{file} is not whole: {what}.");
}
