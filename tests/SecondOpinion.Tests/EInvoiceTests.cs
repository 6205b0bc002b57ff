using System.Collections.Immutable;
using System.Text;
using System.Xml.Linq;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Documents;
using Xunit;

namespace Emendum.SecondOpinion.Tests;

/// <summary>E-invoices of what was issued, held against the business rules of EN 16931-1 (<see cref="En16931Rules"/>, from memory) and by hand.</summary>
public sealed class EInvoiceTests
{
    private static readonly DateOnly Monday = new(2027, 3, 1);
    private static readonly Guid Vat = Guid.NewGuid();

    private static readonly EParties Parties = new(
        new("Larkspur & Pell Finishing", "Quay 2", "Port Ennis", "PE1", "IE", "IE1234567T")
        {
            Registration = "PE 4711",
            Mail = "desk@larkspurpell.example",
        },
        EParty.Nobody with
        {
            Name = "Quayside Veterinary Clinic",
            Street = "Quay 9, Port Ennis",
            Country = "IE",
            TaxNumber = "IE7654321A",
        },
        "IE29 AIBK 9311 5212 3456 78"
    );

    private static AgreedCategory Category(string code, decimal amount, decimal rate = 0) =>
        new(
            code,
            code is "S" or "Z" ? [new(Vat, "VAT", rate, Tax.Everything, TaxWay.Charged)] : [],
            code is "S" or "Z" ? "" : "no tax because of something",
            amount
        );

    private static BilledJob Begun(AccountUse use, params AgreedCategory[] categories) =>
        new(
            new(
                [.. categories],
                categories.Sum(c => c.Amount + Rounding.Money(c.Amount * c.Rate / 100m)),
                false,
                "EUR",
                2,
                [],
                false
            ),
            use,
            [],
            []
        );

    private static BilledJob Issue(BilledJob job, BillsBy by, decimal? value = null) =>
        job with
        {
            Invoices = job.Invoices.Add(
                new(
                    Guid.NewGuid(),
                    $"2027-{job.Invoices.Length + 1:D4}",
                    Monday,
                    Monday.AddDays(-3),
                    Monday.AddDays(30),
                    new(by, null, value),
                    job.Of(new(by, null, value)),
                    "Work to date"
                )
                {
                    Parties = Parties,
                }
            ),
        };

    private static BilledJob Credit(BilledJob job, Invoice invoice) =>
        job with
        {
            Invoices = job.Invoices.Add(
                invoice with
                {
                    Id = Guid.NewGuid(),
                    Number = $"2027-{job.Invoices.Length + 1:D4}",
                    Part = job.Credit(invoice),
                    Credits = invoice.Id,
                    Reason = "wrong",
                }
            ),
        };

    private static byte[] Written(BilledJob job, Index at) => EInvoiceFile.Write(EInvoice.Of(job.Invoices[at], job));

    private static string[] All(byte[] xml, string name)
    {
        using var stream = new MemoryStream(xml);
        return [.. XDocument.Load(stream).Descendants().Where(e => e.Name.LocalName == name).Select(e => e.Value)];
    }

    [Fact]
    public void M9_a_deposit_that_is_used_up_is_a_minus_line_that_names_its_invoice()
    {
        var job = Issue(Begun(AccountUse.InProportion, Category("S", 10_000, 20)), BillsBy.Amount, 3_000);
        job = Issue(job, BillsBy.Percent, 40);
        var xml = Written(job, ^1);
        Assert.Empty(En16931Rules.Broken(xml));
        // 4,000 of work, 1,200 of the deposit: 2,800 + 560.
        Assert.Equal(["4000.00", "-1200.00"], All(xml, "LineExtensionAmount")[1..]);
        Assert.Equal(["1", "-1"], All(xml, "InvoicedQuantity"));
        Assert.Equal(["4000.00", "1200.00"], All(xml, "PriceAmount"));
        Assert.Equal(["560.00", "560.00"], All(xml, "TaxAmount"));
        Assert.Equal("3360.00", Assert.Single(All(xml, "PayableAmount")));
        Assert.Contains("Billed on account before (2027-0001)", All(xml, "Name"));
        Assert.Equal(["2027-0002", "2027-0001"], All(xml, "ID")[..2]);
        Assert.Equal("2027-02-26", Assert.Single(All(xml, "ActualDeliveryDate")));
        Assert.Equal(
            "IE29AIBK93115212345678",
            All(xml, "ID").Single(id => id.StartsWith("IE29", StringComparison.Ordinal))
        );
    }

