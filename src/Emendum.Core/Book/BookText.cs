namespace Emendum.Core.Book;

/// <summary>What a text is for.</summary>
public enum TextUse
{
    Scope,
    Exclusions,
    Terms,
    Letter,
    WhatToExpect,
}

/// <summary>A text of the firm's: scope wording, exclusions, terms, letters, what-to-expect notes.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Use">What it is for.</param>
/// <param name="Body">The text.</param>
public sealed record BookText(Guid Id, int Version, string Name, TextUse Use, string Body)
    : BookEntry(Id, Version, Name)
{
    internal override void Check(BookCheck check)
    {
        if (string.IsNullOrWhiteSpace(Body))
            throw check.Wrong("body", "it needs a text.");
        check.Text(Body, "body", 10_000);
    }
}
