using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A line of an order: so many packs of one size.</summary>
/// <param name="Goods">Which goods.</param>
/// <param name="Name">What they are called.</param>
/// <param name="Code">The supplier's code; empty for none.</param>
/// <param name="Pack">Name of the pack.</param>
/// <param name="Size">What is in one, in the unit of use.</param>
/// <param name="Count">How many.</param>
/// <param name="Price">Of one, as it was agreed with the supplier.</param>
/// <param name="Amount">Count × price, rounded to the currency.</param>
public sealed record OrderLine(
    GoodsKey Goods,
    string Name,
    string Code,
    string Pack,
    decimal Size,
    decimal Count,
    decimal Price,
    decimal Amount
)
{
    /// <summary>How much that is, in the unit of use.</summary>
    [JsonIgnore]
    public decimal Quantity => Count * Size;
}

/// <summary>An order as it was placed; nothing of it ever changes. What came, what was paid, and that no more is waited for are facts of their own.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Its number, as it reads.</param>
/// <param name="Placed">The firm's day on which it was placed.</param>
/// <param name="Supplier">From whom, as it was known that day.</param>
/// <param name="DeliverTo">Where the goods go.</param>
/// <param name="Wanted">By which day; null for no day.</param>
/// <param name="Words">A note to the supplier; empty for none.</param>
/// <param name="Lines">What is ordered.</param>
/// <param name="Delivery">Money for the delivery, as it was agreed.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Places">Places of the currency.</param>
public sealed record PurchaseOrder(
    Guid Id,
    string Number,
    DateOnly Placed,
    Supplier Supplier,
    string DeliverTo,
    DateOnly? Wanted,
    string Words,
    ImmutableArray<OrderLine> Lines,
    decimal Delivery,
    string Currency,
    int Places
)
{
    /// <summary>Most lines.</summary>
    public const int MostLines = 400;

    /// <summary>Most orders of a job.</summary>
    public const int Most = 500;

    /// <summary>What it comes to.</summary>
    [JsonIgnore]
    public decimal Total => Lines.Sum(l => l.Amount) + Delivery;

    /// <summary>Refuses what cannot be ordered.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        CheckDraft();
        Supplier.Check();
    }

    /// <summary>Refuses what cannot be ordered of anybody.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void CheckDraft()
    {
        if (Lines.IsEmpty)
            throw RefusedException.Of("lines", "Nothing is ordered: say how many of something.");
        if (Lines.Length > MostLines)
            throw RefusedException.Of("lines", $"An order has at most {MostLines} lines.");
        foreach (var line in Lines)
        {
            if (line.Count is <= 0 or > 1_000_000 || decimal.Round(line.Count, 3) != line.Count)
                throw RefusedException.Of("count", $"{line.Name}: more than 0, with at most three decimals.");
            if (line.Price < 0 || decimal.Round(line.Price, 4) != line.Price)
                throw RefusedException.Of("price", $"{line.Name}: 0 or more, with at most four decimals.");
        }
        if (Delivery < 0 || decimal.Round(Delivery, Places) != Delivery)
            throw RefusedException.Of("delivery", "A delivery costs 0 or more.");
        if (Total >= 1_000_000_000m)
            throw RefusedException.Of("price", "That is more than can be reckoned with.");
        if (Wanted < Placed)
            throw RefusedException.Of("wanted", "That day is past.");
        if (DeliverTo.Length > 300)
            throw RefusedException.Of("deliverTo", "At most 300 characters.");
        if (Words.Length > 2000)
            throw RefusedException.Of("words", "At most 2,000 characters.");
    }
}

/// <summary>What happened with an order beside goods that came.</summary>
public enum OrderEvent
{
    /// <summary>No more is waited for: what did not come is to buy again (rule S4).</summary>
    Closed,

    /// <summary>A delivery was paid.</summary>
    Delivery,

    /// <summary>It went to the supplier by mail.</summary>
    Mailed,
}

/// <summary>Something that happened with an order. A fact.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Order">The order.</param>
/// <param name="Event">What.</param>
/// <param name="Amount">Money for a delivery; 0 otherwise.</param>
/// <param name="Words">Why, or to whom.</param>
/// <param name="At">When (UTC).</param>
/// <param name="By">Who.</param>
public sealed record OrderFact(
    Guid Id,
    Guid Order,
    OrderEvent Event,
    decimal Amount,
    string Words,
    DateTime At,
    string By
)
{
    /// <summary>The fact that it takes back; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? TakesBack { get; init; }
}
