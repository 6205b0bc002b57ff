namespace Emendum.Core.Jobs;

/// <summary>Headings nest by a sign between their names: <c>House / First floor</c>.</summary>
public static class Groups
{
    /// <summary>What stands between a heading and one nested in it.</summary>
    public const string Separator = " / ";

    /// <summary>A heading under another; the outer may be empty.</summary>
    public static string Under(string outer, string inner) => outer.Length == 0 ? inner : outer + Separator + inner;

    /// <summary>Whether <paramref name="group"/> is that heading, or nested in it.</summary>
    public static bool IsUnder(string group, string heading) =>
        group == heading || group.StartsWith(heading + Separator, StringComparison.Ordinal);

    /// <summary>A heading with those it is nested in, outermost first; none for no heading.</summary>
    public static IEnumerable<string> WithOuter(string group)
    {
        if (group.Length == 0)
            yield break;
        for (
            var at = group.IndexOf(Separator, StringComparison.Ordinal);
            at >= 0;
            at = group.IndexOf(Separator, at + Separator.Length, StringComparison.Ordinal)
        )
            yield return group[..at];
        yield return group;
    }

    /// <summary>Every heading of a job with those it is nested in, in the order of their first place.</summary>
    public static IEnumerable<string> Of(Job job) => job.Places.SelectMany(p => WithOuter(p.Group)).Distinct();
}
