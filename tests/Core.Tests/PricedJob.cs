using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Tests;

/// <summary>A job whose costs are typed, so that its price can be reckoned by hand: work costs so much for each 100 ft² of a place.</summary>
internal sealed class PricedJob
{
    private readonly List<BookEntry> book = [];

    public PricedJob(PricingTerms? terms = null, string currency = "USD")
    {
        Job = Sample.Empty() with { Pricing = terms ?? Plain };
        Job = Job with { Info = Job.Info with { Currency = currency } };
    }

    /// <summary>Terms that put nothing on the cost.</summary>
    public static readonly PricingTerms Plain = PricingTerms.Starting with
    {
        LabourMarkup = 0,
        MaterialMarkup = 0,
        EquipmentMarkup = 0,
        SubcontractMarkup = 0,
        Overhead = 0,
        Contingency = 0,
        Profit = 0,
        Taxes = [],
    };

    /// <summary>Those of the worked example of the model: 20 % on goods, overhead 10 %, contingency 5 %, profit 15 %.</summary>
    public static readonly PricingTerms Worked = Plain with
    {
        MaterialMarkup = 20,
        Overhead = 10,
        Contingency = 5,
        Profit = 15,
    };

    public static Tax Tax(decimal rate, params TaxOn[] on) =>
        new(Sample.NewId(), "Tax", rate, on.Length == 0 ? Jobs.Tax.Everything : [.. on], TaxWay.Charged);

    public Job Job { get; private set; }

    public Estimate Estimate => Sample.Reckon(Job);

    public Price Price => Estimate.Price;

    /// <summary>A place; 100 ft² of floor unless its tape line says otherwise.</summary>
    public Guid Place(string line = "R 10 x 10 x 8")
    {
        var id = Sample.NewId();
        Job = Job.Do(new AddPlace(id, line.Replace("R ", $"R{Job.Places.Length} "), "", null));
        return id;
    }

    /// <summary>Work at places that costs so much for each 100 ft²; without places at a new one of its own.</summary>
    public Guid Work(
        decimal labour = 0,
        decimal goods = 0,
        decimal charge = 0,
        string section = "S",
        Guid[]? at = null,
        LabourRole? role = null,
        decimal hours = 1,
        Func<Material, Material>? of = null,
        Func<Assembly, Assembly>? entry = null
    )
    {
        var parts = new List<Component>();
        void Part(string name, ComponentKind kind, BookEntry? what, string ratio, decimal money = 0)
        {
            if (what is not null && book.All(b => b.Id != what.Id))
                book.Add(what);
            parts.Add(
                new(
                    Sample.NewId(),
                    name,
                    kind,
                    what?.Id,
                    Measure.FloorArea,
                    null,
                    null,
                    Ratio.Parse(ratio),
                    false,
                    null
                )
                {
                    Charge = money,
                }
            );
        }
        if (labour != 0 || role is not null)
            Part(
                "Labour",
                ComponentKind.Labour,
                role ?? Sample.Role($"Hand {book.Count}", labour),
                $"{Rounding.Text(hours)} h per 100 ft²"
            );
        if (goods != 0)
        {
            var material = Sample.Material($"Goods {book.Count}", Unit.Each, null, null, 0, new Pack("one", 1, goods));
            Part("Goods", ComponentKind.Material, of is null ? material : of(material), "1 each per 100 ft²");
        }
        if (charge != 0)
            Part("Charge", ComponentKind.Charge, null, "1 each per 100 ft²", charge);
        if (parts.Count == 0)
            Part("Nothing", ComponentKind.Charge, null, "1 each per 100 ft²");
        var made = new Assembly(
            Sample.NewId(),
            1,
            $"Work {Job.Work.Length + 1}",
            section,
            Measure.FloorArea,
            [.. parts],
            "",
            ""
        );
        return Add(entry is null ? made : entry(made), at);
    }

    /// <summary>A price-only item per square foot.</summary>
    public Guid Sold(
        decimal price,
        string section = "S",
        Guid[]? at = null,
        decimal minimum = 0,
        bool taxable = true
    ) =>
        Add(
            new PriceOnlyItem(
                Sample.NewId(),
                1,
                $"Sold {Job.Work.Length + 1}",
                section,
                Measure.FloorArea,
                Unit.SquareFoot,
                price,
                "",
                ""
            )
            {
                Minimum = minimum,
                Taxable = taxable,
            },
            at
        );

    private Guid Add(WorkEntry entry, Guid[]? at)
    {
        book.Add(entry);
        var id = Sample.NewId();
        Job = Job.Do(new AddWork(id, entry.Id, null), [.. book]);
        Guid[] places = at ?? [Place()];
        Job = Job.Fill(id, places, CellState.Included);
        return id;
    }

    /// <summary>Puts entries into the job's Book.</summary>
    public void Pin(params BookEntry[] entries) =>
        Job = Job with { Book = Job.Book.SetItems(entries.Select(e => KeyValuePair.Create(e.Id, e))) };

    /// <summary>Does a command.</summary>
    public void Do(Command command) => Job = Job.Do(command);

    /// <summary>Sets a field of a work item.</summary>
    public void Set<T>(Guid work, string field, T now) =>
        Job = Job.Do(
            new SetWork(
                work,
                field,
                ChangeSet.Get(Job, $"work/{work}/{field}"),
                System.Text.Json.JsonSerializer.SerializeToNode(now, Json.CoreJson.Options)
            )
        );

    /// <summary>Prices a section in its own way, or gives it a least charge.</summary>
    public void Section(string name, OwnBasis? own = null, decimal? least = null) =>
        Job = Job with
        {
            Sections =
            [
                .. Job.Sections.Select(s =>
                    s.Name == name ? s with { Pricing = own ?? s.Pricing, Least = least ?? s.Least } : s
                ),
            ],
        };

    /// <summary>Changes the terms.</summary>
    public PricedJob With(Func<PricingTerms, PricingTerms> change)
    {
        Job = Job with { Pricing = change(Job.Pricing) };
        Job.Pricing.Check();
        return this;
    }

    /// <summary>The amount of a step; nothing where it is not there.</summary>
    public decimal Step(string key) => Price.Step(key)?.Amount.V ?? 0;
}
