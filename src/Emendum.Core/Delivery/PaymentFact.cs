using System.Text.Json.Serialization;

namespace Emendum.Core.Delivery;

/// <summary>Money that came for an invoice, or went back. A fact: what was written wrong is taken back by another.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Invoice">The invoice.</param>
/// <param name="Day">When it came.</param>
/// <param name="Amount">How much; below nothing in what takes one back.</param>
/// <param name="How">How it came.</param>
/// <param name="At">When it was written (UTC).</param>
/// <param name="By">Who wrote it.</param>
public sealed record PaymentFact(
    Guid Id,
    Guid Invoice,
    DateOnly Day,
    decimal Amount,
    string How,
    DateTime At,
    string By
)
{
    /// <summary>Most characters of how it came.</summary>
    public const int MostHow = 200;

    /// <summary>The one that it takes back; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? TakesBack { get; init; }

    /// <summary>The entry of a bank file that brought it; null where it was written by hand.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Entry { get; init; }

    /// <summary>Early-payment discount that was taken with it, with tax; it settles as much as if it had come (M24).</summary>
    public decimal Discount { get; init; }
}
