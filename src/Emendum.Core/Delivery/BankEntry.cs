namespace Emendum.Core.Delivery;

/// <summary>Money that came, as a bank's statement says it.</summary>
/// <param name="Id">Made of what stands there, so that the same entry in another file is the same.</param>
/// <param name="Day">The day on which it was booked.</param>
/// <param name="Amount">How much, more than nothing.</param>
/// <param name="Currency">ISO 4217; empty where the file does not say.</param>
/// <param name="Payer">Who paid, as the bank has it; empty where it does not say.</param>
/// <param name="Account">Their account; empty where it does not say.</param>
/// <param name="Words">What they wrote with it.</param>
public sealed record BankEntry(
    string Id,
    DateOnly Day,
    decimal Amount,
    string Currency,
    string Payer,
    string Account,
    string Words
)
{
    /// <summary>Most entries of a statement.</summary>
    public const int Most = 5_000;

    /// <summary>Most characters of a payer or an account.</summary>
    public const int MostOfName = 200;

    /// <summary>Most characters of what they wrote.</summary>
    public const int MostWords = 1_000;

    /// <summary>Refuses what is no entry.</summary>
    /// <param name="places">Places of the currency.</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(int places)
    {
        if (Id.Length != 64 || !Id.All(char.IsAsciiHexDigitLower))
            throw RefusedException.Of("id", "That is no entry of a bank file.");
        if (Amount is <= 0 or > 100_000_000 || decimal.Round(Amount, places) != Amount)
            throw RefusedException.Of("amount", "Money that came, in the currency's places.");
        if (Day.Year is < 2000 or > 2199)
            throw RefusedException.Of("day", "A day between 2000 and 2199.");
        if (Payer.Length > MostOfName || Account.Length > MostOfName || Words.Length > MostWords)
            throw RefusedException.Of("words", "That is too long for an entry of a bank file.");
    }
}

/// <summary>An invoice of any job that is not paid.</summary>
/// <param name="Job">The job.</param>
/// <param name="Invoice">The invoice.</param>
/// <param name="Customer">Who owes it; null for nobody that is known.</param>
/// <param name="CustomerName">Their name; empty for nobody.</param>
/// <param name="Number">Its number.</param>
/// <param name="Due">The day on which it is due.</param>
/// <param name="Open">What is to be paid of it.</param>
/// <param name="Early">The discount that can be taken when all of it is paid in time (M24); nothing for none.</param>
/// <param name="EarlyUntil">The last day for that; null for none.</param>
public sealed record OwedInvoice(
    Guid Job,
    Guid Invoice,
    Guid? Customer,
    string CustomerName,
    string Number,
    DateOnly Due,
    decimal Open,
    decimal Early,
    DateOnly? EarlyUntil
);
