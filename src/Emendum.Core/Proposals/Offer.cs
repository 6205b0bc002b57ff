using System.Collections.Concurrent;
using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>An option as the customer is offered it.</summary>
/// <param name="Option">It.</param>
/// <param name="Amount">What it adds against what is included, as it is read; empty where it cannot be priced.</param>
/// <param name="Included">Whether it is the one that the price is printed with.</param>
/// <param name="Chosen">Whether it is chosen, or was sent and nothing else is chosen.</param>
/// <param name="Conflict">Why it is not to be had as things stand; empty where it is.</param>
/// <param name="Together">What it can be had with all the same, chosen together with it, in words; empty for nothing.</param>
public sealed record OfferedOption(
    ChoiceOption Option,
    string Amount,
    bool Included,
    bool Chosen,
    string Conflict,
    string Together
);

/// <summary>An alternate as the customer is offered it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Where">Where it is done.</param>
/// <param name="Amount">What it adds, or below zero takes off, as it is read.</param>
/// <param name="Taken">Whether it is taken.</param>
public sealed record OfferedAlternate(Guid Id, string Name, string Where, string Amount, bool Taken);

/// <summary>
/// What a revision offers to choose from, priced from its frozen job (architecture decision 19). Where that comes to another total than was sent, live pricing has stopped: nothing can be chosen, and what was sent can
/// still be signed (L10). The same offer is asked by many at once: nothing of it changes but what it remembers.
/// </summary>
public sealed class Offer
{
    private readonly Estimate sent;
    private readonly Pricing.Choices choices;
    private readonly ImmutableArray<PricedAlternate> alternates;
    private readonly Brand brand;
    private readonly Statement asSent;
    private readonly ConcurrentDictionary<(Guid, Guid), PricedOption> printed = [];

    /// <summary>What was asked for last: a choice is priced before it is kept, and everybody who then looks asks for the same.</summary>
    private sealed record Told(string Key, ToSign ToSign);

    private volatile Told? last;

    private Offer(Estimate sent, Brand brand, Statement asSent)
    {
        (this.sent, this.brand, this.asSent) = (sent, brand, asSent);
        choices = Pricing.Choices.Of(sent, Trace.Silent);
        alternates = Pricing.Alternates.Priced(sent, Trace.Silent);
    }

    /// <summary>Whether a document offers anything to choose from.</summary>
    public static bool IsMadeBy(Document document) =>
        document.Blocks.Any(b => b is { IsRead: true, Kind: BlockKind.Options });

    /// <summary>That of a revision; null where live pricing has stopped.</summary>
    /// <param name="frozen">Its job.</param>
    /// <param name="figures">What it came to when it was sent.</param>
    /// <param name="brand">How numbers are written.</param>
    /// <param name="asSent">What would be signed of it as it was sent.</param>
    public static Offer? Of(Job frozen, RevisionFigures figures, Brand brand, Statement asSent)
    {
        try
        {
            var sent = Estimate.Of(frozen, Trace.Silent);
            return sent.Price.Total.V == figures.Total && sent.Price.BeforeTax.V == figures.BeforeTax
                ? new(sent, brand, asSent)
                : null;
        }
        catch (RefusedException)
        {
            return null;
        }
    }

    /// <summary>The job as it was sent.</summary>
    public Job Sent => sent.Job;

    /// <summary>The choices that the customer is offered.</summary>
    public IEnumerable<Choice> Choices => sent.Job.Choices.Where(c => !c.Hidden);

    /// <summary>Names of the places of a choice; empty for everywhere.</summary>
    public IReadOnlyList<string> PlacesOf(Choice choice) =>
        [.. sent.Job.Places.Where(p => choice.Places.Contains(p.Id)).Select(p => p.Name)];

    /// <summary>The picture of an option's goods, by its hash; empty for none.</summary>
    public string PictureOf(Choice choice, ChoiceOption option) =>
        Choosing.GoodsOf(sent.Job, choice, option)?.Picture ?? "";

    private PricedOption Priced(Choice choice, ChoiceOption option) =>
        printed.GetOrAdd((choice.Id, option.Id), _ => choices.Price(choice, option));

    private string Money(decimal amount) => brand.Writes.Number(Quantities.Shown.Money(amount, sent.MoneyPlaces));

    private string Moved(decimal amount) =>
        amount == 0 ? "" : brand.Writes.Number(Quantities.Shown.Moved(amount, sent.MoneyPlaces));

