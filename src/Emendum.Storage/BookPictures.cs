using System.Security.Cryptography;
using Emendum.Core;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Pictures of the Book stood in the main database once. They are copied to the files, read back there, and only then the table goes; stopped on the way, it is done again at the next start.</summary>
public static class BookPictures
{
    /// <summary>Moves what there is. Gives the names of those that cannot be moved, because what is kept under the name is not it any more; then the table stays.</summary>
    public static List<string> Move(
        Database database,
        FileStore files,
        Func<string, (string Type, int? Width, int? Height)> kind,
        DateTime now
    )
    {
        using var connection = database.Connect();
        if (!Stands(connection))
            return [];
        var hurt = new List<string>();
        foreach (var hash in connection.Rows("SELECT hash FROM book_picture ORDER BY hash", r => r.GetString(0)))
        {
            var content = connection.Rows(
                "SELECT content FROM book_picture WHERE hash = $hash",
                r => (byte[])r[0],
                ("$hash", hash)
            )[0];
            if (Convert.ToHexStringLower(SHA256.HashData(content)) != hash)
            {
                hurt.Add(hash);
                continue;
            }
            var file = files.Take(new MemoryStream(content), kind, now, default).GetAwaiter().GetResult();
            if (!files.IsWhole(file))
                throw RefusedException.Of("data", $"The picture {hash} could not be copied to the files.");
            files.Name(hash);
        }
        if (hurt.Count == 0)
            connection.Run("DROP TABLE book_picture");
        return hurt;
    }

    private static bool Stands(SqliteConnection connection) =>
        connection.Rows("SELECT 1 FROM sqlite_master WHERE name = 'book_picture'", _ => true).Count > 0;

    /// <summary>Names of the pictures in all versions of all entries that are among the files, or should be.</summary>
    public static List<string> Of(Database database)
    {
        using var connection = database.Connect();
        return Stands(connection)
            ? []
            : connection.Rows(
                "SELECT DISTINCT content ->> '$.picture' FROM book_entry WHERE coalesce(content ->> '$.picture', '') <> '' ORDER BY 1",
                r => r.GetString(0)
            );
    }
}
