using Emendum.Core;
using Emendum.Web.Outside;
using Microsoft.Extensions.Configuration;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>How the door to the outside is opened.</summary>
public class PublicOptionsTests
{
    private static PublicOptions? Of(params string[] said) =>
        PublicOptions.Of(new ConfigurationBuilder().AddCommandLine(said).Build());

    [Fact]
    public void There_is_no_door_unless_somebody_asks_for_one()
    {
        Assert.Null(Of());
        Assert.Equal(new PublicOptions(5081, null, null, PublicOptions.UsualPerMinute), Of("--public", "5081"));
        var all = Of(
            "--public",
            "0",
            "--public-address",
            "https://proposals.example/pages",
            "--public-proxy",
            "10.0.0.2",
            "--public-rate",
            "60"
        )!;
        Assert.Equal(
            ("https://proposals.example/pages", "10.0.0.2", 60),
            (all.Address, all.Proxy?.ToString(), all.PerMinute)
        );
    }

    [Theory]
    [InlineData("--public", "x")]
    [InlineData("--public", "70000")]
    [InlineData("--public", "-1")]
    [InlineData("--public-address", "https://proposals.example")]
    [InlineData("--public", "0", "--public-address", "proposals.example")]
    [InlineData("--public", "0", "--public-address", "file:///etc/passwd")]
    [InlineData("--public", "0", "--public-address", "https://ida@proposals.example")]
    [InlineData("--public", "0", "--public-proxy", "here")]
    [InlineData("--public", "0", "--public-rate", "0")]
    public void What_is_no_door_is_said(params string[] said) =>
        Assert.Contains("--public", Assert.Throws<RefusedException>(() => Of(said)).Message, StringComparison.Ordinal);
}