    /// <summary>Options of a choice as they stand beside what is chosen.</summary>
    /// <param name="choice">The choice.</param>
    /// <param name="selection">What is chosen.</param>
    /// <param name="options">Which of its options.</param>
    public ImmutableArray<OfferedOption> Options(Choice choice, Selection selection, IEnumerable<ChoiceOption> options)
    {
        var taken = Taken(selection);
        var chosen = taken.TryGetValue(choice.Id, out var of) ? of.Option.Id : choice.Taken;
        return
        [
            .. options.Select(option =>
            {
                var price = Priced(choice, option);
                var others = taken
                    .Values.Where(t => t.Choice.Id != choice.Id && t.Picked)
                    .Select(t => (t.Choice, t.Option));
                var conflict =
                    option.Id == chosen ? ""
                    : choice.Locked ? "This is settled already."
                    : price.Price is null ? "This cannot be priced here; please ask."
                    : Choosing.Conflicts(sent.Job, [(choice, option), .. others]).FirstOrDefault() ?? "";
                var together = conflict.Length > 0 ? Lacking(taken, choice, option) : [];
                return new OfferedOption(
                    option,
                    price.Price is { } amount ? Moved(amount.V) : "",
                    option.Id == choice.Included,
                    option.Id == chosen,
                    conflict,
                    string.Join(", ", together.Select(t => $"{t.Choice.Name}: {t.Option.Name}"))
                );
            }),
        ];
    }

    /// <summary>What an option lacks as things stand, where all of it is offered and can be had together with it; otherwise nothing.</summary>
    private ImmutableArray<(Choice Choice, ChoiceOption Option)> Lacking(
        Dictionary<Guid, (Choice Choice, ChoiceOption Option, bool Picked)> taken,
        Choice choice,
        ChoiceOption option
    )
    {
        var lacking = Choosing.Lacking(
            sent.Job,
            option,
            c => taken.TryGetValue(c.Id, out var of) ? of.Option.Id : c.Taken
        );
        if (lacking.IsEmpty)
            return [];
        (Choice Choice, ChoiceOption Option)[] chosen = [(choice, option), .. lacking];
        if (chosen.Any(c => c.Choice.Locked || c.Choice.Hidden || Priced(c.Choice, c.Option).Price is null))
            return [];
        var others = taken
            .Values.Where(t => t.Picked && chosen.All(c => c.Choice.Id != t.Choice.Id))
            .Select(t => (t.Choice, t.Option));
        return Choosing.Conflicts(sent.Job, chosen.Concat(others)).Any() ? [] : lacking;
    }

    /// <summary>A selection in which an option is chosen together with what it lacks.</summary>
    /// <exception cref="RefusedException">It is not offered.</exception>
    public Selection Together(Selection selection, Guid choice, Guid option)
    {
        var (of, one) = Found(new(choice, option));
        return selection.With(
            [
                new Pick(choice, option),
                .. Lacking(Taken(selection), of, one).Select(l => new Pick(l.Choice.Id, l.Option.Id)),
            ]
        );
    }

    /// <summary>The alternates that the customer is offered.</summary>
    public ImmutableArray<OfferedAlternate> Alternates(Selection selection) =>
        [
            .. alternates.Select(a => new OfferedAlternate(
                a.Offered.Id,
                a.Offered.Name,
                string.Join(", ", a.Offered.Places),
                Moved(a.Price.V),
                selection.Alternates.Contains(a.Offered.Id)
            )),
        ];

    /// <summary>What stands in each choice that is not as it was sent, with what follows what was picked.</summary>
    private Dictionary<Guid, (Choice Choice, ChoiceOption Option, bool Picked)> Taken(Selection selection)
    {
        var picks = selection.Picks.Select(Found).ToList();
        return Choosing
            .Following(sent.Job, picks)
            .Where(t => t.Option.Id != t.Choice.Taken)
            .ToDictionary(t => t.Choice.Id, t => (t.Choice, t.Option, picks.Any(p => p.Choice.Id == t.Choice.Id)));
    }

    private (Choice Choice, ChoiceOption Option) Found(Pick pick)
    {
        var choice =
            Choices.FirstOrDefault(c => c.Id == pick.Choice)
            ?? throw RefusedException.Of("choose", "That is not offered.");
        return (choice, choice.Option(pick.Option) ?? throw RefusedException.Of("choose", "That is not offered."));
    }

    /// <summary>What would be signed with what is chosen: each with its printed price, what being taken together makes of them, taxes on the whole, the total, and how it is paid.</summary>
    /// <exception cref="RefusedException">It cannot be chosen so; says why.</exception>
    public ToSign With(Selection selection)
    {
        var key = $"{selection.Version} {string.Join(' ', selection.Picks)} {string.Join(' ', selection.Alternates)}";
        if (last is { } told && told.Key == key)
            return told.ToSign;
        var made = Made(selection);
        last = new(key, made);
        return made;
    }

