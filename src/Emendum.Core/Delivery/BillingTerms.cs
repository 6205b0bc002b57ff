using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>What was agreed about paying beside the sum: what is kept back, what paying early saves, what paying late costs.</summary>
/// <param name="Retention">What is kept back (M10).</param>
/// <param name="EarlyPercent">Early-payment discount in percent of what is payable; 0 for none (M24).</param>
/// <param name="EarlyDays">Days from the day of issue in which it can be taken.</param>
/// <param name="InterestPercent">Interest a year on what is late, percent; 0 for none (M25).</param>
public sealed record BillingTerms(Retention Retention, decimal EarlyPercent, int EarlyDays, decimal InterestPercent)
{
    /// <summary>Nothing is kept back, saved or added.</summary>
    public static readonly BillingTerms None = new(Retention.None, 0, 0, 0);

    /// <summary>Refuses what cannot be agreed.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        Retention.Check();
        if (Retention.Releases.Length > 6)
            throw RefusedException.Of("releases", "At most six releases.");
        if (EarlyPercent is < 0 or > 50 || decimal.Round(EarlyPercent, 4) != EarlyPercent)
            throw RefusedException.Of("earlyPercent", "A discount is 0 to 50 %.");
        if (EarlyDays is < 0 or > 365 || (EarlyPercent > 0 && EarlyDays == 0))
            throw RefusedException.Of("earlyDays", "Say within how many days, 1 to 365, the discount can be taken.");
        if (InterestPercent is < 0 or > 100 || decimal.Round(InterestPercent, 4) != InterestPercent)
            throw RefusedException.Of("interestPercent", "Interest is 0 to 100 % a year.");
    }
}

/// <summary>Terms that hold for a job from then on. A fact: the last one counts, and what was issued before stays as it was.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Terms">The terms.</param>
/// <param name="At">When (UTC).</param>
/// <param name="By">Who said so.</param>
public sealed record TermsFact(Guid Id, BillingTerms Terms, DateTime At, string By);

/// <summary>A part of what was retained is asked for: a request without an invoice number (M11, M12). A fact.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Which release, from 1.</param>
/// <param name="Amount">How much.</param>
/// <param name="Day">The firm's day on which it was asked for.</param>
/// <param name="Due">Day on which it is due.</param>
/// <param name="At">When (UTC).</param>
/// <param name="By">Who.</param>
public sealed record ReleaseFact(
    Guid Id,
    int Number,
    decimal Amount,
    DateOnly Day,
    DateOnly Due,
    DateTime At,
    string By
);

/// <summary>Something that is found wrong, or not done yet. A fact; that it was mended, or is open again, is another.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Text">What.</param>
/// <param name="Place">Where; null for the job as a whole.</param>
/// <param name="At">When it was written (UTC).</param>
/// <param name="By">Who wrote it.</param>
public sealed record Snag(Guid Id, string Text, Guid? Place, DateTime At, string By)
{
    /// <summary>Most characters of it.</summary>
    public const int MostText = 500;

    /// <summary>Most of a job.</summary>
    public const int Most = 2000;

    /// <summary>When it was mended (UTC), and who says so; null while it is open.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public SnagMended? Mended { get; init; }

    /// <summary>Refuses what is no snag.</summary>
    /// <param name="order">The work order that it is about.</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(WorkOrder order)
    {
        if (string.IsNullOrWhiteSpace(Text) || Text.Length > MostText)
            throw RefusedException.Of("text", $"Say what is to be mended, in at most {MostText} characters.");
        if (Place is { } place && !order.Lines.Any(l => l.Place == place))
            throw RefusedException.Of("place", "That place is not in this work order.");
    }
}

/// <summary>That a snag was mended.</summary>
/// <param name="At">When (UTC).</param>
/// <param name="By">Who says so.</param>
public sealed record SnagMended(DateTime At, string By);

/// <summary>The customer takes the work as complete: the note was signed, or their word was recorded (M12). A fact.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Day">The day that it bears.</param>
/// <param name="Name">Who took it.</param>
/// <param name="How">How it came: signed on paper, by word.</param>
/// <param name="At">When it was written (UTC).</param>
/// <param name="By">Who wrote it.</param>
public sealed record CompletionFact(Guid Id, DateOnly Day, string Name, string How, DateTime At, string By)
{
    /// <summary>Refuses what cannot be recorded.</summary>
    /// <param name="today">The firm's day.</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(DateOnly today)
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > HoursFact.MostOfPerson || Name.Any(char.IsControl))
            throw RefusedException.Of("name", $"Say who took it, in at most {HoursFact.MostOfPerson} characters.");
        if (How.Length > 300)
            throw RefusedException.Of("how", "At most 300 characters.");
        if (Day > today)
            throw RefusedException.Of("day", "That day is still to come.");
    }
}

/// <summary>What was found wrong, and whether the customer has taken the work.</summary>
/// <param name="Snags">In the order in which they were written.</param>
/// <param name="Note">The completion note; null while there is none.</param>
public sealed record Completion(System.Collections.Immutable.ImmutableArray<Snag> Snags, CompletionFact? Note)
{
    /// <summary>Nothing was found, nothing taken.</summary>
    public static readonly Completion Nothing = new([], null);

    /// <summary>Snags that are not mended.</summary>
    [JsonIgnore]
    public int Open => Snags.Count(s => s.Mended is null);
}

/// <summary>A reminder of an invoice that is late, with the interest of that day, outside tax (M25). A fact.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Invoice">The invoice.</param>
/// <param name="Number">Which reminder of it, from 1.</param>
/// <param name="Day">The firm's day.</param>
/// <param name="Open">What was open that day, with tax.</param>
/// <param name="Interest">Interest until that day.</param>
/// <param name="At">When (UTC).</param>
/// <param name="By">Who.</param>
public sealed record ReminderFact(
    Guid Id,
    Guid Invoice,
    int Number,
    DateOnly Day,
    decimal Open,
    decimal Interest,
    DateTime At,
    string By
);
