using System.Buffers;
using System.Security.Cryptography;
using Emendum.Core;

namespace Emendum.Storage;

/// <summary>A file that is kept.</summary>
/// <param name="Hash">SHA-256 of its content, lower case: its name.</param>
/// <param name="Type">Media type as its content says.</param>
/// <param name="Bytes">How long it is.</param>
/// <param name="Width">Of a picture, points.</param>
/// <param name="Height">Of a picture, points.</param>
public sealed record StoredFile(string Hash, string Type, long Bytes, int? Width, int? Height);

/// <summary>Files by the hash of their content, in a database of their own, in pieces that are written one by one so that nothing waits long for them (architecture decision 14).
/// What has been kept never changes; what nothing ever referred to goes.</summary>
public sealed class FileStore
{
    /// <summary>Most bytes of one file.</summary>
    public const int MostBytes = 200_000_000;

    /// <summary>Bytes of a piece.</summary>
    private const int Piece = 256 * 1024;

    private readonly Database database;
    private readonly string? spool;

    /// <summary>Hashes of files whose pieces are being written; also the lock under which that begins and pieces go.</summary>
    private readonly List<string> writing = [];

    private FileStore(Database of, string? at) => (database, spool) = (of, at);

    /// <summary>Opens the files of a data folder, and lets go of uploads that were broken off.</summary>
    /// <exception cref="RefusedException">They cannot be used; says why.</exception>
    public static FileStore Open(string folder)
    {
        var store = new FileStore(Database.OpenFiles(folder), Path.Combine(folder, "uploads"));
        if (Directory.Exists(store.spool))
            Directory.Delete(store.spool, recursive: true);
        return store;
    }

    /// <summary>The files that stand beside backups, in a folder that is somebody's own: nothing else in it is touched, and nothing is uploaded there.</summary>
    /// <exception cref="RefusedException">They cannot be used; says why.</exception>
    public static FileStore OpenPool(string folder) => new(Database.OpenFiles(folder), null);

    /// <summary>The files of a folder, to be read only; null where there are none.</summary>
    /// <exception cref="RefusedException">They cannot be read; says why.</exception>
    public static FileStore? OpenCopy(string folder) =>
        Database.OpenFilesCopy(folder) is { } database ? new(database, null) : null;

    /// <summary>Lets go of the database.</summary>
    public void Close() => database.Close();

    /// <summary>Takes in a file as it comes: to disk first, and only when all of it is there and its hash is known into the store. The same twice is kept once.</summary>
    /// <param name="content">What is sent.</param>
    /// <param name="kind">Says from the file on disk what it is.</param>
    /// <param name="now">UTC.</param>
    /// <param name="stop">Stops it; nothing is kept then.</param>
    /// <exception cref="RefusedException">It is too large, or the disk does not take it.</exception>
    public async Task<StoredFile> Take(
        Stream content,
        Func<string, (string Type, int? Width, int? Height)> kind,
        DateTime now,
        CancellationToken stop
    )
    {
        Directory.CreateDirectory(spool!);
        var path = Path.Combine(spool!, Guid.CreateVersion7().ToString());
        try
        {
            var (hash, bytes) = await Spooled(content, path, stop);
            var (type, width, height) = kind(path);
            var file = new StoredFile(hash, type, bytes, width, height);
            if (Find(hash) is { } there)
            {
                Run("UPDATE file SET added = $now WHERE hash = $hash", hash, ("$now", JobStore.Utc(now)));
                return there;
            }
            await using var whole = File.OpenRead(path);
            await Keep(file, whole, now, stop);
            return file;
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            throw RefusedException.Of("file", $"The file cannot be kept: {wrong.Message}");
        }
        finally
        {
            File.Delete(path);
        }
    }

    private static async Task<(string Hash, long Bytes)> Spooled(Stream content, string path, CancellationToken stop)
    {
        using var hashed = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        await using var file = File.Create(path);
        var (buffer, bytes) = (ArrayPool<byte>.Shared.Rent(Piece), 0L);
        try
        {
            while (await content.ReadAsync(buffer, stop) is var read and > 0)
            {
                bytes += read;
                if (bytes > MostBytes)
                    throw RefusedException.Of("file", $"A file is at most {MostBytes / 1_000_000} MB.");
                hashed.AppendData(buffer, 0, read);
                await file.WriteAsync(buffer.AsMemory(0, read), stop);
            }
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(buffer);
        }
        return (Convert.ToHexStringLower(hashed.GetHashAndReset()), bytes);
    }

    /// <summary>Writes a file whose hash is known. Broken off, it can be begun anew: pieces that are there stay.</summary>
    private async Task Keep(StoredFile file, Stream content, DateTime now, CancellationToken stop)
    {
        lock (writing)
            writing.Add(file.Hash);
        try
        {
            var buffer = new byte[Piece];
            for (var at = 0; ; at++)
            {
                stop.ThrowIfCancellationRequested();
                var read = await content.ReadAtLeastAsync(buffer, Piece, throwOnEndOfStream: false, stop);
                if (read == 0)
                    break;
                Run(
                    "INSERT OR IGNORE INTO piece VALUES ($hash, $at, $content)",
                    file.Hash,
                    ("$at", at),
                    ("$content", read == Piece ? buffer : buffer[..read])
                );
            }
            Run(
                "INSERT OR IGNORE INTO file (hash, type, bytes, width, height, added) VALUES ($hash, $type, $bytes, $width, $height, $added)",
                file.Hash,
                ("$type", file.Type),
                ("$bytes", file.Bytes),
                ("$width", file.Width),
                ("$height", file.Height),
                ("$added", JobStore.Utc(now))
            );
        }
        finally
        {
            lock (writing)
                writing.Remove(file.Hash);
        }
    }

