using Emendum.Core.Book;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Emendum.Storage;

namespace Emendum.Web.Deliver;

/// <summary>A rate on the scale of its row.</summary>
/// <param name="Job">Number of the job; empty for the one that is looked at, and for the middle one.</param>
/// <param name="Pace">The number before the unit.</param>
/// <param name="Faster">By how many percent it is faster than the Book, as a number: where it stands on the scale.</param>
public sealed record RatePoint(string Job, string Pace, decimal Faster)
{
    internal static RatePoint? Of(RateOfJob? rate) =>
        rate is null ? null : new(rate.Job, Number(rate.Pace), decimal.Round(rate.Faster, 2));

    internal static string Number(decimal pace) => Shown.Typed(RateReached.ToRead(pace));
}

/// <summary>A question for the Book.</summary>
/// <param name="Entry">The entry.</param>
/// <param name="Coats">The row of its coats; 0 for an assembly.</param>
/// <param name="Version">Version of the entry that was looked at.</param>
/// <param name="Words">What is suggested, of how many jobs.</param>
/// <param name="Spread">How far they are apart, and all of them together.</param>
/// <param name="Keep">Words of the button that takes it.</param>
/// <param name="Pace">What is taken, as it is written.</param>
public sealed record RateQuestion(
    Guid Entry,
    int Coats,
    int Version,
    string Words,
    string Spread,
    string Keep,
    string Pace
);

/// <summary>A piece of work with its hours and, where they teach one, its rate.</summary>
/// <param name="Work">The work item.</param>
/// <param name="Name">Section and name.</param>
/// <param name="Done">How much of it is done, in words.</param>
/// <param name="SoFar">Hours allowed for what is done.</param>
/// <param name="Used">Hours used.</param>
/// <param name="Over">By how much more was used than was allowed, signed; empty for nothing.</param>
/// <param name="IsOver">Whether it is more.</param>
/// <param name="Unit">What the rates are of; empty where there are none.</param>
/// <param name="Book">The Book's; empty for none.</param>
/// <param name="Here">This job's; null for none.</param>
/// <param name="LastFive">The last five finished jobs'.</param>
/// <param name="Middle">The middle one of them; null for none.</param>
/// <param name="Says">What can be said of it for the Book, or what teaches nothing and why.</param>
/// <param name="Question">What is suggested; null for nothing.</param>
public sealed record WorkUsedView(
    Guid Work,
    string Name,
    string Done,
    string SoFar,
    string Used,
    string Over,
    bool IsOver,
    string Unit,
    string Book,
    RatePoint? Here,
    IReadOnlyList<RatePoint> LastFive,
    RatePoint? Middle,
    string Says,
    RateQuestion? Question
);

/// <summary>A row of hours that is no piece of work.</summary>
public sealed record OtherUsed(string Name, string Allowed, string Used, string Over, bool IsOver);

/// <summary>Who worked how long.</summary>
/// <param name="Person">Who.</param>
/// <param name="Hours">How long, with unit.</param>
/// <param name="Share">Of the longest, percent, as a number: how long the bar is.</param>
public sealed record PersonView(string Person, string Hours, decimal Share);

/// <summary>A profit of the job.</summary>
/// <param name="Label">As estimated, as it runs, as it ended.</param>
/// <param name="Detail">What it goes by.</param>
/// <param name="Amount">Price less cost.</param>
/// <param name="Margin">In percent of the price; empty without a price.</param>
public sealed record ProfitRow(string Label, string Detail, string Amount, string Margin);

