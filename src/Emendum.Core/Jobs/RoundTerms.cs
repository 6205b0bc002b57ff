using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>When a round is billed.</summary>
public enum RoundBilling
{
    /// <summary>Twelve equal months.</summary>
    Level,

    /// <summary>Equal months, seasonal work over its own.</summary>
    OverMonths,

    /// <summary>Each month what was done in it.</summary>
    AsDone,
}

/// <summary>Goods that are bought for the year and used up on the way.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">What.</param>
/// <param name="Quantity">How many.</param>
/// <param name="Each">What one costs.</param>
/// <param name="Months">Months of the year in which they are bought, in equal parts; empty for the first of the round.</param>
public sealed record YearSupply(Guid Id, string Name, decimal Quantity, decimal Each, ImmutableArray<int> Months);

/// <summary>The terms of work that comes back (estimating model §7, Recurring work). They count in a job that has a rhythm.</summary>
/// <param name="Start">First day, like 2027-01-04; empty for the first working day of the month after the job's date.</param>
/// <param name="Usual">The rhythm of work that names none; null where such work is done once.</param>
/// <param name="Billing">When it is billed.</param>
/// <param name="SupplyMarkup">Percent on the year's supplies.</param>
/// <param name="Rise">Percent by which each year is dearer than the one before.</param>
/// <param name="Years">How many years are looked at, 1 to 10.</param>
/// <param name="Supplies">What is bought for the year.</param>
/// <param name="DaysOff">Working days on which nobody comes, like 2027-12-27, in order.</param>
public sealed record RoundTerms(
    string Start,
    Guid? Usual,
    RoundBilling Billing,
    decimal SupplyMarkup,
    decimal Rise,
    int Years,
    ImmutableArray<YearSupply> Supplies,
    ImmutableArray<string> DaysOff
)
{
    /// <summary>What a job starts with.</summary>
    public static readonly RoundTerms Starting = new("", null, RoundBilling.Level, 20, 0, 1, [], []);

    /// <summary>Whether nobody has said anything.</summary>
    [JsonIgnore]
    public bool IsStarting =>
        this with { Supplies = Starting.Supplies, DaysOff = Starting.DaysOff } == Starting
        && Supplies.IsEmpty
        && DaysOff.IsEmpty;

    /// <summary>Most days off, and most supplies.</summary>
    public const int Most = 100;

    /// <summary>The first day in a job.</summary>
    public DateOnly StartIn(Job job)
    {
        if (Start.Length > 0)
            return Day.Of(Start);
        var date = Day.Of(job.Info.Date);
        return new DateOnly(date.Year, date.Month, 1).AddMonths(1);
    }

    /// <summary>The days off that fall on a working day.</summary>
    [JsonIgnore]
    public IEnumerable<DateOnly> OffWork =>
        DaysOff.Select(Day.Of).Where(d => d.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday));

    /// <summary>Checks them by themselves.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public void Check()
    {
        if (Start.Length > 0 && !IsDay(Start))
            throw RefusedException.Of("start", "Write the first day like 2027-01-04.");
        if (SupplyMarkup is < 0 or >= 1000)
            throw RefusedException.Of("supplyMarkup", "Markup on supplies is 0 to under 1000 percent.");
        if (Rise is < -50 or > 100)
            throw RefusedException.Of("rise", "A yearly rise is −50 to 100 percent.");
        if (Years is < 1 or > 10)
            throw RefusedException.Of("years", "1 to 10 years are looked at.");
        if (Supplies.Length > Most)
            throw RefusedException.Of("supplies", $"At most {Most} supplies.");
        if (Supplies.Select(s => s.Id).Distinct().Count() != Supplies.Length)
            throw RefusedException.Of("supplies", "A supply stands twice.");
        foreach (var supply in Supplies)
        {
            if (string.IsNullOrWhiteSpace(supply.Name) || supply.Name.Length > 120)
                throw RefusedException.Of("supplies", "A supply has a name of at most 120 characters.");
            if (supply.Quantity < 0 || supply.Each < 0)
                throw RefusedException.Of(
                    "supplies",
                    $"{supply.Name}: neither how many nor what one costs is below zero."
                );
            if (
                supply.Months.Any(m => m is < 1 or > 12)
                || !supply.Months.Order().SequenceEqual(supply.Months)
                || supply.Months.Distinct().Count() != supply.Months.Length
            )
                throw RefusedException.Of("supplies", $"{supply.Name}: months are 1 to 12, each once and in order.");
        }
        if (DaysOff.Length > Most)
            throw RefusedException.Of("daysOff", $"At most {Most} days off.");
        if (DaysOff.Any(d => !IsDay(d)))
            throw RefusedException.Of("daysOff", "A day off is written like 2027-12-27.");
        if (
            !DaysOff.Order(StringComparer.Ordinal).SequenceEqual(DaysOff)
            || DaysOff.Distinct().Count() != DaysOff.Length
        )
            throw RefusedException.Of("daysOff", "Days off stand each once and in order.");
    }

    /// <summary>Whether that is a day as it is written.</summary>
    internal static bool IsDay(string text) => Day.Read(text, out var day) && day.Year is >= 2000 and <= 2200;
}
