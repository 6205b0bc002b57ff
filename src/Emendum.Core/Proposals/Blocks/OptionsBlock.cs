using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;

namespace Emendum.Core.Proposals;

/// <summary>What the customer may choose between, and what can be added or left out, each at its price before tax.</summary>
internal static class OptionsBlock
{
    /// <summary>Most options of a choice that stand on paper.</summary>
    public const int MostOptions = 12;

    public static IEnumerable<Element> Of(Writing writing) => [.. Choices(writing), .. Alternates(writing)];

    /// <summary>Choices, each option against what is included; who sells it only where that is to be read.</summary>
    private static IEnumerable<Element> Choices(Writing writing)
    {
        var offered = writing.Job.Choices.Where(c => !c.Hidden).ToArray();
        if (offered.Length == 0)
            yield break;
        // Each option is the whole job once more: its workings are made when they are asked for.
        var choices = Pricing.Choices.Of(writing.Estimate, Trace.Silent);
        var rows = ImmutableArray.CreateBuilder<PriceRow>();
        foreach (var choice in offered)
        {
            var more = choice.Options.Length - MostOptions;
            rows.Add(new(RowKind.Group, choice.Name, more > 0 ? $"and {more} others at their prices" : "", null, null));
            // What is included and what is taken stand in any case.
            foreach (
                var option in choice
                    .Options.OrderByDescending(o => o.Id == choice.Included || o.Id == choice.Taken)
                    .Take(MostOptions)
                    .OrderBy(choice.Options.IndexOf)
            )
                if (choices.Price(choice, option) is { Price: { } price })
                    rows.Add(
                        writing.Row(
                            RowKind.Part,
                            option.Name,
                            string.Join(
                                ", ",
                                new[]
                                {
                                    option.Id == choice.Included ? "included" : "",
                                    option.Id == choice.Taken && choice.Taken != choice.Included
                                        ? "chosen, in the price"
                                        : "",
                                    choice.SupplierShown ? $"{option.Supplier} {option.Code}".Trim() : "",
                                }.Where(w => w.Length > 0)
                            ),
                            price.V,
                            price.Path
                        )
                    );
        }
        yield return Writing.Plain(
            "Each is the difference to what is included, before tax and for itself; several together may come to a little more or less."
        );
        yield return writing.Table(rows);
    }

    private static IEnumerable<Element> Alternates(Writing writing)
    {
        var all = Pricing.Alternates.Priced(writing.Estimate, writing.Trace);
        if (all.IsEmpty)
            yield break;
        yield return new Heading(2, "Alternates, not in the price");
        var (adds, deducts) = (
            all.Any(a => a.Offered.Kind == AlternateKind.Add),
            all.Any(a => a.Offered.Kind == AlternateKind.Deduct)
        );
        yield return Writing.Plain(
            !deducts ? "Each of these can be added at its price before tax."
            : !adds ? "Each of these can be left out for its price before tax."
            : "Each of these can be added, or left out where its price is below zero, at its price before tax."
        );
        yield return writing.Table(
            all.Select(a =>
                writing.Row(RowKind.Part, a.Offered.Name, MadeOf(writing.Job, a.Offered), a.Price.V, a.Path)
            )
        );
    }

    /// <summary>What an alternate is made of: where it is done, and of one with a name also what is done.</summary>
    private static string MadeOf(Job job, Offered offered) =>
        offered.Named is null
            ? string.Join(", ", offered.Places)
            : $"{string.Join(", ", offered.Work.Select(w => job.Titled(w.Item)))}: {string.Join(", ", offered.Places)}";
}
