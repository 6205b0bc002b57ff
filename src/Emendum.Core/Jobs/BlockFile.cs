using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>A file in a block of the proposal: a picture with its caption, or something attached with its name. The block keeps which file it is; its content is elsewhere.</summary>
/// <param name="File">SHA-256 of its content, lower case.</param>
/// <param name="Words">Caption of a picture, which may be empty; name of what is attached.</param>
/// <param name="Width">Of a picture as it stands upright, points; 0 of what is no picture.</param>
/// <param name="Height">Of a picture, likewise.</param>
public sealed record BlockFile(string File, string Words, int Width, int Height)
{
    /// <summary>Most files of a block.</summary>
    public const int Most = 24;

    /// <summary>Most characters of a caption or a name.</summary>
    public const int MostWords = 300;

    /// <summary>Most points of a side.</summary>
    private const int MostPoints = 20_000;

    /// <summary>Whether a kind of block holds files.</summary>
    public static bool AreIn(BlockKind kind) => kind is BlockKind.Pictures or BlockKind.Attachments;

    /// <summary>Checks the files of one block.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public static void Check(BlockKind kind, ImmutableArray<BlockFile> files)
    {
        if (files.IsDefaultOrEmpty)
            return;
        if (!AreIn(kind))
            throw RefusedException.Of("files", $"“{BlockNames.Of(kind)}” holds no files.");
        if (files.Length > Most)
            throw RefusedException.Of("files", $"At most {Most} files in a block.");
        if (files.Any(f => f is null))
            throw RefusedException.Of("files", "A file is missing in the list.");
        if (files.DistinctBy(f => f.File).Count() != files.Length)
            throw RefusedException.Of("files", "That file is here already.");
        foreach (var file in files)
            file.Check(kind);
    }

    private void Check(BlockKind kind)
    {
        if (!ContentHash.Is(File))
            throw RefusedException.Of("files", "A file is named by the SHA-256 of its content.");
        if (Words.Length > MostWords || Words.Any(char.IsControl))
            throw RefusedException.Of("files", $"A caption or name is one line of at most {MostWords} characters.");
        if (Width is < 0 or > MostPoints || Height is < 0 or > MostPoints || Width == 0 != (Height == 0))
            throw RefusedException.Of("files", $"A picture has 1 to {MostPoints:#,0} points a side.");
        if (kind == BlockKind.Pictures && Width == 0)
            throw RefusedException.Of("files", "That is not a PNG, JPEG or WebP picture.");
        if (kind == BlockKind.Attachments && string.IsNullOrWhiteSpace(Words))
            throw RefusedException.Of("files", "What is attached has a name.");
    }
}
