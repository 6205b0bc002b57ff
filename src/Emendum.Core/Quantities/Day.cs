using System.Globalization;

namespace Emendum.Core.Quantities;

/// <summary>Days as jobs write them: 2027-01-04.</summary>
public static class Day
{
    private const string Form = "yyyy-MM-dd";

    /// <summary>The day that a text says which has been checked.</summary>
    public static DateOnly Of(string text) => DateOnly.ParseExact(text, Form, CultureInfo.InvariantCulture);

    /// <summary>Whether a text says a day, and which.</summary>
    public static bool Read(string text, out DateOnly day) =>
        DateOnly.TryParseExact(text, Form, CultureInfo.InvariantCulture, DateTimeStyles.None, out day);

    /// <summary>A day as it is written.</summary>
    public static string Written(DateOnly day) => day.ToString(Form, CultureInfo.InvariantCulture);
}
