using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using SkiaSharp;
using static Emendum.Documents.Typesetter;

namespace Emendum.Documents;

/// <summary>Sets a proposal as a PDF, in the look and on the paper of the firm. The same proposal gives the same bytes.</summary>
public sealed class ProposalPdf
{
    private const float Size = 10.5f,
        Leading = 15.5f,
        Small = 9,
        SmallLeading = 12;

    private readonly Document document;
    private readonly JobInfo info;
    private readonly Brand brand;
    private readonly SKImage? mark;
    private readonly Dictionary<string, SKImage> pictures;
    private readonly SKColor colour,
        colourOfWords;
    private readonly float pageWidth,
        pageHeight,
        right;
    private float left;

    /// <summary>Where the last heading in the margin ends, and on which page.</summary>
    private (int Page, float Y) underTitle;
    private readonly Typesetter set;
    private int coverPages;

    private ProposalPdf(
        Document document,
        JobInfo info,
        Brand brand,
        SKImage? mark,
        Dictionary<string, SKImage> pictures
    )
    {
        (this.document, this.info, this.brand, this.mark, this.pictures) = (document, info, brand, mark, pictures);
        (pageWidth, pageHeight) = brand.Paper == Paper.A4 ? (A4Width, A4Height) : (PageWidth, PageHeight);
        (colour, colourOfWords) = (SKColor.Parse(brand.Colour), SKColor.Parse(brand.ColourOfWords));
        (left, right) = brand.Look == Look.Margin ? (184, pageWidth - 56) : (76, pageWidth - 76);
        set = new(brand.Look == Look.Tape ? 78 : 64, pageHeight - 74, pageWidth, pageHeight);
    }

    private float Width => right - left;

    /// <summary>What it is: the proposal of a job; what has no job's number is called by its own name.</summary>
    private string Kind => info.Number.Length > 0 ? $"Proposal {info.Number}" : info.Name;

    /// <summary>The PDF's bytes.</summary>
    /// <param name="document">The proposal.</param>
    /// <param name="info">Its job, for title and foot.</param>
    /// <param name="brand">How it looks.</param>
    /// <param name="mark">The firm's mark, a picture as a file has it; null for none.</param>
    /// <param name="pictures">Pictures of the document by their hashes, as files have them; one that is not among them is left out.</param>
    public static byte[] Write(
        Document document,
        JobInfo info,
        Brand brand,
        byte[]? mark = null,
        IReadOnlyDictionary<string, byte[]>? pictures = null
    )
    {
        using var picture = mark is null ? null : SKImage.FromEncodedData(mark);
        var read = new Dictionary<string, SKImage>();
        try
        {
            foreach (var (hash, content) in pictures ?? new Dictionary<string, byte[]>())
                if (SKImage.FromEncodedData(content) is { } image)
                    read.Add(hash, image);
            return new ProposalPdf(document, info, brand, picture, read).Write();
        }
        finally
        {
            foreach (var image in read.Values)
                image.Dispose();
        }
    }

    private byte[] Write()
    {
        Block[] blocks = [.. document.Blocks.Where(b => b.IsRead)];
        foreach (var cover in blocks.Where(b => b.Kind == BlockKind.Cover))
            SetCover(cover);
        SetLetterhead();
        foreach (var block in blocks.Where(b => b.Kind != BlockKind.Cover))
            SetBlock(block);
        return set.Write(
            info.Number.Length > 0 ? $"{Kind}: {info.Name}" : Kind,
            info.Firm,
            info.Date,
            (canvas, page, of) => Furniture(canvas, page, of)
        );
    }

    private void SetBlock(Block block)
    {
        if (block.NewPage && !set.IsFresh)
            set.NewPage();
        Element[] elements = [.. block.Elements];
        for (var i = 0; i < elements.Length; i++)
            Set(elements[i], Least(elements.AsSpan(i + 1)));
    }

