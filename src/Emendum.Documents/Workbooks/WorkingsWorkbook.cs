using Emendum.Core.Figures;

namespace Emendum.Documents.Workbooks;

/// <summary>A whole reckoning as an .xlsx workbook with live formulas, figure by figure.</summary>
public static class WorkingsWorkbook
{
    /// <summary>Writes the figures of a recorded reckoning.</summary>
    public static byte[] Write(Trace trace)
    {
        var formulas = new Formulas();
        foreach (var figure in trace.Figures.Values)
            formulas.Cell(figure);
        return Sheet.Write(formulas.Sheets, places: 2);
    }
}
