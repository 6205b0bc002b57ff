using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Emendum.Web.Jobs;

namespace Emendum.Web;

/// <summary>An entry that can be put to work.</summary>
public sealed record BookWorkView(
    Guid Id,
    string Name,
    string Section,
    string Kind,
    string Wording,
    string Pace,
    IReadOnlyList<Books.NamedEntry> Accessories,
    IReadOnlyList<Jobs.QuestionView> Questions,
    string Hazard
);

/// <summary>A measure as the firm calls it: base and crown in feet, skirting and cornice in metres.</summary>
public sealed record MeasureName(string Name, string Label, Kind Kind, string Unit);

/// <summary>A text that a block of a proposal can have.</summary>
public sealed record TextView(Guid Id, int Version, string Name, string Trade, TextUse Use, string Body);

/// <summary>A product that can be chosen for work measured in what it covers.</summary>
public sealed record ProductView(Guid Id, string Name, string Category, Kind Covers);

/// <summary>A language of dates and numbers on paper, with a day and an amount as it writes them.</summary>
public sealed record LanguageView(string Name, string Words, string Day, string Number)
{
    /// <summary>It, with samples.</summary>
    public static LanguageView Of(PaperLanguage language) =>
        new(language.Name, language.Words, language.Day(new(2026, 11, 30)), language.Number("12,345.60"));
}

