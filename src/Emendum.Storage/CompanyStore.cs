using Emendum.Core.Quantities;

namespace Emendum.Storage;

/// <summary>The firm.</summary>
public sealed record Company(string Name, string Address, string Currency, UnitSystem Units);

/// <summary>The firm on disk, and the numbers it gives its jobs.</summary>
public sealed class CompanyStore(Database database)
{
    /// <summary>The firm; null in a new data folder.</summary>
    public Company? Get()
    {
        using var connection = database.Connect();
        return connection.Rows("SELECT name, address, currency, units FROM company", r => new Company(r.GetString(0), r.GetString(1), r.GetString(2), Enum.Parse<UnitSystem>(r.GetString(3)))).FirstOrDefault();
    }

    /// <summary>Sets the firm up.</summary>
    public void Create(Company company, int nextNumber)
    {
        using var connection = database.Connect();
        connection.Run("INSERT INTO company VALUES (1, $name, $address, $currency, $units, $next)",
            ("$name", company.Name), ("$address", company.Address), ("$currency", company.Currency), ("$units", company.Units.ToString()), ("$next", nextNumber));
    }

    /// <summary>Takes the next job number.</summary>
    public int TakeNumber()
    {
        using var connection = database.Connect();
        return connection.Rows("UPDATE company SET next_number = next_number + 1 RETURNING next_number - 1", r => r.GetInt32(0))[0];
    }
}
