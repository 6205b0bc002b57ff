namespace Emendum.Core.Jobs;

/// <summary>Headings nest by a sign between their names: <c>House / First floor</c>.</summary>
public static class Groups
{
    /// <summary>What stands between a heading and one nested in it.</summary>
    public const string Separator = " / ";

    /// <summary>A heading under another; the outer may be empty.</summary>
    public static string Under(string outer, string inner) => outer.Length == 0 ? inner : outer + Separator + inner;
}
