using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Work;
using Emendum.Documents.Tables;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Microsoft.AspNetCore.Mvc;

namespace Emendum.Web.Books;

/// <summary>A row of a table or file of the Book, without the entry itself.</summary>
public sealed record IncomingRow(
    int Row,
    string Name,
    string Kind,
    bool IsNew,
    IReadOnlyList<Difference> Differences,
    string? Wrong
);

/// <summary>What a table or file would do to the Book: counts of all rows, and the first of each that does something.</summary>
public sealed record IncomingView(IReadOnlyList<IncomingRow> Rows, int New, int Changed, int Same, int Wrong);

/// <summary>A table to be taken. Bad rows are left out only when that is said.</summary>
public sealed record TakeTable(MappedTable Table, bool LeaveOut);

/// <summary>What was taken.</summary>
public sealed record BookTaken(int New, int Changed);

/// <summary>The Book in and out: tables and its JSON file.</summary>
public static class BookTables
{
    private const string Workbooks = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    /// <summary>Most bytes of a Book file.</summary>
    private const int MostBytes = 20_000_000;

    /// <summary>Maps them.</summary>
    public static void MapBookTables(this IEndpointRouteBuilder book)
    {
        book.MapGet("/book.csv", (Shelf shelf) => Table(shelf, CsvText.Write, "text/csv; charset=utf-8", "csv"))
            .Produces<byte[]>(200, "text/csv");
        book.MapGet(
                "/book.xlsx",
                (Shelf shelf) =>
                    Table(shelf, (columns, rows) => Workbook.Write("Book", columns, rows), Workbooks, "xlsx")
            )
            .Produces<byte[]>(200, Workbooks);
        book.MapGet(
                "/book.json",
                (Shelf shelf) => Results.File(BookFile.Write(shelf.Entries.Values), "application/json", "Book.json")
            )
            .Produces<byte[]>(200, "application/json");
        book.MapPost(
                "/read-table",
                (MappedTable table, Shelf shelf, SettingStore settings) =>
                {
                    var rows = Read(table, shelf);
                    settings.Put(TableEndpoints.Remembered("book", table.Columns), table.Mapping);
                    return View(rows);
                }
            )
            .WithMetadata(MappedTable.Limit);
        book.MapPost(
                "/take-table",
                (TakeTable take, Shelf shelf) => Take(Read(take.Table, shelf), take.LeaveOut, shelf)
            )
            .WithMetadata(MappedTable.Limit);
        book.MapPost(
                "/read-file",
                async (HttpRequest request, Shelf shelf) =>
                    View(BookFile.Read(await Bodies.Read(request), shelf.Entries))
            )
            .WithMetadata(new BodyLimit(MostBytes))
            .Accepts<byte[]>("application/octet-stream")
            .Produces<IncomingView>();
        book.MapPost(
                "/take-file",
                async (HttpRequest request, bool? leaveOut, Shelf shelf) =>
                    Take(BookFile.Read(await Bodies.Read(request), shelf.Entries), leaveOut ?? false, shelf)
            )
            .WithMetadata(new BodyLimit(MostBytes))
            .Accepts<byte[]>("application/octet-stream")
            .Produces<BookTaken>();
    }

    private static IReadOnlyList<BookRow> Read(MappedTable table, Shelf shelf)
    {
        TableEndpoints.Check(table);
        return BookTable.Read(table.Rows, table.Mapping, shelf.Entries, Guid.CreateVersion7);
    }

    private static IncomingView View(IReadOnlyList<BookRow> rows)
    {
        var telling = rows.Where(r => r.Wrong is not null)
            .Take(100)
            .Concat(rows.Where(r => r.Wrong is null && r.Differences.Count > 0).Take(200))
            .Concat(rows.Where(r => r.IsNew).Take(50));
        return new(
            [.. telling.Select(r => new IncomingRow(r.Row, r.Name, r.Kind, r.IsNew, r.Differences, r.Wrong))],
            rows.Count(r => r.IsNew),
            rows.Count(r => r.Wrong is null && r.Differences.Count > 0),
            rows.Count(r => r.Wrong is null && !r.IsNew && r.Differences.Count == 0),
            rows.Count(r => r.Wrong is not null)
        );
    }

    private static BookTaken Take(IReadOnlyList<BookRow> rows, bool leaveOut, Shelf shelf)
    {
        if (!leaveOut && rows.FirstOrDefault(r => r.Wrong is not null) is { } bad)
            throw RefusedException.Of("file", $"Row {bad.Row}: {bad.Wrong} Nothing was taken.");
        var taken = rows.Where(r => r.Entry is not null && (r.IsNew || r.Differences.Count > 0)).ToList();
        if (taken.Count > 0)
            shelf.SaveAll([.. taken.Select(r => r.Entry!)], BookEndpoints.Owner);
        return new(taken.Count(r => r.IsNew), taken.Count(r => !r.IsNew));
    }

    private static IResult Table(
        Shelf shelf,
        Func<IReadOnlyList<string>, IReadOnlyList<IReadOnlyList<PlaceTable.Cell>>, byte[]> write,
        string type,
        string ending
    )
    {
        var (columns, rows) = BookTable.Write(
            [.. shelf.Index.Find(new("", "", "", false)), .. shelf.Index.Find(new("", "", "", true))]
        );
        return Results.File(
            write(columns, [.. rows.Select(r => r.Select(PlaceTable.Cell.Of).ToList())]),
            type,
            "Book." + ending
        );
    }
}
