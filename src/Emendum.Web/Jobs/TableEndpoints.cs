using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Documents.Tables;
using Emendum.Documents.Workbooks;
using Emendum.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Emendum.Web.Jobs;

/// <summary>A field that a column can be, with the heading it has in our own files.</summary>
public sealed record FieldView(string Field, string Heading);

/// <summary>An uploaded table, with a mapping of its columns that was used before or is guessed (−1: not there).</summary>
public sealed record TableView(
    IReadOnlyList<string> Sheets,
    int Sheet,
    IReadOnlyList<string> Columns,
    IReadOnlyList<IReadOnlyList<string>> Rows,
    IReadOnlyList<FieldView> Fields,
    Dictionary<string, int> Mapping,
    bool Remembered
);

/// <summary>A table with its columns mapped, to be read.</summary>
public sealed record MappedTable(
    IReadOnlyList<string> Columns,
    IReadOnlyList<IReadOnlyList<string>> Rows,
    Dictionary<string, int> Mapping
)
{
    /// <summary>Room for the largest table that is read, with the marks that JSON puts round every cell.</summary>
    internal static readonly BodyLimit Limit = new(40_000_000);
}

/// <summary>What a table says, row by row; nothing of it is kept.</summary>
public sealed record PlaceRowsView(IReadOnlyList<PlaceRow> Rows, int Good, int Bad);

/// <summary>What a schedule says, row by row; nothing of it is kept.</summary>
public sealed record ScheduleRowsView(IReadOnlyList<ScheduleTableRow> Rows, int Good, int Bad);

/// <summary>Tables in and out.</summary>
public static class TableEndpoints
{
    private const string Places = "places",
        Schedule = "schedule";

    /// <summary>Media type of workbooks.</summary>
    internal const string Workbooks = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    /// <summary>Maps them.</summary>
    public static void MapTables(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/tables/{purpose}", Upload)
            .WithMetadata(new BodyLimit(TableFile.MostBytes))
            .Accepts<byte[]>("application/octet-stream")
            .Produces<TableView>();
        var jobs = app.MapGroup("/api/jobs/{id:guid}");
        jobs.MapPost("/places/read-table", ReadPlaces).WithMetadata(MappedTable.Limit);
        jobs.MapPost("/schedule/read-table", ReadSchedule).WithMetadata(MappedTable.Limit);
        jobs.MapGet(
                "/places.csv",
                (Guid id, OpenJobs open) =>
                    File(
                        open.Get(id),
                        (columns, rows) => CsvText.Write(columns, rows),
                        "text/csv; charset=utf-8",
                        "csv"
                    )
            )
            .Produces<byte[]>(200, "text/csv");
        jobs.MapGet(
                "/places.xlsx",
                (Guid id, OpenJobs open) =>
                    File(open.Get(id), (columns, rows) => Workbook.Write("Places", columns, rows), Workbooks, "xlsx")
            )
            .Produces<byte[]>(200, Workbooks);
        jobs.MapGet("/schedule", (Guid id, OpenJobs open) => ScheduleView.Of(open.Get(id).Estimate));
        jobs.MapGet("/schedule.xlsx", PricedScheduleFile).Produces<byte[]>(200, Workbooks);
    }

    /// <summary>The schedule as the job would price it now, whatever the proposal shows.</summary>
    private static IResult PricedScheduleFile(Guid id, OpenJobs open, CustomerStore customers, SettingStore settings)
    {
        var estimate = open.Get(id).Estimate;
        if (estimate.Job.Schedule.IsEmpty)
            throw new NotThereException("This job has no schedule of quantities.");
        var document = Proposal.Of(
            estimate,
            customers.Party(estimate.Job.Info.Customer),
            settings.Brand(),
            Core.Figures.Trace.Silent
        );
        return Results.File(
            PricedSchedule.Write(document.Head, ScheduleView.Priced(estimate), estimate.MoneyPlaces),
            Workbooks,
            $"Schedule {estimate.Job.Info.Number}.xlsx"
        );
    }

    private static async Task<TableView> Upload(string purpose, int? sheet, HttpRequest request, SettingStore settings)
    {
        var fields = purpose switch
        {
            Places => PlaceTable.Fields,
            Schedule => ScheduleTable.Fields,
            "choices" => ChoiceTable.Fields,
            "book" => Core.Book.BookTable.Fields,
            _ => throw new NotThereException("There is nothing here."),
        };
        var table = TableFile.Read(await Bodies.Read(request), sheet ?? 0);
        var remembered = settings.Get<Dictionary<string, int>>(Remembered(purpose, table.Columns));
        return new(
            table.Sheets,
            table.Sheet,
            table.Columns,
            table.Rows,
            [.. fields.Select(f => new FieldView(f.Field, f.Heading))],
            remembered ?? TableField.Guess(fields, table.Columns),
            remembered is not null
        );
    }

    private static PlaceRowsView ReadPlaces(Guid id, MappedTable table, OpenJobs open, SettingStore settings)
    {
        Check(table);
        var rows = PlaceTable.Read(table.Rows, table.Mapping, open.Get(id).Estimate.Job.Units);
        settings.Put(Remembered(Places, table.Columns), table.Mapping);
        return new(rows, rows.Count(r => r.Wrong is null), rows.Count(r => r.Wrong is not null));
    }

    private static ScheduleRowsView ReadSchedule(Guid id, MappedTable table, OpenJobs open, SettingStore settings)
    {
        Check(table);
        _ = open.Get(id);
        var rows = ScheduleTable.Read(table.Rows, table.Mapping);
        settings.Put(Remembered(Schedule, table.Columns), table.Mapping);
        return new(rows, rows.Count(r => r.Wrong is null), rows.Count(r => r.Wrong is not null));
    }

    internal static void Check(MappedTable table)
    {
        if (
            table.Columns.Count > Table.MostColumns
            || table.Rows.Count > Table.MostRows
            || table.Rows.Any(r => r.Count > Table.MostColumns || r.Any(c => c.Length > Table.LongestCell))
        )
            throw RefusedException.Of("file", "That table is too large.");
        if (table.Mapping.Count > 60 || table.Mapping.Keys.Any(k => k.Length > 40))
            throw RefusedException.Of("mapping", "That is not a mapping of columns.");
    }

    /// <summary>A mapping is remembered by the headings it was made for.</summary>
    internal static string Remembered(string purpose, IReadOnlyList<string> columns) =>
        $"mapping/{purpose}/{Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(string.Join('\n', columns))))}";

    private static IResult File(
        OpenJob job,
        Func<IReadOnlyList<string>, IReadOnlyList<IReadOnlyList<PlaceTable.Cell>>, byte[]> write,
        string type,
        string ending
    )
    {
        var (columns, rows) = PlaceList.Of(job.Estimate.Reckoned);
        return Results.File(write(columns, rows), type, $"Places {job.Estimate.Job.Info.Number}.{ending}");
    }
}
