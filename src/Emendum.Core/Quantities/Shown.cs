using System.Globalization;

namespace Emendum.Core.Quantities;

/// <summary>Numbers rounded for reading, with thousands marked; what is below nothing has a minus sign and not a hyphen. Shown numbers are never added up.</summary>
public static class Shown
{
    private static string Of(decimal value, string format) =>
        value.ToString($"{format};−{format}", CultureInfo.InvariantCulture);

    private static string Fixed(int places) => places == 0 ? "#,0" : "#,0." + new string('0', places);

    /// <summary>Money to the cent, or to as many places as its currency has.</summary>
    public static string Money(decimal value, int places = 2) => Of(value, Fixed(places));

    /// <summary>Hours, and percents, to one place.</summary>
    public static string Tenths(decimal value) => Of(value, Fixed(1));

    /// <summary>A need, a purchase: two places at the most.</summary>
    public static string Fine(decimal value) => Of(value, "#,0.##");

    /// <summary>A quantity with all the places that it was typed with.</summary>
    public static string Typed(decimal value) => Of(value, "#,0.######");

    /// <summary>A measured quantity, to as many places as its unit is shown with; a count whole, where it is whole.</summary>
    public static string Amount(decimal value, string unit) =>
        unit.Length == 0 ? Fine(value) : Of(value, Fixed(Unit.Find(unit)?.ShownPlaces ?? 1));

    /// <summary>How far something has moved, with its sign.</summary>
    public static string Moved(decimal value, int places) =>
        value.ToString($"+{Fixed(places)};−{Fixed(places)}", CultureInfo.InvariantCulture);
}
