using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;

namespace Emendum.Web.Jobs;

/// <summary>A figure before and after, and by how much it moves; null where it stays.</summary>
public sealed record MovedView(string Label, FigureView Was, FigureView Now, FigureView? Moves);

/// <summary>What a command would move, if it were given.</summary>
/// <param name="Totals">Hours, materials, cost, price.</param>
/// <param name="Work">Hours of the work items that move.</param>
/// <param name="Goods">Need of the goods that move.</param>
public sealed record PreviewView(
    IReadOnlyList<MovedView> Totals,
    IReadOnlyList<MovedView> Work,
    IReadOnlyList<MovedView> Goods
)
{
    /// <summary>Start of the paths of figures as they are now; the others are as they would be.</summary>
    public const string Before = "was/";

    /// <summary>Reckons the job as it would be; nothing is kept.</summary>
    /// <exception cref="RefusedException">The command would be refused.</exception>
    public static PreviewView Of(Reckoning before, Command command, Func<Guid, BookEntry?> book)
    {
        var (job, changes) = Commands.Apply(before.Job, command, book);
        var after = Reckoner.Reckon(job, Trace.Silent, before, ChangeSet.OnlyCells(changes));
        MovedView Moved(string label, string path, Func<string, Val, FigureView> view, Val was, Val now) =>
            new(label, view(Before + path, was), view(path, now), FigureView.Moved(view(path, now), was));
        FigureView Money(string path, Val value) => FigureView.Money(path, value);
        var (hoursBefore, hoursAfter) = (
            Subtotals.Of(before, Trace.Silent).ItemHours,
            Subtotals.Of(after, Trace.Silent).ItemHours
        );
        var needs = before.Buying.ToDictionary(b => (b.Material.Id, b.Colour));
        var goods = after
            .Buying.Select(b =>
                (Buy: b, Was: needs.Remove((b.Material.Id, b.Colour), out var was) ? was.Need : 0m, Now: b.Need)
            )
            .ToList();
        goods.AddRange(needs.Values.Select(b => (b, b.Need, (Val)0m)));
        return new(
            [
                Moved("Labour", "totals/hours", FigureView.Hours, before.Hours, after.Hours),
                Moved("Materials", "price/material", Money, before.Price.Classes[1].Cost, after.Price.Classes[1].Cost),
                Moved("Cost", "price/direct", Money, before.Price.Direct, after.Price.Direct),
                Moved("Price before tax", "price/beforeTax", Money, before.Price.BeforeTax, after.Price.BeforeTax),
            ],
            [
                .. after
                    .Items.Select(i =>
                        Moved(
                            $"{i.Item.Section}: {i.Item.Name}",
                            $"work/{i.Item.Id}/hours",
                            FigureView.Hours,
                            hoursBefore.GetValueOrDefault(i.Item.Id, 0m),
                            hoursAfter.GetValueOrDefault(i.Item.Id, 0m)
                        )
                    )
                    .Where(m => m.Moves is not null),
            ],
            [
                .. goods
                    .Select(g =>
                        Moved(
                            g.Buy.Material.Name + (g.Buy.Colour.Length > 0 ? ", " + g.Buy.Colour : ""),
                            $"buy{g.Buy.Key}/{g.Buy.Material.Id}/need",
                            (path, value) => FigureView.Amount(path, value, g.Buy.Material.Unit.Symbol),
                            g.Was,
                            g.Now
                        )
                    )
                    .Where(m => m.Moves is not null),
            ]
        );
    }
}
