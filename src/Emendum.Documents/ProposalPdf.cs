using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using SkiaSharp;
using static Emendum.Documents.Typesetter;

namespace Emendum.Documents;

/// <summary>Sets a proposal's blocks as a PDF: white paper, wide margins, a thin ticked yellow rule along the head of the page.</summary>
public static class ProposalPdf
{
    private const float Left = 76,
        Right = PageWidth - 76,
        Width = Right - Left,
        Size = 10.5f,
        Leading = 15.5f,
        AmountWidth = 84;

    /// <summary>The PDF's bytes; the same blocks give the same bytes.</summary>
    public static byte[] Write(IEnumerable<Block> blocks, JobInfo info)
    {
        var set = new Typesetter(78, PageHeight - 74);
        foreach (var block in blocks)
            Set(set, block);
        return set.Write(
            $"Proposal {info.Number}: {info.Name}",
            info.Firm,
            info.Date,
            (canvas, page, of) => Furniture(canvas, info, page, of)
        );
    }

    private static void Set(Typesetter set, Block block)
    {
        switch (block)
        {
            case Letterhead head:
                SetLetterhead(set, head);
                break;
            case Heading { Level: 1 } heading:
                set.Need(70);
                set.Y += 22;
                set.Column([new(heading.Text, Face.SerifBold)], Left, Width, 16, 21, Ink);
                set.Y += 3;
                break;
            case Heading heading:
                set.Need(44);
                set.Y += 7;
                set.Column([new(heading.Text, Face.SerifBold)], Left, Width, Size + 0.5f, Leading, Ink);
                break;
            case Paragraph paragraph:
                set.Column([new(paragraph.Text.ReplaceLineEndings(" "), Face.Serif)], Left, Width, Size, Leading, Ink);
                set.Y += 7;
                break;
            case Bullets bullets:
                foreach (var item in bullets.Items)
                {
                    set.Need(Leading);
                    set.Text("–", Left, set.Y + Leading * 0.72f, Face.Serif, Size, Quiet);
                    set.Column(
                        [new(item.Strong + " ", Face.Serif), new(item.Text, Face.Serif)],
                        Left + 13,
                        Width - 13,
                        Size,
                        Leading,
                        Ink
                    );
                    set.Y += 2;
                }
                break;
            case PriceTable table:
                SetPrice(set, table);
                break;
            case Signature signature:
                SetSignature(set, signature);
                break;
        }
    }

    private static void SetLetterhead(Typesetter set, Letterhead head)
    {
        set.Text(head.Firm, Left, set.Y + 12, Face.SerifBold, 14, Ink);
        set.Text(head.FirmAddress, Left, set.Y + 28, Face.Serif, 9.5f, Quiet);
        RightText(set, head.Reference, set.Y + 12, 9.5f, Ink);
        RightText(set, head.Validity, set.Y + 28, 9.5f, Quiet);
        set.Y += 62;
        if (head.Customer.Length > 0)
            set.Column([new(head.Customer, Face.Serif)], Left, Width, Size, Leading, Ink);
        if (head.CustomerAddress.Length > 0)
            set.Column([new(head.CustomerAddress, Face.Serif)], Left, Width, Size, Leading, Quiet);
        set.Y += 20;
        set.Column([new(head.Title, Face.SerifBold)], Left, Width, 21, 26, Ink);
        if (head.Subtitle.Length > 0)
            set.Column([new(head.Subtitle, Face.Serif)], Left, Width, 11.5f, 17, Quiet);
        set.Y += 14;
    }

    private static void RightText(Typesetter set, string text, float y, float size, SKColor colour)
    {
        using var font = Font(Face.Serif, size);
        set.Text(text, Right - font.MeasureText(text), y, Face.Serif, size, colour);
    }

    private static void SetPrice(Typesetter set, PriceTable table)
    {
        set.Need(Leading * 3);
        RightText(set, $"amounts in {table.Currency}", set.Y + 9, 8.5f, Quiet);
        set.Y += 14;
        foreach (var row in table.Rows)
        {
            if (row.Kind == RowKind.Group)
            {
                set.Need(Leading * 4);
                set.Y += 9;
                set.Column([new(row.Label, Face.SerifBold)], Left, Width, Size, Leading, Ink);
                set.Rule(Left, Right, set.Y + 2, 0.5f, Hair);
                continue;
            }
            var strong = row.Kind is RowKind.Subtotal or RowKind.Total;
            var label = Wrap([new(row.Label, strong ? Face.SerifBold : Face.Serif)], Width - AmountWidth, Size);
            var detail = row.Detail.Length == 0 ? [] : Wrap([new(row.Detail, Face.Serif)], Width - AmountWidth, 9);
            set.Need(label.Count * Leading + detail.Count * 12 + 8 + (row.Kind == RowKind.Subtotal ? 3 * Leading : 0));
            if (row.Kind == RowKind.Subtotal)
                set.Rule(Left, Right, set.Y + 2, 0.9f, Ink);
            set.Y += 5;
            set.Figures(row.Shown, Right, set.Y + Leading * 0.72f, strong ? Face.SansBold : Face.Sans, Size, Ink);
            foreach (var line in label)
            {
                set.SetLine(line, Left, set.Y + Leading * 0.72f, Size, Ink);
                set.Y += Leading;
            }
            foreach (var line in detail)
            {
                set.SetLine(line, Left, set.Y + 8, 9, Quiet);
                set.Y += 12;
            }
            set.Y += 3;
            set.Rule(
                Left,
                Right,
                set.Y,
                row.Kind == RowKind.Total ? 0.9f : 0.5f,
                row.Kind == RowKind.Total ? Ink : Hair
            );
        }
    }

    private static void SetSignature(Typesetter set, Signature signature)
    {
        set.Need(110);
        set.Y += 64;
        var half = (Width - 28) / 2;
        foreach (
            var (left, words) in new[]
            {
                (Left, signature.For.Length == 0 ? "the customer" : signature.For),
                (Left + half + 28, signature.By),
            }
        )
        {
            set.Rule(left, left + half, set.Y, 0.7f, Ink);
            set.Text("For " + words, left, set.Y + 14, Face.Serif, 9.5f, Ink);
            set.Text("Date", left, set.Y + 28, Face.Serif, 9.5f, Quiet);
        }
        set.Y += 40;
    }

    private static void Furniture(SKCanvas canvas, JobInfo info, int page, int of)
    {
        using var tape = new SKPaint { Color = Tape };
        using var tick = new SKPaint { Color = Ink, StrokeWidth = 0.6f };
        using var quiet = new SKPaint { Color = Quiet, IsAntialias = true };
        using var font = Font(Face.Sans, 8);
        canvas.DrawRect(0, 18, PageWidth, 9, tape);
        var n = 0;
        for (var x = 4.5f; x < PageWidth; x += 9, n++)
            canvas.DrawLine(
                x,
                18,
                x,
                n % 8 == 0 ? 25
                    : n % 4 == 0 ? 23
                    : 21,
                tick
            );
        canvas.DrawText($"{info.Firm} · Proposal {info.Number}", Left, PageHeight - 40, SKTextAlign.Left, font, quiet);
        canvas.DrawText($"page {page} of {of}", Right, PageHeight - 40, SKTextAlign.Right, font, quiet);
    }
}
