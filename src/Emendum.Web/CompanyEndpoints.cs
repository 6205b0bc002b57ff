using Emendum.Core;
using Emendum.Core.Book;
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
        app.MapGet(
            "/api/company/crew",
            (SettingStore settings) => settings.Get<CrewTerms>(CrewTerms.Setting) ?? CrewTerms.Starting
        );
        app.MapPut(
            "/api/company/crew",
            (Save<CrewTerms> save, SettingStore settings) =>
            {
                save.Now.Check();
                if (save.Now.SetUp is not null)
                    throw RefusedException.Of("setUp", "Set-up and travel are chosen in each job.");
                return settings.Change<CrewTerms>(CrewTerms.Setting, stands => save.Onto(stands ?? CrewTerms.Starting));
            }
        );
        app.MapGet(
            "/api/company/policies",
            (SettingStore settings) => settings.Get<PricePolicies>(PricePolicies.Setting) ?? PricePolicies.Starting
        );
        app.MapPut(
            "/api/company/policies",
            (Save<PricePolicies> save, SettingStore settings) =>
            {
                save.Now.Check();
                return settings.Change<PricePolicies>(
                    PricePolicies.Setting,
                    stands => save.Onto(stands ?? PricePolicies.Starting)
                );
            }
        );
        app.MapGet("/api/company/brand", (SettingStore settings) => settings.Brand());
        app.MapPut(
            "/api/company/brand",
            (Save<Brand> save, SettingStore settings, FileStore files) =>
            {
                save.Now.Check();
                if (save.Now.Mark.Length > 0)
                    files.NamePicture(save.Now.Mark, "mark");
                return settings.Change<Brand>(Brand.Setting, stands => save.Onto(stands ?? Brand.Starting));
            }
        );
        app.MapGet(
            "/api/company/patterns",
            (SettingStore settings) =>
                settings.Get<ProposalPatterns>(ProposalPatterns.Setting) ?? ProposalPatterns.Starting
        );
        app.MapPut(
            "/api/company/patterns",
            (Save<ProposalPatterns> save, SettingStore settings, Shelf shelf) =>
            {
                save.Now.Check();
                foreach (var block in save.Now.All.SelectMany(p => p.Blocks))
                    if (block.Text is { } text && shelf.Find(text) is not BookText)
                        throw RefusedException.Of("text", "That text is not in the Book any more.");
                return settings.Change<ProposalPatterns>(
                    ProposalPatterns.Setting,
                    stands => save.Onto(stands ?? ProposalPatterns.Starting)
                );
            }
        );
        app.MapGet("/api/company/languages", () => PaperLanguage.All.Select(LanguageView.Of));
        app.MapGet("/api/company/figures", () => FigureNames.All);
        app.MapGet(
            "/api/company/usual-sizes",
            (SettingStore settings) => settings.Get<UsualSizes>(UsualSizes.Setting) ?? StarterPlaces.Sizes
        );
        app.MapPut(
            "/api/company/usual-sizes",
            (Save<UsualSizes> save, SettingStore settings) =>
            {
                save.Now.Check();
                return settings.Change<UsualSizes>(
                    UsualSizes.Setting,
                    stands => save.Onto(stands ?? StarterPlaces.Sizes)
                );
            }
        );
        app.MapGet(
            "/api/company/usual-places",
            (SettingStore settings) => settings.Get<UsualPlaces>(UsualPlaces.Setting) ?? StarterPlaces.Lists
        );
        app.MapPut(
            "/api/company/usual-places",
            (Save<UsualPlaces> save, SettingStore settings, Shelf shelf) =>
            {
                save.Now.Check(entry => shelf.Find(entry) is WorkEntry);
                return settings.Change<UsualPlaces>(
                    UsualPlaces.Setting,
                    stands => save.Onto(stands ?? StarterPlaces.Lists)
                );
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
