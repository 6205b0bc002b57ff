using System.Globalization;
using Emendum.Core.Figures;
using SkiaSharp;

namespace Emendum.Documents;

/// <summary>The faces a document is set in; they ship with the program and are embedded in the PDF.</summary>
public enum Face
{
    Serif,
    SerifBold,
    SerifItalic,
    Sans,
    SansBold,
}

/// <summary>
/// A small typesetter: text wrapped into a column, pages broken where the column is full, everything kept until the number of pages is known.
/// Lengths are points (1/72 in). No shaping takes place, so no ligature can swallow letters when text is copied out.
/// </summary>
public sealed class Typesetter
{
    /// <summary>The colours of paper.</summary>
    public static readonly SKColor Ink = new(0x1B, 0x24, 0x26),
        Quiet = new(0x5C, 0x68, 0x6A),
        Hair = new(0xDA, 0xDD, 0xD8),
        Tape = new(0xF5, 0xC5, 0x18);

    private static readonly Dictionary<Face, SKTypeface> Faces = new()
    {
        [Face.Serif] = Load("Literata_400Regular"),
        [Face.SerifBold] = Load("Literata_600SemiBold"),
        [Face.SerifItalic] = Load("Literata_400Regular_Italic"),
        [Face.Sans] = Load("Archivo_400Regular"),
        [Face.SansBold] = Load("Archivo_600SemiBold"),
    };

    private readonly List<List<Action<SKCanvas>>> pages =
    [
        [],
    ];
    private readonly float bottom;

    /// <summary>Starts a document, on US Letter unless said otherwise.</summary>
    public Typesetter(float top, float bottom, float width = PageWidth, float height = PageHeight)
    {
        Top = top;
        this.bottom = bottom;
        (this.width, this.height) = (width, height);
        Y = top;
    }

    private readonly float width,
        height;

    /// <summary>Size of US Letter.</summary>
    public const float PageWidth = 612,
        PageHeight = 792;

    /// <summary>Size of A4, rounded to hundredths.</summary>
    public const float A4Width = 595.28f,
        A4Height = 841.89f;

    /// <summary>Told when a new page has begun, to repeat what has to stand on it: the head of a table.</summary>
    public Action? OnNewPage { get; set; }

    /// <summary>Where a page's column begins.</summary>
    public float Top { get; }

    /// <summary>Where the next thing goes.</summary>
    public float Y { get; set; }

    /// <summary>Pages so far.</summary>
    public int PageCount => pages.Count;

    /// <summary>A font.</summary>
    public static SKFont Font(Face face, float size) =>
        new(Faces[face], size) { Hinting = SKFontHinting.None, Subpixel = true };

    /// <summary>Begins a new page unless <paramref name="height"/> still fits.</summary>
    public bool Need(float height)
    {
        if (Y + height <= bottom)
            return false;
        NewPage();
        return true;
    }

    /// <summary>Begins a new page.</summary>
    public void NewPage()
    {
        pages.Add([]);
        Y = Top;
        OnNewPage?.Invoke();
    }

    /// <summary>Whether nothing stands on the page yet.</summary>
    public bool IsFresh => pages[^1].Count == 0;

    /// <summary>Draws at the current page, in the order given.</summary>
    public void Draw(Action<SKCanvas> draw) => pages[^1].Add(draw);

    /// <summary>Text on one baseline.</summary>
    public void Text(string text, float x, float y, Face face, float size, SKColor colour) =>
        Draw(canvas =>
        {
            using var font = Font(face, size);
            using var paint = new SKPaint { Color = colour, IsAntialias = true };
            canvas.DrawText(text, x, y, SKTextAlign.Left, font, paint);
        });

    /// <summary>Text that ends at <paramref name="right"/>, its figures all of one width so that columns line up.</summary>
    public void Figures(string text, float right, float y, Face face, float size, SKColor colour)
    {
        if (text.Length == 0)
            return;
        using var font = Font(face, size);
        var digit = "0123456789".Max(d => font.MeasureText(d.ToString()));
        var widths = text.Select(c => char.IsAsciiDigit(c) ? digit : font.MeasureText(c.ToString())).ToArray();
        var points = new SKPoint[text.Length];
        var x = right - widths.Sum();
        for (var i = 0; i < text.Length; x += widths[i++])
            points[i] = new(x + (widths[i] - font.MeasureText(text[i].ToString())) / 2, y);
        Draw(canvas =>
        {
            using var own = Font(face, size);
            using var paint = new SKPaint { Color = colour, IsAntialias = true };
            using var blob = SKTextBlob.CreatePositioned(text, own, points);
            canvas.DrawText(blob, 0, 0, paint);
        });
    }

