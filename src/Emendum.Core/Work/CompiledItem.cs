using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Work;

/// <summary>A work item with its entry and everything that hangs on it looked up once, ready to be put on any number of places.</summary>
public sealed class CompiledItem
{
    private static readonly Guid RateLabour = new("00000000-0000-7000-8000-000000000001"),
        RateProduct = new("00000000-0000-7000-8000-000000000002");

    private CompiledItem(WorkItem item, WorkEntry entry, Part[] parts, Part[] once) =>
        (Item, Entry, Parts, Once) = (item, entry, parts, once);

    /// <summary>The work item.</summary>
    public WorkItem Item { get; }

    /// <summary>The pinned entry.</summary>
    public WorkEntry Entry { get; }

    /// <summary>What its quantity is.</summary>
    public Measure Measure => Entry.Measure;

    /// <summary>The unit its quantity is in.</summary>
    public Unit UnitIn(UnitSystem system) => Entry.UnitIn(system, Item.CountedIn);

    /// <summary>The symbol shown with its quantity; counts show none.</summary>
    public string SymbolIn(UnitSystem system) => Measure.Kind() == Kind.Count ? "" : UnitIn(system).Symbol;

    /// <summary>What its quantity is at a place.</summary>
    public Measure LedAt(PlaceMeasures measures) => Entry.LedAt(measures);

    /// <summary>What each line takes, in an order in which every driver comes before what it drives and the crew before what follows it.</summary>
    public Part[] Parts { get; }

    /// <summary>What comes once for the work item in the job: by itself, or by a question that is asked once.</summary>
    public Part[] Once { get; }

    /// <summary>The level of difficulty, or null.</summary>
    public Level? Level { get; private init; }

    /// <summary>The surface it is done on, or null.</summary>
    public SurfaceFactor? Surface { get; private init; }

    /// <summary>Conditions on all its lines.</summary>
    public ImmutableArray<Condition> Conditions { get; private init; } = [];

    /// <summary>Hours of a line are rounded up to this step.</summary>
    public decimal? Step => Item.Step ?? Entry.Step;

    /// <summary>Whether the customer is not shown it.</summary>
    public bool Hidden => Item.Hidden ?? Entry.Hidden;

    /// <summary>Hours it dries.</summary>
    public decimal Drying => Item.DryingHours ?? Entry.DryingHours;

    /// <summary>One thing that work costs.</summary>
    /// <param name="Id">Component id; fixed ones stand for a rate's labour and product.</param>
    /// <param name="Name">What it is.</param>
    /// <param name="Source">The entry its ratio stands in.</param>
    /// <param name="Entry">The role, material, equipment or subcontract; for a charge the assembly.</param>
    /// <param name="Kind">What it costs as.</param>
    /// <param name="Unit">Unit of its amount.</param>
    /// <param name="Ratio">How much per driver.</param>
    public sealed record Part(
        Guid Id,
        string Name,
        Guid Source,
        BookEntry Entry,
        KindOfPart Kind,
        Unit Unit,
        Ratio? Ratio
    )
    {
        /// <summary>For material spread in coats: coverage from the second coat on.</summary>
        public Ratio? Later { get; init; }

        /// <summary>How many times the ratio is applied (a coats pace counts once).</summary>
        public int Coats { get; init; } = 1;

        /// <summary>Driving measure; or</summary>
        public Measure? Measure { get; init; }

        /// <summary>the driving question; or</summary>
        public Question? Question { get; init; }

        /// <summary>index of the driving part, −1 for none; or</summary>
        public int Driver { get; init; } = -1;

        /// <summary>crew size, 0 for none.</summary>
        public int Crew { get; init; }

        /// <summary>Takes the driver with waste.</summary>
        public bool AsOrdered { get; init; }

        /// <summary>Percent.</summary>
        public decimal Waste { get; init; }

        /// <summary>Where the waste stands.</summary>
        public Guid WasteIn { get; init; }

        /// <summary>Thickness of the layer, or null.</summary>
        public Quantity? Depth { get; init; }

        /// <summary>The question that gives the thickness.</summary>
        public Question? DepthAsked { get; init; }

        /// <summary>Drops from a roll, or null.</summary>
        public Drops? Drops { get; init; }

        /// <summary>The question that gives the height of a drop.</summary>
        public Question? DropHeight { get; init; }

        /// <summary>Percent of loose on built.</summary>
        public decimal Compaction { get; init; }

        /// <summary>Rounded up to this step, in its unit.</summary>
        public decimal? Step { get; init; }

        /// <summary>Whether the level of difficulty scales it.</summary>
        public bool Scales { get; init; }

        /// <summary>Money for one, of a charge.</summary>
        public decimal Charge { get; init; }

        /// <summary>Colour it is bought in.</summary>
        public string Colour { get; init; } = "";

        /// <summary>The work item its ratio was typed in for this job; null when it stands in the Book.</summary>
        public Guid? TypedIn { get; init; }

        /// <summary>People and hours typed instead of any rate; a machine that follows the crew is there for those hours.</summary>
        public CrewTime? Time { get; init; }

        /// <summary>What turns its mass into a volume and back; null for none.</summary>
        public Ratio? Density { get; init; }
    }