    /// <summary>Sets an element; <paramref name="after"/> is how much must stand below it on the same page, where it does not stand alone.</summary>
    private void Set(Element element, float after)
    {
        switch (element)
        {
            case Heading { Level: 1 } heading:
                SetTitle(heading.Text, after);
                break;
            case Heading heading:
                set.Need(7 + Leading + after);
                set.Y += 7;
                set.Column([new(heading.Text, Face.SerifBold)], left, Width, Size + 0.5f, Leading, Ink);
                break;
            case Paragraph paragraph:
                // A few words over a table stay with it.
                var lines = Wrap(Runs(paragraph.Spans), Width, Size);
                if (after > 3 * Leading && lines.Count < 5)
                    set.Need(lines.Count * Leading + 7 + after);
                set.Lines(lines, left, Size, Leading, Ink);
                set.Y += 7;
                break;
            case Bullets bullets:
                foreach (var item in bullets.Items)
                    SetItem(item);
                set.Y += 4;
                break;
            case PriceTable table:
                SetPrice(table);
                break;
            case PictureRow row:
                SetPictures(row);
                break;
            case Attached attached:
                foreach (var file in attached.Files)
                    SetItem(new([new(file.Name)]));
                set.Y += 4;
                break;
            case Signature signature:
                SetSignature(signature);
                break;
            case SignedBy signed:
                SetSigned(signed);
                break;
        }
    }

    private static IEnumerable<Run> Runs(IEnumerable<Span> spans) =>
        spans.Select(s => new Run(
            s.Text,
            s.Stress switch
            {
                Stress.Strong => Face.SerifBold,
                Stress.Slanted => Face.SerifItalic,
                _ => Face.Serif,
            }
        ));

    /// <summary>A heading, with room for what follows it; in the margin, where the look has one.</summary>
    private void SetTitle(string text, float after)
    {
        if (brand.Look == Look.Margin)
        {
            var lines = Wrap([new(text, Face.SansBold)], left - 62, 10.5f);
            set.Need(26 + Math.Max(lines.Count * 14, after));
            set.Y += set.IsFresh ? 0 : 26;
            var y = set.Y;
            set.Rule(40, right, y, 0.5f, Hair);
            for (var i = 0; i < lines.Count; i++)
                set.SetLine(lines[i], 40, y + 17 + i * 14, 10.5f, colourOfWords);
            set.Y += 6;
            underTitle = (set.PageCount, y + 10 + lines.Count * 14);
            return;
        }
        var rules = brand.Look == Look.Rules;
        var (size, leading, face) = rules ? (12f, 17f, Face.SansBold) : (16f, 21f, Face.SerifBold);
        set.Need(22 + leading + 3 + after);
        set.Y += set.IsFresh ? 0 : 22;
        set.Column([new(text, face)], left, Width, size, leading, rules ? colourOfWords : Ink);
        if (rules)
            set.Rule(left, right, set.Y + 2, 0.8f, colour);
        set.Y += rules ? 7 : 3;
    }

    /// <summary>What elements need at the least to stand under what comes before them.</summary>
    private float Least(ReadOnlySpan<Element> elements) =>
        elements.IsEmpty
            ? 0
            : elements[0] switch
            {
                PriceTable => 14 + 4 * Leading,
                Signature => 120,
                SignedBy => 130,
                PictureRow row => HeightOf(row),
                Heading => 7 + Leading + Least(elements[1..]),
                Paragraph over when elements is [_, PriceTable, ..] => Wrap(Runs(over.Spans), Width, Size).Count
                    * Leading
                    + 7
                    + Least(elements[1..]),
                _ => 2 * Leading,
            };

    private void SetItem(Bullet item)
    {
        var lines = Wrap(Runs(item.Spans), Width - 13, Size);
        set.Need(Math.Min(lines.Count, 2) * Leading);
        set.Text("–", left, set.Y + Leading * 0.72f, Face.Serif, Size, Quiet);
        set.Lines(lines, left + 13, Size, Leading, Ink);
        set.Y += 2;
    }

