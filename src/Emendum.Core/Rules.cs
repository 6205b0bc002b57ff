namespace Emendum.Core;

/// <summary>The rules by which a job is reckoned and priced, told apart by number. A revision that was sent keeps with which it was made.</summary>
public static class Rules
{
    /// <summary>One more whenever a figure of some job may come out otherwise than before.</summary>
    public const int Version = 1;
}
