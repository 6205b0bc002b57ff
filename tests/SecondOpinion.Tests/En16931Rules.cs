using System.Globalization;
using System.Xml.Linq;

namespace Emendum.SecondOpinion.Tests;

/// <summary>
/// Business rules of EN 16931-1 read off an e-invoice's XML and nothing else: written from memory, rule by rule under the names that the standard gives them, without any code of the program. Each gives what is broken.
/// </summary>
internal sealed class En16931Rules
{
    private static readonly XNamespace Cac = "urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2",
        Cbc = "urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2";

    private readonly XElement root;
    private readonly bool credit;
    private readonly List<XElement> lines;
    private readonly List<XElement> subtotals;
    private readonly List<string> broken = [];

    private En16931Rules(byte[] xml)
    {
        using var stream = new MemoryStream(xml);
        root = XDocument.Load(stream).Root!;
        credit = root.Name.LocalName == "CreditNote";
        lines = [.. root.Elements(Cac + (credit ? "CreditNoteLine" : "InvoiceLine"))];
        subtotals = [.. root.Elements(Cac + "TaxTotal").Elements(Cac + "TaxSubtotal")];
    }

    /// <summary>The rules that an e-invoice breaks.</summary>
    public static IReadOnlyList<string> Broken(byte[] xml)
    {
        var rules = new En16931Rules(xml);
        rules.Presence();
        rules.Sums();
        rules.Categories();
        rules.Parties();
        return rules.broken;
    }

    private void Must(string rule, bool holds)
    {
        if (!holds)
            broken.Add(rule);
    }

    private static string Text(XElement? under, string name) => under?.Element(Cbc + name)?.Value ?? "";

    private static decimal Number(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);

    private decimal Total(string name) =>
        Text(root.Element(Cac + "LegalMonetaryTotal"), name) is { Length: > 0 } text ? Number(text) : 0;

    private XElement Party(string whose) => root.Element(Cac + whose)!.Element(Cac + "Party")!;

    private void Presence()
    {
        Must("BR-1", Text(root, "CustomizationID").Length > 0);
        Must("BR-2", Text(root, "ID").Length > 0);
        Must("BR-3", DateOnly.TryParseExact(Text(root, "IssueDate"), "yyyy-MM-dd", out _));
        Must("BR-4", Text(root, credit ? "CreditNoteTypeCode" : "InvoiceTypeCode") == (credit ? "381" : "380"));
        Must("BR-5", Text(root, "DocumentCurrencyCode").Length == 3);
        Must(
            "BR-6",
            Text(Party("AccountingSupplierParty").Element(Cac + "PartyLegalEntity"), "RegistrationName") != ""
        );
        Must(
            "BR-7",
            Text(Party("AccountingCustomerParty").Element(Cac + "PartyLegalEntity"), "RegistrationName") != ""
        );
        foreach (
            var (rule, whose) in new[] { ("BR-9", "AccountingSupplierParty"), ("BR-11", "AccountingCustomerParty") }
        )
            Must(
                rule,
                Text(Party(whose).Element(Cac + "PostalAddress")?.Element(Cac + "Country"), "IdentificationCode").Length
                    == 2
            );
        foreach (
            var (rule, name) in new[]
            {
                ("BR-12", "LineExtensionAmount"),
                ("BR-13", "TaxExclusiveAmount"),
                ("BR-14", "TaxInclusiveAmount"),
                ("BR-15", "PayableAmount"),
            }
        )
            Must(rule, Text(root.Element(Cac + "LegalMonetaryTotal"), name).Length > 0);
        Must("BR-16", lines.Count > 0);
        Must("BR-21", lines.Select(l => Text(l, "ID")).Distinct().Count() == lines.Count);
        foreach (var line in lines)
        {
            var quantity = line.Element(Cbc + (credit ? "CreditedQuantity" : "InvoicedQuantity"));
            Must("BR-22", quantity is not null);
            Must("BR-23", (string?)quantity?.Attribute("unitCode") is { Length: > 0 });
            Must("BR-25", Text(line.Element(Cac + "Item"), "Name").Length > 0);
            var price = Text(line.Element(Cac + "Price"), "PriceAmount");
            Must("BR-26", price.Length > 0);
            Must("BR-27", Number(price) >= 0);
            // Not a rule of its own: the line is its quantity at its price.
            Must("line", Number(Text(line, "LineExtensionAmount")) == Number(quantity!.Value) * Number(price));
        }
        Must("BR-55", root.Elements(Cac + "BillingReference").All(b => b.Descendants(Cbc + "ID").Any()));
        foreach (var means in root.Elements(Cac + "PaymentMeans"))
        {
            var code = Text(means, "PaymentMeansCode");
            Must("BR-49", code.Length > 0);
            Must("BR-61", code != "30" || Text(means.Element(Cac + "PayeeFinancialAccount"), "ID").Length > 0);
        }
        Must(
            "BR-CO-25",
            Total("PayableAmount") <= 0
                || Text(root, "DueDate").Length > 0
                || Text(root.Element(Cac + "PaymentTerms"), "Note").Length > 0
        );
        Must(
            "BR-DEC",
            root.Descendants()
                .Where(e => e.Attribute("currencyID") is not null)
                .All(e => decimal.Round(Number(e.Value), 2) == Number(e.Value))
        );
        Must(
            "currency",
            root.Descendants().Attributes("currencyID").All(a => a.Value == Text(root, "DocumentCurrencyCode"))
        );
    }

