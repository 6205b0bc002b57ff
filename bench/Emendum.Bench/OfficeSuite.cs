using System.Diagnostics;
using System.Globalization;

namespace Emendum.Bench;

/// <summary>A headless office suite as a peer: the job's own workbook of workings recalculated whole. Left out where it is not installed.</summary>
internal static class OfficeSuite
{
    /// <summary>Whether one is installed.</summary>
    public static bool IsThere => File.Exists("/usr/bin/soffice");

    /// <summary>How many figures are formulas, milliseconds of a recalculation, how many differ from ours; zeros without the suite.</summary>
    public static async Task<(int Figures, double Time, int Differ)> Recalculated(byte[] workbook)
    {
        if (!IsThere)
            return default;
        var folder = Directory.CreateTempSubdirectory("emendum-bench-").FullName;
        try
        {
            var file = Path.Combine(folder, "workings.xlsx");
            await File.WriteAllBytesAsync(file, workbook);
            var start = new ProcessStartInfo("/usr/bin/python3") { RedirectStandardOutput = true };
            start.ArgumentList.Add("bench/office-suite.py");
            start.ArgumentList.Add(file);
            using var process = Process.Start(start)!;
            var said = (await process.StandardOutput.ReadToEndAsync()).Split(' ');
            await process.WaitForExitAsync();
            return (
                int.Parse(said[0], CultureInfo.InvariantCulture),
                double.Parse(said[1], CultureInfo.InvariantCulture),
                int.Parse(said[2], CultureInfo.InvariantCulture)
            );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