    [Fact]
    public void M11_what_is_retained_is_a_term_of_payment_and_all_of_it_is_due()
    {
        var job = Begun(AccountUse.InProportion, Category("S", 10_000, 20)) with
        {
            Terms = BillingTerms.None with { Retention = BillingTerms.None.Retention with { Percent = 5 } },
        };
        job = Issue(job, BillsBy.Percent, 50);
        var xml = Written(job, ^1);
        Assert.Empty(En16931Rules.Broken(xml));
        Assert.Equal("6000.00", Assert.Single(All(xml, "PayableAmount")));
        Assert.Contains(
            "Retained until it is released: 250.00; payable now: 5,750.00.",
            All(xml, "Note").Single(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_credit_note_has_what_is_credited_above_nothing_and_names_its_invoice()
    {
        var job = Issue(Begun(AccountUse.First, Category("S", 500, 7), Category("E", 60)), BillsBy.Rest);
        job = Credit(job, job.Invoices[0]);
        var xml = Written(job, ^1);
        Assert.Empty(En16931Rules.Broken(xml));
        Assert.Equal("381", Assert.Single(All(xml, "CreditNoteTypeCode")));
        Assert.Equal("595.00", Assert.Single(All(xml, "PayableAmount")));
        Assert.Contains("2027-0001", All(xml, "ID"));
        Assert.Contains("wrong", All(xml, "Note"));
    }

    [Fact]
    public void M2_the_rounding_of_the_last_invoice_is_payable_rounding()
    {
        var begun = Begun(AccountUse.InProportion, Category("S", 1_000.01m, 19));
        var job = Issue(
            begun with
            {
                Agreed = begun.Agreed with { RoundsAfterTax = true, Total = 1_195 },
            },
            BillsBy.Rest
        );
        var xml = Written(job, ^1);
        Assert.Empty(En16931Rules.Broken(xml));
        Assert.Equal("4.99", Assert.Single(All(xml, "PayableRoundingAmount")));
        Assert.Equal("1195.00", Assert.Single(All(xml, "PayableAmount")));
    }

    [Theory]
    [InlineData("Z")]
    [InlineData("E")]
    [InlineData("AE")]
    [InlineData("O")]
    public void Each_category_without_tax_has_what_its_rules_ask_for(string code) =>
        Assert.Empty(
            En16931Rules.Broken(Written(Issue(Begun(AccountUse.InProportion, Category(code, 100)), BillsBy.Rest), ^1))
        );

    [Fact]
    public void What_an_e_invoice_cannot_say_is_refused_by_name()
    {
        string Refused(BilledJob job, EParties? parties, params AgreedCategory[] more)
        {
            job = more.Length > 0 ? Begun(AccountUse.InProportion, more) : job;
            job = Issue(job, BillsBy.Rest);
            job = job with { Invoices = [job.Invoices[0] with { Parties = parties }] };
            return Assert.Throws<RefusedException>(() => Written(job, ^1)).Refusal.Field;
        }
        var job = Begun(AccountUse.InProportion, Category("S", 100, 20));
        Assert.Equal("parties", Refused(job, null));
        Assert.Equal("seller", Refused(job, Parties with { Seller = Parties.Seller with { Country = "" } }));
        Assert.Equal("seller", Refused(job, Parties with { Seller = Parties.Seller with { TaxNumber = "" } }));
        Assert.Equal("buyer", Refused(job, Parties with { Buyer = Parties.Buyer with { Country = "" } }));
        Assert.Equal(
            "buyer",
            Refused(job, Parties with { Buyer = Parties.Buyer with { TaxNumber = "" } }, Category("AE", 100))
        );
        Assert.Equal("taxes", Refused(job, Parties, Category("S", 100, 20), Category("O", 100)));
        Assert.Equal(
            "taxes",
            Refused(
                job,
                Parties,
                new AgreedCategory(
                    "S",
                    [
                        new(Vat, "GST", 5, Tax.Everything, TaxWay.Charged),
                        new(Guid.NewGuid(), "QST", 9.975m, Tax.Everything, TaxWay.Charged),
                    ],
                    "",
                    100
                )
            )
        );
    }

    [Theory]
    // ISO 13616 and its registry's examples, from memory.
    [InlineData("GB82 WEST 1234 5698 7654 32", true)]
    [InlineData("DE89 3704 0044 0532 0130 00", true)]
    [InlineData("FR14 2004 1010 0505 0001 3M02 606", true)]
    [InlineData("GB82 WEST 1234 5698 7654 33", false)]
    [InlineData("DE89", false)]
    [InlineData("DE893704004405320130!0", false)]
    public void An_iban_is_known_by_its_check_digits(string text, bool isOne) =>
        Assert.Equal(isOne, EInvoiceTerms.IsIban(text));

    [Fact]
    public void The_rules_find_what_is_broken()
    {
        var job = Issue(Begun(AccountUse.InProportion, Category("S", 100, 20), Category("E", 50)), BillsBy.Rest);
        var xml = Encoding.UTF8.GetString(Written(job, ^1));
        string Broken(string was, string now) =>
            string.Join(
                ' ',
                En16931Rules.Broken(Encoding.UTF8.GetBytes(xml.Replace(was, now, StringComparison.Ordinal)))
            );
        Assert.Contains(
            "BR-CO-16",
            Broken(">170.00</cbc:PayableAmount", ">170.01</cbc:PayableAmount"),
            StringComparison.Ordinal
        );
        Assert.Contains("BR-CO-17", Broken(">20</cbc:Percent", ">21</cbc:Percent"), StringComparison.Ordinal);
        Assert.Contains(
            "BR-CO-10",
            Broken(">150.00</cbc:LineExtensionAmount", ">151.00</cbc:LineExtensionAmount"),
            StringComparison.Ordinal
        );
        Assert.Contains("BR-E-10", Broken("no tax because of something", ""), StringComparison.Ordinal);
        Assert.Contains(
            "BR-9",
            Broken(">IE</cbc:IdentificationCode", "></cbc:IdentificationCode"),
            StringComparison.Ordinal
        );
        Assert.Contains("BR-4", Broken(">380<", ">381<"), StringComparison.Ordinal);
    }

    /// <summary>Random contracts billed in any order, credited whole and in part: whatever has an e-invoice keeps every rule, and comes to what the paper says.</summary>
    [Fact]
    [Trait("Category", "Long")]
    public void Any_invoice_of_any_contract_keeps_the_rules()
    {
        var random = new Random(16931);
        var rounds = Environment.GetEnvironmentVariable("EMENDUM_LONG") == "1" ? 10_000 : 300;
        var (made, refused) = (0, 0);
        for (var round = 0; round < rounds; round++)
        {
            decimal Money(int most) => random.Next(1, most) / 100m;
            var categories = new List<AgreedCategory>
            {
                Category("S", Money(2_000_000), new[] { 7m, 19m, 20m }[round % 3]),
            };
            if (round % 2 == 0)
                categories.Add(Category("E", Money(50_000)));
            if (round % 5 == 0)
                categories.Add(Category("AE", Money(50_000)));
            var job = Begun((AccountUse)(round % 3), [.. categories]);
            for (var act = 0; act < 6; act++)
                try
                {
                    var standing = job.Standing.ToList();
                    job = random.Next(5) switch
                    {
                        0 => Issue(job, BillsBy.Percent, random.Next(1, 101)),
                        1 => Issue(job, BillsBy.Amount, Money(200_000)),
                        2 => Issue(job, BillsBy.Rest),
                        _ when standing.Count > 0 => Credit(job, standing[random.Next(standing.Count)]),
                        _ => job,
                    };
                }
                catch (RefusedException) { }
            foreach (var invoice in job.Invoices)
            {
                EInvoice of;
                try
                {
                    of = EInvoice.Of(invoice, job);
                }
                catch (RefusedException)
                {
                    refused++;
                    continue;
                }
                made++;
                Assert.Equal(Math.Abs(invoice.Part.Total), Math.Abs(of.Payable));
                var broken = En16931Rules.Broken(EInvoiceFile.Write(of));
                Assert.True(
                    broken.Count == 0,
                    $"{string.Join(", ", broken)}\n{Encoding.UTF8.GetString(EInvoiceFile.Write(of))}"
                );
            }
        }
        Assert.True(made > 3 * rounds / 2, $"{made} made, {refused} refused");
    }
}
