using System.IO.Compression;
using Emendum.Core;
using Emendum.Core.Figures;

namespace Emendum.Documents.Tables;

/// <summary>Reads an uploaded table. What it is, is told by its content and never by its name; what could be a trap is refused before it is opened.</summary>
public static class TableFile
{
    /// <summary>Most bytes of a file.</summary>
    public const int MostBytes = 10_000_000;

    private const long MostUnpacked = 120_000_000;
    private const int MostParts = 2_000,
        MostRatio = 250,
        MostOther = 2_000_000;

    /// <summary>The sheet asked for.</summary>
    /// <exception cref="RefusedException">Too large, of a kind that is not read, damaged, or a trap.</exception>
    public static Table Read(byte[] content, int sheet)
    {
        if (content.Length > MostBytes)
            throw Wrong($"A table is at most {MostBytes / 1_000_000} MB.");
        if (content.Length == 0)
            throw Wrong("The file is empty.");
        if (content.AsSpan().StartsWith("PK"u8))
        {
            CheckArchive(content);
            return Workbook.Read(content, sheet);
        }
        ReadOnlySpan<byte> oldWorkbook = [0xD0, 0xCF, 0x11, 0xE0];
        if (content.AsSpan().StartsWith(oldWorkbook))
            throw Wrong("This is a workbook of an old or locked kind. Save it as .xlsx without a password, or as CSV.");
        return CsvText.Read(content);
    }

    /// <summary>Refuses an archive that is no workbook or would unpack to more than any workbook needs.</summary>
    private static void CheckArchive(byte[] content)
    {
        try
        {
            using var archive = new ZipArchive(new MemoryStream(content, writable: false), ZipArchiveMode.Read);
            if (archive.Entries.Count > MostParts)
                throw Wrong("This archive has too many parts to be a workbook.");
            if (archive.GetEntry("[Content_Types].xml") is null || archive.GetEntry("xl/workbook.xml") is null)
                throw Wrong("This is an archive, but not a workbook. Choose an .xlsx or CSV file.");
            var buffer = new byte[81920];
            var total = 0L;
            foreach (var entry in archive.Entries)
            {
                // Counted while unpacking, since an archive may lie about its sizes.
                using var part = entry.Open();
                var size = 0L;
                for (int read; (read = part.Read(buffer)) > 0; )
                {
                    size += read;
                    total += read;
                    // All but texts and sheets is read whole before anything can be said of it.
                    if (
                        size > MostOther
                        && !entry.FullName.StartsWith("xl/worksheets/", StringComparison.OrdinalIgnoreCase)
                        && !entry.FullName.StartsWith("xl/sharedStrings", StringComparison.OrdinalIgnoreCase)
                        && IsXml(entry.FullName)
                    )
                        throw Wrong("A part of this workbook is far larger than in any table. It is not opened.");
                    if (
                        total > MostUnpacked
                        || (size > 1_000_000 && size > MostRatio * Math.Max(1, entry.CompressedLength))
                    )
                        throw Wrong("This workbook unpacks to far more than its size. It is not opened.");
                }
            }
        }
        catch (InvalidDataException)
        {
            throw Wrong("This workbook is damaged and cannot be read.");
        }
    }

    private static bool IsXml(string part) =>
        part.EndsWith(".xml", StringComparison.OrdinalIgnoreCase)
        || part.EndsWith(".rels", StringComparison.OrdinalIgnoreCase);

    internal static RefusedException Wrong(string message) => RefusedException.Of("file", message);
}
