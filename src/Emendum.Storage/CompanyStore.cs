using Emendum.Core;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>The firm, with what its new jobs start with.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Address">Its address.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Units">Of new jobs.</param>
/// <param name="Deduct">Deduction rule of new jobs.</param>
/// <param name="Zone">In which its days begin, as the IANA database names it.</param>
public sealed record Company(string Name, string Address, string Currency, UnitSystem Units, string Deduct, string Zone)
{
    /// <summary>Refuses what a firm cannot be.</summary>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 200)
            throw RefusedException.Of("name", "A firm needs a name of at most 200 characters.");
        if (Address.Length > 300)
            throw RefusedException.Of("address", "An address is at most 300 characters.");
        Core.Quantities.Currency.Check(Currency);
        if (DeductionRule.Find(Deduct) is null)
            throw RefusedException.Of(
                "deduct",
                "That is not a deduction rule. Own limits read like over 10 ft2; 5 ft2; 3 ft."
            );
    }
}

/// <summary>The firm on disk, and the numbers it gives its jobs.</summary>
public sealed class CompanyStore(Database database)
{
    /// <summary>The firm; null in a new data folder.</summary>
    public Company? Get()
    {
        using var connection = database.Connect();
        return Get(connection);
    }

    private static Company? Get(SqliteConnection connection) =>
        connection
            .Rows(
                "SELECT name, address, currency, units, deduct, zone FROM company",
                r => new Company(
                    r.GetString(0),
                    r.GetString(1),
                    r.GetString(2),
                    Enum.Parse<UnitSystem>(r.GetString(3)),
                    r.GetString(4),
                    r.GetString(5)
                )
            )
            .FirstOrDefault();

    /// <summary>Sets the firm up.</summary>
    public void Create(Company company, int nextNumber)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO company (one, name, address, currency, units, next_number, deduct, zone) VALUES (1, $name, $address, $currency, $units, $next, $deduct, $zone)",
            ("$zone", company.Zone),
            ("$deduct", company.Deduct),
            ("$name", company.Name),
            ("$address", company.Address),
            ("$currency", company.Currency),
            ("$units", company.Units.ToString()),
            ("$next", nextNumber)
        );
    }

    /// <summary>Changes the firm as it stands to what <paramref name="change"/> makes of it; nobody else does meanwhile.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public Company Change(Func<Company?, Company> change)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var company = change(Get(connection));
        company.Check();
        connection.Run(
            "UPDATE company SET name = $name, address = $address, currency = $currency, units = $units, deduct = $deduct, zone = $zone",
            ("$zone", company.Zone),
            ("$name", company.Name),
            ("$address", company.Address),
            ("$currency", company.Currency),
            ("$units", company.Units.ToString()),
            ("$deduct", company.Deduct)
        );
        writing.Commit();
        return company;
    }

    /// <summary>Takes the next job number.</summary>
    public int TakeNumber()
    {
        using var connection = database.Connect();
        return connection.Rows(
            "UPDATE company SET next_number = next_number + 1 RETURNING next_number - 1",
            r => r.GetInt32(0)
        )[0];
    }
}
