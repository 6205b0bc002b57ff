using System.Globalization;
using System.Text.Json;
using Emendum.Core.Delivery;
using Emendum.Core.Json;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Money that came by bank, with how much of it went to invoices.</summary>
/// <param name="Entry">What the bank said.</param>
/// <param name="Customer">Whose money it is; null where nobody has said.</param>
/// <param name="Used">How much of it stands on invoices.</param>
/// <param name="At">When it was taken in (UTC).</param>
public sealed record KeptBankEntry(BankEntry Entry, Guid? Customer, decimal Used, DateTime At)
{
    /// <summary>What is on no invoice: the customer's credit, used only by a person (M26).</summary>
    public decimal Credit => Entry.Amount - Used;
}

/// <summary>Bank entries on disk.</summary>
public sealed class BankStore(Database database)
{
    /// <summary>Most entries that are looked at for whose an account is, and listed.</summary>
    public const int Most = 20_000;

    private const string Used = "(SELECT json_group_array(amount) FROM payment_fact WHERE entry_id = bank_entry.id)";

    /// <summary>Keeps an entry. The same again is the same.</summary>
    public void Keep(BankEntry entry, Guid? customer, DateTime at, string by)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO bank_entry (id, customer_id, content, at, by) VALUES ($id, $customer, $content, $at, $by) ON CONFLICT (id) DO NOTHING",
            ("$id", entry.Id),
            ("$customer", customer),
            ("$content", JsonSerializer.Serialize(entry, CoreJson.Options)),
            ("$at", JobStore.Utc(at)),
            ("$by", by)
        );
    }

    /// <summary>An entry; null where it was never taken in.</summary>
    public KeptBankEntry? Find(string id)
    {
        using var connection = database.Connect();
        return Rows(connection, "id = $id", ("$id", id)).FirstOrDefault();
    }

    /// <summary>The latest, the last first.</summary>
    public List<KeptBankEntry> Latest(int most)
    {
        using var connection = database.Connect();
        return Rows(connection, "true ORDER BY number DESC LIMIT $most", ("$most", most));
    }

    /// <summary>When entries were taken in (UTC), by their ids.</summary>
    public Dictionary<string, DateTime> TakenIn()
    {
        using var connection = database.Connect();
        return connection
            .Rows("SELECT id, at FROM bank_entry", r => (Id: r.GetString(0), At: JobStore.Moment(r.GetString(1))))
            .ToDictionary(e => e.Id, e => e.At);
    }

    /// <summary>Whose an account is, by the latest entry that says both.</summary>
    public Dictionary<string, Guid> Accounts()
    {
        using var connection = database.Connect();
        var found = new Dictionary<string, Guid>();
        foreach (
            var (account, customer) in connection.Rows(
                $"SELECT json_extract(content, '$.account'), customer_id FROM bank_entry WHERE customer_id IS NOT NULL ORDER BY number DESC LIMIT {Most}",
                r => (r.GetString(0), r.GetGuid(1))
            )
        )
            if (account.Length > 0)
                found.TryAdd(account, customer);
        return found;
    }

    private static List<KeptBankEntry> Rows(
        SqliteConnection connection,
        string which,
        params ReadOnlySpan<(string, object?)> parameters
    ) =>
        connection.Rows(
            $"SELECT content, customer_id, {Used}, at FROM bank_entry WHERE {which}",
            r => new KeptBankEntry(
                JsonSerializer.Deserialize<BankEntry>(r.GetString(0), CoreJson.Options)!,
                r.IsDBNull(1) ? null : r.GetGuid(1),
                Sum(r.GetString(2)),
                JobStore.Moment(r.GetString(3))
            ),
            parameters
        );

    // Money is summed as decimals, and never as the database would.
    private static decimal Sum(string amounts) =>
        JsonSerializer.Deserialize<string[]>(amounts)!.Sum(a => decimal.Parse(a, CultureInfo.InvariantCulture));

    /// <summary>What is left of an entry, in the transaction that uses some of it; null where it is not there.</summary>
    internal static decimal? Left(SqliteConnection connection, string entry) =>
        Rows(connection, "id = $id", ("$id", entry)).FirstOrDefault()?.Credit;
}
