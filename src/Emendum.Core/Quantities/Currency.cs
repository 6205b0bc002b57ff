using System.Collections.Frozen;

namespace Emendum.Core.Quantities;

/// <summary>Currencies by their ISO 4217 codes, with the number of places their smallest unit has (list one of the standard, from memory; funds, metals and test codes left out).</summary>
public static class Currency
{
    private const string TwoPlaces =
        "AED AFN ALL AMD ANG AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BRL BSD BTN BWP BYN BZD CAD CDF CHF CNY COP CRC CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR "
        + "FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG HUF IDR ILS INR IRR JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK "
        + "MXN MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL THB TJS TMT TOP TRY TTD "
        + "TWD TZS UAH USD UYU UZS VED VES WST XCD XCG YER ZAR ZMW ZWG";

    private const string NoPlaces = "BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX VND VUV XAF XOF XPF";

    private const string ThreePlaces = "BHD IQD JOD KWD LYD OMR TND";

    private static readonly FrozenDictionary<string, int> Known = new[]
    {
        (TwoPlaces, 2),
        (NoPlaces, 0),
        (ThreePlaces, 3),
    }
        .SelectMany(list => list.Item1.Split(' ').Select(code => KeyValuePair.Create(code, list.Item2)))
        .ToFrozenDictionary(StringComparer.Ordinal);

    /// <summary>How many decimals an amount has; null where there is no such currency.</summary>
    public static int? Places(string code) => Known.TryGetValue(code, out var places) ? places : null;

    /// <summary>Refuses what is not a currency.</summary>
    /// <exception cref="RefusedException">Naming the field <c>currency</c>.</exception>
    public static void Check(string code)
    {
        if (Places(code) is null)
            throw RefusedException.Of(
                "currency",
                $"“{code}” is not a currency. Write its three letters, like USD, EUR or GBP."
            );
    }
}
