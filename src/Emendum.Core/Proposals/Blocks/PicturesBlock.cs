using Emendum.Core.Jobs;

namespace Emendum.Core.Proposals;

/// <summary>Pictures in rows. In each they are as high as each other, and fill its width unless they would stand too high then.</summary>
internal static class PicturesBlock
{
    /// <summary>How high a row is at the most, over its width.</summary>
    private const decimal Highest = 0.62m;

    public static IEnumerable<Element> Of(ProposalBlock block)
    {
        var across = block.Across ?? ProposalBlock.UsualAcross;
        return (block.Files ?? []).Chunk(across).Select(files => Row(files, across));
    }

    private static PictureRow Row(BlockFile[] files, int across)
    {
        var shapes = Array.ConvertAll(files, f => f.Width / (decimal)f.Height);
        var sum = shapes.Sum();
        // What stands upright by itself would be a page high at full width; a row that is not full leaves room.
        var filled = Math.Min(files.Length / (decimal)across, sum * Highest);
        return new(
            [
                .. files.Zip(
                    shapes,
                    (file, shape) =>
                        new Pictured(
                            file.File,
                            file.Words,
                            file.Width,
                            file.Height,
                            decimal.Round(100 * filled * shape / sum, 2, MidpointRounding.ToZero)
                        )
                ),
            ]
        );
    }
}