/// <summary>The firm and its Book.</summary>
public static class CompanyEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapCompany(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/company", (CompanyStore companies) => companies.Get());
        app.MapPut(
            "/api/company",
            (Save<Company> save, CompanyStore companies) =>
                companies.Change(current =>
                {
                    FirmDay.Check(save.Now.Zone);
                    return save.Onto(current);
                })
        );
        app.MapGet(
            "/api/company/measures",
            (CompanyStore companies) =>
            {
                var units = companies.Get()!.Units;
                return Measures.All.Select(m => new MeasureName(
                    m.Name(),
                    m.Label(units),
                    m.Kind(),
                    m.UnitIn(units).Symbol
                ));
            }
        );
        app.MapGet("/api/company/zones", () => FirmDay.Zones);
        app.MapSetting(
            "/api/company/crew",
            CrewTerms.Setting,
            CrewTerms.Starting,
            (crew, _) =>
            {
                crew.Check();
                if (crew.SetUp is not null)
                    throw RefusedException.Of("setUp", "Set-up and travel are chosen in each job.");
            }
        );
        app.MapSetting(
            "/api/company/policies",
            PricePolicies.Setting,
            PricePolicies.Starting,
            (policies, _) => policies.Check()
        );
        app.MapSetting(
            "/api/company/brand",
            Brand.Setting,
            Brand.Starting,
            (brand, services) =>
            {
                brand.Check();
                if (brand.Mark.Length > 0)
                    services.GetRequiredService<FileStore>().NamePicture(brand.Mark, "mark");
            }
        );
        app.MapSetting(
            "/api/company/patterns",
            ProposalPatterns.Setting,
            ProposalPatterns.Starting,
            (patterns, services) =>
            {
                patterns.Check();
                var shelf = services.GetRequiredService<Shelf>();
                foreach (var block in patterns.All.SelectMany(p => p.Blocks))
                    if (block.Text is { } text && shelf.Find(text) is not BookText)
                        throw RefusedException.Of("text", "That text is not in the Book any more.");
                foreach (var block in patterns.All.SelectMany(p => p.Blocks))
                    services.GetRequiredService<FileStore>().NameInProposal(block.Files ?? []);
            }
        );
        app.MapSetting(
            "/api/company/messages",
            MessageTexts.Setting,
            MessageTexts.Starting,
            (messages, _) => messages.Check()
        );
        app.MapSetting(
            "/api/company/invoices",
            InvoiceTerms.Setting,
            InvoiceTerms.Starting,
            (terms, services) => terms.Check(Setting(services, OrderTerms.Setting, OrderTerms.Starting).Numbers)
        );
        app.MapSetting(
            "/api/company/e-invoices",
            EInvoiceTerms.Setting,
            EInvoiceTerms.Starting,
            (terms, _) => terms.Check()
        );
        app.MapSetting(
            "/api/company/orders",
            OrderTerms.Setting,
            OrderTerms.Starting,
            (terms, services) => terms.Check(Setting(services, InvoiceTerms.Setting, InvoiceTerms.Starting).Numbers)
        );
        app.MapSetting(
            "/api/company/mail-server",
            MailServer.Setting,
            MailServer.Starting,
            (server, _) => server.Check()
        );
        app.MapGet("/api/company/languages", () => PaperLanguage.All.Select(LanguageView.Of));
        app.MapGet("/api/company/figures", () => FigureNames.All);
        app.MapSetting(
            "/api/company/usual-sizes",
            UsualSizes.Setting,
            StarterPlaces.Sizes,
            (sizes, _) => sizes.Check()
        );
        app.MapSetting(
            "/api/company/usual-places",
            UsualPlaces.Setting,
            StarterPlaces.Lists,
            (places, services) =>
            {
                var shelf = services.GetRequiredService<Shelf>();
                places.Check(entry => shelf.Find(entry) is WorkEntry);
            }
        );
        app.MapGet("/api/company/rules", () => DeductionRule.All.Select(Jobs.ViewOf.Rule));
        app.MapGet(
            "/api/book/products",
            (Shelf shelf) =>
                shelf.Products.Select(m => new ProductView(
                    m.Id,
                    m.Name,
                    m.Category,
                    m.Coverage!.UnitB.Kind == m.Unit.Kind ? m.Coverage.UnitA.Kind : m.Coverage.UnitB.Kind
                ))
        );
        app.MapGet(
            "/api/book/texts",
            (Shelf shelf) =>
                shelf
                    .Entries.Values.OfType<BookText>()
                    .Where(t => !t.Archived && !t.Lacks.Any())
                    .OrderBy(t => t.Trade, StringComparer.Ordinal)
                    .ThenBy(t => t.Name, StringComparer.Ordinal)
                    .Select(t => new TextView(t.Id, t.Version, t.Name, t.Trade, t.Use, t.Body))
        );
        app.MapGet(
            "/api/book/work",
            (Shelf shelf, CompanyStore companies) =>
                shelf.Work.Select(entry => new BookWorkView(
                    entry.Id,
                    entry.Name,
                    entry.Section,
                    entry.KindName(),
                    entry.Wording,
                    entry switch
                    {
                        _ when entry.Lacks.Any() => Books.BookViews.Lacking(entry),
                        ProductionRate rate => string.Join(" · ", rate.Paces.Select(p => p.Pace.ToString())),
                        Assembly assembly => Counted.Of(assembly.Components.Length, "part"),
                        PriceOnlyItem item => $"{Rounding.Text(item.Price)} per {item.Unit}",
                        _ => "",
                    },
                    [
                        .. entry
                            .Accessories.Select(shelf.Find)
                            .OfType<WorkEntry>()
                            .Where(e => !e.Archived)
                            .Select(Books.BookViews.Named),
                    ],
                    [
                        .. ((entry as Assembly)?.Questions ?? []).Select(q =>
                            Jobs.QuestionView.Of(q, [], companies.Get()!.Units)
                        ),
                    ],
                    (entry as Assembly)?.Hazard ?? ""
                ))
        );
    }

    private static T Setting<T>(IServiceProvider services, string name, T starting)
        where T : class => services.GetRequiredService<SettingStore>().Get(name, starting);

    /// <summary>A setting of the firm that is read, and saved as a whole.</summary>
    /// <param name="app">Where it is mapped.</param>
    /// <param name="path">Its path.</param>
    /// <param name="name">Name it is kept under.</param>
    /// <param name="starting">What a firm starts with.</param>
    /// <param name="check">Refuses what it cannot be, and says of files that they are named.</param>
    private static void MapSetting<T>(
        this IEndpointRouteBuilder app,
        string path,
        string name,
        T starting,
        Action<T, IServiceProvider> check
    )
        where T : class
    {
        app.MapGet(path, (SettingStore settings) => settings.Get(name, starting));
        app.MapPut(
            path,
            (Save<T> save, SettingStore settings, IServiceProvider services) =>
            {
                check(save.Now, services);
                return settings.Change<T>(name, stands => save.Onto(stands ?? starting));
            }
        );
    }

    /// <summary>Maps the customers.</summary>
    public static void MapCustomers(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/customers", (CustomerStore customers) => customers.List());
        app.MapPut(
            "/api/customers/{id:guid}",
            (Guid id, Save<Customer> save, CustomerStore customers) => customers.Change(id, save.Onto)
        );
    }
}
