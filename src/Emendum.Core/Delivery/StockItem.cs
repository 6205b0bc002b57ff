using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>Goods that are kept for a job.</summary>
/// <param name="Job">The job.</param>
/// <param name="Quantity">How much.</param>
public sealed record Reservation(Guid Job, decimal Quantity);

/// <summary>A reservation that was cut, because more was taken than was there, or less was found (rules S5 and S6).</summary>
/// <param name="Job">The job that is told.</param>
/// <param name="Quantity">By how much.</param>
/// <param name="By">What cut it.</param>
public sealed record ReservationCut(Guid Job, decimal Quantity, StockFact By);

/// <summary>
/// Goods in stock, read from the facts alone: what is there, for whom it is kept, what it is worth at the moving average of what was paid (S7), and what each job has used. Facts count in the order in which they were
/// committed. What was taken beyond what was there is owed to the next receipt, and bears its price.
/// </summary>
public sealed class StockItem
{
    /// <summary>Most facts of one item.</summary>
    public const int Most = 20_000;

    private readonly List<Reservation> reservations = [];
    private readonly List<ReservationCut> cuts = [];
    private readonly Dictionary<Guid, decimal> used = [];
    private readonly Dictionary<Guid, decimal> cost = [];
    private readonly List<(Guid Job, decimal Quantity)> owed = [];
    private readonly Dictionary<Guid, decimal> differences = [];

    private StockItem(GoodsKey goods) => Goods = goods;

    /// <summary>Which.</summary>
    public GoodsKey Goods { get; }

    /// <summary>What they are called, by the last fact.</summary>
    public string Name { get; private set; } = "";

    /// <summary>What is there, in the unit of use; below nothing where more was taken than was known.</summary>
    public decimal OnHand { get; private set; }

    /// <summary>What it is worth.</summary>
    public decimal Value { get; private set; }

    /// <summary>What a unit of it is worth: the moving average of what was paid, the last one where nothing is there; null where nothing was ever paid.</summary>
    public decimal? Average { get; private set; }

    /// <summary>For whom something is kept, in the order in which that was said.</summary>
    public IReadOnlyList<Reservation> Reservations => reservations;

    /// <summary>Reservations that were cut, in their order.</summary>
    public IReadOnlyList<ReservationCut> Cuts => cuts;

    /// <summary>All that is kept for jobs.</summary>
    public decimal Reserved => reservations.Sum(r => r.Quantity);

    /// <summary>What is there and kept for nobody (S1); nothing where less is there than was taken.</summary>
    public decimal Free => Math.Max(0, OnHand - Reserved);

    /// <summary>What is kept for a job.</summary>
    public decimal ReservedFor(Guid job) => reservations.Where(r => r.Job == job).Sum(r => r.Quantity);

    /// <summary>What a job has used, less what it gave back.</summary>
    public decimal UsedBy(Guid job) => used.GetValueOrDefault(job);

    /// <summary>What that cost it; what is owed to the next receipt counts at the average until then.</summary>
    public decimal CostOf(Guid job) => cost.GetValueOrDefault(job) + OwedBy(job) * (Average ?? 0);

    /// <summary>What a job took beyond what was there.</summary>
    public decimal OwedBy(Guid job) => owed.Where(o => o.Job == job).Sum(o => o.Quantity);

    /// <summary>By how much a count differed from what was known; null for other facts.</summary>
    public decimal? DifferenceOf(Guid fact) => differences.TryGetValue(fact, out var by) ? by : null;

    /// <summary>What the facts come to.</summary>
    /// <param name="goods">Which goods.</param>
    /// <param name="facts">All facts about them, in the order in which they were committed.</param>
    public static StockItem Of(GoodsKey goods, IReadOnlyList<StockFact> facts) => Of(goods, facts, int.MaxValue);

