using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Books;

/// <summary>A new entry: its id, made by the client, its kind and name.</summary>
public sealed record NewEntry(Guid Id, string Kind, string Name);

/// <summary>An entry to be saved, and the version it was made from.</summary>
public sealed record SaveEntry(int Was, JsonElement Entry);

/// <summary>A copy to be made.</summary>
public sealed record CopyEntry(Guid Id);

/// <summary>A version to go back to.</summary>
public sealed record RestoreEntry(int Version);

/// <summary>A rate as typed; with the unit of what drives it, a percentage may be typed too.</summary>
public sealed record RateText(string Text, Unit? Driver);

/// <summary>An entry tried: quantities as typed, by name of measure or id of question.</summary>
public sealed record TryEntry(
    Dictionary<string, string> Quantities,
    int? Coats,
    string Difficulty,
    IReadOnlyList<Guid> Picks,
    IReadOnlyList<Guid> Conditions
);

/// <summary>What can be done to the Book.</summary>
public static class BookEndpoints
{
    /// <summary>Who asks, until people sign in.</summary>
    internal const string Owner = "the owner";

    /// <summary>Maps them.</summary>
    public static void MapBook(this IEndpointRouteBuilder app)
    {
        var book = app.MapGroup("/api/book");
        book.MapGet(
            "/",
            (string? words, string? kind, string? trade, bool? archived, Shelf shelf) =>
                BookViews.List(shelf, new(Words(words), kind ?? "", trade ?? "", archived ?? false))
        );
        book.MapPost("/", Create);
        book.MapGet("/{id:guid}", View);
        book.MapPut(
            "/{id:guid}",
            (Guid id, SaveEntry save, Shelf shelf, BookStore store, CompanyStore companies, FileStore files) =>
            {
                var entry = Read(save.Entry);
                if (entry.Id != id)
                    throw RefusedException.Of("id", "The id of an entry does not change.");
                if (Picture(entry) != Picture(shelf.Find(id)))
                    files.NamePicture(entry);
                shelf.Save(entry, save.Was, Owner);
                return View(id, shelf, store, companies);
            }
        );
        book.MapDelete("/{id:guid}", (Guid id, Shelf shelf) => shelf.Delete(id, Owner));
        book.MapPost(
            "/{id:guid}/copy",
            (Guid id, CopyEntry copy, Shelf shelf, BookStore store, CompanyStore companies) =>
            {
                shelf.Save(
                    NewIds(shelf.Get(id)) with
                    {
                        Id = copy.Id,
                        Name = Free(shelf, shelf.Get(id).Name + ", copy"),
                        Archived = false,
                    },
                    0,
                    Owner
                );
                return View(copy.Id, shelf, store, companies);
            }
        );
        book.MapGet(
            "/{id:guid}/versions",
            (Guid id, Shelf shelf, BookStore store) => BookViews.Versions(store, shelf, id)
        );
        book.MapPost(
            "/{id:guid}/restore",
            (Guid id, RestoreEntry restore, Shelf shelf, BookStore store, CompanyStore companies) =>
            {
                var old =
                    store.Versions(id).FirstOrDefault(v => v.Entry.Version == restore.Version)
                    ?? throw new NotThereException("That version is not there.");
                shelf.Save(old.Entry, shelf.Find(id)?.Version ?? 0, Owner);
                return View(id, shelf, store, companies);
            }
        );
        book.MapPost("/read-rate", (RateText rate) => RateReading.Of(rate.Text, rate.Driver));
        book.MapPost(
            "/{id:guid}/try",
            (Guid id, TryEntry tried, Shelf shelf, CompanyStore companies) =>
            {
                var trace = Trace.Recording();
                return BookViews.Tried(Try(id, tried, shelf, companies, trace), trace);
            }
        );
        book.MapPost(
                "/{id:guid}/try/workings",
                (Guid id, string figure, TryEntry tried, Shelf shelf, CompanyStore companies) =>
                {
                    var trace = Trace.Recording();
                    Try(id, tried, shelf, companies, trace);
                    return Explanation.Of(trace, figure, 0) ?? throw new NotThereException("There is no such figure.");
                }
            )
            .Produces<object>();
        book.MapGet(
            "/choices",
            (Shelf shelf) =>
                shelf
                    .Entries.Values.Where(e => !e.Archived && e is not BookText)
                    .OrderBy(e => e.Name, StringComparer.OrdinalIgnoreCase)
                    .Select(BookViews.Named)
        );
        book.MapBookTables();
        book.MapSupplierFeed();
        book.MapSupplierGoods();
    }

