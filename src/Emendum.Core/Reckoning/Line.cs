using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>An included cell reckoned: its quantity and what each part takes (estimating model §5).</summary>
public sealed class Line
{
    private Line(CompiledItem item, PlaceMeasures measures, Cell cell, Job job)
    {
        (OfItem, Measures, Cell, conditions, pace) = (item, measures, cell, job.Conditions, job.Pace);
        (rhythm, often) = Often(item, job);
        Item = cell.WorksOtherwise ? CompiledItem.Of(cell.Of(item.Item), job.Book) : item;
        (Supply, Allowance) = (cell.Supply ?? item.Item.Supply, cell.Allowance ?? item.Item.Allowance);
        Quote = Sold ? job.QuoteFor(item.Item) : null;
    }

    private readonly System.Collections.Immutable.ImmutableArray<Guid> conditions;
    private readonly PaceFactor? pace;
    private readonly Rhythm? rhythm;
    private readonly decimal often;

    /// <summary>The work item of the grid's column.</summary>
    public CompiledItem OfItem { get; }

    /// <summary>The work item as it is done here: the column's own, where the cell overrides nothing of the work.</summary>
    public CompiledItem Item { get; }

    /// <summary>The place's measures.</summary>
    public PlaceMeasures Measures { get; }

    /// <summary>The cell it was reckoned from.</summary>
    public Cell Cell { get; }

    /// <summary>Who supplies.</summary>
    public Supply Supply { get; }

    /// <summary>A provisional sum for one such place, instead of what is reckoned; null for none.</summary>
    public decimal? Allowance { get; }

    /// <summary>Whether the customer is not to see it.</summary>
    public bool Hidden => Cell.Hidden ?? OfItem.Hidden;

    /// <summary>Whether it stands among what we do for the customer: not what is hidden, nor what the customer does.</summary>
    public bool Seen => !Hidden && Supply != Supply.Customer && !IsNothing;

    /// <summary>Whether there is nothing of it at all: then it is no work, and is promised to nobody (estimating model §4).</summary>
    public bool IsNothing =>
        Allowance is null && Quantity.V == 0 && OfItem.Item.Labour is null && !Array.Exists(Amounts, a => a.V != 0);

    /// <summary>The quote by which another firm does it; null where none does.</summary>
    public Quote? Quote { get; }

    /// <summary>Whether its hours and goods are ours to give: neither the customer nor another firm does it, and no sum is allowed for it.</summary>
    public bool Ours => Sold && Quote is null;

    /// <summary>Whether we answer for it to the customer, by ourselves or by another firm.</summary>
    public bool Sold => Supply != Supply.Customer && Allowance is null;

    /// <summary>Whether we do anything here, or another firm does it for us: it is sold, and there is something of it.</summary>
    public bool IsSold => Sold && !IsNothing;

    /// <summary>Whether we do anything here: it is ours, and there is something of it.</summary>
    public bool Works => Ours && !IsNothing;

    /// <summary>The quantity worked, for all ×n places.</summary>
    public Val Quantity { get; private set; }

    /// <summary>Hours or need with waste of each part, in <see cref="CompiledItem.Part.Unit"/>.</summary>
    public Val[] Amounts { get; private set; } = [];

    /// <summary>Labour hours that it would take us, whoever does it.</summary>
    internal Val WouldTake => Sum.Of(Amounts.Where((_, i) => Item.Parts[i].Kind.IsLabour));

    /// <summary>Labour hours of all parts that we do.</summary>
    public Val Hours { get; private set; }

    /// <summary>Whether a part of it is in our cost: not what the customer does or supplies, nor what a sum is allowed for.</summary>
    public bool Costs(CompiledItem.Part part) => Ours && (Supply == Supply.We || !part.Kind.IsGoods);

    /// <summary>Whether the line still stands for these inputs.</summary>
    public bool IsOf(CompiledItem item, PlaceMeasures measures, Cell cell, Job job) =>
        ReferenceEquals(item, OfItem)
        && ReferenceEquals(measures, Measures)
        && ReferenceEquals(cell, Cell)
        && conditions == job.Conditions
        && ReferenceEquals(pace, job.Pace)
        && (rhythm, often) == Often(item, job)
        && Quote?.Id == (Sold ? job.QuoteFor(item.Item)?.Id : null);