    private void Sums()
    {
        var net = lines.Sum(l => Number(Text(l, "LineExtensionAmount")));
        var tax = Number(Text(root.Element(Cac + "TaxTotal"), "TaxAmount"));
        Must("BR-CO-10", Total("LineExtensionAmount") == net);
        Must(
            "BR-CO-13",
            Total("TaxExclusiveAmount")
                == Total("LineExtensionAmount") - Total("AllowanceTotalAmount") + Total("ChargeTotalAmount")
        );
        Must("BR-CO-14", tax == subtotals.Sum(s => Number(Text(s, "TaxAmount"))));
        Must("BR-CO-15", Total("TaxInclusiveAmount") == Total("TaxExclusiveAmount") + tax);
        Must(
            "BR-CO-16",
            Total("PayableAmount")
                == Total("TaxInclusiveAmount") - Total("PrepaidAmount") + Total("PayableRoundingAmount")
        );
        foreach (var of in subtotals)
        {
            var percent = Text(of.Element(Cac + "TaxCategory"), "Percent");
            Must(
                "BR-CO-17",
                Number(Text(of, "TaxAmount"))
                    == decimal.Round(
                        Number(Text(of, "TaxableAmount")) * (percent.Length > 0 ? Number(percent) : 0) / 100m,
                        2,
                        MidpointRounding.AwayFromZero
                    )
            );
        }
        Must("BR-CO-18", subtotals.Count > 0);
    }

    private void Categories()
    {
        foreach (var line in lines)
        {
            var category = line.Element(Cac + "Item")?.Element(Cac + "ClassifiedTaxCategory");
            var (code, percent) = (Text(category, "ID"), Text(category, "Percent"));
            Must("BR-CO-4", code.Length > 0);
            Must("BR-S-5", code != "S" || (percent.Length > 0 && Number(percent) > 0));
            Must(
                "BR-Z-5, BR-E-5, BR-AE-5",
                code is not ("Z" or "E" or "AE") || (percent.Length > 0 && Number(percent) == 0)
            );
            Must("BR-O-5", code != "O" || percent.Length == 0);
        }
        foreach (var of in subtotals)
        {
            var category = of.Element(Cac + "TaxCategory");
            var (code, percent) = (Text(category, "ID"), Text(category, "Percent"));
            var reason = Text(category, "TaxExemptionReason");
            var on = lines
                .Where(l =>
                    l.Element(Cac + "Item")?.Element(Cac + "ClassifiedTaxCategory") is { } c
                    && Text(c, "ID") == code
                    && Text(c, "Percent") == percent
                )
                .Sum(l => Number(Text(l, "LineExtensionAmount")));
            Must($"BR-{code}-8", Number(Text(of, "TaxableAmount")) == on);
            Must($"BR-{code}-9", code == "S" || Number(Text(of, "TaxAmount")) == 0);
            Must($"BR-{code}-10", code is "S" or "Z" ? reason.Length == 0 : reason.Length > 0);
        }
        var codes = lines
            .Select(l => Text(l.Element(Cac + "Item")?.Element(Cac + "ClassifiedTaxCategory"), "ID"))
            .ToHashSet();
        foreach (var code in codes)
            Must(
                $"BR-{code}-1",
                subtotals.Exists(s => Text(s.Element(Cac + "TaxCategory"), "ID") == code)
                    // What adds up to nothing may be left out with its lines alone.
                    || lines
                        .Where(l => Text(l.Element(Cac + "Item")?.Element(Cac + "ClassifiedTaxCategory"), "ID") == code)
                        .Sum(l => Number(Text(l, "LineExtensionAmount"))) == 0
            );
        Must("BR-O-11", !codes.Contains("O") || codes.Count == 1);
        Must(
            "one each",
            subtotals
                .Select(s =>
                    (Text(s.Element(Cac + "TaxCategory"), "ID"), Text(s.Element(Cac + "TaxCategory"), "Percent"))
                )
                .Distinct()
                .Count() == subtotals.Count
        );
    }

    private void Parties()
    {
        string TaxNumber(string whose) => Text(Party(whose).Element(Cac + "PartyTaxScheme"), "CompanyID");
        var (seller, buyer) = (TaxNumber("AccountingSupplierParty"), TaxNumber("AccountingCustomerParty"));
        var codes = subtotals.Select(s => Text(s.Element(Cac + "TaxCategory"), "ID")).ToHashSet();
        Must("BR-S-2, BR-Z-2, BR-E-2, BR-AE-2", codes is { Count: 0 } || codes.SetEquals(["O"]) || seller.Length > 0);
        Must("BR-AE-2", !codes.Contains("AE") || buyer.Length > 0);
        Must("BR-O-2", !codes.Contains("O") || (seller + buyer).Length == 0);
        Must(
            "BR-CO-9",
            new[] { seller, buyer }.All(n => n.Length == 0 || (n.Length > 2 && n[..2].All(char.IsAsciiLetterUpper)))
        );
        Must(
            "BR-CO-26",
            seller.Length > 0
                || Text(Party("AccountingSupplierParty").Element(Cac + "PartyLegalEntity"), "CompanyID").Length > 0
        );
    }
}