/// <summary>Hours used against hours allowed.</summary>
/// <param name="Work">By piece of work.</param>
/// <param name="Others">Set-up and travel, mending, hours on the job alone.</param>
/// <param name="SoFar">Hours allowed for what is done, all together.</param>
/// <param name="Used">All hours used.</param>
/// <param name="Over">By how much more, signed; empty for nothing.</param>
/// <param name="IsOver">Whether it is more.</param>
/// <param name="Says">How the job stands by its hours, in a sentence.</param>
/// <param name="Profits">The profit as estimated, as it runs, and as it ended.</param>
/// <param name="People">By person.</param>
/// <param name="Questions">Questions for the Book.</param>
public sealed record HoursUsedView(
    IReadOnlyList<WorkUsedView> Work,
    IReadOnlyList<OtherUsed> Others,
    string SoFar,
    string Used,
    string Over,
    bool IsOver,
    string Says,
    IReadOnlyList<ProfitRow> Profits,
    IReadOnlyList<PersonView> People,
    IReadOnlyList<RateQuestion> Questions
)
{
    /// <summary>That of a job.</summary>
    public static HoursUsedView Of(AcceptedWork accepted, SiteLog log, JobGoods goods, SiteStore sites, Shelf shelf)
    {
        var used = HoursUsed.Of(log);
        var work = used.Work.Select(w => Row(w, sites, shelf)).ToList();
        var longest = used.People.IsEmpty ? 0 : used.People[0].Hours;
        return new(
            work,
            [.. OthersOf(used, log)],
            Shown.Tenths(used.SoFar),
            Shown.Tenths(used.Used),
            Moved(used.Used, used.SoFar),
            used.Used > used.SoFar,
            Sentence(used),
            [.. ProfitsOf(used, log, goods, accepted.Money)],
            [
                .. used.People.Select(p => new PersonView(
                    p.Person,
                    $"{Shown.Tenths(p.Hours)} h",
                    longest == 0 ? 0 : decimal.Round(p.Hours / longest * 100m, 1)
                )),
            ],
            [.. work.Select(w => w.Question).OfType<RateQuestion>().DistinctBy(q => (q.Entry, q.Coats))]
        );
    }

    private static string Moved(decimal used, decimal allowed) =>
        decimal.Round(used - allowed, 1, MidpointRounding.AwayFromZero) is var over && over == 0
            ? ""
            : Shown.Moved(over, 1);

    private static IEnumerable<OtherUsed> OthersOf(HoursUsed used, SiteLog log)
    {
        var setUp = log.Percent is { } percent ? log.Order.SetUp * percent / 100m : 0;
        if (log.Order.SetUp > 0 || used.SetUp > 0)
            yield return new(
                "Set-up and travel",
                Shown.Tenths(setUp),
                Shown.Tenths(used.SetUp),
                Moved(used.SetUp, setUp),
                used.SetUp > setUp
            );
        if (used.Snags > 0)
            yield return new("Mending", "", Shown.Tenths(used.Snags), Shown.Moved(used.Snags, 1), true);
        if (used.Visits > 0)
            yield return new(
                "On visits as a whole, set-up and travel with them",
                "",
                Shown.Tenths(used.Visits),
                "",
                false
            );
        if (used.Elsewhere > 0)
            yield return new(
                "On the job as a whole",
                "",
                Shown.Tenths(used.Elsewhere),
                Shown.Moved(used.Elsewhere, 1),
                true
            );
    }

    private static WorkUsedView Row(WorkUsed of, SiteStore sites, Shelf shelf)
    {
        var compared = of.Reached is { Key: var key }
            ? RateCompared.Of(shelf.Find(key.Entry), key, of.Reached, sites.Reached(key.Entry, key.Coats))
            : null;
        var question = compared is null ? null : Question(compared);
        return new(
            of.Work,
            of.Section.Length > 0 ? $"{of.Section}: {of.Name}" : of.Name,
            of.Quantity == 0
                ? ""
                : $"{Shown.Amount(of.QuantityDone, of.Unit)} of {Shown.Amount(of.Quantity, of.Unit)} {of.Unit}".TrimEnd()
                    + " done",
            Shown.Tenths(of.SoFar),
            Shown.Tenths(of.Used),
            Moved(of.Used, of.SoFar),
            of.Used > of.SoFar,
            compared?.Unit ?? "",
            compared is null ? "" : RatePoint.Number(compared.Book),
            RatePoint.Of(compared?.Here),
            [.. (compared?.LastFive ?? []).Select(j => RatePoint.Of(j)!)],
            RatePoint.Of(compared?.Median),
            string.Join(
                " · ",
                new[] { of.Says, compared is null || question is not null ? "" : ForTheBook(compared) }.Where(s =>
                    s.Length > 0
                )
            ),
            question
        );
    }

    /// <summary>Why nothing is suggested.</summary>
    private static string ForTheBook(RateCompared compared) =>
        compared.LastFive.Length switch
        {
            0 => "no finished job yet",
            < RateReached.Least and var few =>
                $"{Counted.Of(few, "finished job")} so far: from {RateReached.Least} on a rate is suggested",
            var many => $"the last {many} jobs bear the Book out",
        };

    private static RateQuestion? Question(RateCompared compared)
    {
        if (compared.Suggested is null)
            return null;
        var five = compared.LastFive;
        var number = Shown.Typed(compared.Suggests!.Value);
        return new(
            compared.Entry.Id,
            compared.Coats,
            compared.Entry.Version,
            $"{compared.Entry.Name}{(compared.Coats > 1 ? $", {compared.Coats} coats" : "")}: the Book has {RatePoint.Number(compared.Book)} {compared.Unit}, the middle one of the last {five.Length} jobs is {number}.",
            $"They are between {RatePoint.Number(five.Min(j => j.Pace))} and {RatePoint.Number(five.Max(j => j.Pace))}; all their work by all their hours is {RatePoint.Number(compared.Together!.Value)}. Jobs {string.Join(", ", five.Select(j => j.Job))}.",
            $"Keep {number}",
            PaceOf(compared)
        );
    }

    /// <summary>What a suggestion comes to, as it is written: by this its sender says what they saw.</summary>
    private static string PaceOf(RateCompared compared) => $"{Rounding.Text(compared.Suggests!.Value)} {compared.Unit}";

    /// <summary>The profit as estimated, as it runs, and as it ended; each as far as it can be said.</summary>
    private static IEnumerable<ProfitRow> ProfitsOf(HoursUsed used, SiteLog log, JobGoods goods, AgreedMoney money)
    {
        ProfitRow? Row(string label, string detail, decimal? profit) =>
            profit is { } of
                ? new(
                    label,
                    detail,
                    Shown.Money(Rounding.Money(of, money.Contract.Places), money.Contract.Places),
                    money.MarginOf(of) is { } margin ? $"{Shown.Tenths(margin)} %" : ""
                )
                : null;
        ProfitRow?[] rows =
        [
            Row("As estimated", "price less cost, before overhead", money.ProfitAt(money.Hours, 0)),
            used.AtThisPace is { } ends
                ? Row(
                    "As it runs",
                    $"at this pace {Shown.Tenths(ends)} h, goods as they are bought, all else as estimated",
                    money.ProfitAt(ends, goods.RunningMore(money.NeedCounts))
                )
                : null,
            log.IsFinished
                ? Row(
                    "As it ended",
                    "hours and goods that were used, all else as estimated",
                    money.ProfitAt(used.Used, goods.EndedMore)
                )
                : null,
        ];
        return rows.OfType<ProfitRow>();
    }

    private static string Sentence(HoursUsed used)
    {
        if (used.AtThisPace is not { } ends)
            return used.Used == 0
                ? "Nobody has written hours yet."
                : "Nothing is marked done yet: hours used stand against nothing.";
        var percent = Shown.Typed(decimal.Floor(used.SoFar / used.Allowed * 100m));
        var over = ends - used.Allowed;
        return $"{Shown.Tenths(used.SoFar)} of {Shown.Tenths(used.Allowed)} h is done, {percent} %, and {Shown.Tenths(used.Used)} h were used. At this pace the job ends at {Shown.Tenths(ends)} h, {Shown.Tenths(Math.Abs(over))} {(over >= 0 ? "over" : "under")}.";
    }

    /// <summary>Takes a suggestion into the Book: a new version of the entry that names the jobs (H6).</summary>
    /// <param name="keep">What its sender saw.</param>
    /// <param name="sites">What finished jobs reached.</param>
    /// <param name="shelf">The Book.</param>
    /// <param name="person">Who keeps it.</param>
    /// <exception cref="Core.RefusedException">It is not what is suggested any more.</exception>
    public static void Keep(KeepRate keep, SiteStore sites, Shelf shelf, string person)
    {
        var today = shelf.Get(keep.Entry);
        var compared = RateCompared.Of(
            today,
            new(keep.Entry, keep.Coats, ""),
            null,
            sites.Reached(keep.Entry, keep.Coats)
        );
        if (compared?.Suggested is not { } suggested || today.Version != keep.Version || PaceOf(compared) != keep.Pace)
            throw Core.RefusedException.Of(
                "pace",
                "That is not what is suggested any more: the Book or the jobs have changed. Look once more."
            );
        shelf.Save(
            suggested,
            keep.Version,
            person,
            $"from the hours of jobs {string.Join(", ", compared.LastFive.Select(j => j.Job))}"
        );
    }
}

/// <summary>Keeps a suggested rate in the Book.</summary>
/// <param name="Entry">The entry.</param>
/// <param name="Coats">The row of its coats; 0 for an assembly.</param>
/// <param name="Version">Version of the entry that was looked at.</param>
/// <param name="Pace">What is taken, as it was read.</param>
public sealed record KeepRate(Guid Entry, int Coats, int Version, string Pace);
