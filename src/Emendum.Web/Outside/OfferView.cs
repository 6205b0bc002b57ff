using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;

namespace Emendum.Web.Outside;

/// <summary>An option on the customer's page.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Says">Colour, coats, and who sells it where that is to be read.</param>
/// <param name="Amount">What it adds against what is included, before tax; empty for nothing, or where it cannot be had.</param>
/// <param name="Included">Whether the price is printed with it.</param>
/// <param name="Chosen">Whether it is chosen.</param>
/// <param name="Conflict">Why it is not to be had as things stand; empty where it is.</param>
/// <param name="Together">What it can be had with all the same, chosen together with it, in words; empty for nothing.</param>
/// <param name="HasPicture">Whether there is a picture of it.</param>
public sealed record OptionOnPage(
    Guid Id,
    string Name,
    string Says,
    string Amount,
    bool Included,
    bool Chosen,
    string Conflict,
    string Together,
    bool HasPicture
);

/// <summary>A choice on the customer's page.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Where">At which places, in words; empty for everywhere.</param>
/// <param name="Options">Its options, or the first of them.</param>
/// <param name="All">How many it has.</param>
public sealed record ChoiceOnPage(Guid Id, string Name, string Where, IReadOnlyList<OptionOnPage> Options, int All);

/// <summary>What can be chosen on the customer's page.</summary>
/// <param name="Version">Version of what is chosen.</param>
/// <param name="Stopped">Why nothing can be chosen; empty where something can.</param>
/// <param name="Choices">Choices.</param>
/// <param name="Alternates">Alternates.</param>
public sealed record OfferView(
    int Version,
    string Stopped,
    IReadOnlyList<ChoiceOnPage> Choices,
    IReadOnlyList<OfferedAlternate> Alternates
)
{
    /// <summary>Most options of a choice that are told at a time.</summary>
    private const int Most = 12;

    /// <summary>That of a revision; null where it offers nothing.</summary>
    public static OfferView? Of(Frozen frozen, Selection selection)
    {
        if (!frozen.Offers)
            return null;
        if (frozen.Offer is not { } offer)
            return new(
                selection.Version,
                "Prices of choices cannot be reckoned here any more. It can be accepted as it was sent; for another choice, please ask.",
                [],
                []
            );
        return new(
            selection.Version,
            "",
            [
                .. offer.Choices.Select(choice => new ChoiceOnPage(
                    choice.Id,
                    choice.Name,
                    string.Join(", ", offer.PlacesOf(choice)),
                    Found(offer, choice, selection, ""),
                    choice.Options.Length
                )),
            ],
            offer.Alternates(selection)
        );
    }

    /// <summary>The first options of a choice whose names have some words in them; what is included and what was sent stand in any case where nothing is looked for.</summary>
    public static IReadOnlyList<OptionOnPage> Found(Offer offer, Choice choice, Selection selection, string find)
    {
        var words = find.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var picked = selection.Picks.FirstOrDefault(p => p.Choice == choice.Id)?.Option;
        var found = choice
            .Options.Where(o => words.All(w => o.Name.Contains(w, StringComparison.OrdinalIgnoreCase)))
            .OrderByDescending(o =>
                words.Length == 0 && (o.Id == choice.Included || o.Id == choice.Taken || o.Id == picked)
            )
            .Take(Most)
            .OrderBy(o => choice.Options.IndexOf(o));
        return
        [
            .. offer
                .Options(choice, selection, found)
                .Select(o => new OptionOnPage(
                    o.Option.Id,
                    o.Option.Name,
                    string.Join(
                        " · ",
                        new[]
                        {
                            o.Option.Colour ?? "",
                            o.Option.Coats is { } coats ? Counted.Of(coats, "coat") : "",
                            choice.SupplierShown ? $"{o.Option.Supplier} {o.Option.Code}".Trim() : "",
                        }.Where(w => w.Length > 0)
                    ),
                    o.Amount,
                    o.Included,
                    o.Chosen,
                    o.Conflict,
                    o.Together,
                    offer.PictureOf(choice, o.Option).Length > 0
                )),
        ];
    }
}