    /// <summary>Between pictures, beside and below each other.</summary>
    private const float Gap = 12;

    /// <summary>How wide the pictures of a row stand.</summary>
    private float[] WidthsOf(PictureRow row)
    {
        var room = Width - Gap * (row.Pictures.Length - 1);
        return [.. row.Pictures.Select(p => room * (float)p.Share / 100)];
    }

    private static List<List<Run>> CaptionOf(Pictured picture, float width) =>
        picture.Caption.Length == 0 ? [] : Wrap([new(picture.Caption, Face.Serif)], width, Small);

    /// <summary>A row of pictures with the longest of its captions.</summary>
    private float HeightOf(PictureRow row)
    {
        var highest = 0f;
        foreach (var (picture, width) in row.Pictures.Zip(WidthsOf(row)))
            highest = Math.Max(
                highest,
                width * picture.Height / picture.Width + 8 + CaptionOf(picture, width).Count * SmallLeading
            );
        return highest + Gap;
    }

    /// <summary>Pictures side by side with their captions, on one page.</summary>
    private void SetPictures(PictureRow row)
    {
        var height = HeightOf(row);
        set.Need(height);
        var (x, top) = (left, set.Y + 4);
        foreach (var (picture, width) in row.Pictures.Zip(WidthsOf(row)))
        {
            var high = width * picture.Height / picture.Width;
            if (pictures.TryGetValue(picture.File, out var image))
                set.Picture(image, x + width, top, width, high);
            var y = top + high + 4;
            foreach (var line in CaptionOf(picture, width))
            {
                set.SetLine(line, x, y + 8, Small, Quiet);
                y += SmallLeading;
            }
            x += width + Gap;
        }
        set.Y += height;
    }

    private void SetLetterhead()
    {
        var head = document.Head;
        var centred = brand.Look == Look.Rules;
        var margin = brand.Look == Look.Margin ? 40 : left;
        if (centred)
        {
            set.Rule(left, right, set.Y - 12, 0.8f, colour);
            Centre(head.Firm, set.Y + 12, Face.SerifBold, 16, Ink);
            var under = InOneLine([head.Slogan, head.FirmAddress, .. brand.Head.Split('\n')]);
            Centre(under, set.Y + 28, Face.Serif, 9.5f, Quiet);
            set.Rule(left, right, set.Y + 38, 0.8f, colour);
            if (mark is not null)
                set.Picture(mark, right, set.Y - 8, 110, 42);
            set.Y += 62;
        }
        else
        {
            var y = set.Y;
            set.Text(head.Firm, margin, y + 12, Face.SerifBold, 14, Ink);
            var line = y + 28;
            foreach (var text in new[] { head.Slogan, head.FirmAddress }.Concat(brand.Head.Split('\n')))
                if (text.Trim().Length > 0)
                {
                    set.Text(text.Trim(), margin, line, Face.Serif, 9.5f, Quiet);
                    line += 13;
                }
            if (mark is not null)
                set.Picture(mark, right, y - 4, 130, 42);
            set.Y = Math.Max(line + 6, y + (mark is null ? 62 : 66));
        }
        // Under a mark, or in the middle, the reference stands beside the customer.
        var beside = centred || mark is not null ? set.Y : set.Top;
        RightText(head.Reference, beside + 12, 9.5f, Ink);
        RightText(head.Validity, beside + 28, 9.5f, Quiet);
        if (head.Customer.Length > 0)
            set.Column([new(head.Customer, Face.Serif)], left, Width - 190, Size, Leading, Ink);
        if (head.CustomerAddress.Length > 0)
            set.Column([new(head.CustomerAddress, Face.Serif)], left, Width - 190, Size, Leading, Quiet);
        set.Y = Math.Max(set.Y, beside + 34) + 20;
        set.Column([new(head.Title, Face.SerifBold)], left, Width, 21, 26, Ink);
        if (head.Subtitle.Length > 0)
            set.Column([new(head.Subtitle, Face.Serif)], left, Width, 11.5f, 17, Quiet);
        set.Y += 14;
    }