    private static (Rhythm? Rhythm, decimal Often) Often(CompiledItem item, Job job) =>
        RhythmTimes.Of(job, item.Item) is { } rhythm ? (rhythm, RhythmTimes.AYear(job, rhythm)) : (null, 0);

    /// <summary>Reckons one included cell.</summary>
    public static Line Of(CompiledItem item, PlaceMeasures measures, Cell cell, Job job, Trace trace)
    {
        var line = new Line(item, measures, cell, job);
        new Take(line, job, trace).All();
        return line;
    }

    /// <summary>The symbol shown with a quantity; counts show none.</summary>
    public static string SymbolOf(Measure measure, UnitSystem system) =>
        measure.Kind() == Kind.Count ? "" : measure.UnitIn(system).Symbol;

    /// <summary>One line while it is reckoned.</summary>
    private readonly struct Take(Line line, Job job, Trace trace)
    {
        private readonly CompiledItem item = line.Item;
        private readonly PlaceMeasures measures = line.Measures;
        private readonly Place place = line.Measures.Place;
        private readonly UnitSystem system = job.Units;
        private readonly CrewTime? said = line.Cell.Labour is { } labour ? CrewTime.Read(labour, "labour") : null;

        private FigurePath Path(string leaf) => new("cells", line.Item.Item.Id, line.Measures.Place.Id, leaf);

        /// <summary>For all equal places.</summary>
        private Val Times(Val one) =>
            place.Count == 1 ? one : one * trace.Typed(place.Count, "", "equal places", null, "places", place.Id);

        /// <summary>What stands at the place, in the unit the work is counted in.</summary>
        private Val Source() =>
            line.Cell.Quantity is { } typed
                ? Typed(typed)
                : trace.Convert(
                    line.Cell.Source.Length == 0
                        ? measures[item.LedAt(measures)]
                        : measures.Named(line.Cell.Source) ?? 0m,
                    item.Measure.UnitIn(system),
                    item.UnitIn(system)
                );

        private Val Typed(TypedQuantity typed)
        {
            var unit = item.UnitIn(system);
            return trace.Typed(
                Rounding.Figure(TypedQuantities.In(typed, unit)),
                typed.Kind == Kind.Count ? "" : unit.Symbol,
                "typed here",
                typed.Text,
                "work",
                item.Item.Id
            );
        }

        private (Val Value, Unit Unit) Answer(Question question)
        {
            if (!question.Once && line.Cell.Answers.FirstOrDefault(a => a.Question == question.Id) is { } here)
                return (item.Answered(here, question, trace), question.Unit);
            if (item.AnswerOf(question, trace) is { } answer)
                return (answer, question.Unit);
            if (question.From is { } measure && measures.Has(measure))
                return (measures[measure], measure.UnitIn(system));
            return (trace.Book(question.Usual, question.Unit.Symbol, question.Text, item.Entry.Id), question.Unit);
        }

        public void All()
        {
            var parts = item.Parts;
            var conditions = Factors.On(line, job);
            var symbol = item.SymbolIn(system);
            line.Quantity = trace.Make(
                Times(Source()),
                symbol,
                trace.On ? $"{item.Item.Name}, {place.Name}: quantity" : "",
                Path("quantity")
            );
            if (trace.Follows)
                trace.Assume(
                    line.Quantity,
                    line.Quantity.V > 0 ? Relation.Above : Relation.Same,
                    0m,
                    $"{item.Item.Name}, {place.Name}: {(line.Quantity.V > 0 ? "nothing is left of it" : "there was nothing of it before")}."
                );
            var treated = item.Surface is { Treated: not 1 } surface
                ? trace.Make(
                    line.Quantity * trace.Book(surface.Treated, "", surface.Name, surface.Id),
                    symbol,
                    trace.On ? $"{item.Item.Name}, {place.Name}: treated" : "",
                    Path("treated")
                )
                : line.Quantity;
            var amounts = line.Amounts = new Val[parts.Length];
            var net = new Val[parts.Length];
            Val exact = 0m;
            var (labour, last) = (0, parts.Length);
            for (var i = 0; i < parts.Length; i++)
            {
                var part = parts[i];
                if (part.Crew > 0)
                {
                    last = i;
                    break;
                }
                var amount = Amount(part, treated, amounts, net);
                amount = Factors.Apply(item, part, amount, conditions, job, trace);
                net[i] = amount;
                if (part.Waste != 0)
                    amount = amount * (100m + trace.Book(part.Waste, "%", "waste", part.WasteIn)) / 100m;
                if (part.Step is { } own)
                    amount = Factors.Stepped(amount, own, part.Source, trace);
                var rounds = part.Kind.IsLabour && item.Step is not null;
                amounts[i] = trace.Make(
                    amount,
                    part.Unit.Symbol,
                    trace.On ? part.Name + ", " + place.Name + (rounds ? ", exact" : "") : "",
                    trace.On ? Path("parts/" + part.Id + (rounds ? "/exact" : "")) : default
                );
                if (!part.Kind.IsLabour)
                    continue;
                exact = labour++ == 0 ? amounts[i] : exact + amounts[i];
            }
            var hours = exact;
            if (said is not null)
            {
                hours = Said(said, exact, amounts, last);
            }
            else if (item.Step is { } step && labour > 0)
            {
                var whole = trace.Make(
                    exact,
                    "h",
                    trace.On ? $"{item.Item.Name}, {place.Name}: labour, exact" : "",
                    Path("hours/exact")
                );
                hours = trace.Make(
                    Factors.Stepped(whole, step, item.Entry.Id, trace),
                    "h",
                    trace.On ? $"{item.Item.Name}, {place.Name}: labour" : "",
                    // What the customer does takes none of our hours, and that is the figure at "hours" then.
                    line.Ours
                        ? Path("hours")
                        : Path("hours/stepped")
                );
                for (var i = 0; i < last; i++)
                    if (parts[i].Kind.IsLabour)
                        amounts[i] = trace.Make(
                            whole.V == 0 ? amounts[i] : amounts[i] * hours / whole,
                            "h",
                            trace.On ? $"{parts[i].Name}, {place.Name}" : "",
                            trace.On ? Path("parts/" + parts[i].Id) : default
                        );
            }
            for (var i = last; i < parts.Length; i++)
                amounts[i] = trace.Make(
                    CrewHours(parts[i], hours),
                    "h",
                    trace.On ? $"{parts[i].Name}, {place.Name}" : "",
                    trace.On ? Path("parts/" + parts[i].Id) : default
                );
            line.Hours = trace.Make(
                line.Ours ? hours : 0m,
                "h",
                trace.On ? $"{item.Item.Name}, {place.Name}: labour" : "",
                !line.Ours || item.Step is null || said is not null ? Path("hours") : Path("hours/ours")
            );
        }

        /// <summary>Labour as it was typed for this place, shared to its parts by what their paces give; nothing multiplies what somebody has said.</summary>
        private Val Said(CrewTime time, Val exact, Val[] amounts, int last)
        {
            Val one = trace.Typed(time.Hours, "h", "hours", time.Typed, "work", item.Item.Id);
            if (time.People is { } people)
                one = trace.Typed(people, "", "people", time.Typed, "work", item.Item.Id) * one;
            var hours = trace.Make(
                Times(one),
                "h",
                trace.On ? $"{item.Item.Name}, {place.Name}: labour" : "",
                Path("hours/said")
            );
            var first = true;
            for (var i = 0; i < last; i++)
            {
                if (!item.Parts[i].Kind.IsLabour)
                    continue;
                amounts[i] = trace.Make(
                    exact.V != 0 ? amounts[i] * hours / exact
                        : first ? hours
                        : 0m,
                    "h",
                    trace.On ? $"{item.Parts[i].Name}, {place.Name}" : "",
                    trace.On ? Path("parts/" + item.Parts[i].Id + "/said") : default
                );
                first = false;
            }
            return hours;
        }

        /// <summary>Hours that a machine is there while the crew works: as typed, where people and hours were.</summary>
        private Val CrewHours(CompiledItem.Part part, Val hours) =>
            said is { People: not null } time
                ? Times(trace.Typed(time.Hours, "h", "hours", time.Typed, "work", item.Item.Id))
                : hours / trace.Book(part.Crew, "", trace.On ? part.Name + ", crew" : "", part.Source);

        private Val Amount(CompiledItem.Part part, Val treated, Val[] amounts, Val[] net)
        {
            Val driver;
            Unit unit;
            var main = false;
            if (part.Driver >= 0)
                (driver, unit) = ((part.AsOrdered ? amounts : net)[part.Driver], item.Parts[part.Driver].Unit);
            else if (part.Question is { } question)
            {
                (driver, unit) = Answer(question);
                driver = Times(driver);
            }
            else
            {
                main = part.Measure == item.Measure;
                (driver, unit) = (
                    main ? treated : Times(measures[part.Measure!.Value]),
                    main ? item.UnitIn(system) : part.Measure!.Value.UnitIn(system)
                );
            }
            if (part.Drops is { } drops)
                return Rolls(driver, unit, drops, part);
            if (part.Depth is not null || part.DepthAsked is not null)
                (driver, unit) = (Layer(driver, unit, part), system.For(Kind.Volume));
            var amount = trace.Turn(driver, unit, part.Ratio!, part.Name, part.Source, part.TypedIn, out var to);
            if (part.Coats > 1)
            {
                if (part.Later is null && !part.Kind.IsGoods)
                    amount *= trace.Typed(part.Coats, "", "coats", null, "work", item.Item.Id);
                else
                {
                    var later = part.Later is null
                        ? amount
                        : trace.Turn(driver, unit, part.Later, part.Name, part.Source, part.TypedIn, out to);
                    amount += part.Coats == 2 ? later : (part.Coats - 1) * later;
                }
            }
            if (part.Compaction != 0)
                amount = amount * (100m + trace.Book(part.Compaction, "%", "loose on built", part.Source)) / 100m;
            if (to.Kind != part.Unit.Kind && part.Density is { } density)
                amount = trace.Turn(amount, to, density, "density", part.Entry.Id, null, out to);
            if (main && part.Kind.IsGoods && item.Surface is { Coverage: not 1 } surface)
                amount /= trace.Book(surface.Coverage, "", surface.Name + ", coverage", surface.Id);
            return trace.Convert(amount, to, part.Unit);
        }

        /// <summary>Rolls for a length of wall, in drops.</summary>
        private Val Rolls(Val walls, Unit unit, Drops drops, CompiledItem.Part part)
        {
            var recording = trace;
            Val Typed(string text, string label)
            {
                var length = Thickness.Read(text, "drops");
                return recording.Convert(
                    recording.Book(length.Value, length.Unit.Symbol, label, part.Source),
                    length.Unit,
                    unit
                );
            }
            var (asked, of) = Answer(part.DropHeight!);
            var drop = trace.Convert(asked, of, unit);
            if (drops.Trim.Length > 0)
                drop += Typed(drops.Trim, "trim");
            if (drops.Repeat.Length > 0)
            {
                var repeat = Typed(drops.Repeat, "repeat");
                drop = (drop / repeat).Ceil() * repeat;
            }
            var toARoll = drop.V == 0 ? 0m : (Typed(drops.Long, "roll, length") / drop).Floor();
            if (toARoll.V == 0)
                throw RefusedException.Of(
                    "answers",
                    $"{part.Name}: no drop of that height can be cut from a roll of {drops.Long}."
                );
            return ((walls / Typed(drops.Wide, "roll, width")).Ceil() / toARoll).Ceil();
        }

        /// <summary>The volume of a layer: area times thickness.</summary>
        private Val Layer(Val area, Unit unit, CompiledItem.Part part)
        {
            var length = system.For(Kind.Length);
            var (thick, of) = part.Depth is { } depth
                ? (trace.Book(depth.Value, depth.Unit.Symbol, part.Name + ", thickness", part.Source), depth.Unit)
                : Answer(part.DepthAsked!);
            return trace.Convert(area, unit, system.For(Kind.Area)) * trace.Convert(thick, of, length);
        }
    }
}