    /// <summary>What was answered for the whole work item; null where nobody has.</summary>
    internal Figures.Val? AnswerOf(Question question, Figures.Trace trace) =>
        Item.Answers.FirstOrDefault(a => a.Question == question.Id) is { } answer
            ? Answered(answer, question, trace)
            : null;

    /// <summary>An answer in the question's unit.</summary>
    internal Figures.Val Answered(Answer answer, Question question, Figures.Trace trace)
    {
        var unit = answer.Unit ?? question.Unit;
        var typed = trace.Typed(answer.Value, unit.Symbol, question.Text, null, "work", Item.Id);
        return trace.Convert(typed, unit, question.Unit);
    }

    /// <summary>Looks everything up.</summary>
    /// <exception cref="RefusedException">An entry is gone, or the rate has no pace for the coats.</exception>
    public static CompiledItem Of(WorkItem item, ImmutableDictionary<Guid, BookEntry> book)
    {
        T Entry<T>(Guid id)
            where T : BookEntry =>
            book.GetValueOrDefault(id) as T
            ?? throw RefusedException.Of(
                "work/" + item.Id,
                $"{item.Name}: the Book entry it uses ({id}) is gone from this job."
            );
        if (Entry<BookEntry>(item.Entry) is not WorkEntry entry)
            throw RefusedException.Of(
                "work/" + item.Id,
                $"{item.Name} is neither a rate nor an assembly nor a price-only item of this job."
            );
        var (parts, once) = entry switch
        {
            ProductionRate rate => (OfRate(item, rate, Entry<LabourRole>, Entry<Material>), []),
            Assembly assembly => OfAssembly(item, assembly, Entry<BookEntry>),
            _ => ([], []),
        };
        if (item.Labour is { } labour)
            (parts, once) = AllInAll(CrewTime.Read(labour, "labour"), item, parts, once);
        return new(item, entry, parts, WithMachines(parts, once))
        {
            Level = entry.Levels.FirstOrDefault(l => l.Name == item.Difficulty),
            Surface = (item.Surface ?? entry.Surface) is { } surface ? Entry<SurfaceFactor>(surface) : null,
            Conditions = [.. item.Conditions.Select(Entry<Condition>)],
        };
    }

    /// <summary>With labour typed in all, the first labour has it, once; what any pace gave is gone.</summary>
    /// <exception cref="RefusedException">It has no labour, or something else goes by its hours.</exception>
    private static (Part[] Parts, Part[] Once) AllInAll(CrewTime time, WorkItem item, Part[] parts, Part[] once)
    {
        var first =
            parts.Concat(once).FirstOrDefault(p => p.Kind.IsLabour) ?? throw RefusedException.Of(
                "labour",
                $"{item.Name} has no labour that hours could be typed for."
            );
        if (parts.FirstOrDefault(p => p.Driver >= 0 && !p.Kind.IsLabour && parts[p.Driver].Kind.IsLabour) is { } by)
            throw RefusedException.Of(
                "labour",
                $"{by.Name} goes by the hours of {parts[by.Driver].Name}: hours in all cannot be typed here."
            );
        var kept = parts.Where(p => !p.Kind.IsLabour).ToArray();
        var at = kept.ToDictionary(p => p.Id, p => Array.IndexOf(kept, p));
        return (
            [.. kept.Select(p => p.Driver < 0 ? p : p with { Driver = at[parts[p.Driver].Id] })],
            [
                first with
                {
                    Name = item.Name,
                    Time = time,
                    TypedIn = item.Id,
                    Question = null,
                    Driver = -1,
                },
                .. once.Where(p => !p.Kind.IsLabour),
            ]
        );
    }

    /// <summary>Machines that follow the crew are there for the people and hours that were typed, too.</summary>
    private static Part[] WithMachines(Part[] parts, Part[] once)
    {
        var machines = parts.Where(p => p.Crew > 0).ToArray();
        return machines.Length == 0 || !Array.Exists(once, p => p.Time is not null)
            ? once
            :
            [
                .. once,
                .. once.Where(p => p.Time is not null)
                    .SelectMany(labour =>
                        machines.Select(m => m with { Time = labour.Time, TypedIn = labour.TypedIn })
                    ),
            ];
    }