    /// <summary>What is said of the firm in one line; what is empty is left out.</summary>
    private static string InOneLine(IEnumerable<string> parts) =>
        string.Join(" · ", parts.Select(p => p.Trim()).Where(p => p.Length > 0));

    /// <summary>A page by itself: the job in large letters, for whom, from whom.</summary>
    private void SetCover(Block block)
    {
        var head = document.Head;
        if (mark is not null)
            set.Picture(mark, right, set.Y, 180, 80);
        set.Y = pageHeight * 0.34f;
        set.Rule(left, left + 72, set.Y - 10, 3, colour);
        set.Column([new(head.Title, Face.SerifBold)], left, Width, 32, 38, Ink);
        if (head.Subtitle.Length > 0)
            set.Column([new(head.Subtitle, Face.Serif)], left, Width, 14, 21, Quiet);
        set.Y += 26;
        if (head.Customer.Length > 0)
            set.Column([new("For " + head.Customer, Face.Serif)], left, Width, 12, 18, Ink);
        set.Column([new(head.Reference, Face.Serif)], left, Width, Size, Leading, Quiet);
        set.Column([new(head.Validity, Face.Serif)], left, Width, Size, Leading, Quiet);
        set.Y += 24;
        foreach (var element in block.Elements)
            Set(element, 0);
        set.Text(head.Firm, left, pageHeight - 96, Face.SerifBold, 14, Ink);
        set.Text(InOneLine([head.Slogan, head.FirmAddress]), left, pageHeight - 80, Face.Serif, 9.5f, Quiet);
        set.NewPage();
        coverPages = set.PageCount - 1;
    }

    private void Centre(string text, float y, Face face, float size, SKColor of)
    {
        using var font = Font(face, size);
        set.Text(text, (left + right - font.MeasureText(text)) / 2, y, face, size, of);
    }

    private void RightText(string text, float y, float size, SKColor of)
    {
        using var font = Font(Face.Serif, size);
        set.Text(text, right - font.MeasureText(text), y, Face.Serif, size, of);
    }

    /// <summary>A column of figures: its heading, what a row shows in it, and how wide it is.</summary>
    private sealed record Column(string Head, Func<PriceRow, string> Of, float Width);

    private void SetPrice(PriceTable table)
    {
        Column[] columns =
        [
            .. new Column[]
            {
                new("quantity", r => r.Quantity, 76),
                new("unit price", r => r.UnitPrice, 62),
                new("hours", r => r.Hours, 50),
            }.Where(c => table.Rows.Any(r => c.Of(r).Length > 0)),
            new($"amounts in {table.Currency}", r => r.Shown, 84),
        ];
        // Where there are many columns, the margin is taken, too.
        var column = left;
        if (brand.Look == Look.Margin && columns.Length > 2)
        {
            left = 40;
            if (underTitle.Page == set.PageCount)
                set.Y = Math.Max(set.Y, underTitle.Y);
        }
        var numbers = table.Rows.Any(r => r.Number.Length > 0) ? NumberWidth : 0;
        var words = Width - columns.Sum(c => c.Width) - numbers;
        void Heads()
        {
            var x = right;
            foreach (var column in columns.Reverse())
            {
                using var font = Font(Face.Serif, 8.5f);
                set.Text(column.Head, x - font.MeasureText(column.Head), set.Y + 9, Face.Serif, 8.5f, Quiet);
                x -= column.Width;
            }
            set.Y += 14;
        }
        set.Need(Leading * 3);
        Heads();
        // What goes over to the next page has its heads there again.
        set.OnNewPage = Heads;
        for (var i = 0; i < table.Rows.Length; i++)
            SetRow(table.Rows[i], columns, numbers, words, table.Rows[i..].Count(r => r.Kind >= RowKind.Subtotal));
        set.OnNewPage = null;
        left = column;
        set.Y += 6;
    }

