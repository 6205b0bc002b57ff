using Emendum.Core.Delivery;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using SkiaSharp;
using static Emendum.Documents.Typesetter;

namespace Emendum.Documents;

/// <summary>What stands at the head of a work order.</summary>
/// <param name="Firm">The firm.</param>
/// <param name="Title">Name of the job.</param>
/// <param name="Reference">Its number, and what was accepted when.</param>
/// <param name="For">For whom.</param>
/// <param name="Where">Where.</param>
/// <param name="Day">When it was accepted, like 2027-01-31.</param>
public sealed record WorkOrderHead(string Firm, string Title, string Reference, string For, string Where, string Day);

/// <summary>Sets a work order as a PDF for the crew: a box to tick beside each line, hours allowed, goods and notes; never a price. The same order gives the same bytes.</summary>
public sealed class WorkOrderPdf
{
    private const float Left = 44,
        Size = 9.5f,
        Leading = 13.5f,
        Small = 8.5f,
        SmallLeading = 11.5f,
        HoursWide = 52,
        AmountWide = 92,
        AtWide = 150,
        Box = 9;

    private readonly WorkOrder order;
    private readonly WorkOrderHead head;
    private readonly float right,
        pageHeight;
    private readonly Typesetter set;
    private readonly SKColor colour;

    private WorkOrderPdf(WorkOrder order, WorkOrderHead head, Brand brand)
    {
        (this.order, this.head) = (order, head);
        var (wide, high) = brand.Paper == Paper.A4 ? (A4Width, A4Height) : (PageWidth, PageHeight);
        (right, pageHeight, colour) = (wide - Left, high, SKColor.Parse(brand.Colour));
        set = new(46, high - 58, wide, high);
    }

    private float Width => right - Left;

    /// <summary>The PDF's bytes.</summary>
    /// <param name="order">The order, or the part of it that some sections are.</param>
    /// <param name="head">What stands at its head.</param>
    /// <param name="brand">Paper and colour.</param>
    /// <param name="bySection">Whether lines stand by section; otherwise by place.</param>
    public static byte[] Write(WorkOrder order, WorkOrderHead head, Brand brand, bool bySection)
    {
        var pdf = new WorkOrderPdf(order, head, brand);
        pdf.All(bySection);
        return pdf.set.Write($"Work order: {head.Title}", head.Firm, head.Day, pdf.Furniture);
    }

    private static string Hours(decimal hours) => hours == 0 ? "" : $"{Shown.Tenths(hours)} h";

    private void All(bool bySection)
    {
        set.Rule(Left, right, set.Y - 12, 3, colour);
        set.Text("Work order", Left, set.Y + 12, Face.Sans, 10, Quiet);
        set.Y += 18;
        set.Column([new(head.Title, Face.SansBold)], Left, Width, 18, 23, Ink);
        foreach (var line in new[] { head.For, head.Where, head.Reference })
            if (line.Length > 0)
                set.Column([new(line, Face.Sans)], Left, Width, Size, Leading, Quiet);
        set.Column(
            [
                new(
                    $"{Shown.Tenths(order.Hours)} h allowed, planned for {(order.Crew == 1 ? "one person" : $"a crew of {order.Crew}")}, {Shown.Typed(order.HoursPerDay)} h a day",
                    Face.Sans
                ),
            ],
            Left,
            Width,
            Size,
            Leading,
            Ink
        );
        set.Y += 4;
        var heading = "";
        foreach (var group in bySection ? order.BySection : order.ByPlace)
        {
            if (group.Heading != heading && group.Heading.Length > 0)
            {
                set.Need(70);
                set.Y += 12;
                set.Column([new(group.Heading, Face.Sans)], Left, Width, 12, 16, Quiet);
            }
            heading = group.Heading;
            Title(group.Name.Length > 0 ? group.Name : "Work without a section", Hours(group.Hours));
            foreach (var line in group.Lines)
                Set(line, bySection);
        }
        Rest();
    }

    private void Rest()
    {
        if (order.Once.Length > 0 || order.SetUp > 0)
        {
            Title("For the job as a whole", "");
            foreach (var once in order.Once)
                Row(once.Item == once.Name ? once.Item : $"{once.Item}: {once.Name}", "", Hours(once.Hours), []);
            if (order.SetUp > 0)
                Row("Set-up and travel", "", Hours(order.SetUp), []);
        }
        if (order.Supplies.Length > 0)
        {
            Title("Goods for the job", "");
            foreach (var goods in order.Supplies)
                Row(InColour(goods.Name, goods.Colour), goods.Need, "", [goods.Packs]);
        }
        if (order.Mixes.Length > 0)
        {
            Title("To be mixed", "");
            foreach (var mix in order.Mixes)
                Row(mix.Name, "", "", [string.Join(" + ", mix.Parts)]);
        }
        Sentences("Not in this work", order.LeftOut);
        Sentences("The customer does", order.Theirs);
    }

