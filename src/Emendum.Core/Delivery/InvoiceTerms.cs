namespace Emendum.Core.Delivery;

/// <summary>How the firm bills, unless a person says otherwise.</summary>
/// <param name="Numbers">How invoices and credit notes are numbered (<see cref="NumberScheme"/>): they share one series (rule N1).</param>
/// <param name="DueDays">Days from the day of issue until an invoice is due.</param>
/// <param name="Use">How parts by work use up what was billed on account (rule M8).</param>
/// <param name="Words">What stands at the end of an invoice: where to pay, the firm's registration.</param>
public sealed record InvoiceTerms(string Numbers, int DueDays, AccountUse Use, string Words)
{
    /// <summary>Name of the setting.</summary>
    public const string Setting = "invoiceTerms";

    /// <summary>What is agreed about paying unless a job says otherwise.</summary>
    public BillingTerms Usual { get; init; } = BillingTerms.None;

    /// <summary>Most characters of the words.</summary>
    public const int MostWords = 2000;

    /// <summary>What a firm starts with: due in thirty days (common practice).</summary>
    public static readonly InvoiceTerms Starting = new(NumberScheme.Starting, 30, AccountUse.InProportion, "");

    /// <summary>Refuses what cannot be.</summary>
    /// <param name="orders">How purchase orders are numbered: no invoice could have the text of one (N5).</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(string orders)
    {
        NumberScheme.Check(Numbers);
        if (NumberScheme.CouldMeet(Numbers, orders))
            throw RefusedException.Of(
                "numbers",
                $"Written like that, an invoice could have the number of a purchase order ({orders}): put something before it."
            );
        Usual.Check();
        if (DueDays is < 0 or > 365)
            throw RefusedException.Of("dueDays", "An invoice is due within 0 to 365 days.");
        if (Words.Length > MostWords)
            throw RefusedException.Of("words", $"At most {MostWords:N0} characters.");
    }
}
