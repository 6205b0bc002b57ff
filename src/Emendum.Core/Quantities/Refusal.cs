namespace Emendum.Core;

/// <summary>Why something asked for cannot be had: the field it concerns (empty when it concerns the whole), a sentence that says what is wrong
/// and what would be right, and, for something typed, where in the text it went wrong (0-based).</summary>
public sealed record Refusal(string Field, string Message, int? Position = null, string? Suggestion = null);

/// <summary>Carries a <see cref="Refusal"/> out of deep code; the edges turn it into a message beside the field, never a stack trace.</summary>
public sealed class RefusedException(Refusal refusal) : Exception(refusal.Message)
{
    /// <summary>What was refused.</summary>
    public Refusal Refusal { get; } = refusal;

    /// <summary>Shorthand for a refusal of one field.</summary>
    public static RefusedException Of(string field, string message) => new(new Refusal(field, message));
}
