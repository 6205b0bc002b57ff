using System.Text.RegularExpressions;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>
/// Labour as people say it where there is no pace: <c>3 x 9 h</c> is three people for nine hours, 27 labour hours and 9 crew hours; <c>27 h</c> is hours
/// of nobody in particular (estimating model §7, work by crew and hours).
/// </summary>
/// <param name="People">How many work at once; null where only the hours were said.</param>
/// <param name="Hours">Hours that each of them works.</param>
/// <param name="Typed">As typed.</param>
public sealed partial record CrewTime(int? People, decimal Hours, string Typed)
{
    /// <summary>Most people.</summary>
    private const int MostPeople = 999;

    /// <summary>Most hours of each.</summary>
    private const decimal MostHours = 100_000m;

    [GeneratedRegex(
        @"^(?:(?<people>\d{1,4})\s*[xX×*]\s*)?(?<hours>[\d.]{1,20})\s*(?:h|hours?)?$",
        RegexOptions.ExplicitCapture,
        matchTimeoutMilliseconds: 1000
    )]
    private static partial Regex Form();

    /// <summary>Reads it.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public static CrewTime Read(string text, string field)
    {
        var match = Form().Match(text.Trim());
        if (!match.Success || Rounding.ReadInput(match.Groups["hours"].Value) is not { } hours)
            throw RefusedException.Of(field, "Write hours like 27 h, or people and hours of each like 3 x 9 h.");
        int? people = match.Groups["people"].Success
            ? int.Parse(match.Groups["people"].Value, System.Globalization.CultureInfo.InvariantCulture)
            : null;
        if (people is < 1 or > MostPeople)
            throw RefusedException.Of(field, $"People are 1 to {MostPeople}.");
        if (hours is <= 0 or > MostHours)
            throw RefusedException.Of(field, $"Hours are more than 0 and at most {MostHours:#,0}.");
        return new(people, hours, text.Trim());
    }
}
