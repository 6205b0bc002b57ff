using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Emendum.Core.Delivery;

namespace Emendum.Documents;

/// <summary>An e-invoice as UBL 2.1 (ISO/IEC 19845), in the syntax that EN 16931-3-2 gives it: an Invoice, or a CreditNote.</summary>
public static class EInvoiceFile
{
    /// <summary>Media type.</summary>
    public const string Type = "application/xml";

    /// <summary>What it follows (BT-24).</summary>
    public const string Specification = "urn:cen.eu:en16931:2017";

    private static readonly XNamespace Cac = "urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2",
        Cbc = "urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2";

    /// <summary>Its bytes, UTF-8, the same each time.</summary>
    public static byte[] Write(EInvoice of)
    {
        var kind = of.IsCredit ? "CreditNote" : "Invoice";
        XNamespace root = $"urn:oasis:names:specification:ubl:schema:xsd:{kind}-2";
        var document = new XDocument(
            new XElement(
                root + kind,
                new XAttribute("xmlns", root.NamespaceName),
                new XAttribute(XNamespace.Xmlns + "cac", Cac.NamespaceName),
                new XAttribute(XNamespace.Xmlns + "cbc", Cbc.NamespaceName),
                Basic("CustomizationID", Specification),
                Basic("ID", of.Number),
                Basic("IssueDate", Day(of.Issued)),
                // A credit note has no due day of its own in this syntax.
                of.IsCredit
                    ? null
                    : Basic("DueDate", Day(of.Due)),
                Basic($"{kind}TypeCode", of.IsCredit ? "381" : "380"),
                Filled("Note", of.Note),
                Basic("DocumentCurrencyCode", of.Currency),
                of.Before.Select(b => new XElement(
                    Cac + "BillingReference",
                    new XElement(
                        Cac + "InvoiceDocumentReference",
                        Basic("ID", b.Number),
                        Basic("IssueDate", Day(b.Day))
                    )
                )),
                new XElement(Cac + "AccountingSupplierParty", Party(of.Parties.Seller)),
                new XElement(Cac + "AccountingCustomerParty", Party(of.Parties.Buyer)),
                new XElement(Cac + "Delivery", Basic("ActualDeliveryDate", Day(of.Supplied))),
                Means(of),
                of.Terms.Length > 0 ? new XElement(Cac + "PaymentTerms", Basic("Note", of.Terms)) : null,
                Taxes(of),
                Totals(of),
                of.Lines.Select((line, at) => Line(of, line, at + 1))
            )
        );
        using var bytes = new MemoryStream();
        using (
            var writer = XmlWriter.Create(
                bytes,
                new() { Indent = true, Encoding = new UTF8Encoding(encoderShouldEmitUTF8Identifier: false) }
            )
        )
            document.Save(writer);
        return bytes.ToArray();
    }

    private static XElement Basic(string name, string text) => new(Cbc + name, text);

    /// <summary>An element, where there is something to stand in it.</summary>
    private static XElement? Filled(string name, string text) => text.Length > 0 ? Basic(name, text) : null;

    private static string Day(DateOnly day) => Core.Quantities.Day.Written(day);

    private static XElement Money(EInvoice of, string name, decimal amount) =>
        new(
            Cbc + name,
            new XAttribute("currencyID", of.Currency),
            amount.ToString("F" + of.Places, CultureInfo.InvariantCulture)
        );

    private static XElement Party(EParty party) =>
        new(
            Cac + "Party",
            party.Mail.Length > 0
                ? new XElement(Cbc + "EndpointID", new XAttribute("schemeID", "EM"), party.Mail)
                : null,
            new XElement(
                Cac + "PostalAddress",
                Filled("StreetName", party.Street),
                Filled("CityName", party.City),
                Filled("PostalZone", party.PostCode),
                new XElement(Cac + "Country", Basic("IdentificationCode", party.Country))
            ),
            party.TaxNumber.Length > 0
                ? new XElement(Cac + "PartyTaxScheme", Basic("CompanyID", party.TaxNumber), Scheme())
                : null,
            new XElement(
                Cac + "PartyLegalEntity",
                Basic("RegistrationName", party.Name),
                Filled("CompanyID", party.Registration)
            ),
            party.Mail.Length > 0 ? new XElement(Cac + "Contact", Basic("ElectronicMail", party.Mail)) : null
        );

    private static XElement Scheme() => new(Cac + "TaxScheme", Basic("ID", "VAT"));

    /// <summary>How it is paid: into an account (30), or as nobody says (1).</summary>
    private static XElement Means(EInvoice of) =>
        new(
            Cac + "PaymentMeans",
            Basic("PaymentMeansCode", of.Parties.Account.Length > 0 ? "30" : "1"),
            Basic("PaymentID", of.Number),
            of.Parties.Account.Length > 0
                ? new XElement(Cac + "PayeeFinancialAccount", Basic("ID", EInvoiceTerms.Plain(of.Parties.Account)))
                : null
        );

    private static XElement Taxes(EInvoice of) =>
        new(
            Cac + "TaxTotal",
            Money(of, "TaxAmount", of.Tax),
            of.Taxes.Select(t => new XElement(
                Cac + "TaxSubtotal",
                Money(of, "TaxableAmount", t.Taxable),
                Money(of, "TaxAmount", t.Tax),
                Category("TaxCategory", t.Code, t.Rate, t.Reason)
            ))
        );

    private static XElement Category(string name, string code, decimal? rate, string reason = "") =>
        new(
            Cac + name,
            Basic("ID", code),
            rate is { } percent ? Basic("Percent", Core.Quantities.Rounding.Text(percent)) : null,
            Filled("TaxExemptionReason", reason),
            Scheme()
        );

    private static XElement Totals(EInvoice of) =>
        new(
            Cac + "LegalMonetaryTotal",
            Money(of, "LineExtensionAmount", of.Net),
            Money(of, "TaxExclusiveAmount", of.Net),
            Money(of, "TaxInclusiveAmount", of.Total),
            of.Rounding != 0 ? Money(of, "PayableRoundingAmount", of.Rounding) : null,
            Money(of, "PayableAmount", of.Payable)
        );

    /// <summary>A line: one piece at its amount; what is taken off is one piece back, as no price is below nothing (BR-27).</summary>
    private static XElement Line(EInvoice of, ELine line, int number) =>
        new(
            Cac + (of.IsCredit ? "CreditNoteLine" : "InvoiceLine"),
            Basic("ID", number.ToString(CultureInfo.InvariantCulture)),
            new XElement(
                Cbc + (of.IsCredit ? "CreditedQuantity" : "InvoicedQuantity"),
                new XAttribute("unitCode", "C62"),
                line.Amount < 0 ? "-1" : "1"
            ),
            Money(of, "LineExtensionAmount", line.Amount),
            new XElement(
                Cac + "Item",
                Basic("Name", line.Name),
                Category("ClassifiedTaxCategory", line.Code, line.Rate)
            ),
            new XElement(Cac + "Price", Money(of, "PriceAmount", Math.Abs(line.Amount)))
        );
}
