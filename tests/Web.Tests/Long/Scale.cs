namespace Emendum.Web.Tests;

/// <summary>Tests that take over a minute have a short form, in the test command, and a full form in <c>./run-long</c>; the same code with other numbers.</summary>
internal static class Scale
{
    /// <summary>Category of the tests that <c>./run-long</c> runs.</summary>
    public const string Category = "Category";

    /// <summary>In both.</summary>
    public const string Long = "Long";

    /// <summary>In <c>./run-long</c> only: what needs a disk of its own.</summary>
    public const string LongOnly = "LongOnly";

    /// <summary>Whether this is the full form.</summary>
    public static bool IsFull => Environment.GetEnvironmentVariable("EMENDUM_LONG") == "1";

    /// <summary>One number or the other.</summary>
    public static int Of(int brief, int full) => IsFull ? full : brief;
}
