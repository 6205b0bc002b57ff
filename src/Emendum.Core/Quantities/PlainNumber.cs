using System.Globalization;
using System.Text.RegularExpressions;

namespace Emendum.Core.Quantities;

/// <summary>Numbers as tables and spreadsheets show them: <c>1234.5</c>, <c>1,234.5</c>, <c>1,234,567</c>. A comma that could be a decimal comma (<c>1,5</c>, <c>1,234</c>) is never guessed at.</summary>
public static partial class PlainNumber
{
    [GeneratedRegex(@"^[+-]?(\d{1,3}(,\d{3})+\.\d+|\d{1,3}(,\d{3}){2,}|\d*\.?\d+([eE][+-]?\d{1,3})?|\d+\.)$")]
    private static partial Regex Sure();

    [GeneratedRegex(@"^[+-]?[\d.]*,\d+$")]
    private static partial Regex Doubtful();

    /// <summary>Reads a number; false where the text is none.</summary>
    /// <exception cref="RefusedException">It could be two numbers; the sentence says which. The field is empty.</exception>
    public static bool Read(string text, out decimal number)
    {
        var trimmed = text.Trim();
        number = 0;
        if (Sure().IsMatch(trimmed))
            return decimal.TryParse(
                trimmed,
                NumberStyles.AllowThousands
                    | NumberStyles.AllowDecimalPoint
                    | NumberStyles.AllowLeadingSign
                    | NumberStyles.AllowExponent,
                CultureInfo.InvariantCulture,
                out number
            );
        if (trimmed.Length < 30 && Doubtful().IsMatch(trimmed))
            throw RefusedException.Of(
                "",
                $"“{trimmed}” is not clear: the comma may stand for a point or between thousands. Write it with a point, or without the comma."
            );
        return false;
    }
}
