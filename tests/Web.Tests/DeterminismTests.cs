using System.Security.Cryptography;
using Xunit;

namespace Emendum.Web.Tests;

public sealed class DeterminismTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    [Theory]
    [InlineData("01930000-0000-7000-8000-000000000999")]
    [InlineData("01930000-0000-7000-8000-000000000998")]
    [InlineData("01930000-0000-7000-8000-000000000997")]
    [InlineData("01930000-0000-7000-8000-000000000996")]
    public async Task A_demo_job_reckons_to_the_same_bytes_in_every_process_culture_and_time_zone(string job)
    {
        using var server = Server.Start(folder.Path);
        var file = Path.Combine(folder.Path, "job.json");
        await File.WriteAllBytesAsync(file, await server.Http.GetByteArrayAsync($"/api/jobs/{job}/file"));
        var hashes = new HashSet<string>();
        foreach (
            var (culture, zone) in new[]
            {
                ("en_US.UTF-8", "America/New_York"),
                ("de_DE.UTF-8", "Pacific/Auckland"),
                ("tr_TR.UTF-8", "Asia/Kathmandu"),
                ("tr_TR.UTF-8", "America/New_York"),
                ("de_DE.UTF-8", "Asia/Kathmandu"),
            }
        )
        {
            var (code, output, _) = DocumentTests.Run(
                start =>
                    (start.Environment["LC_ALL"], start.Environment["LANG"], start.Environment["TZ"]) = (
                        culture,
                        culture,
                        zone
                    ),
                "reckon",
                file
            );
            Assert.Equal(0, code);
            Assert.InRange(output.Length, 10_000, int.MaxValue);
            hashes.Add(Convert.ToHexString(SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(output))));
        }
        Assert.Single(hashes);
    }
}
