using DocumentFormat.OpenXml.Spreadsheet;

namespace Emendum.Documents.Workbooks;

/// <summary>The formats of a workbook's cells, one for each <see cref="CellLook"/> in its order.</summary>
internal static class Look
{
    private const string Quiet = "FF5C686A",
        InputFill = "FFFFF3C4",
        FoundFill = "FFE9EBE7",
        Ink = "FF1B2426";
    private const uint MoneyFormat = 164,
        QuantityFormat = 165;

    /// <summary>With money of so many places.</summary>
    public static Stylesheet Of(int places)
    {
        var money = places == 0 ? "#,##0" : "#,##0." + new string('0', places);
        return new(
            new NumberingFormats(
                new NumberingFormat { NumberFormatId = MoneyFormat, FormatCode = $"{money};-{money}" },
                new NumberingFormat { NumberFormatId = QuantityFormat, FormatCode = "#,##0.0##" }
            ),
            new Fonts(Letters(), Letters(bold: true, size: 15), Letters(bold: true), Letters(Quiet)),
            new Fills(
                new Fill(new PatternFill { PatternType = PatternValues.None }),
                // The second is kept by the format for itself.
                new Fill(new PatternFill { PatternType = PatternValues.Gray125 }),
                Filled(InputFill),
                Filled(FoundFill)
            ),
            new Borders(
                new Border(),
                new Border(
                    new LeftBorder(),
                    new RightBorder(),
                    new TopBorder(new Color { Rgb = Ink }) { Style = BorderStyleValues.Thin },
                    new BottomBorder(),
                    new DiagonalBorder()
                )
            ),
            new CellStyleFormats(Cell()),
            new CellFormats(
                Cell(),
                Cell(font: 1),
                Cell(font: 2),
                Cell(font: 2, right: true),
                Cell(font: 3),
                Cell(MoneyFormat),
                Cell(MoneyFormat, font: 2, border: 1),
                Cell(QuantityFormat),
                Cell(QuantityFormat, fill: 2),
                Cell(QuantityFormat, fill: 3)
            ),
            new CellStyles(
                new CellStyle
                {
                    Name = "Normal",
                    FormatId = 0,
                    BuiltinId = 0,
                }
            )
        );
    }

    private static CellFormat Cell(
        uint number = 0,
        uint font = 0,
        uint fill = 0,
        uint border = 0,
        bool right = false
    ) =>
        new()
        {
            FormatId = 0,
            NumberFormatId = number,
            FontId = font,
            FillId = fill,
            BorderId = border,
            ApplyNumberFormat = number != 0,
            ApplyFont = true,
            ApplyFill = fill != 0,
            ApplyBorder = border != 0,
            ApplyAlignment = right,
            Alignment = right ? new Alignment { Horizontal = HorizontalAlignmentValues.Right } : null,
        };

    private static Font Letters(string colour = Ink, bool bold = false, double size = 11)
    {
        var font = new Font();
        if (bold)
            font.Append(new Bold());
        font.Append(new FontSize { Val = size }, new Color { Rgb = colour }, new FontName { Val = "Calibri" });
        return font;
    }

    private static Fill Filled(string colour) =>
        new(new PatternFill(new ForegroundColor { Rgb = colour }) { PatternType = PatternValues.Solid });
}
