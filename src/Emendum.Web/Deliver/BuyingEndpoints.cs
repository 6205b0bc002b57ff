using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Proposals;

namespace Emendum.Web.Deliver;

/// <summary>So many packs of some goods, to be ordered.</summary>
/// <param name="Goods">Which goods.</param>
/// <param name="Pack">Which of their packs, from 0.</param>
/// <param name="Count">How many, as typed; empty for none.</param>
/// <param name="Price">Of one, as typed; empty for the price that the job was estimated with, or that of the Book.</param>
public sealed record LineWanted(GoodsKey Goods, int Pack, string Count, string Price);

/// <summary>What an order is to say.</summary>
/// <param name="Supplier">From whom.</param>
/// <param name="Lines">What.</param>
/// <param name="Delivery">Money for the delivery, as typed; empty for nothing.</param>
public sealed record OrderWanted(string Supplier, ImmutableArray<LineWanted> Lines, string Delivery);

/// <summary>Places an order.</summary>
/// <param name="Id">Its id; the same again is done once.</param>
/// <param name="Wanted">What it says.</param>
/// <param name="Total">What it was seen to come to, as it was read.</param>
/// <param name="DeliverTo">Where the goods go.</param>
/// <param name="By">By which day, like 2027-01-31; empty for no day.</param>
/// <param name="Words">A note to the supplier; empty for none.</param>
public sealed record PlaceOrder(Guid Id, OrderWanted Wanted, string Total, string DeliverTo, string By, string Words);

/// <summary>What came of a line of an order.</summary>
/// <param name="Line">Which, from 0.</param>
/// <param name="Count">How many packs, as typed; empty for none.</param>
/// <param name="Paid">What was paid for them, as typed; empty for as much as was ordered.</param>
public sealed record LineCame(int Line, string Count, string Paid);

/// <summary>Writes what came for an order.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Day">On which day, like 2027-01-31.</param>
/// <param name="Lines">What.</param>
/// <param name="Delivery">What was paid for the delivery, as typed; empty for nothing.</param>
public sealed record ReceiveGoods(Guid Id, string Day, ImmutableArray<LineCame> Lines, string Delivery);

/// <summary>Closes an order short.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Reason">Why.</param>
public sealed record CloseOrder(Guid Id, string Reason);

/// <summary>Sends an order to its supplier.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Message">The mail.</param>
public sealed record MailOrder(Guid Id, Message Message);

/// <summary>Takes back what was written wrong.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
public sealed record TakeMoveBack(Guid Id);

/// <summary>Writes that goods moved.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Move">How.</param>
/// <param name="Goods">Which.</param>
/// <param name="Quantity">How much, as typed, in the unit of use.</param>
/// <param name="Day">On which day, like 2027-01-31.</param>
/// <param name="Paid">What was paid for what came, or what is worth what was found; as typed, empty for what nobody knows.</param>
/// <param name="Words">A note, or why more is taken than is there.</param>
/// <param name="Work">The work item that they were used on; null where nobody says.</param>
/// <param name="Place">Where; null for all of it.</param>
public sealed record MoveGoods(
    Guid Id,
    StockMove Move,
    GoodsKey Goods,
    string Quantity,
    string Day,
    string Paid,
    string Words,
    Guid? Work,
    Guid? Place
)
{
    /// <summary>The fact of it.</summary>
    /// <param name="name">What the goods are called.</param>
    /// <param name="job">The job; null for the firm's stock.</param>
    /// <param name="now">UTC.</param>
    /// <param name="by">Who.</param>
    /// <exception cref="RefusedException">Something cannot be read.</exception>
    internal StockFact Fact(string name, Guid? job, DateTime now, string by) =>
        new(
            Id,
            Move,
            Goods with
            {
                Colour = Goods.Colour.Trim(),
            },
            name,
            Typed.Number(Quantity, "quantity") ?? throw RefusedException.Of("quantity", "Say how much."),
            job,
            Typed.Day(Day, "day"),
            Words.Trim(),
            now,
            by
        )
        {
            Paid = Typed.Number(Paid, "paid"),
            Work = Work,
            Place = Place,
        };
}

/// <summary>Buying and stock.</summary>
public static class BuyingEndpoints
{
    /// <summary>Maps buying of a job.</summary>
    public static void MapBuying(this IEndpointRouteBuilder deliver)
    {
        var buying = deliver.MapGroup("/buying");
        buying.MapGet("/", (Guid id, Buying of) => of.View(id));
        buying.MapPost("/moves", (Guid id, MoveGoods move, Buying of) => of.Move(id, move));
        buying.MapPost(
            "/moves/{fact:guid}/take-back",
            (Guid id, Guid fact, TakeMoveBack take, Buying of) => of.TakeBack(id, fact, take)
        );
        buying.MapPost("/orders/draft", (Guid id, OrderWanted wanted, Buying of) => of.Draft(id, wanted));
        buying.MapPost("/orders", (Guid id, PlaceOrder place, Buying of) => of.Place(id, place));
        var order = buying.MapGroup("/orders/{order:guid}");
        order
            .MapGet("/pdf", (Guid id, Guid order, bool? inline, Buying of) => of.Pdf(id, order, inline is true))
            .Produces<byte[]>(200, "application/pdf");
        order.MapGet("/csv", (Guid id, Guid order, Buying of) => of.Csv(id, order)).Produces<byte[]>(200, "text/csv");
        order.MapPost(
            "/receive",
            (Guid id, Guid order, ReceiveGoods receive, Buying of) => of.Receive(id, order, receive)
        );
        order.MapPost("/close", (Guid id, Guid order, CloseOrder close, Buying of) => of.Close(id, order, close));
        order.MapGet("/message", (Guid id, Guid order, Buying of) => of.Message(id, order));
        order.MapPost("/mails", (Guid id, Guid order, MailOrder mail, Buying of) => of.Mail(id, order, mail));
        buying.MapPost(
            "/order-facts/{fact:guid}/take-back",
            (Guid id, Guid fact, TakeMoveBack take, Buying of) => of.TakeOrderFactBack(id, fact, take)
        );
    }

    /// <summary>Maps the firm's stock.</summary>
    public static void MapStock(this IEndpointRouteBuilder app)
    {
        var stock = app.MapGroup("/api/stock");
        stock.MapGet("/", (Buying of) => of.Stock());
        stock.MapGet("/goods", (Buying of) => of.Choices());
        stock.MapGet(
            "/moves",
            (Guid material, string? colour, string? unit, Buying of) =>
                of.Moves(new(material, colour ?? "", unit ?? ""))
        );
        stock.MapPost("/moves", (MoveGoods move, Buying of) => of.MoveStock(move));
        stock.MapPost(
            "/moves/{fact:guid}/take-back",
            (Guid fact, TakeMoveBack take, Buying of) => of.TakeStockBack(fact, take)
        );
        stock.MapGet("/stock.csv", (Buying of) => of.StockCsv()).Produces<byte[]>(200, "text/csv");
    }
}
