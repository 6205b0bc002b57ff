using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Proposals;

/// <summary>How the firm's paper looks.</summary>
public enum Look
{
    /// <summary>A thin ticked rule along the head of each page.</summary>
    Tape,

    /// <summary>A band down the left margin, headings beside it.</summary>
    Margin,

    /// <summary>The firm's name in the middle between two rules, and nothing else.</summary>
    Rules,
}

/// <summary>A size of paper.</summary>
public enum Paper
{
    Letter,
    A4,
}

/// <summary>How the firm's documents look and in which language their dates and numbers stand.</summary>
/// <param name="Look">The look.</param>
/// <param name="Paper">The paper.</param>
/// <param name="Language">Of dates and numbers, BCP 47; one of <see cref="PaperLanguage.All"/>.</param>
/// <param name="Colour">The firm's colour, <c>#0e5a63</c>.</param>
/// <param name="Slogan">A line under its name.</param>
/// <param name="Mark">Hash of the picture of its mark; empty for none.</param>
/// <param name="Head">Lines beside its address at the head: telephone, registration.</param>
/// <param name="Foot">A line at the foot of each page.</param>
public sealed record Brand(
    Look Look,
    Paper Paper,
    string Language,
    string Colour,
    string Slogan,
    string Mark,
    string Head,
    string Foot
)
{
    /// <summary>Name of the firm's setting.</summary>
    public const string Setting = "brand";

    /// <summary>What a firm starts with.</summary>
    public static readonly Brand Starting = new(Look.Tape, Paper.Letter, "en-GB", "#f5c518", "", "", "", "");

    /// <summary>The language of its dates and numbers.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public PaperLanguage Writes => PaperLanguage.Named(Language);

    /// <summary>The firm's colour where words stand in it on white paper: darkened as far as is needed to be read (WCAG 2.2, 1.4.3: 4.5 to 1).</summary>
    public string ColourOfWords => Contrast.Readable(Colour);

    /// <summary>Refuses what cannot be.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (!Contrast.IsColour(Colour))
            throw RefusedException.Of("colour", "A colour reads like #0e5a63.");
        if (PaperLanguage.All.All(l => l.Name != Language))
            throw RefusedException.Of("language", "That is not a language of dates and numbers that there is.");
        if (Slogan.Length > 120)
            throw RefusedException.Of("slogan", "A slogan is at most 120 characters.");
        if (Head.Length > 300)
            throw RefusedException.Of("head", "The head is at most 300 characters.");
        if (Foot.Length > 200)
            throw RefusedException.Of("foot", "The foot is at most 200 characters.");
        if (Mark.Length > 0 && !ContentHash.Is(Mark))
            throw RefusedException.Of("mark", "That is not a picture that is here.");
    }
}

/// <summary>Contrast of colours on white (WCAG 2.2, relative luminance and contrast ratio).</summary>
public static class Contrast
{
    /// <summary>Least ratio of words to their ground.</summary>
    public const double OfWords = 4.5;

    /// <summary>Whether a text is a colour: <c>#</c> and six digits of sixteen.</summary>
    public static bool IsColour(string text) =>
        text.Length == 7 && text[0] == '#' && text.Skip(1).All(char.IsAsciiHexDigit);

    /// <summary>Contrast ratio of a colour on white, 1 to 21.</summary>
    public static double OnWhite(string colour) => 1.05 / (Luminance(Channels(colour)) + 0.05);

    /// <summary>The colour, darkened in steps of a fiftieth until words in it can be read on white.</summary>
    public static string Readable(string colour)
    {
        var channels = Channels(colour);
        var so = channels;
        for (var step = 0; step < 50 && 1.05 / (Luminance(so) + 0.05) < OfWords; step++)
            so = [.. channels.Select(c => c * (49 - step) / 50)];
        return "#" + string.Concat(so.Select(c => c.ToString("x2", System.Globalization.CultureInfo.InvariantCulture)));
    }

    private static ImmutableArray<int> Channels(string colour) =>
        [.. new[] { 1, 3, 5 }.Select(at => Convert.ToInt32(colour.Substring(at, 2), 16))];

    private static double Luminance(ImmutableArray<int> channels)
    {
        static double Linear(int channel) =>
            channel / 255.0 is var c && c <= 0.04045 ? c / 12.92 : Math.Pow((c + 0.055) / 1.055, 2.4);
        return 0.2126 * Linear(channels[0]) + 0.7152 * Linear(channels[1]) + 0.0722 * Linear(channels[2]);
    }
}