    private static string Words(string? words) => words is { Length: > 200 } ? words[..200] : words ?? "";

    private static EntryView View(Guid id, Shelf shelf, BookStore store, CompanyStore companies) =>
        BookViews.Of(shelf, store, id, companies.Get()!.Units);

    private static EntryView Create(NewEntry made, Shelf shelf, BookStore store, CompanyStore companies)
    {
        shelf.Save(Blank.Of(made.Kind, made.Id, made.Name.Trim()), 0, Owner);
        return View(made.Id, shelf, store, companies);
    }

    /// <summary>An entry as the client sends it; what is wrong is said of its field.</summary>
    internal static BookEntry Read(JsonElement element)
    {
        try
        {
            return element.Deserialize<BookEntry>(CoreJson.Options)
                ?? throw RefusedException.Of("", "There is no entry.");
        }
        catch (JsonException wrong)
        {
            throw RefusedException.Of(
                (wrong.Path ?? "").TrimStart('$', '.'),
                wrong is not PlainJsonException ? "That is not a value this field takes."
                    : wrong.Message.StartsWith("A number", StringComparison.Ordinal) ? "Write a number, like 12.5."
                    : wrong.Message
            );
        }
        catch (Exception wrong) when (wrong is NotSupportedException or InvalidOperationException or ArgumentException)
        {
            throw RefusedException.Of("", "That is not an entry.");
        }
    }

    private static Estimate Try(Guid id, TryEntry tried, Shelf shelf, CompanyStore companies, Trace trace)
    {
        if (shelf.Get(id) is not WorkEntry entry)
            throw RefusedException.Of("", "Only work can be tried.");
        var quantities = System.Collections.Immutable.ImmutableDictionary.CreateBuilder<string, decimal>();
        foreach (var (name, text) in tried.Quantities)
            quantities[name] = Rounding.ReadInput(text.Trim()) is { } value and >= 0
                ? value
                : throw RefusedException.Of(name, "Write a number, like 62 or 12.5.");
        return new Trial(
            companies.Get()!.Units,
            quantities.ToImmutable(),
            tried.Coats,
            tried.Difficulty,
            [.. tried.Picks],
            [.. tried.Conditions]
        ).Of(entry, shelf.Find, trace);
    }

    private static string Free(Shelf shelf, string name)
    {
        var names = shelf.Entries.Values.Select(e => e.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        for (var n = 1; ; n++)
            if ((n == 1 ? name : $"{name} {n}") is var free && !names.Contains(free))
                return free;
    }

    /// <summary>The parts and questions of a copy are its own.</summary>
    private static BookEntry NewIds(BookEntry entry)
    {
        if (entry is not Assembly assembly)
            return entry;
        var ids = assembly
            .Components.Select(c => c.Id)
            .Concat(assembly.Questions.Select(q => q.Id))
            .ToDictionary(id => id, _ => Guid.CreateVersion7());
        Guid? New(Guid? id) => id is { } old ? ids.GetValueOrDefault(old, old) : null;
        return assembly with
        {
            Questions = [.. assembly.Questions.Select(q => q with { Id = ids[q.Id] })],
            Components =
            [
                .. assembly.Components.Select(c =>
                    c with
                    {
                        Id = ids[c.Id],
                        Of = New(c.Of),
                        Question = New(c.Question),
                        DepthAsked = New(c.DepthAsked),
                        Drops = c.Drops is { } drops ? drops with { Height = New(drops.Height)!.Value } : null,
                    }
                ),
            ],
        };
    }

    internal static string Picture(BookEntry? entry) => entry is Material material ? material.Picture : "";
}
