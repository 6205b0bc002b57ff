using Emendum.Core;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Storage;

/// <summary>The firm, with what its new jobs start with.</summary>
public sealed record Company(string Name, string Address, string Currency, UnitSystem Units, string Deduct)
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
        return connection
            .Rows(
                "SELECT name, address, currency, units, deduct FROM company",
                r => new Company(
                    r.GetString(0),
                    r.GetString(1),
                    r.GetString(2),
                    Enum.Parse<UnitSystem>(r.GetString(3)),
                    r.GetString(4)
                )
            )
            .FirstOrDefault();
    }

    /// <summary>Sets the firm up.</summary>
    public void Create(Company company, int nextNumber)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO company VALUES (1, $name, $address, $currency, $units, $next, $deduct)",
            ("$deduct", company.Deduct),
            ("$name", company.Name),
            ("$address", company.Address),
            ("$currency", company.Currency),
            ("$units", company.Units.ToString()),
            ("$next", nextNumber)
        );
    }

    /// <summary>Changes the firm.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public void Put(Company company)
    {
        company.Check();
        using var connection = database.Connect();
        connection.Run(
            "UPDATE company SET name = $name, address = $address, currency = $currency, units = $units, deduct = $deduct",
            ("$name", company.Name),
            ("$address", company.Address),
            ("$currency", company.Currency),
            ("$units", company.Units.ToString()),
            ("$deduct", company.Deduct)
        );
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
