using Emendum.Core.Delivery;

namespace Emendum.Web.Deliver;

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