    private void SetRow(PriceRow row, Column[] columns, float numbers, float words, int sums)
    {
        var from = left + numbers;
        if (row.Kind == RowKind.Work)
        {
            set.Need(Leading * 3);
            set.Y += 5;
            set.Column([new(row.Label, Face.SerifItalic)], left, Width, Size, Leading, Ink);
            return;
        }
        if (row.Kind == RowKind.Group)
        {
            set.Need(Leading * 4);
            set.Y += 9;
            if (row.Number.Length > 0)
                SetNumber(row.Number, Face.SansBold);
            set.Column([new(row.Label, Face.SerifBold)], from, Width - numbers, Size, Leading, Ink);
            if (row.Detail.Length > 0)
                set.Column([new(row.Detail, Face.Serif)], left, Width, Small, SmallLeading, Quiet);
            set.Rule(left, right, set.Y + 2, 0.5f, Hair);
            return;
        }
        var strong = row.Kind is RowKind.Subtotal or RowKind.Total;
        var label = Wrap([new(row.Label, strong ? Face.SerifBold : Face.Serif)], words, Size);
        var detail = row.Detail.Length == 0 ? [] : Wrap([new(row.Detail, Face.Serif)], words, Small);
        // The price before tax, the taxes and the total stay together.
        set.Need(
            label.Count * Leading
                + detail.Count * SmallLeading
                + 8
                + (row.Kind == RowKind.Subtotal ? Math.Min(sums, 6) * (Leading + SmallLeading) : 0)
        );
        if (row.Kind == RowKind.Subtotal)
            set.Rule(left, right, set.Y + 2, 0.9f, Ink);
        set.Y += 5;
        var x = right;
        foreach (var column in columns.Reverse())
        {
            set.Figures(column.Of(row), x, set.Y + Leading * 0.72f, strong ? Face.SansBold : Face.Sans, Size, Ink);
            x -= column.Width;
        }
        if (row.Number.Length > 0)
            SetNumber(row.Number, Face.Sans);
        foreach (var line in label)
        {
            set.SetLine(line, from, set.Y + Leading * 0.72f, Size, Ink);
            set.Y += Leading;
        }
        foreach (var line in detail)
        {
            set.SetLine(line, from, set.Y + 8, Small, Quiet);
            set.Y += SmallLeading;
        }
        set.Y += 3;
        set.Rule(left, right, set.Y, row.Kind == RowKind.Total ? 0.9f : 0.5f, row.Kind == RowKind.Total ? Ink : Hair);
    }

    // Wide enough for the usual number of a schedule; longer ones stand smaller.
    private const float NumberWidth = 48;

    /// <summary>The customer's number, before a row's words.</summary>
    private void SetNumber(string number, Face face)
    {
        var size = Size;
        using var font = Font(face, Size);
        if (font.MeasureText(number) is var wide && wide > NumberWidth - 6)
            size = Math.Max(Size * (NumberWidth - 6) / wide, 5);
        set.Text(number, left, set.Y + Leading * 0.72f, face, size, Ink);
    }

    private void SetSignature(Signature signature)
    {
        set.Need(110);
        set.Y += 64;
        var half = (Width - 28) / 2;
        foreach (
            var (at, words) in new[]
            {
                (left, signature.For.Length == 0 ? "the customer" : signature.For),
                (left + half + 28, signature.By),
            }
        )
        {
            set.Rule(at, at + half, set.Y, 0.7f, Ink);
            set.Text("For " + words, at, set.Y + 14, Face.Serif, 9.5f, Ink);
            set.Text("Date", at, set.Y + 28, Face.Serif, 9.5f, Quiet);
        }
        set.Y += 40;
    }