    /// <summary>What they come to with one more, which may be one that takes another back.</summary>
    /// <param name="goods">Which goods.</param>
    /// <param name="facts">All facts before.</param>
    /// <param name="fact">The new one.</param>
    /// <exception cref="RefusedException">It cannot be; says why.</exception>
    public static StockItem With(GoodsKey goods, IReadOnlyList<StockFact> facts, StockFact fact)
    {
        if (facts.Count >= Most)
            throw RefusedException.Of("quantity", $"The books of one kind of goods hold at most {Most:N0} entries.");
        if (fact.TakesBack is not { } which)
            return Of(goods, [.. facts, fact], facts.Count);
        var at = facts.ToList().FindIndex(f => f.Id == which && f.TakesBack is null);
        if (at < 0 || facts.Any(f => f.TakesBack == which))
            throw RefusedException.Of("fact", "That is not there any more.");
        try
        {
            // Whatever came after it must have been possible without it.
            return Of(goods, [.. facts, fact], at);
        }
        catch (RefusedException)
        {
            throw RefusedException.Of(
                "fact",
                "What came after it rests on it: take that back first, or count what is there."
            );
        }
    }

    private static StockItem Of(GoodsKey goods, IReadOnlyList<StockFact> facts, int checkedFrom)
    {
        var gone = facts.Select(f => f.TakesBack).OfType<Guid>().ToHashSet();
        var item = new StockItem(goods);
        for (var i = 0; i < facts.Count; i++)
            if (facts[i].TakesBack is null && !gone.Contains(facts[i].Id))
                item.Apply(facts[i], i >= checkedFrom);
        return item;
    }

    private string Much(decimal quantity) => $"{Shown.Typed(quantity)} {Goods.Unit}".TrimEnd();

    private void Apply(StockFact fact, bool check)
    {
        Name = fact.Name;
        switch (fact.Move)
        {
            case StockMove.Received:
                var there = Take(fact.Quantity, fact.Paid ?? 0);
                if (fact.Job is { } orderer)
                    Reserve(orderer, there);
                break;
            case StockMove.Reserved:
                if (check && fact.Quantity > Free)
                    throw RefusedException.Of("quantity", $"Only {Much(Free)} is free.");
                Reserve(fact.Job!.Value, fact.Quantity);
                break;
            case StockMove.Released:
                if (check && fact.Quantity > ReservedFor(fact.Job!.Value))
                    throw RefusedException.Of(
                        "quantity",
                        $"Only {Much(ReservedFor(fact.Job.Value))} is reserved for this job."
                    );
                Release(fact.Job!.Value, fact.Quantity);
                break;
            case StockMove.Used:
                Use(fact, check);
                break;
            case StockMove.PutBack:
                PutBack(fact, check);
                break;
            default:
                Count(fact);
                break;
        }
        if (OnHand > 0)
            Average = Rounding.Figure(Value / OnHand);
    }

    /// <summary>Takes something in; what was owed is made good first, at what this cost.</summary>
    /// <returns>How much of it is there now.</returns>
    private decimal Take(decimal quantity, decimal paid)
    {
        var hole = Math.Min(quantity, Math.Max(0, -OnHand));
        var rest = quantity - hole;
        var forHole = rest == 0 ? paid : Rounding.Figure(paid * hole / quantity);
        Settle(hole, forHole);
        OnHand += quantity;
        Value += paid - forHole;
        if (quantity > 0)
            Average = Rounding.Figure(paid / quantity);
        return rest;
    }

    /// <summary>What was owed first is settled first.</summary>
    private void Settle(decimal quantity, decimal paid)
    {
        while (quantity > 0 && owed.Count > 0)
        {
            var (job, most) = owed[0];
            var now = Math.Min(most, quantity);
            var bears = now == quantity ? paid : Rounding.Figure(paid * now / quantity);
            cost[job] = cost.GetValueOrDefault(job) + bears;
            (quantity, paid) = (quantity - now, paid - bears);
            if (now == most)
                owed.RemoveAt(0);
            else
                owed[0] = (job, most - now);
        }
    }

    private void Reserve(Guid job, decimal quantity)
    {
        if (quantity > 0)
            reservations.Add(new(job, quantity));
    }

