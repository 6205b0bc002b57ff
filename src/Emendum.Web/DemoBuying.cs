using System.Collections.Immutable;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Deliver;

namespace Emendum.Web;

/// <summary>What the made-up firm has bought for its reading gallery: paint that came and is used, carpet tile that came in part, and what stood in the store before.</summary>
/// <param name="database">Where it goes.</param>
/// <param name="work">What was accepted of the gallery.</param>
/// <param name="job">The gallery.</param>
/// <param name="ago">A moment: days before today, hour, minute.</param>
/// <param name="dayOf">The firm's day of a moment.</param>
internal sealed class DemoBuying(
    Database database,
    AcceptedWork work,
    Guid job,
    Func<int, int, int, DateTime> ago,
    Func<DateTime, DateOnly> dayOf
)
{
    private const string Nora = "Nora Pell";

    private static readonly OrderTerms Terms = OrderTerms.Starting with
    {
        Suppliers =
        [
            new("Ennis Paint Counter", "orders@paintcounter.example", "4 Slip Street, Port Ennis", "LP-118"),
            new("Ropewalk Trade Supply", "desk@ropewalk.example", "Ropewalk 20, Port Ennis", "2207"),
        ],
    };

    private readonly (OrderStore Orders, StockStore Stock) stores = (new(database), new(database));

    /// <summary>Writes it.</summary>
    public void Write()
    {
        new SettingStore(database).Put(OrderTerms.Setting, Terms);
        var (ceiling, walls) = (Goods("Gull ceiling matt"), Goods("Harbour eggshell"));
        Moves(StockMove.Counted, ceiling, 1, ago(9, 8, 0), "shelf by the door", ofJob: false, paid: 34.5m);
        Moves(StockMove.Counted, walls, 2.5m, ago(9, 8, 5), "shelf by the door", ofJob: false, paid: 120);
        Moves(StockMove.Reserved, ceiling, 1, ago(9, 8, 20), "");
        var paint = Places(
            "Ennis Paint Counter",
            9,
            2,
            15,
            (ceiling, 0, 3),
            (walls, 1, 1),
            (walls, 0, 3),
            (Goods("Skirting board"), 1, 8),
            (Goods("Skirting board"), 0, 3)
        );
        Comes(paint, 8, 15, (0, 3, null), (1, 1, null), (2, 3, 147m), (3, 8, null), (4, 3, null));
        Moves(StockMove.Used, ceiling, 3.25m, ago(6, 16, 20), "", work: WorkIn("Ceilings"));
        Moves(StockMove.Used, walls, 6.5m, ago(4, 16, 20), "", work: WorkIn("Walls"));
        var floor = Places(
            "Ropewalk Trade Supply",
            5,
            3,
            40,
            (Goods("Loop, moss"), 0, 595),
            (Goods("Estuary carpet tile"), 0, 3)
        );
        Comes(floor, 1, null, (0, 300, null), (1, 3, null));
    }

    private AgreedGoods Goods(string name) =>
        work.Money.Goods.First(g => g.Name.Contains(name, StringComparison.Ordinal));

    private Guid WorkIn(string section) => work.Order.Lines.First(l => l.Section == section).Work;

    private PurchaseOrder Places(
        string supplier,
        int days,
        int wantedAfter,
        decimal delivery,
        params (AgreedGoods Goods, int Pack, decimal Count)[] lines
    )
    {
        var (id, at, contract) = (Guid.CreateVersion7(), ago(days, 8, 40), work.Money.Contract);
        stores.Orders.Place(
            job,
            work.Yes.Id,
            Terms,
            id,
            dayOf(at),
            (number, placed) =>
                new(
                    id,
                    number,
                    placed,
                    Terms.Of(supplier),
                    work.Head.CustomerAddress,
                    placed.AddDays(wantedAfter),
                    "",
                    [
                        .. lines.Select(l => new OrderLine(
                            l.Goods.Key,
                            l.Goods.Name,
                            l.Goods.Code,
                            l.Goods.Packs[l.Pack].Name,
                            l.Goods.Packs[l.Pack].Size,
                            l.Count,
                            l.Goods.Packs[l.Pack].Price,
                            Rounding.Money(l.Count * l.Goods.Packs[l.Pack].Price, contract.Places)
                        )),
                    ],
                    delivery,
                    contract.Currency,
                    contract.Places
                ),
            order =>
                new(OrderPaper.Of(order, work.Head, $"job {work.Order.Number}", work.Brand, Terms.Words), work.Brand),
            at,
            Nora
        );
        return stores.Orders.Of(job, work.Yes.Id).First(o => o.Order.Id == id).Order;
    }

    private void Comes(
        PurchaseOrder order,
        int days,
        decimal? delivery,
        params (int Line, decimal Count, decimal? Paid)[] came
    )
    {
        var at = ago(days, 10, 30);
        stores.Orders.Receive(
            [
                .. came.Select(c =>
                    Move(
                        StockMove.Received,
                        order.Lines[c.Line].Goods,
                        order.Lines[c.Line].Name,
                        c.Count * order.Lines[c.Line].Size,
                        at,
                        ""
                    ) with
                    {
                        Paid = c.Paid ?? Rounding.Money(c.Count * order.Lines[c.Line].Price, order.Places),
                        Order = order.Id,
                        Line = c.Line,
                    }
                ),
            ],
            delivery is { } paid ? new(Guid.CreateVersion7(), order.Id, OrderEvent.Delivery, paid, "", at, Nora) : null,
            dayOf(at)
        );
    }

    private StockFact Move(StockMove move, GoodsKey goods, string name, decimal much, DateTime at, string words) =>
        new(Guid.CreateVersion7(), move, goods, name, much, job, dayOf(at), words, at, Nora);

    private void Moves(
        StockMove move,
        AgreedGoods goods,
        decimal much,
        DateTime at,
        string words,
        bool ofJob = true,
        decimal? paid = null,
        Guid? work = null
    ) =>
        stores.Stock.Record(
            Move(move, goods.Key, goods.Name, much, at, words) with
            {
                Job = ofJob ? job : null,
                Paid = paid,
                Work = work,
            },
            dayOf(at)
        );
}
