using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>A customer.</summary>
public sealed record Customer(Guid Id, string Name, string Address, string Email, string Phone)
{
    /// <summary>Why no tax is charged to them; null where it is. New jobs of theirs take it.</summary>
    public Exemption? Exemption { get; init; }

    /// <summary>Country, ISO 3166-1, two letters; empty where nobody says. E-invoices need it.</summary>
    public string Country { get; init; } = "";

    /// <summary>VAT number, with its country before it; empty for none.</summary>
    public string TaxNumber { get; init; } = "";

    /// <summary>Checks names and lengths.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (Id == Guid.Empty)
            throw RefusedException.Of("id", "A customer needs an id.");
        if (string.IsNullOrWhiteSpace(Name))
            throw RefusedException.Of("name", "Give the customer a name.");
        foreach (
            var (text, field) in new[] { (Name, "name"), (Address, "address"), (Email, "email"), (Phone, "phone") }
        )
            if (text.Length > 300)
                throw RefusedException.Of(field, "At most 300 characters.");
        if (Email.Length > 0 && !System.Net.Mail.MailAddress.TryCreate(Email, out _))
            throw RefusedException.Of(
                "email",
                "That is not an e-mail address. Write it like name@example.com, or leave it empty."
            );
        Exemption?.Check();
        Buyer.CheckCodes();
    }

    /// <summary>The customer as an e-invoice names them.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public EParty Buyer =>
        EParty.Nobody with
        {
            Name = Name.Trim(),
            Street = Address.Trim(),
            Country = Country.Trim(),
            TaxNumber = TaxNumber.Trim(),
            Mail = Message.IsAddress(Email.Trim()) ? Email.Trim() : "",
        };
}

/// <summary>Customers on disk.</summary>
public sealed class CustomerStore(Database database)
{
    /// <summary>All, by name.</summary>
    public List<Customer> List()
    {
        using var connection = database.Connect();
        return Rows(connection, "true");
    }

    private static List<Customer> Rows(
        SqliteConnection connection,
        string which,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    ) =>
        connection.Rows(
            $"SELECT id, name, address, email, phone, exempt, exempt_reason, country, tax_number FROM customer WHERE {which} ORDER BY name COLLATE NOCASE, id",
            r => new Customer(r.GetGuid(0), r.GetString(1), r.GetString(2), r.GetString(3), r.GetString(4))
            {
                Exemption = r.GetString(5) is { Length: > 0 } kind
                    ? new(Enum.Parse<ExemptKind>(kind), r.GetString(6))
                    : null,
                Country = r.GetString(7),
                TaxNumber = r.GetString(8),
            },
            parameters
        );

    /// <summary>Who that is, for documents; nobody where there is none, or none any more.</summary>
    public Party Party(Guid? id) =>
        Find(id) is { } customer ? new(customer.Id, customer.Name, customer.Address) : Core.Jobs.Party.None;

    /// <summary>The customer of that id; null where there is none, or none any more.</summary>
    public Customer? Find(Guid? id)
    {
        using var connection = database.Connect();
        return Find(connection, id);
    }

    private static Customer? Find(SqliteConnection connection, Guid? id) =>
        Rows(connection, "id = $id", ("$id", id)).FirstOrDefault();

    /// <summary>The customer of a job that comes from elsewhere: ours of that id, or a new one of that name.</summary>
    public Guid? Known(Party? party, Guid? id)
    {
        using var connection = database.Connect();
        if (Find(connection, id) is not null)
            return id;
        if (id is null || party is null || party.Id != id || string.IsNullOrWhiteSpace(party.Name))
            return null;
        Put(connection, new(party.Id, party.Name, party.Address, "", ""));
        return id;
    }

    /// <summary>The customer that says what a job of an older version says of its own: the one of that id, or one made for it.</summary>
    internal static Guid IdOf(SqliteConnection connection, Party party)
    {
        var there = Find(connection, party.Id);
        if (there is not null && there.Name.Trim() == party.Name && there.Address.Trim() == party.Address)
            return there.Id;
        var id = there is null ? party.Id : Core.Jobs.Party.IdOf(party.Name, party.Address);
        if (Find(connection, id) is null)
            Put(connection, new(id, party.Name, party.Address, there?.Email ?? "", there?.Phone ?? ""));
        return id;
    }

    /// <summary>Changes a customer as it stands, or makes one; nobody else does meanwhile.</summary>
    public Customer Change(Guid id, Func<Customer?, Customer> change)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var customer = change(Find(connection, id)) with { Id = id };
        Put(connection, customer);
        writing.Commit();
        return customer;
    }

    /// <summary>Keeps a customer, new or changed; the same twice is kept once.</summary>
    public void Put(Customer customer)
    {
        using var connection = database.Connect();
        Put(connection, customer);
    }

    private static void Put(SqliteConnection connection, Customer customer)
    {
        customer.Check();
        connection.Run(
            """
            INSERT INTO customer VALUES ($id, $name, $address, $email, $phone, $exempt, $reason, $country, $taxNumber)
            ON CONFLICT (id) DO UPDATE SET name = $name, address = $address, email = $email, phone = $phone,
                exempt = $exempt, exempt_reason = $reason, country = $country, tax_number = $taxNumber
            """,
            ("$id", customer.Id),
            ("$name", customer.Name.Trim()),
            ("$address", customer.Address.Trim()),
            ("$email", customer.Email.Trim()),
            ("$phone", customer.Phone.Trim()),
            ("$exempt", customer.Exemption?.Kind.ToString() ?? ""),
            ("$reason", customer.Exemption?.Reason.Trim() ?? ""),
            ("$country", customer.Country.Trim()),
            ("$taxNumber", customer.TaxNumber.Trim())
        );
    }
}
