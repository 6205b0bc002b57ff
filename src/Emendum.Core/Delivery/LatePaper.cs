using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>What is asked for beside invoices: reminders of late ones, and releases of what was retained; and the completion note to be signed.</summary>
public static class LatePaper
{
    /// <summary>A reminder.</summary>
    /// <param name="reminder">The reminder.</param>
    /// <param name="invoice">The invoice that is late.</param>
    /// <param name="billed">What was billed and paid.</param>
    /// <param name="head">The head of the accepted proposal.</param>
    /// <param name="reference">Number of the job, and what was accepted when.</param>
    /// <param name="brand">How days and numbers are written.</param>
    /// <param name="words">What stands at the end of an invoice: where to pay.</param>
    public static Document Of(
        ReminderFact reminder,
        Invoice invoice,
        BilledJob billed,
        Letterhead head,
        string reference,
        Brand brand,
        string words
    )
    {
        var agreed = billed.Agreed;
        string Day(DateOnly of) => brand.Writes.Day(of);
        var late = reminder.Day.DayNumber - billed.DueOf(invoice).DayNumber;
        ImmutableArray<PriceRow> rows =
        [
            Row(
                brand,
                agreed,
                RowKind.Part,
                $"Invoice {invoice.Number}",
                $"of {Day(invoice.Issued)}, due {Day(billed.DueOf(invoice))}, {Counted.Of(late, "day")} late",
                reminder.Open
            ),
            .. reminder.Interest == 0
                ? (PriceRow[])[]
                :
                [
                    Row(
                        brand,
                        agreed,
                        RowKind.Part,
                        "Interest",
                        $"{brand.Writes.Number(Shown.Typed(billed.Terms.InterestPercent))} % a year, without tax",
                        reminder.Interest
                    ),
                ],
            Row(brand, agreed, RowKind.Total, "To be paid", "", reminder.Open + reminder.Interest),
        ];
        return Paper(
            head,
            $"Reminder: invoice {invoice.Number}",
            reference,
            $"{(reminder.Number == 1 ? "Reminder" : $"Reminder {reminder.Number}")} · {Day(reminder.Day)}",
            [new PriceTable(agreed.Currency, rows)],
            [
                $"This has not reached us yet. If it is on its way, take this as read. Please name the invoice {invoice.Number}.",
                .. words.Split('\n'),
            ]
        );
    }

    /// <summary>A request for a release: no invoice, since its tax was billed in full (M11).</summary>
    public static Document Of(
        ReleaseFact release,
        BilledJob billed,
        Letterhead head,
        string reference,
        Brand brand,
        string words
    )
    {
        var agreed = billed.Agreed;
        return Paper(
            head,
            $"Release of retention {release.Number}",
            reference,
            $"Request · {brand.Writes.Day(release.Day)} · due {brand.Writes.Day(release.Due)}",
            [
                new PriceTable(
                    agreed.Currency,
                    [
                        Row(
                            brand,
                            agreed,
                            RowKind.Part,
                            "Retained of what was billed",
                            "its tax was billed in full",
                            billed.Billing.Retained
                        ),
                        Row(brand, agreed, RowKind.Part, "Released before", "", billed.Released),
                        Row(
                            brand,
                            agreed,
                            RowKind.Total,
                            "Released now, to be paid",
                            $"due {brand.Writes.Day(release.Due)}",
                            release.Amount
                        ),
                    ]
                ),
            ],
            [
                "This is no invoice: it asks for what was retained of invoices "
                    + string.Join(", ", billed.Standing.Where(i => i.Part.Retained != 0).Select(i => i.Number))
                    + ".",
                .. words.Split('\n'),
            ]
        );
    }

    /// <summary>A completion note, to be signed or as it was recorded, with the snags.</summary>
    public static Document Of(Completion completion, WorkOrder order, Letterhead head, string reference, Brand brand)
    {
        string Where(Snag snag) =>
            snag.Place is { } place ? $"{order.Lines.First(l => l.Place == place).At}: {snag.Text}" : snag.Text;
        ImmutableArray<Element> List(string title, IEnumerable<Snag> snags) =>
            snags.Any()
                ? [new Heading(2, title), new Bullets([.. snags.Select(s => new Bullet([new Span(Where(s))]))])]
                : [];
        return Paper(
            head,
            "Completion note",
            reference,
            completion.Note is { } taken ? $"Taken {brand.Writes.Day(taken.Day)}" : "Completion note",
            [
                Writing.Plain(
                    $"The work of {head.Title} is complete"
                        + (completion.Open > 0 ? ", but for what is listed here as open." : ".")
                ),
                .. List("Open", completion.Snags.Where(s => s.Mended is null)),
                .. List("Mended", completion.Snags.Where(s => s.Mended is not null)),
                completion.Note is { } note
                    ? Writing.Plain(
                        $"Taken by {note.Name} on {brand.Writes.Day(note.Day)}{(note.How.Length > 0 ? $", {note.How}" : "")}."
                    )
                    : new Signature(head.Customer, ""),
            ],
            []
        );
    }

    private static PriceRow Row(
        Brand brand,
        AgreedContract agreed,
        RowKind kind,
        string label,
        string detail,
        decimal amount
    ) => new(kind, label, detail, amount, null) { Shown = brand.Writes.Number(Shown.Money(amount, agreed.Places)) };

    private static Document Paper(
        Letterhead head,
        string title,
        string reference,
        string about,
        ImmutableArray<Element> made,
        IEnumerable<string> words
    ) =>
        new(
            head with
            {
                Title = title,
                Subtitle = $"{head.Title} · {reference}",
                Reference = about,
                Validity = "",
            },
            [
                Block(title, 1, BlockKind.Price, made),
                Block(
                    title,
                    2,
                    BlockKind.Letter,
                    [.. words.Select(w => w.Trim()).Where(w => w.Length > 0).Select(Writing.Plain)]
                ),
            ]
        );

    private static Block Block(string of, int number, BlockKind kind, ImmutableArray<Element> made) =>
        new(DerivedId.Of($"{of}/{number}"), kind, "", false, false, false, WordsOf.Nobody, [], made);
}