    private ToSign Made(Selection selection)
    {
        var taken = Taken(selection);
        if (
            selection.Alternates.FirstOrDefault(id => alternates.All(a => a.Offered.Id != id)) is var none
            && none != default
        )
            throw RefusedException.Of("choose", "That is not offered.");
        if (taken.Count == 0 && selection.Alternates.IsEmpty)
            return new(asSent with { Selection = selection.Version }, sent.Price.Total.V);
        if (taken.Values.FirstOrDefault(t => t.Choice.Locked) is { Choice: { } locked })
            throw RefusedException.Of("choose", $"“{locked.Name}” is settled already; please ask.");
        (Choice Choice, ChoiceOption Option)[] pairs = [.. taken.Values.Select(t => (t.Choice, t.Option))];
        if (Choosing.Conflicts(sent.Job, pairs).FirstOrDefault() is { } conflict)
            throw RefusedException.Of("choose", conflict);
        var rows = Rows(taken.Values).ToList();
        var after = With(pairs, rows.Sum(r => r.By), selection.Alternates);
        rows.AddRange(
            alternates
                .Where(a => selection.Alternates.Contains(a.Offered.Id))
                .Select(a => (a.Offered.Name, string.Join(", ", a.Offered.Places), a.Price.V))
        );
        var together = after.Price.BeforeTax.V - sent.Price.BeforeTax.V - rows.Sum(r => r.By);
        if (together != 0)
            rows.Add(("Taken together", "what they come to beside each other, and rounding", together));
        var writing = new Writing(after, Party.None, brand, Trace.Silent);
        var statement = asSent with
        {
            Selection = selection.Version,
            Taken =
            [
                .. taken.Values.Where(t => t.Picked).Select(t => t.Option.Name),
                .. alternates.Where(a => selection.Alternates.Contains(a.Offered.Id)).Select(a => a.Offered.Name),
            ],
            Price =
            [
                asSent.Price[0],
                .. rows.Select(r => new StatementRow(r.Label, r.Detail, Signed(r.By))),
                .. PriceBlock.Sums(writing).Where(r => r.Kind == RowKind.Tax).Select(StatementRow.Of),
            ],
            Total = Money(after.Price.Total.V),
            Offered = [.. Beside(taken, selection)],
            Steps = asSent.Steps.IsEmpty ? [] : [.. PaymentBlock.Rows(writing).Select(StatementRow.Of)],
        };
        return new(statement, after.Price.Total.V);
    }

    /// <summary>The estimate with what is chosen taken: what is done after the yes.</summary>
    /// <exception cref="RefusedException">It cannot be chosen so; says why.</exception>
    public Estimate Agreed(Selection selection)
    {
        var taken = Taken(selection);
        if (taken.Count == 0 && selection.Alternates.IsEmpty)
            return sent;
        return With(
            [.. taken.Values.Select(t => (t.Choice, t.Option))],
            Rows(taken.Values).Sum(r => r.By),
            selection.Alternates
        );
    }

    /// <summary>The estimate with options and alternates taken. A fixed price covers what was sent; what is chosen otherwise is added to it, or taken off.</summary>
    private Estimate With(
        (Choice Choice, ChoiceOption Option)[] pairs,
        decimal printed,
        ImmutableArray<Guid> alternates
    )
    {
        var job = Choosing.Just(sent.Job, pairs);
        if (job.Pricing.Basis == PriceBasis.Fixed)
            job = job with { Pricing = TakeAlternate.Fixed(sent.Job, TakenTogether.FixedWith(sent.Job, printed)) };
        return TakenTogether.Of(sent.If(job), alternates, Trace.Silent).Estimate;
    }

    private string Signed(decimal amount) => Moved(amount) is { Length: > 0 } moved ? moved : Money(0);

    private IEnumerable<(string Label, string Detail, decimal By)> Rows(
        IEnumerable<(Choice Choice, ChoiceOption Option, bool Picked)> taken
    )
    {
        foreach (var (choice, option, picked) in taken)
        {
            var was = choice.Option(choice.Taken)!;
            var instead = $"in place of {was.Name}";
            // What follows another stands with that, in whose price it is.
            if (!picked)
                yield return ($"{choice.Name}: {option.Name}", $"{instead}, goes with it", 0);
            else if (Priced(choice, option).Price is { } now)
                yield return ($"{choice.Name}: {option.Name}", instead, now.V - (Priced(choice, was).Price?.V ?? 0));
            else
                throw RefusedException.Of("choose", $"“{option.Name}” cannot be priced here; please ask.");
        }
    }

    /// <summary>What is offered and not in it: the other options that the document tells, and alternates that are not taken.</summary>
    private IEnumerable<StatementRow> Beside(
        Dictionary<Guid, (Choice Choice, ChoiceOption Option, bool Picked)> taken,
        Selection selection
    )
    {
        foreach (var choice in Choices)
        {
            var chosen = taken.TryGetValue(choice.Id, out var of) ? of.Option.Id : choice.Taken;
            foreach (var option in choice.Options.Where(o => o.Id != chosen).Take(OptionsBlock.MostOptions))
                if (Priced(choice, option).Price is { } price)
                    yield return new(
                        $"{choice.Name}: {option.Name}",
                        option.Id == choice.Included ? "included in the printed price" : "",
                        Signed(price.V)
                    );
        }
        foreach (var alternate in alternates.Where(a => !selection.Alternates.Contains(a.Offered.Id)))
            yield return new(
                alternate.Offered.Name,
                string.Join(", ", alternate.Offered.Places),
                Signed(alternate.Price.V)
            );
    }
}