    private static Part[] OfRate(
        WorkItem item,
        ProductionRate rate,
        Func<Guid, LabourRole> role,
        Func<Guid, Material> material
    )
    {
        var pace =
            item.Pace
            ?? rate.Paces.FirstOrDefault(p => p.Coats == item.Coats)?.Pace ?? throw RefusedException.Of(
                "coats",
                $"{rate.Name} has no pace for {item.Coats} coats; it has {string.Join(", ", rate.Paces.Select(p => p.Coats))}."
            );
        var labour = new Part(
            RateLabour,
            rate.Name,
            rate.Id,
            role(item.Role ?? rate.Role),
            KindOfPart.Of(ComponentKind.Labour),
            Unit.Hour,
            pace
        )
        {
            Measure = rate.Measure,
            Scales = true,
            TypedIn = item.Pace is null ? null : item.Id,
        };
        if ((item.Product ?? rate.Product) is not { } id)
            return [labour];
        var product = material(id);
        return
        [
            labour,
            new Part(
                RateProduct,
                product.Name,
                product.Id,
                product,
                KindOfPart.Of(ComponentKind.Material),
                product.Unit,
                product.Coverage
            )
            {
                Later = product.LaterCoverage,
                Coats = item.Coats,
                Measure = rate.Measure,
                Waste = product.WastePercent,
                WasteIn = product.Id,
                Colour = item.Colour,
            },
        ];
    }

    private static (Part[] Parts, Part[] Once) OfAssembly(WorkItem item, Assembly assembly, Func<Guid, BookEntry> entry)
    {
        var order = AssemblyRules.InWorkingOrder(
            assembly.Components,
            (_, m) => RefusedException.Of("work/" + item.Id, assembly.Name + ": " + m)
        );
        var taken = Taken(assembly, item.Picks);
        var (parts, once, at) = (new List<Part>(), new List<Part>(), new Dictionary<Guid, int>());
        foreach (var c in order)
        {
            if (!taken.Contains(c.Id))
                continue;
            var of = c.Entry is { } id
                ? entry(
                    item.Roles?.FirstOrDefault(r => r.Role == id)?.Instead
                        ?? item.Products?.FirstOrDefault(p => p.Product == id)?.Instead
                        ?? id
                )
                : assembly;
            var driver = -1;
            // Whichever of the driver's either-or group is taken drives; where none is, neither is this part.
            if (
                c.Of is { } driving
                && !at.TryGetValue(driving, out driver)
                && !at.TryGetValue(Either(assembly, driving, taken), out driver)
            )
                continue;
            var kind = KindOfPart.Of(c.Kind);
            var part = new Part(c.Id, c.Name, assembly.Id, of, kind, kind.UnitOf(c, of), c.Ratio)
            {
                Measure = c.Measure,
                Question = assembly.Questions.FirstOrDefault(q => q.Id == c.Question),
                Driver = c.Of is null ? -1 : driver,
                Crew = c.Crew ?? 0,
                AsOrdered = c.AsOrdered,
                Waste = c.WastePercent ?? kind.Waste(of),
                WasteIn = c.WastePercent is null ? of.Id : assembly.Id,
                Density = kind.Density(of),
                Depth = c.Depth.Length == 0 ? null : Thickness.Read(c.Depth, "depth"),
                DepthAsked = assembly.Questions.FirstOrDefault(q => q.Id == c.DepthAsked),
                Drops = c.Drops,
                DropHeight = c.Drops is { } drops ? assembly.Questions.First(q => q.Id == drops.Height) : null,
                Compaction = c.CompactionPercent,
                Coats = c.PerCoat ? item.Coats : 1,
                Step = c.Step,
                Scales = c.Scales,
                Charge = c.Charge,
                Colour = c.Coloured ? item.Colour : "",
                Time = c.CrewTime is { } time ? CrewTime.Read(time, "crewTime") : null,
            };
            if (c.Once || part.Question is { Once: true })
            {
                once.Add(part);
                continue;
            }
            at[c.Id] = parts.Count;
            parts.Add(part);
        }
        return ([.. parts], [.. once]);
    }

    private static HashSet<Guid> Taken(Assembly assembly, ImmutableArray<Guid> picks)
    {
        var taken = new HashSet<Guid>();
        foreach (var part in assembly.Components)
        {
            if (part.Group.Length == 0)
            {
                if (!part.Optional || picks.Contains(part.Id))
                    taken.Add(part.Id);
                continue;
            }
            var group = assembly.Components.Where(c => c.Group == part.Group).ToArray();
            var one = group.FirstOrDefault(c => picks.Contains(c.Id)) ?? (group.All(c => c.Optional) ? null : group[0]);
            if (one is not null)
                taken.Add(one.Id);
        }
        return taken;
    }

    private static Guid Either(Assembly assembly, Guid driver, HashSet<Guid> taken)
    {
        var group = assembly.Components.First(c => c.Id == driver).Group;
        return group.Length == 0
            ? Guid.Empty
            : assembly.Components.FirstOrDefault(c => c.Group == group && taken.Contains(c.Id))?.Id ?? Guid.Empty;
    }
}
