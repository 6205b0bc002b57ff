using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Proposals;

/// <summary>How a message goes.</summary>
public enum MessageWay
{
    /// <summary>By e-mail, with the PDF.</summary>
    Mail,

    /// <summary>As a text message to a telephone: a few words and the link.</summary>
    Text,
}

/// <summary>Someone whom a message goes to.</summary>
/// <param name="Address">E-mail address, <c>name@example.com</c>; of a text message a telephone number.</param>
/// <param name="Copy">Whether they get a copy only.</param>
public sealed record Recipient(string Address, bool Copy);

/// <summary>A message that goes out with a proposal.</summary>
/// <param name="To">To whom; at least one who does not only get a copy.</param>
/// <param name="Subject">One line; a text message has none.</param>
/// <param name="Words">Plain text.</param>
public sealed record Message(ImmutableArray<Recipient> To, string Subject, string Words)
{
    /// <summary>How it goes.</summary>
    public MessageWay Way { get; init; }

    /// <summary>Most recipients.</summary>
    public const int MostRecipients = 20;

    /// <summary>Most characters of its words.</summary>
    public const int MostWords = 10_000;

    /// <summary>Most characters of a text message, beside its link: telephones put it together from three.</summary>
    public const int MostOfText = 400;

    /// <summary>Most characters of its subject.</summary>
    public const int MostSubject = 200;

    /// <summary>The name by which words say where each recipient's own link stands.</summary>
    public const string LinkName = "link";

    /// <summary>Whether words say where the link stands.</summary>
    public static bool NamesLink(string words) => FigureNames.In(words).Any(n => n.Name == LinkName);

    /// <summary>Words with a link where they say it by name; where they do not, it stands under them.</summary>
    public static string WithLink(string words, string link)
    {
        var places = FigureNames.In(words).Where(n => n.Name == LinkName).ToList();
        if (places.Count == 0)
            return $"{words.TrimEnd()}\n\n{link}\n";
        for (var i = places.Count - 1; i >= 0; i--)
            words = words.Remove(places[i].At, places[i].Length).Insert(places[i].At, link);
        return words;
    }

    /// <summary>How it went out, as a history says it.</summary>
    public string Went()
    {
        string Those(bool copy) => string.Join(", ", To.Where(r => r.Copy == copy).Select(r => r.Address));
        var copies = Those(true);
        return $"{(Way == MessageWay.Text ? "text message" : "mail")} to {Those(false)}{(copies.Length > 0 ? $", copy to {copies}" : "")}";
    }

    /// <summary>Most characters of an address (RFC 5321, 4.5.3.1.3, less its brackets).</summary>
    private const int MostOfAddress = 254;

    /// <summary>Whether a text is an e-mail address and nothing beside it, as forms of the web read one (WHATWG HTML, <i>valid e-mail address</i>): no name, no second one, no line's end. The part before the
    /// sign has at most 64 characters (RFC 5321, 4.5.3.1.1).</summary>
    public static bool IsAddress(string text) =>
        text.Length <= MostOfAddress
        && text.IndexOf('@', StringComparison.Ordinal) is > 0 and <= 64 and var at
        && text[..at]
            .All(c => char.IsAsciiLetterOrDigit(c) || ".!#$%&'*+/=?^_`{|}~-".Contains(c, StringComparison.Ordinal))
        && text[(at + 1)..].Split('.').All(IsLabel);

    /// <summary>A part of a domain: 1 to 63 letters, digits and hyphens, none of these at an end.</summary>
    private static bool IsLabel(string text) =>
        text.Length is > 0 and <= 63
        && text.All(c => char.IsAsciiLetterOrDigit(c) || c == '-')
        && text[0] != '-'
        && text[^1] != '-';

    /// <summary>Whether a text is a telephone number as people write one: 3 to 15 digits (E.164), perhaps with a plus before them, and blanks, hyphens, dots and brackets between.</summary>
    public static bool IsNumber(string text) =>
        text.Length <= 40
        && text.Count(char.IsAsciiDigit) is >= 3 and <= 15
        && (text[0] == '+' ? text[1..] : text).All(c =>
            char.IsAsciiDigit(c) || " -.()/".Contains(c, StringComparison.Ordinal)
        );

    /// <summary>Refuses what cannot go out.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (To.Length > MostRecipients)
            throw RefusedException.Of("to", $"At most {MostRecipients} people at a time.");
        if (Way == MessageWay.Text)
        {
            CheckText();
            return;
        }
        if (To.FirstOrDefault(r => !IsAddress(r.Address)) is { } wrong)
            throw RefusedException.Of(
                "to",
                wrong.Address.Length == 0
                    ? "An address is empty: write it, or take its line away."
                    : $"“{wrong.Address}” is not an e-mail address. Write it like name@example.com."
            );
        if (To.All(r => r.Copy))
            throw RefusedException.Of("to", "Say whom it goes to: copies alone go to nobody.");
        CheckTwice(r => r.Address);
        CheckSubject(Subject);
        CheckWords(Words);
        if (string.IsNullOrWhiteSpace(Words))
            throw RefusedException.Of("words", "A message says something.");
    }

    private void CheckText()
    {
        if (To.All(r => r.Copy))
            throw RefusedException.Of("to", "Say whom it goes to.");
        if (To.FirstOrDefault(r => !IsNumber(r.Address)) is { } wrong)
            throw RefusedException.Of(
                "to",
                wrong.Address.Length == 0
                    ? "A number is empty: write it, or take its line away."
                    : $"“{wrong.Address}” is not a telephone number."
            );
        CheckTwice(r => string.Concat(r.Address.Where(char.IsAsciiDigit)));
        if (Subject.Length > 0)
            throw RefusedException.Of("subject", "A text message has no subject.");
        if (string.IsNullOrWhiteSpace(Words))
            throw RefusedException.Of("words", "A message says something.");
        CheckTextWords(Words);
    }

    private void CheckTwice(Func<Recipient, string> by)
    {
        var twice = To.GroupBy(by, StringComparer.OrdinalIgnoreCase).FirstOrDefault(g => g.Count() > 1);
        if (twice is not null)
            throw RefusedException.Of("to", $"{twice.First().Address} stands twice.");
    }

    internal static void CheckTextWords(string words)
    {
        if (words.Length > MostOfText)
            throw RefusedException.Of(
                "words",
                $"A text message has at most {MostOfText} characters; this has {words.Length}."
            );
    }

    internal static void CheckSubject(string subject)
    {
        if (string.IsNullOrWhiteSpace(subject) || subject.Length > MostSubject || subject.Any(char.IsControl))
            throw RefusedException.Of("subject", $"A subject is one line of at most {MostSubject} characters.");
    }

    internal static void CheckWords(string words)
    {
        if (words.Length > MostWords)
            throw RefusedException.Of("words", $"At most {MostWords:N0} characters.");
    }
}
