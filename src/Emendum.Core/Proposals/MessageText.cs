using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Core.Proposals;

/// <summary>What the firm writes when it sends a proposal, with figures by name.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Subject">Subject of the mail.</param>
/// <param name="Words">Its words, plain text.</param>
public sealed record MessageText(Guid Id, string Name, string Subject, string Words)
{
    /// <summary>Refuses what no message is.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 120)
            throw RefusedException.Of("name", "A message has a name of at most 120 characters.");
        Message.CheckSubject(Subject);
        Message.CheckWords(Words);
        FigureNames.Check(Subject, "subject");
        FigureNames.Check(Words, "words", Message.LinkName);
    }
}

/// <summary>The firm's messages, which of them is offered first, and from which address its mail comes.</summary>
/// <param name="All">All of them.</param>
/// <param name="Usual">The one that is offered first.</param>
/// <param name="From">The firm's e-mail address; empty where it has not said.</param>
public sealed record MessageTexts(ImmutableArray<MessageText> All, Guid Usual, string From)
{
    /// <summary>What a text message to a telephone says, with figures by name.</summary>
    public string Text { get; init; } =
        "{firm}: our proposal for {job} is here, {total} with tax, until {valid until}. {link}";

    /// <summary>Name of the firm's setting.</summary>
    public const string Setting = "messages";

    /// <summary>What a firm starts with.</summary>
    public static readonly MessageTexts Starting = Made();

    private static MessageTexts Made()
    {
        static MessageText Text(string name, string subject, string words) =>
            new(DerivedId.Of($"message/{name}"), name, subject, words);
        var first = Text(
            "Proposal",
            "Proposal {number}: {job}",
            """
            Good day,

            here is our proposal for {job}. It comes to {total} with tax, and its prices hold until {valid until}.

            Please read what is included and what is not. If something is not as we talked about, answer this mail and we change it.

            {firm}
            """
        );
        return new(
            [
                first,
                Text(
                    "A changed proposal",
                    "Proposal {number}, now revision {revision}: {job}",
                    """
                    Good day,

                    we have changed our proposal for {job} as you asked. Revision {revision} takes the place of what you had from us; it comes to {total} with tax, and its prices hold until {valid until}.

                    {firm}
                    """
                ),
                Text(
                    "A reminder",
                    "Proposal {number}: {job}, until {valid until}",
                    """
                    Good day,

                    our proposal for {job} is with you still. Its prices hold until {valid until}; after that we have to look at them again. Is there anything you would like to ask?

                    {firm}
                    """
                ),
            ],
            first.Id,
            ""
        );
    }

    /// <summary>Refuses what cannot be kept.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (From.Length > 0 && !Message.IsAddress(From))
            throw RefusedException.Of(
                "from",
                "That is not an e-mail address. Write it like name@example.com, or leave it empty."
            );
        NamedOnes.Check(All, Usual, m => m.Id, m => m.Name, "message", "messages", "message");
        foreach (var message in All)
            message.Check();
        if (string.IsNullOrWhiteSpace(Text))
            throw RefusedException.Of("text", "A text message says something.");
        if (Text.Length > Message.MostOfText)
            throw RefusedException.Of("text", $"At most {Message.MostOfText} characters.");
        FigureNames.Check(Text, "text", Message.LinkName);
    }
}
