namespace Emendum.Core;

/// <summary>Why something asked for cannot be had: the field it concerns (empty when it concerns the whole), a sentence that says what is wrong
/// and what would be right, and, for something typed, where in the text it went wrong (0-based).</summary>
/// <param name="Field">The field.</param>
/// <param name="Message">The sentence.</param>
/// <param name="Position">Where in the text.</param>
/// <param name="Suggestion">What could stand there.</param>
/// <param name="Remedies">Whole lines that would do.</param>
/// <param name="Walk">Corners (x, y, x, y … in mm) of walls that do not close.</param>
public sealed record Refusal(
    string Field,
    string Message,
    int? Position = null,
    string? Suggestion = null,
    IReadOnlyList<Remedy>? Remedies = null,
    IReadOnlyList<double>? Walk = null
);

/// <summary>One way to put a refused line right.</summary>
/// <param name="Words">What it changes.</param>
/// <param name="Line">The line with that change.</param>
public sealed record Remedy(string Words, string Line);

/// <summary>Carries a <see cref="Refusal"/> out of deep code; the edges turn it into a message beside the field, never a stack trace.</summary>
public sealed class RefusedException(Refusal refusal) : Exception(refusal.Message)
{
    /// <summary>What was refused.</summary>
    public Refusal Refusal { get; } = refusal;

    /// <summary>Shorthand for a refusal of one field.</summary>
    public static RefusedException Of(string field, string message) => new(new Refusal(field, message));
}
