using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reports;

/// <summary>What <c>emendum price</c> prints: the build-up of the price, its parts by tax category, its readouts, what was raised to least charges, what each piece is worth, and how sure it is.</summary>
public static class Priced
{
    /// <summary>The price of a job as JSON; the same job gives the same bytes.</summary>
    public static JsonObject Of(Job job)
    {
        var estimate = Estimate.Of(job, Trace.Silent);
        var price = estimate.Price;
        var start = Worth.Base(estimate);
        return new()
        {
            ["job"] = job.Id.ToString(),
            ["name"] = job.Info.Name,
            ["currency"] = job.Info.Currency,
            ["steps"] = new JsonArray(
                [
                    .. price.Steps.Select(s =>
                        (JsonNode)
                            new JsonObject
                            {
                                ["key"] = s.Key,
                                ["label"] = s.Label,
                                ["note"] = s.Note,
                                ["kind"] = s.Kind.ToString().ToLowerInvariant(),
                                ["amount"] = Rounding.Text(s.Amount.V),
                            }
                    ),
                ]
            ),
            ["raised"] = new JsonArray(
                [
                    .. price.Draft.Shortfalls.Select(s =>
                        (JsonNode)
                            new JsonObject
                            {
                                ["what"] = s.What,
                                ["was"] = Rounding.Text(s.Was.V),
                                ["least"] = Rounding.Text(s.Least.V),
                                ["by"] = Rounding.Text(s.By.V),
                            }
                    ),
                ]
            ),
            ["categories"] = new JsonArray(
                [
                    .. price
                        .Portions.GroupBy(p => p.Tax.Number)
                        .OrderBy(g => g.Key)
                        .Select(g =>
                            (JsonNode)
                                new JsonObject
                                {
                                    ["code"] = g.First().Tax.Code,
                                    ["rate"] = Rounding.Text(g.First().Tax.Rate),
                                    ["reason"] = g.First().Tax.Reason,
                                    ["amount"] = Rounding.Text(g.Sum(p => p.Amount.V)),
                                }
                        ),
                ]
            ),
            ["readouts"] = new JsonObject
            {
                ["cost"] = Rounding.Text(price.Readouts.Cost.V),
                ["grossProfit"] = Rounding.Text(price.Readouts.GrossProfit.V),
                ["margin"] = Text(price.Readouts.Margin),
                ["markup"] = Text(price.Readouts.Markup),
                ["afterOverhead"] = Rounding.Text(price.Readouts.AfterOverhead.V),
                ["perHour"] = Text(price.Readouts.PerHour),
                ["atFloor"] = Rounding.Text(price.Readouts.AtFloor.V),
                ["atGoal"] = Rounding.Text(price.Readouts.AtGoal.V),
            },
            ["sure"] = OfSure(HowSure.Of(estimate, HowSure.MostDraws, Trace.Silent)),
            ["choices"] = OfChoices(estimate),
            ["quotes"] = new JsonArray(
                [
                    .. PricedQuote
                        .Of(estimate)
                        .Select(q =>
                            (JsonNode)
                                new JsonObject
                                {
                                    ["section"] = q.Section.Name,
                                    ["from"] = q.Quote?.From,
                                    ["taken"] = q.Taken,
                                    ["cost"] = Text(q.Cost),
                                    ["beforeTax"] = Text(q.Estimate?.Price.BeforeTax),
                                }
                        ),
                ]
            ),
            ["alternates"] = new JsonArray(
                [
                    .. Alternates
                        .Priced(estimate, Trace.Silent)
                        .Select(a =>
                            (JsonNode)
                                new JsonObject
                                {
                                    ["id"] = a.Offered.Id.ToString(),
                                    ["name"] = a.Offered.Name,
                                    ["kind"] = a.Offered.Kind.ToString().ToLowerInvariant(),
                                    ["price"] = Rounding.Text(a.Price.V),
                                }
                        ),
                ]
            ),
            ["year"] = Year.Of(estimate, Trace.Silent) is { } year ? OfYear(year) : null,
            ["worth"] = new JsonArray(
                [
                    .. Enum.GetValues<PieceKind>()
                        .SelectMany(kind => Piece.Of(job, kind))
                        .Select(piece => (JsonNode)OfPiece(start, piece)),
                ]
            ),
        };
    }