    private static string InColour(string name, string colour) => colour.Length > 0 ? $"{name}, {colour}" : name;

    private void Sentences(string title, IReadOnlyCollection<string> sentences)
    {
        if (sentences.Count == 0)
            return;
        Title(title, "");
        foreach (var sentence in sentences)
            Row(sentence, "", "", []);
    }

    private void Title(string title, string hours)
    {
        set.Need(56);
        set.Y += 12;
        set.Figures(hours, right, set.Y + 11, Face.SansBold, 11, Ink);
        set.Column([new(title, Face.SansBold)], Left, Width - HoursWide, 11, 15, Ink);
        set.Rule(Left, right, set.Y + 2, 0.8f, Ink);
        set.Y += 4;
    }

    private void Set(OrderedLine line, bool bySection)
    {
        var name = line.Coats > 0 ? $"{line.Name}, {Counted.Of(line.Coats, "coat")}" : line.Name;
        if (!bySection && line.Section.Length > 0)
            name = $"{line.Section}: {name}";
        var said = new List<string>();
        if (line.Often.Length > 0)
            said.Add(line.Often);
        if (line.By.Length > 0)
            said.Add($"Done by {line.By}");
        if (line.Goods.Length > 0)
            said.Add(
                string.Join("; ", line.Goods.Select(g => $"{InColour(g.Name, g.Colour)} {g.Need}"))
                    + (line.Supply == Supply.CustomerMaterial ? ": the customer supplies it" : "")
            );
        if (line.Facts.Length > 0)
            said.Add(string.Join(", ", line.Facts));
        said.AddRange(line.Notes);
        Row(name, line.Amount, Hours(line.Hours), said, bySection ? line.At : "", line.IsOnce);
    }

    /// <summary>A row, which is not torn apart by the end of a page; what is said of it stands below its name.</summary>
    private void Row(
        string name,
        string amount,
        string hours,
        IEnumerable<string> said,
        string at = "",
        bool box = false
    )
    {
        var left = Left + (box ? Box + 8 : 0);
        var wide = right - left - HoursWide - AmountWide - (at.Length > 0 ? AtWide : 0);
        var names = Wrap([new(name, Face.Sans)], wide - 8, Size);
        var places = at.Length > 0 ? Wrap([new(at, Face.Sans)], AtWide - 8, Size) : [];
        var below = said.SelectMany(s => Wrap([new(s, Face.Sans)], right - left - HoursWide, Small)).ToList();
        var tall = Math.Max(names.Count, places.Count) * Leading + below.Count * SmallLeading + 6;
        set.Need(Math.Min(tall, pageHeight / 2));
        var top = set.Y + 2;
        if (box)
            set.Draw(canvas =>
            {
                using var paint = new SKPaint
                {
                    Color = Ink,
                    Style = SKPaintStyle.Stroke,
                    StrokeWidth = 0.9f,
                    IsAntialias = true,
                };
                canvas.DrawRect(Left, top + 2, Box, Box, paint);
            });
        set.Figures(hours, right, top + Leading * 0.75f, Face.Sans, Size, Ink);
        set.Figures(amount, right - HoursWide, top + Leading * 0.75f, Face.Sans, Size, Ink);
        for (var i = 0; i < places.Count; i++)
            set.SetLine(places[i], left + wide, top + i * Leading + Leading * 0.75f, Size, Ink);
        for (var i = 0; i < names.Count; i++)
            set.SetLine(names[i], left, top + i * Leading + Leading * 0.75f, Size, Ink);
        set.Y = top + Math.Max(names.Count, places.Count) * Leading;
        set.Lines(below, left, Small, SmallLeading, Quiet);
        set.Y += 3;
        set.Rule(Left, right, set.Y, 0.4f, Hair);
    }

    private void Furniture(SKCanvas canvas, int page, int of)
    {
        using var font = Font(Face.Sans, 8);
        using var paint = new SKPaint { Color = Quiet, IsAntialias = true };
        var y = pageHeight - 30;
        canvas.DrawText($"{head.Firm} · work order · {head.Title}", Left, y, SKTextAlign.Left, font, paint);
        canvas.DrawText($"{page} of {of}", right, y, SKTextAlign.Right, font, paint);
    }
}
