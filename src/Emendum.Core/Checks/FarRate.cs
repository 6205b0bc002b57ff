using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Checks;

/// <summary>Rates against others of the same section and measure in the Book, at the same coats, in hours for one unit of what they are measured against.</summary>
internal static class FarRate
{
    /// <summary>A rate is far from its like when it takes this many times as long as the middle one of them, or the middle one this many times as long as it.</summary>
    private const decimal Far = 3m;

    /// <summary>How many others of a kind it takes to know what is usual.</summary>
    private const int FewestOthers = 3;

    /// <summary>A pace typed for a job is far from the Book's when one takes this many times as long as the other.</summary>
    private const decimal FarTyped = 2m;

    public static IEnumerable<Finding> In(CheckedJob job)
    {
        foreach (var item in job.Reckoned.Items)
        {
            if (
                item.Entry is not ProductionRate rate
                || (item.Item.Pace ?? Pace(rate, item.Item.Coats)) is not { } pace
            )
                continue;
            if ((FromItsLike(job, item, rate, pace) ?? FromTheBook(job, item, rate, pace)) is { } found)
                yield return found;
        }
    }

    private static Finding? FromItsLike(CheckedJob job, CompiledItem item, ProductionRate rate, Ratio pace)
    {
        var mine = Hours(pace, rate.Measure);
        var others = job
            .Shelf.OfType<ProductionRate>()
            .Where(r => r.Id != rate.Id && !r.Archived && r.Section == rate.Section && r.Measure == rate.Measure)
            .SelectMany(r => r.Paces.Where(p => p.Coats == item.Item.Coats))
            .Select(p => Hours(p.Pace, rate.Measure))
            .Order()
            .ToArray();
        if (
            others.Length < FewestOthers
            || others[others.Length / 2] is var middle && mine <= middle * Far && mine * Far >= middle
        )
            return null;
        var slower = mine > middle;
        return Found(
            job,
            item,
            $"{job.Named(item)} goes at {pace}, {(slower ? "much slower" : "much faster")} than the middle one of {others.Length} others in {rate.Section}.",
            $"It takes {Rounding.Text(Rounding.Digits(slower ? mine / middle : middle / mine, 2))} times as {(slower ? "long" : "little")}: is a unit turned round?"
        );
    }

    private static Finding? FromTheBook(CheckedJob job, CompiledItem item, ProductionRate rate, Ratio pace) =>
        item.Item.Pace is not null
        && Pace(rate, item.Item.Coats) is { } own
        && (Hours(own, rate.Measure), Hours(pace, rate.Measure)) is var (usual, mine)
        && (mine > usual * FarTyped || mine * FarTyped < usual)
            ? Found(
                job,
                item,
                $"{job.Named(item)} goes at {pace} in this job; the Book says {own}.",
                "That is more than twice, or less than half, the time."
            )
            : null;

    private static Finding Found(CheckedJob job, CompiledItem item, string says, string why) =>
        job.Found($"rate/{item.Item.Id}", "Rate far from its like", says, why, work: item.Item.Id);

    private static Ratio? Pace(ProductionRate rate, int coats) =>
        rate.Paces.FirstOrDefault(p => p.Coats == coats)?.Pace;

    private static decimal Hours(Ratio pace, Measure measure)
    {
        var (times, to, over, from) = pace.Turn(measure.Kind());
        return times * to.Factor / (over * from.Factor);
    }
}
