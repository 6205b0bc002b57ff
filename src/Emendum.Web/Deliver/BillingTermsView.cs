using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;

namespace Emendum.Web.Deliver;

/// <summary>What is agreed about paying, as it is typed; empty for none.</summary>
/// <param name="Retention">Percent of the value that is kept back.</param>
/// <param name="Cap">Most that is, in money.</param>
/// <param name="CapPercent">Most that is, in percent of the contract sum.</param>
/// <param name="Releases">Cumulative shares by which it is given back, percent: <c>50, 100</c>.</param>
/// <param name="EarlyPercent">Early-payment discount, percent.</param>
/// <param name="EarlyDays">Days from issue in which it can be taken.</param>
/// <param name="Interest">Percent a year on what is late.</param>
public sealed record TermsTyped(
    string Retention,
    string Cap,
    string CapPercent,
    string Releases,
    string EarlyPercent,
    string EarlyDays,
    string Interest
)
{
    internal static TermsTyped Of(BillingTerms terms)
    {
        static string Some(decimal? of) => of is { } value and not 0 ? Rounding.Text(value) : "";
        return new(
            Some(terms.Retention.Percent),
            Some(terms.Retention.Cap),
            Some(terms.Retention.CapPercent),
            string.Join(", ", terms.Retention.Releases.Select(Rounding.Text)),
            Some(terms.EarlyPercent),
            Some(terms.EarlyDays),
            Some(terms.InterestPercent)
        );
    }

    /// <summary>They, read and checked.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    internal BillingTerms Read()
    {
        var percent = Typed.Number(Retention, "retention") ?? 0;
        var days = Typed.Number(EarlyDays, "earlyDays") ?? 0;
        if (days != decimal.Truncate(days) || Math.Abs(days) > 10_000)
            throw RefusedException.Of("earlyDays", "Days are a whole number.");
        ImmutableArray<decimal> releases =
        [
            .. Releases
                .Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Select(r => Typed.Number(r.TrimEnd('%'), "releases") ?? 0),
        ];
        // Given back at once where nobody says otherwise.
        if (percent > 0 && releases.IsEmpty)
            releases = [100];
        var terms = new BillingTerms(
            new(percent, Typed.Number(Cap, "cap"), Typed.Number(CapPercent, "capPercent"), percent > 0 ? releases : []),
            Typed.Number(EarlyPercent, "earlyPercent") ?? 0,
            (int)days,
            Typed.Number(Interest, "interest") ?? 0
        );
        try
        {
            terms.Check();
        }
        catch (RefusedException refused) when (refused.Refusal.Field is "percent" or "interestPercent")
        {
            throw RefusedException.Of(
                refused.Refusal.Field == "percent" ? "retention" : "interest",
                refused.Refusal.Message
            );
        }
        return terms;
    }
}

/// <summary>Terms that hold for a job from now on.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Terms">The terms.</param>
public sealed record AgreeTerms(Guid Id, TermsTyped Terms);
