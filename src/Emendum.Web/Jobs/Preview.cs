using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;

namespace Emendum.Web.Jobs;

/// <summary>A figure before and after, and by how much it moves; null where it stays.</summary>
public sealed record PreviewRow(string Label, FigureView Was, FigureView Now, FigureView? Moves);

/// <summary>What a command would move, if it were given.</summary>
/// <param name="Totals">Hours, materials, cost, price.</param>
/// <param name="Work">Hours of the work items that move.</param>
/// <param name="Goods">Need of the goods that move.</param>
public sealed record PreviewView(
    IReadOnlyList<PreviewRow> Totals,
    IReadOnlyList<PreviewRow> Work,
    IReadOnlyList<PreviewRow> Goods
)
{
    /// <summary>Start of the paths of figures as they are now; the others are as they would be.</summary>
    public const string Before = "was/";

    /// <summary>Reckons the job as it would be; nothing is kept.</summary>
    /// <exception cref="RefusedException">The command would be refused.</exception>
    public static PreviewView Of(Estimate before, Command command, Func<Guid, BookEntry?> book)
    {
        var (job, changes) = Commands.Apply(before.Job, command, book);
        var after = before.If(job, ChangeSet.OnlyCells(changes));
        PreviewRow Moved(string label, string path, Func<string, Val, FigureView> view, Val was, Val now) =>
            new(label, view(Before + path, was), view(path, now), FigureView.Moved(view(path, now), was));
        PreviewRow Whole(string label, Func<string, Val, FigureView> view, Total was, Total now) =>
            Moved(label, now.Path, view, was, now);
        FigureView Money(string path, Val value) => FigureView.Money(path, value, places: before.MoneyPlaces);
        var (hoursBefore, hoursAfter) = (
            Subtotals.Of(before.Reckoned, Trace.Silent).ItemHours,
            Subtotals.Of(after.Reckoned, Trace.Silent).ItemHours
        );
        var needs = before.Reckoned.Costs.Buying.ToDictionary(b => (b.Material.Id, b.Colour));
        var goods = after
            .Reckoned.Costs.Buying.Select(b =>
                (
                    Buy: b,
                    Was: needs.Remove((b.Material.Id, b.Colour), out var was) ? was.Need.Value : 0m,
                    Now: b.Need.Value
                )
            )
            .ToList();
        goods.AddRange(needs.Values.Select(b => (b, b.Need.Value, (Val)0m)));
        return new(
            [
                Whole("Labour", FigureView.Hours, before.Reckoned.Costs.Hours, after.Reckoned.Costs.Hours),
                Whole(
                    "Materials",
                    Money,
                    before.Price.Classes[CostClass.Material].Cost,
                    after.Price.Classes[CostClass.Material].Cost
                ),
                Whole("Cost", Money, before.Price.Direct, after.Price.Direct),
                Whole("Price before tax", Money, before.Price.BeforeTax, after.Price.BeforeTax),
            ],
            [
                .. after
                    .Reckoned.Items.Select(i =>
                        Moved(
                            job.Titled(i.Item),
                            $"work/{i.Item.Id}/hours",
                            FigureView.Hours,
                            hoursBefore.GetValueOrDefault(i.Item.Id)?.Value ?? 0m,
                            hoursAfter.GetValueOrDefault(i.Item.Id)?.Value ?? 0m
                        )
                    )
                    .Where(m => m.Moves is not null),
            ],
            [
                .. goods
                    .Select(g =>
                        Moved(
                            g.Buy.Material.Name + (g.Buy.Colour.Length > 0 ? ", " + g.Buy.Colour : ""),
                            g.Buy.Need.Path,
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