    private static string? Text(Total? figure) => figure is null ? null : Rounding.Text(figure.V);

    /// <summary>Choices with what is taken: of a supplier's whole table only that.</summary>
    private static JsonArray OfChoices(Estimate estimate)
    {
        if (estimate.Job.Choices.IsEmpty)
            return [];
        var choices = Choices.Of(estimate, Trace.Silent);
        return
        [
            .. estimate.Job.Choices.Select(c =>
                (JsonNode)
                    new JsonObject
                    {
                        ["id"] = c.Id.ToString(),
                        ["name"] = c.Name,
                        ["options"] = c.Options.Length,
                        ["included"] = c.Option(c.Included)!.Name,
                        ["taken"] = c.Option(c.Taken)!.Name,
                        ["difference"] = Text(choices.Price(c, c.Option(c.Taken)!).Price),
                    }
            ),
        ];
    }

    private static JsonObject OfYear(Year year) =>
        new()
        {
            ["occurrences"] = new JsonArray(
                [
                    .. year.Occurrences.Select(o =>
                        (JsonNode)
                            new JsonObject
                            {
                                ["id"] = o.Of.Occurrence.Id.ToString(),
                                ["name"] = o.Of.Occurrence.Name,
                                ["times"] = Rounding.Text(o.Of.Occurrence.Times.V),
                                ["hours"] = Rounding.Text(o.Hours.V),
                                ["price"] = Rounding.Text(o.Of.Price.V),
                                ["visits"] = new JsonArray([.. o.Visits.Select(v => (JsonNode)v)]),
                            }
                    ),
                ]
            ),
            ["supplies"] = Text(year.Supplies),
            ["year"] = Rounding.Text(year.OfYear.V),
            ["month"] = Rounding.Text(year.Month.V),
            ["once"] = Text(year.Once?.Price),
            ["months"] = new JsonArray(
                [
                    .. year.Months.Select(m =>
                        (JsonNode)
                            new JsonObject
                            {
                                ["from"] = Day.Written(m.From),
                                ["billed"] = Rounding.Text(m.Billed.V),
                                ["cost"] = Rounding.Text(m.Cost.V),
                                ["profit"] = Rounding.Text(m.Profit.V),
                            }
                    ),
                ]
            ),
            ["years"] = new JsonArray([.. year.Years.Select(y => (JsonNode)Rounding.Text(y.V))]),
        };

    private static JsonObject OfSure(HowSure sure)
    {
        static JsonObject Three(Tenths of) =>
            new()
            {
                ["10"] = Rounding.Text(of.At10.V),
                ["50"] = Rounding.Text(of.At50.V),
                ["90"] = Rounding.Text(of.At90.V),
            };
        return new()
        {
            ["draws"] = sure.Draws,
            ["seed"] = sure.Terms.Seed,
            ["hours"] = Three(sure.Hours),
            ["cost"] = Three(sure.Cost),
            ["profit"] = Three(sure.Profit),
            ["belowFloor"] = Text(sure.BelowFloor),
            ["risks"] = new JsonArray(
                [
                    .. sure
                        .Risks.Take(3)
                        .Select(r =>
                            (JsonNode)
                                new JsonObject
                                {
                                    ["work"] = r.Work.Item.Item.Id.ToString(),
                                    ["name"] = r.Work.Item.Item.Name,
                                    ["percent"] = Rounding.Text(r.Percent.V),
                                }
                        ),
                ]
            ),
        };
    }

    private static JsonObject OfPiece(Estimate start, Piece piece)
    {
        var node = new JsonObject
        {
            ["kind"] = piece.Kind.ToString().ToLowerInvariant(),
            ["id"] = piece.Id.ToString(),
            ["state"] = piece.State.ToString().ToLowerInvariant(),
        };
        try
        {
            var worth = Worth.Of(start, piece);
            node["price"] = Rounding.Text(worth.Price.V);
            node["hours"] = Rounding.Text(worth.Hours.V);
            node["grossProfit"] = Rounding.Text(worth.GrossProfit.V);
        }
        catch (RefusedException refused)
        {
            node["refused"] = refused.Refusal.Message;
        }
        return node;
    }
}