    /// <summary>Keeps less for a job: what was kept first goes first.</summary>
    private void Release(Guid job, decimal quantity)
    {
        for (var i = 0; i < reservations.Count && quantity > 0; i++)
            if (reservations[i].Job == job)
                quantity -= Shorten(i, quantity);
        reservations.RemoveAll(r => r.Quantity == 0);
    }

    /// <summary>Makes a reservation smaller; by how much.</summary>
    private decimal Shorten(int at, decimal most)
    {
        var (job, quantity) = reservations[at];
        var by = Math.Min(quantity, most);
        reservations[at] = new(job, quantity - by);
        return by;
    }

    /// <summary>Use takes the job's own reservation, then what is free; beyond that only with a reason, and then the latest reservations of others are cut (S5).</summary>
    private void Use(StockFact fact, bool check)
    {
        var job = fact.Job!.Value;
        var there = Math.Min(fact.Quantity, ReservedFor(job)) + Free;
        if (check && fact.Quantity > there && string.IsNullOrWhiteSpace(fact.Words))
            throw RefusedException.Of("words", $"Only {Much(there)} is there for this job: say why more is taken.");
        Release(job, fact.Quantity);
        var (available, quantity) = (Math.Max(0, OnHand), fact.Quantity);
        var priced = quantity >= available ? Value : Rounding.Figure(Value * quantity / OnHand);
        Value -= priced;
        cost[job] = cost.GetValueOrDefault(job) + priced;
        used[job] = UsedBy(job) + quantity;
        if (quantity > available)
            owed.Add((job, quantity - available));
        OnHand -= quantity;
        Cut(fact);
    }

    /// <summary>What a job gives back lowers its cost by what it bore (S7).</summary>
    private void PutBack(StockFact fact, bool check)
    {
        var (job, quantity) = (fact.Job!.Value, fact.Quantity);
        if (check && quantity > UsedBy(job))
            throw RefusedException.Of("quantity", $"This job has used {Much(UsedBy(job))}: more cannot come back.");
        // What it still owed was never paid for: that much is only owed no more.
        var back = quantity;
        for (var i = owed.Count - 1; i >= 0 && back > 0; i--)
            if (owed[i].Job == job)
            {
                var by = Math.Min(owed[i].Quantity, back);
                (back, OnHand, used[job]) = (back - by, OnHand + by, UsedBy(job) - by);
                if (by == owed[i].Quantity)
                    owed.RemoveAt(i);
                else
                    owed[i] = (job, owed[i].Quantity - by);
            }
        if (back == 0)
            return;
        var left = UsedBy(job) - back;
        var bore = left <= 0 ? cost.GetValueOrDefault(job) : Rounding.Figure(cost[job] * back / UsedBy(job));
        (used[job], cost[job]) = (Math.Max(0, left), cost.GetValueOrDefault(job) - bore);
        var average = Average;
        Take(back, bore);
        // What comes back is no price of the day.
        if (OnHand <= 0)
            Average = average;
    }

    /// <summary>A count sets what is there; reservations beyond it are cut (S6). What is found beyond the books is worth what was said of it, else the average; what is missing leaves at the average.</summary>
    private void Count(StockFact fact)
    {
        var by = fact.Quantity - OnHand;
        differences[fact.Id] = by;
        if (by > 0)
        {
            var average = Average;
            Take(by, fact.Paid ?? Rounding.Figure(by * (Average ?? 0)));
            if (fact.Paid is null && OnHand <= 0)
                Average = average;
        }
        else
        {
            Value = fact.Quantity == 0 ? 0 : Rounding.Figure(Value * fact.Quantity / OnHand);
            OnHand = fact.Quantity;
        }
        Cut(fact);
    }

    /// <summary>The latest reservations are cut until no more is kept than is there.</summary>
    private void Cut(StockFact fact)
    {
        var beyond = Reserved - Math.Max(0, OnHand);
        for (var i = reservations.Count - 1; i >= 0 && beyond > 0; i--)
        {
            var job = reservations[i].Job;
            var by = Shorten(i, beyond);
            beyond -= by;
            cuts.Add(new(job, by, fact));
        }
        reservations.RemoveAll(r => r.Quantity == 0);
    }
}