    /// <summary>A name as it was drawn, or typed in slanted letters, over its line with who and when.</summary>
    private void SetSigned(SignedBy signed)
    {
        const float wide = 230,
            high = wide * Drawing.High / Drawing.Wide;
        set.Need(high + 56);
        set.Y += 14;
        var (at, top) = (left, set.Y);
        if (signed.Drawn.Length > 0 && Drawing.Read(signed.Drawn) is { } strokes)
            set.Draw(canvas => Stroke(canvas, strokes, at, top, wide / Drawing.Wide));
        else
            set.Text(signed.Name, at + 8, top + high - 10, Face.SerifItalic, 17, Ink);
        set.Y += high;
        set.Rule(at, at + wide, set.Y, 0.7f, Ink);
        var who = signed.For.Length > 0 ? $"{signed.Name}, for {signed.For}" : signed.Name;
        set.Text(who, at, set.Y + 14, Face.Serif, 9.5f, Ink);
        set.Text(signed.At, at, set.Y + 28, Face.Serif, 9.5f, Quiet);
        set.Y += 36;
    }

    private static void Stroke(
        SKCanvas canvas,
        ImmutableArray<ImmutableArray<(int X, int Y)>> strokes,
        float x,
        float y,
        float scale
    )
    {
        using var pen = new SKPaint
        {
            Color = Ink,
            IsAntialias = true,
            Style = SKPaintStyle.Stroke,
            StrokeWidth = 1.3f,
            StrokeCap = SKStrokeCap.Round,
            StrokeJoin = SKStrokeJoin.Round,
        };
        foreach (var stroke in strokes)
        {
            using var path = new SKPath();
            path.MoveTo(x + stroke[0].X * scale, y + stroke[0].Y * scale);
            // A dot is a stroke, too.
            foreach (var (across, down) in stroke)
                path.LineTo(x + across * scale, y + down * scale);
            canvas.DrawPath(path, pen);
        }
    }

    /// <summary>What stands on every page: the look, and the foot. A cover has no number.</summary>
    private void Furniture(SKCanvas canvas, int page, int of)
    {
        using var filled = new SKPaint { Color = colour };
        using var quiet = new SKPaint { Color = Quiet, IsAntialias = true };
        using var font = Font(Face.Sans, 8);
        switch (brand.Look)
        {
            case Look.Tape:
                Ticks(canvas, filled);
                break;
            case Look.Margin:
                canvas.DrawRect(0, 0, 14, pageHeight, filled);
                break;
            case Look.Rules:
                canvas.DrawRect(left, pageHeight - 56, right - left, 0.8f, filled);
                break;
        }
        if (page <= coverPages)
            return;
        var from = brand.Look == Look.Margin ? 40 : left;
        canvas.DrawText($"{info.Firm} · {Kind}", from, pageHeight - 40, SKTextAlign.Left, font, quiet);
        canvas.DrawText($"page {page} of {of}", right, pageHeight - 40, SKTextAlign.Right, font, quiet);
        if (brand.Foot.Length > 0)
            canvas.DrawText(brand.Foot, from, pageHeight - 28, SKTextAlign.Left, font, quiet);
    }

    private void Ticks(SKCanvas canvas, SKPaint tape)
    {
        using var tick = new SKPaint
        {
            Color = Contrast.OnWhite(brand.Colour) > 7 ? SKColors.White : Ink,
            StrokeWidth = 0.6f,
        };
        canvas.DrawRect(0, 18, pageWidth, 9, tape);
        var n = 0;
        for (var x = 4.5f; x < pageWidth; x += 9, n++)
            canvas.DrawLine(
                x,
                18,
                x,
                n % 8 == 0 ? 25
                    : n % 4 == 0 ? 23
                    : 21,
                tick
            );
    }
}