    /// <summary>What a picture has become to leave the house; null where that was not made yet, or has gone since.</summary>
    public StoredFile? Prepared(string hash) =>
        Rows("WHERE hash = (SELECT hash FROM prepared WHERE original = $hash)", ("$hash", hash)) is [var file]
            ? file
            : null;

    /// <summary>Keeps what a picture has become to leave the house.</summary>
    /// <param name="hash">The picture.</param>
    /// <param name="prepared">What it has become, which is here.</param>
    public void KeepPrepared(string hash, string prepared) =>
        Run("INSERT OR REPLACE INTO prepared VALUES ($hash, $prepared)", hash, ("$prepared", prepared));

    private void Run(string sql, string hash, params ReadOnlySpan<(string, object?)> more)
    {
        using var connection = database.Connect();
        connection.Run(sql, [("$hash", hash), .. more]);
    }

    /// <summary>A file that is there whole, or null.</summary>
    public StoredFile? Find(string hash) => Rows("WHERE hash = $hash", ("$hash", hash)) is [var file] ? file : null;

    /// <summary>All files that something has referred to.</summary>
    public List<StoredFile> Named() => Rows("WHERE named = 1 ORDER BY hash");

    private List<StoredFile> Rows(string which, params ReadOnlySpan<(string, object?)> parameters)
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT hash, type, bytes, width, height FROM file " + which,
            r => new StoredFile(
                r.GetString(0),
                r.GetString(1),
                r.GetInt64(2),
                r.IsDBNull(3) ? null : r.GetInt32(3),
                r.IsDBNull(4) ? null : r.GetInt32(4)
            ),
            parameters
        );
    }

    /// <summary>Says that something refers to a file: from now on it stays. To be said before that something is kept.</summary>
    public void Name(string hash) => Run("UPDATE file SET named = 1 WHERE hash = $hash AND named = 0", hash);

    /// <summary>The content of a file, piece by piece as it is read; it can be read from any position.</summary>
    public Stream Read(StoredFile file) => new Stored(database, file);

    /// <summary>The whole content of a file, for those that are small.</summary>
    public byte[] Bytes(StoredFile file)
    {
        using var from = Read(file);
        var into = new byte[file.Bytes];
        from.ReadExactly(into);
        return into;
    }

    /// <summary>Reads a file and says whether its content is what its name says.</summary>
    public bool IsWhole(StoredFile file)
    {
        using var content = Read(file);
        try
        {
            return Convert.ToHexStringLower(SHA256.HashData(content)) == file.Hash;
        }
        catch (InvalidDataException)
        {
            return false;
        }
    }

    /// <summary>Copies what is named here and lacks there, each file read back before it counts. Gives how many were copied.</summary>
    /// <exception cref="RefusedException">A file is not whole.</exception>
    public int CopyTo(FileStore other, DateTime now)
    {
        var copied = 0;
        var there = other.Named().Select(f => f.Hash).ToHashSet();
        foreach (var file in Named().Where(f => !there.Contains(f.Hash)))
        {
            using (var content = Read(file))
                other.Keep(file, content, now, default).GetAwaiter().GetResult();
            if (!other.IsWhole(file))
                throw RefusedException.Of("file", $"The file {file.Hash} is not whole.");
            other.Name(file.Hash);
            copied++;
        }
        return copied;
    }

    /// <summary>Lets go of what nothing ever referred to and has been here since before <paramref name="before"/> (UTC), and of pieces of files that were never completed. Gives how many
    /// files went.</summary>
    public int Sweep(DateTime before)
    {
        lock (writing)
        {
            using var connection = database.Connect();
            var gone = connection.Run(
                "DELETE FROM file WHERE named = 0 AND added < $before",
                ("$before", JobStore.Utc(before))
            );
            var left = connection.Rows(
                "SELECT DISTINCT hash FROM piece WHERE hash NOT IN (SELECT hash FROM file)",
                r => r.GetString(0)
            );
            foreach (var hash in left.Except(writing))
                connection.Run("DELETE FROM piece WHERE hash = $hash", ("$hash", hash));
            return gone;
        }
    }

    /// <summary>A file as a stream.</summary>
    private sealed class Stored(Database database, StoredFile file) : Stream
    {
        private byte[] piece = [];
        private long pieceAt = -1;
        private long position;

        public override int Read(Span<byte> buffer)
        {
            if (position >= file.Bytes || buffer.Length == 0)
                return 0;
            var (at, from) = (position / Piece, (int)(position % Piece));
            if (at != pieceAt)
            {
                using var connection = database.Connect();
                piece = connection.Rows(
                    "SELECT content FROM piece WHERE hash = $hash AND at = $at",
                    r => (byte[])r[0],
                    ("$hash", file.Hash),
                    ("$at", at)
                )
                    is [var found]
                    ? found
                    : throw new InvalidDataException($"A piece of the file {file.Hash} is missing.");
                pieceAt = at;
            }
            var read = Math.Min(buffer.Length, piece.Length - from);
            if (read <= 0)
                throw new InvalidDataException($"A piece of the file {file.Hash} is too short.");
            piece.AsSpan(from, read).CopyTo(buffer);
            position += read;
            return read;
        }

        public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

        public override bool CanRead => true;
        public override bool CanSeek => true;
        public override bool CanWrite => false;
        public override long Length => file.Bytes;
        public override long Position
        {
            get => position;
            set => position = value;
        }

        public override long Seek(long offset, SeekOrigin origin) =>
            position =
                offset
                + origin switch
                {
                    SeekOrigin.Begin => 0,
                    SeekOrigin.Current => position,
                    _ => file.Bytes,
                };

        public override void Flush() { }

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }
}
