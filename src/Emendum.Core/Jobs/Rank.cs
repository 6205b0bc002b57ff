namespace Emendum.Core.Jobs;

/// <summary>Sort keys with room between any two, so that inserting or moving one thing changes one thing.</summary>
public static class Rank
{
    private const string Digits = "0123456789abcdefghijklmnopqrstuvwxyz";

    /// <summary>A key for a place among things that have theirs, in their order; 0 is before all.</summary>
    public static string At<T>(IReadOnlyList<T> things, int at, Func<T, string> rank) =>
        Between(at == 0 ? null : rank(things[at - 1]), at == things.Count ? null : rank(things[at]));

    /// <summary>A key after <paramref name="low"/> and before <paramref name="high"/> in ordinal order; null is the end of the list.</summary>
    public static string Between(string? low, string? high)
    {
        low ??= "";
        var key = new System.Text.StringBuilder();
        for (var i = 0; ; i++)
        {
            var a = i < low.Length ? Digits.IndexOf(low[i]) : 0;
            var b = high is not null && i < high.Length ? Digits.IndexOf(high[i]) : Digits.Length;
            if (b - a > 1)
            {
                // At the end of a list a small step keeps keys short over many insertions.
                var step = high is null ? Math.Min(a + 1, Digits.Length - 1) : (a + b) / 2;
                if (step > a)
                    return key.Append(Digits[step]).ToString();
            }
            key.Append(Digits[a]);
            if (b > a)
                high = null;
        }
    }
}