    /// <summary>A picture, as large as fits a box with its right upper corner at a point.</summary>
    public void Picture(SKImage picture, float right, float top, float widest, float highest)
    {
        var scale = Math.Min(widest / picture.Width, highest / picture.Height);
        var (w, h) = (picture.Width * scale, picture.Height * scale);
        Draw(canvas =>
            canvas.DrawImage(
                picture,
                new SKRect(right - w, top, right, top + h),
                new SKSamplingOptions(SKCubicResampler.Mitchell)
            )
        );
    }

    /// <summary>A rule across.</summary>
    public void Rule(float left, float right, float y, float width, SKColor colour) =>
        Draw(canvas =>
        {
            using var paint = new SKPaint { Color = colour, StrokeWidth = width };
            canvas.DrawLine(left, y, right, y, paint);
        });

    /// <summary>Words set in one face.</summary>
    public readonly record struct Run(string Text, Face Face);

    /// <summary>Breaks runs into lines of at most <paramref name="width"/>; a word wider than that is broken.</summary>
    public static List<List<Run>> Wrap(IEnumerable<Run> runs, float width, float size)
    {
        var lines = new List<List<Run>> { new() };
        var x = 0f;
        foreach (var run in runs)
        {
            using var font = Font(run.Face, size);
            foreach (var word in Words(run.Text))
            {
                var rest = word;
                if (x > 0 && x + font.MeasureText(rest.TrimEnd()) > width)
                {
                    lines.Add([]);
                    x = 0;
                }
                while (x == 0 && rest.Length > 1 && font.MeasureText(rest.TrimEnd()) > width)
                {
                    var fits = Math.Max(1, font.BreakText(rest, width));
                    lines[^1].Add(new(rest[..fits], run.Face));
                    lines.Add([]);
                    rest = rest[fits..];
                }
                if (rest.Length == 0 || (x == 0 && rest == " "))
                    continue;
                if (lines[^1].Count > 0 && lines[^1][^1].Face == run.Face)
                    lines[^1][^1] = new(lines[^1][^1].Text + rest, run.Face);
                else
                    lines[^1].Add(new(rest, run.Face));
                x += font.MeasureText(rest);
            }
        }
        return lines;
    }

    /// <summary>Sets runs in a column, breaking pages between lines; no line of several stands alone on a page.</summary>
    public void Column(IEnumerable<Run> runs, float left, float width, float size, float leading, SKColor colour) =>
        Lines(Wrap(runs, width, size), left, size, leading, colour);

    /// <summary>Sets lines that were wrapped already, likewise.</summary>
    public void Lines(List<List<Run>> lines, float left, float size, float leading, SKColor colour)
    {
        for (var i = 0; i < lines.Count; i++)
        {
            // The first two go together, and so do the last two.
            Need(lines.Count > 1 && (i == 0 || i == lines.Count - 2) ? 2 * leading : leading);
            Y += leading;
            SetLine(lines[i], left, Y - leading * 0.28f, size, colour);
        }
    }

    /// <summary>Sets one wrapped line.</summary>
    public void SetLine(List<Run> line, float left, float y, float size, SKColor colour)
    {
        var x = left;
        foreach (var run in line)
        {
            using var font = Font(run.Face, size);
            Text(run.Text, x, y, run.Face, size, colour);
            x += font.MeasureText(run.Text);
        }
    }

    /// <summary>Writes the PDF, dated as the document is (<c>yyyy-MM-dd</c>); <paramref name="furniture"/> draws head and foot of each page, given its number and how many there are. The same document gives the same bytes.</summary>
    public byte[] Write(string title, string author, string date, Action<SKCanvas, int, int> furniture)
    {
        using var stream = new MemoryStream();
        var made = DateTime.SpecifyKind(
            DateTime.ParseExact(date, "yyyy-MM-dd", CultureInfo.InvariantCulture),
            DateTimeKind.Utc
        );
        var metadata = new SKDocumentPdfMetadata
        {
            Title = title,
            Author = author,
            Creator = "Emendum",
            Producer = "Emendum",
            Creation = made,
            Modified = made,
            RasterDpi = 72,
            EncodingQuality = 100,
        };
        using (var document = SKDocument.CreatePdf(stream, metadata))
        {
            for (var i = 0; i < pages.Count; i++)
            {
                var canvas = document.BeginPage(width, height);
                furniture(canvas, i + 1, pages.Count);
                foreach (var draw in pages[i])
                    draw(canvas);
                document.EndPage();
            }
            document.Close();
        }
        return stream.ToArray();
    }

    private static IEnumerable<string> Words(string text)
    {
        var from = 0;
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] != ' ')
                continue;
            yield return text[from..(i + 1)];
            from = i + 1;
        }
        if (from < text.Length)
            yield return text[from..];
    }

    private static SKTypeface Load(string name)
    {
        using var stream = typeof(Typesetter).Assembly.GetManifestResourceStream(
            $"Emendum.Documents.Fonts.{name}.ttf"
        )!;
        using var data = SKData.Create(stream);
        return SKTypeface.FromData(data);
    }
}
