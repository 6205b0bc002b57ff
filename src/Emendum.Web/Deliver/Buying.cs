using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Delivery;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Documents.Tables;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Cell = Emendum.Core.Places.PlaceTable.Cell;

namespace Emendum.Web.Deliver;

/// <summary>What was typed, read.</summary>
internal static class Typed
{
    /// <summary>A number; null where nothing was typed.</summary>
    public static decimal? Number(string text, string field) =>
        text.Trim().Length == 0
            ? null
            : Rounding.ReadInput(text.Replace(",", "", StringComparison.Ordinal).Trim())
                ?? throw RefusedException.Of(field, "Write it as a number, like 12.5.");

    /// <summary>Hours, with or without their unit.</summary>
    public static decimal Hours(string text) =>
        Rounding.ReadInput(text.Trim().TrimEnd('h').TrimEnd())
        ?? throw RefusedException.Of("hours", "Write hours as a number, like 7.5.");

    /// <summary>A day.</summary>
    public static DateOnly Day(string text, string field) =>
        Core.Quantities.Day.Read(text.Trim(), out var day)
            ? day
            : throw RefusedException.Of(field, "Write the day like 2027-01-31.");
}

/// <summary>Buys what was accepted: need against stock and orders, orders placed, goods received and used (delivery.md, S).</summary>
public sealed class Buying(
    WorkOrders works,
    OrderStore orders,
    StockStore stock,
    SiteStore sites,
    SettingStore settings,
    JobStore jobs,
    IssuedPdfs pdfs,
    Shelf shelf,
    FirmDay day,
    Live live,
    TimeProvider time
)
{
    private DateTime Now => time.GetUtcNow().UtcDateTime;

    private OrderTerms Terms => settings.Get(OrderTerms.Setting, OrderTerms.Starting);

    private AcceptedWork Accepted(Guid job) =>
        works.Of(job) ?? throw RefusedException.Of("job", "Nothing was accepted yet: there is nothing to buy.");

    /// <summary>The view of a job; null while nothing is accepted.</summary>
    internal BuyingView? View(Guid job)
    {
        if (!jobs.Has(job))
            throw new NotThereException("That job is not here.");
        return works.Of(job) is { } work ? Of(job, work) : null;
    }

    private BuyingView Of(Guid job, AcceptedWork work) =>
        BuyingView.Of(work, Goods(job, work), stock.Facts(job), sites.Log(job, work.Order), Terms, day, jobs.NameOf);

    private BuyingView Told(Guid job, AcceptedWork work)
    {
        live.Happened(job);
        return Of(job, work);
    }

    /// <summary>What a job needs against stock and orders.</summary>
    internal JobGoods Goods(Guid job, AcceptedWork work)
    {
        var placed = orders.Of(job, work.Yes.Id);
        var asked = work
            .Money.Goods.Select(g => g.Key)
            .Concat(placed.SelectMany(o => o.Order.Lines.Select(l => l.Goods)));
        return JobGoods.Of(job, work.Money.Goods, placed, stock.Of(job, asked.Distinct()));
    }

    /// <summary>How orders stand, in a few words; empty where none was placed.</summary>
    internal string Stands(Guid job, AcceptedWork work)
    {
        var goods = Goods(job, work);
        var all = goods.Orders.Length + goods.ToPlace;
        return goods.Orders.IsEmpty ? "" : $"{goods.Orders.Length} of {Counted.Of(all, "order")} placed";
    }

    /// <summary>What an order would come to.</summary>
    internal PurchaseDraft Draft(Guid job, OrderWanted wanted)
    {
        var work = Accepted(job);
        var order = Made(Guid.Empty, "", day.Today, work, new(Guid.Empty, wanted, "", "", "", ""));
        order.CheckDraft();
        return PurchaseDraft.Of(order, Goods(job, work));
    }

    /// <summary>Places an order: number and document in one transaction.</summary>
    internal BuyingView Place(Guid job, PlaceOrder place)
    {
        var (work, terms) = (Accepted(job), Terms);
        orders.Place(
            job,
            work.Yes.Id,
            terms,
            place.Id,
            day.Today,
            (number, placed) =>
            {
                var order = Made(place.Id, number, placed, work, place);
                order.Check();
                var total = Shown.Money(order.Total, order.Places);
                return total == place.Total
                    ? order
                    : throw RefusedException.Of(
                        "total",
                        $"You saw {place.Total}; it comes to {total}. Look at it, and place it again."
                    );
            },
            order =>
                new(OrderPaper.Of(order, work.Head, $"job {work.Order.Number}", work.Brand, terms.Words), work.Brand),
            Now,
            JobEndpoints.Owner
        );
        return Told(job, work);
    }

    private PurchaseOrder Made(Guid id, string number, DateOnly placed, AcceptedWork work, PlaceOrder place)
    {
        var (wanted, contract) = (place.Wanted, work.Money.Contract);
        if (wanted.Lines.IsDefault || wanted.Lines.Length > PurchaseOrder.MostLines)
            throw RefusedException.Of("lines", $"An order has at most {PurchaseOrder.MostLines} lines.");
        if (id != Guid.Empty && wanted.Supplier.Trim().Length == 0)
            throw RefusedException.Of("supplier", "Say from whom.");
        return new(
            id,
            number,
            placed,
            Terms.Of(wanted.Supplier.Trim()),
            place.DeliverTo.Trim(),
            place.By.Trim().Length == 0 ? null : Typed.Day(place.By, "by"),
            place.Words.Trim(),
            [
                .. wanted
                    .Lines.Select(l => (Line: l, Count: Typed.Number(l.Count, "count") ?? 0))
                    .Where(l => l.Count != 0)
                    .Select(l => Line(l.Line, l.Count, work.Money, contract.Places)),
            ],
            Typed.Number(wanted.Delivery, "delivery") ?? 0,
            contract.Currency,
            contract.Places
        );
    }

    private OrderLine Line(LineWanted wanted, decimal count, AgreedMoney money, int places)
    {
        var goods = Known(wanted.Goods, money);
        if (wanted.Pack < 0 || wanted.Pack >= goods.Packs.Length)
            throw RefusedException.Of("lines", $"{goods.Name} has no such pack.");
        var pack = goods.Packs[wanted.Pack];
        var price = Typed.Number(wanted.Price, "price") ?? pack.Price;
        return new(
            goods.Key,
            goods.Name,
            goods.Code,
            pack.Name,
            pack.Size,
            count,
            price,
            Rounding.Money(count * price, places)
        );
    }

    /// <summary>Goods that were agreed, or those of the Book.</summary>
    private AgreedGoods Known(GoodsKey key, AgreedMoney money) =>
        money.Goods.FirstOrDefault(g => g.Key == key) ?? OfBook(key);

    private AgreedGoods OfBook(GoodsKey key)
    {
        if (key.Colour.Length > 120 || key.Colour.Any(char.IsControl))
            throw RefusedException.Of("colour", "A colour has at most 120 characters.");
        return shelf.Find(key.Material) is Material of && of.Unit.Symbol == key.Unit
            ? AgreedGoods.Of(of, key.Colour.Trim())
            : throw RefusedException.Of(
                "goods",
                "Those goods are not in the Book, or they are counted otherwise there."
            );
    }

    private OrderStands Found(Guid job, AcceptedWork work, Guid order) =>
        orders.Of(job, work.Yes.Id).FirstOrDefault(o => o.Order.Id == order) ?? throw new NotThereException(
            "That order is not of this job."
        );

    /// <summary>Writes what came for an order.</summary>
    internal BuyingView Receive(Guid job, Guid order, ReceiveGoods receive)
    {
        var work = Accepted(job);
        var (stands, on) = (Found(job, work, order), Typed.Day(receive.Day, "day"));
        if (receive.Lines.IsDefault || receive.Lines.Length > PurchaseOrder.MostLines)
            throw RefusedException.Of("lines", "Say what came.");
        if (stands.Closed is not null)
            throw RefusedException.Of("lines", $"{stands.Order.Number} was closed: take that back first.");
        var came = receive
            .Lines.Select(l => (Line: l, Count: Typed.Number(l.Count, "count") ?? 0))
            .Where(l => l.Count != 0)
            .Select(l => Came(l.Line, l.Count, stands.Order, job, on, receive.Id))
            .ToList();
        var delivery = Typed.Number(receive.Delivery, "delivery");
        if (came.Count == 0 && delivery is null)
            throw RefusedException.Of("lines", "Nothing came: say how many of something.");
        if (delivery < 0 || (delivery is { } paid && decimal.Round(paid, 4) != paid))
            throw RefusedException.Of("delivery", "What was paid for the delivery: 0 or more.");
        orders.Receive(
            came,
            delivery is { } amount
                ? new(
                    DerivedId.Of($"{receive.Id}/delivery"),
                    order,
                    OrderEvent.Delivery,
                    amount,
                    "",
                    Now,
                    JobEndpoints.Owner
                )
                : null,
            day.Today
        );
        return Told(job, work);
    }

    private StockFact Came(LineCame came, decimal count, PurchaseOrder order, Guid job, DateOnly on, Guid id)
    {
        if (came.Line < 0 || came.Line >= order.Lines.Length)
            throw RefusedException.Of("lines", "The order has no such line.");
        var line = order.Lines[came.Line];
        return new(
            DerivedId.Of($"{id}/{came.Line}"),
            StockMove.Received,
            line.Goods,
            line.Name,
            Rounding.Kept(count * line.Size),
            job,
            on,
            "",
            Now,
            JobEndpoints.Owner
        )
        {
            Paid = Typed.Number(came.Paid, "paid") ?? Rounding.Money(line.Amount * count / line.Count, order.Places),
            Order = order.Id,
            Line = came.Line,
        };
    }

    /// <summary>Closes an order short: what did not come is to buy again.</summary>
    internal BuyingView Close(Guid job, Guid order, CloseOrder close)
    {
        var work = Accepted(job);
        if (close.Reason.Trim().Length is 0 or > 500)
            throw RefusedException.Of("reason", "Say why no more is waited for, in at most 500 characters.");
        orders.Close(
            job,
            work.Yes.Id,
            new(close.Id, order, OrderEvent.Closed, 0, close.Reason.Trim(), Now, JobEndpoints.Owner)
        );
        return Told(job, work);
    }

    /// <summary>Takes back that an order was closed, or a delivery paid.</summary>
    internal BuyingView TakeOrderFactBack(Guid job, Guid fact, TakeMoveBack take)
    {
        var work = Accepted(job);
        orders.TakeBack(job, work.Yes.Id, take.Id, fact, Now, JobEndpoints.Owner);
        return Told(job, work);
    }

    /// <summary>Writes that goods of a job moved.</summary>
    internal BuyingView Move(Guid job, MoveGoods move)
    {
        var work = Accepted(job);
        if (move.Move == StockMove.Counted)
            throw RefusedException.Of("move", "What is there is counted in the stock list.");
        if (move.Work is { } of && !work.Order.Has(of))
            throw RefusedException.Of("work", "That work is not in this work order.");
        if (move is { Work: { } on, Place: { } at } && work.Order.Line(on, at) is null)
            throw RefusedException.Of("place", "That work is not done there.");
        var name = NameOf(move.Goods, work.Money);
        TellThoseCut(stock.Record(move.Fact(name, job, Now, JobEndpoints.Owner), day.Today), move.Id);
        return Told(job, work);
    }

    private string NameOf(GoodsKey goods, AgreedMoney? money) =>
        money?.Goods.FirstOrDefault(g => g.Key == goods)?.Name
        ?? stock.Facts(goods).LastOrDefault()?.Name ?? OfBook(goods).Name;

    /// <summary>Jobs whose reservations a fact has cut are told (rules S5 and S6).</summary>
    private void TellThoseCut(StockItem item, Guid fact)
    {
        foreach (var job in item.Cuts.Where(c => c.By.Id == fact).Select(c => c.Job).Distinct())
            live.Happened(job);
    }

    /// <summary>Takes back that goods moved.</summary>
    internal BuyingView TakeBack(Guid job, Guid fact, TakeMoveBack take)
    {
        var work = Accepted(job);
        stock.TakeBack(take.Id, fact, job, Now, JobEndpoints.Owner);
        return Told(job, work);
    }

    /// <summary>The PDF of an order.</summary>
    internal async Task<IResult> Pdf(Guid job, Guid order, bool inline)
    {
        var document = orders.Document(job, order) ?? throw new NotThereException("That order is not of this job.");
        return pdfs.Sent(await File(job, order, document), document.Document.Head.Title, inline);
    }

    private Task<StoredFile> File(Guid job, Guid order, SentDocument document) =>
        pdfs.Of(
            document,
            Found(job, Accepted(job), order).Order.Placed,
            orders.Pdf(order),
            hash => orders.KeepPdf(order, hash)
        );

    /// <summary>The lines of an order as a table.</summary>
    internal IResult Csv(Guid job, Guid order)
    {
        var of = Found(job, Accepted(job), order).Order;
        return Results.File(
            CsvText.Write(
                [
                    "Order",
                    "Placed",
                    "Supplier",
                    "Code",
                    "Goods",
                    "Colour",
                    "Pack",
                    "Count",
                    "Price",
                    "Amount",
                    "Currency",
                ],
                [
                    .. of.Lines.Select(l =>
                        (IReadOnlyList<Cell>)
                            [
                                Cell.Of(of.Number),
                                Cell.Of(Day.Written(of.Placed)),
                                Cell.Of(of.Supplier.Name),
                                Cell.Of(l.Code),
                                Cell.Of(l.Name),
                                Cell.Of(l.Goods.Colour),
                                Cell.Of(l.Pack),
                                Cell.Of(l.Count),
                                Cell.Of(l.Price),
                                Cell.Of(l.Amount),
                                Cell.Of(of.Currency),
                            ]
                    ),
                ]
            ),
            "text/csv; charset=utf-8",
            $"Purchase order {of.Number}.csv"
        );
    }

    /// <summary>The mail that would bring an order to its supplier.</summary>
    internal PaperMessage Message(Guid job, Guid order)
    {
        var work = Accepted(job);
        var of = Found(job, work, order).Order;
        var wanted = of.Wanted is { } by ? $" We need it by {work.Brand.Writes.Day(by)}." : "";
        return new(
            settings.Get(MessageTexts.Setting, MessageTexts.Starting).From,
            of.Supplier.Mail.Length > 0 ? of.Supplier.Mail : Terms.Of(of.Supplier.Name).Mail,
            $"Purchase order {of.Number}, {work.Head.Firm}",
            $"Good day,\n\nour purchase order {of.Number} is attached.{wanted} Please confirm prices and the day of delivery.\n\n{work.Head.Firm}",
            settings.Get(MailServer.Setting, MailServer.Starting).On
        );
    }

    /// <summary>Sends an order to its supplier: it stands in the outbox.</summary>
    internal async Task<BuyingView> Mail(Guid job, Guid order, MailOrder mail)
    {
        var work = Accepted(job);
        var message = mail.Message;
        message.Check();
        if (message.Way != MessageWay.Mail)
            throw RefusedException.Of("way", "An order goes by mail.");
        var sender = RevisionMails.Sender(message, settings);
        var document = orders.Document(job, order) ?? throw new NotThereException("That order is not of this job.");
        var (file, now) = (await File(job, order, document), Now);
        orders.Goes(
            new(mail.Id, order, OrderEvent.Mailed, 0, message.Went(), now, JobEndpoints.Owner),
            message.To.Select(to => new Mail(
                Guid.CreateVersion7(),
                null,
                job,
                null,
                now,
                work.Head.Firm,
                sender,
                to,
                message.Subject,
                message.Words,
                $"{document.Document.Head.Title}.pdf",
                file.Hash
            )
            {
                Order = order,
            })
        );
        return Told(job, work);
    }

    /// <summary>The stock list.</summary>
    internal StockView Stock() => StockView.Of(stock.All(), day, jobs.NameOf);

    /// <summary>Everything that happened to some goods, the latest first.</summary>
    internal IReadOnlyList<MoveRow> Moves(GoodsKey goods)
    {
        var facts = stock.Facts(goods);
        return MoveRow.Of(facts, day, StockItem.Of(goods, facts), f => f.Job is { } job ? jobs.NameOf(job) : "");
    }

    /// <summary>Writes that goods of no job came, or were counted.</summary>
    internal StockView MoveStock(MoveGoods move)
    {
        if (move.Move is not (StockMove.Received or StockMove.Counted))
            throw RefusedException.Of(
                "move",
                "In the stock list goods come, or are counted; all else is done in a job."
            );
        var fact = move.Fact(NameOf(move.Goods, null), null, Now, JobEndpoints.Owner);
        TellThoseCut(stock.Record(fact, day.Today), move.Id);
        return Stock();
    }

    /// <summary>Takes back that goods came, or were counted.</summary>
    internal StockView TakeStockBack(Guid fact, TakeMoveBack take)
    {
        if (stock.TakeBack(take.Id, fact, null, Now, JobEndpoints.Owner) is { } job)
            live.Happened(job);
        return Stock();
    }

    /// <summary>The stock list as a table.</summary>
    internal IResult StockCsv() =>
        Results.File(
            CsvText.Write(
                ["Goods", "Colour", "Unit", "On hand", "Reserved", "Free", "Worth a unit", "Value"],
                [
                    .. stock
                        .All()
                        .Select(i =>
                            (IReadOnlyList<Cell>)
                                [
                                    Cell.Of(i.Name),
                                    Cell.Of(i.Goods.Colour),
                                    Cell.Of(i.Goods.Unit),
                                    Cell.Of(i.OnHand),
                                    Cell.Of(i.Reserved),
                                    Cell.Of(i.Free),
                                    i.Average is { } average ? Cell.Of(Rounding.Kept(average)) : Cell.Of(""),
                                    Cell.Of(Rounding.Kept(i.Value)),
                                ]
                        ),
                ]
            ),
            "text/csv; charset=utf-8",
            "Stock.csv"
        );

    /// <summary>Goods of the Book that can be bought.</summary>
    internal IReadOnlyList<GoodsChoice> Choices() =>
        [
            .. shelf
                .Entries.Values.OfType<Material>()
                .Where(m => !m.Archived && !m.Packs.IsEmpty)
                .OrderBy(m => m.Name, StringComparer.OrdinalIgnoreCase)
                .Take(GoodsChoice.Most)
                .Select(m => GoodsChoice.Of(AgreedGoods.Of(m, m.Colour))),
        ];
}
