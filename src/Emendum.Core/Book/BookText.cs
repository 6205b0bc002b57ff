namespace Emendum.Core.Book;

/// <summary>What a text is for.</summary>
public enum TextUse
{
    Scope,
    Exclusions,
    Terms,
    Letter,
    WhatToExpect,
    About,
    Cover,

    /// <summary>For any block of a proposal.</summary>
    Other,
}

/// <summary>A text of the firm's: scope wording, exclusions, terms, letters, what-to-expect notes. Its marks are those of <c>Proposals/Marks</c>; it may say figures by name.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Use">What it is for.</param>
/// <param name="Body">The text.</param>
public sealed record BookText(Guid Id, int Version, string Name, TextUse Use, string Body)
    : BookEntry(Id, Version, Name)
{
    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Lack> Lacks => Lack.Of((string.IsNullOrWhiteSpace(Body), "body", "its words"));

    internal override void Check(BookCheck check)
    {
        check.Text(Body, "body", 10_000);
        FigureNames.Check(Body, "body");
    }
}
