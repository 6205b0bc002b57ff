using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>How goods move.</summary>
public enum StockMove
{
    /// <summary>They came: what came for a job is reserved for it (rule S4).</summary>
    Received,

    /// <summary>A job took them.</summary>
    Used,

    /// <summary>A job gave back what it did not need.</summary>
    PutBack,

    /// <summary>They are kept for a job.</summary>
    Reserved,

    /// <summary>They are no longer kept for it.</summary>
    Released,

    /// <summary>Somebody has counted what is there (S6).</summary>
    Counted,
}

/// <summary>Goods that moved. A fact (architecture decision 34): what was written wrong is taken back by another.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Move">How.</param>
/// <param name="Goods">Which.</param>
/// <param name="Name">What they are called.</param>
/// <param name="Quantity">How much, in their unit of use; of a count what is there.</param>
/// <param name="Job">The job it is about; null for none.</param>
/// <param name="Day">On which day of the firm's calendar.</param>
/// <param name="Words">A note, or why more is taken than is there for the job; empty for none.</param>
/// <param name="At">When it was written (UTC).</param>
/// <param name="By">Who wrote it.</param>
public sealed record StockFact(
    Guid Id,
    StockMove Move,
    GoodsKey Goods,
    string Name,
    decimal Quantity,
    Guid? Job,
    DateOnly Day,
    string Words,
    DateTime At,
    string By
)
{
    /// <summary>Most characters of a note.</summary>
    public const int MostWords = 500;

    /// <summary>How far back it can be written.</summary>
    private const int MostDaysBack = 366;

    /// <summary>What was paid for what came, without tax that comes back; of a count what is worth what was found beyond the books; null where nobody has said.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? Paid { get; init; }

    /// <summary>The order that it came for; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Order { get; init; }

    /// <summary>Which of its lines, from 0.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? Line { get; init; }

    /// <summary>The work item that goods were used on; null where nobody has said.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Work { get; init; }

    /// <summary>Where; null for all of that work, or where nobody has said.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Place { get; init; }

    /// <summary>The fact that it takes back; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? TakesBack { get; init; }

    /// <summary>Refuses what cannot be, whatever is in stock.</summary>
    /// <param name="today">The firm's day.</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(DateOnly today)
    {
        if (Quantity < 0 || (Quantity == 0 && Move != StockMove.Counted))
            throw RefusedException.Of("quantity", "How much: more than 0.");
        if (Paid is { } paid && (paid < 0 || decimal.Round(paid, 4) != paid))
            throw RefusedException.Of("paid", "What was paid: 0 or more, with at most four decimals.");
        if (Move == StockMove.Received && Paid is null)
            throw RefusedException.Of("paid", "Say what was paid for it; 0 where it was free.");
        if (Paid is not null && Move is not (StockMove.Received or StockMove.Counted))
            throw RefusedException.Of("paid", "Money is said of what came, and of what was found.");
        if (Move == StockMove.Counted == Job is not null && Move != StockMove.Received)
            throw RefusedException.Of(
                "job",
                Job is null ? "Say for which job." : "What is counted belongs to no one job."
            );
        if (Work is not null && Move != StockMove.Used)
            throw RefusedException.Of("work", "A work item is said of goods that were used.");
        if (Place is not null && Work is null)
            throw RefusedException.Of("place", "Say on which work they were used there.");
        if (Day > today)
            throw RefusedException.Of("day", "That day is still to come.");
        if (Day < today.AddDays(-MostDaysBack))
            throw RefusedException.Of("day", "It can be written for a year back.");
        if (Words.Length > MostWords)
            throw RefusedException.Of("words", $"At most {MostWords} characters.");
    }
}
