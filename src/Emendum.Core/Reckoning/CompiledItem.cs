using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>A work item with its entry and everything that hangs on it looked up once, ready to be put on any number of places.</summary>
public sealed class CompiledItem
{
    private static readonly Guid RateLabour = new("00000000-0000-7000-8000-000000000001"), RateProduct = new("00000000-0000-7000-8000-000000000002");

    private CompiledItem(WorkItem item, Measure measure, Part[] parts) => (Item, Measure, Parts) = (item, measure, parts);

    /// <summary>The work item.</summary>
    public WorkItem Item { get; }

    /// <summary>What its quantity is.</summary>
    public Measure Measure { get; }

    /// <summary>In an order in which every driver comes before what it drives.</summary>
    public Part[] Parts { get; }

    /// <summary>One thing that a line costs.</summary>
    /// <param name="Id">Component id; fixed ones stand for a rate's labour and product.</param>
    /// <param name="Name">What it is.</param>
    /// <param name="Source">The entry its ratio stands in.</param>
    /// <param name="Entry">The role, material or equipment.</param>
    /// <param name="Ratio">How much per driver.</param>
    /// <param name="Later">For material spread in coats: coverage from the second coat on.</param>
    /// <param name="Coats">How many times the ratio is applied (a coats pace counts once).</param>
    /// <param name="Measure">Driving measure, unless a part or crew drives.</param>
    /// <param name="Driver">Index of the driving part; -1 for none.</param>
    /// <param name="AsOrdered">Takes the driver with waste.</param>
    /// <param name="Waste">Percent.</param>
    /// <param name="Crew">Crew size for crew-tied equipment; 0 otherwise.</param>
    /// <param name="TypedIn">The work item its ratio was typed in for this job; null when it stands in the Book.</param>
    public sealed record Part(
        Guid Id, string Name, Guid Source, BookEntry Entry, Ratio? Ratio, Ratio? Later, int Coats, Measure? Measure, int Driver, bool AsOrdered, decimal Waste, int Crew, Guid? TypedIn = null)
    {
        /// <summary>Unit of its amount: the hour for labour and equipment, the unit of use for material.</summary>
        public Unit Unit => Entry is Material material ? material.Unit : Unit.Hour;
    }

    /// <summary>Looks everything up.</summary>
    /// <exception cref="RefusedException">An entry is gone, or the rate has no pace for the coats.</exception>
    public static CompiledItem Of(WorkItem item, ImmutableDictionary<Guid, BookEntry> book)
    {
        T Entry<T>(Guid id) where T : BookEntry => book.GetValueOrDefault(id) as T
            ?? throw RefusedException.Of("work/" + item.Id, $"{item.Name}: the Book entry it uses ({id}) is gone from this job.");
        switch (Entry<BookEntry>(item.Entry))
        {
            case ProductionRate rate:
                var pace = item.Pace ?? rate.Paces.FirstOrDefault(p => p.Coats == item.Coats)?.Pace
                    ?? throw RefusedException.Of("coats", $"{rate.Name} has no pace for {item.Coats} coats; it has {string.Join(", ", rate.Paces.Select(p => p.Coats))}.");
                var parts = new List<Part> { new(RateLabour, rate.Name, rate.Id, Entry<LabourRole>(rate.Role), pace, null, 1, rate.Measure, -1, false, 0, 0, item.Pace is null ? null : item.Id) };
                if ((item.Product ?? rate.Product) is { } id)
                {
                    var product = Entry<Material>(id);
                    parts.Add(new(RateProduct, product.Name, product.Id, product, product.Coverage, product.LaterCoverage, rate.Paces.Length == 1 && rate.Paces[0].Coats == 1 ? 1 : item.Coats, rate.Measure, -1, false, product.WastePercent, 0));
                }
                return new(item, rate.Measure, [.. parts]);
            case Assembly assembly:
                var order = BookChecks.InWorkingOrder(assembly.Components, m => RefusedException.Of("work/" + item.Id, assembly.Name + ": " + m));
                return new(item, assembly.Measure, [.. order.Select(c =>
                {
                    var entry = Entry<BookEntry>(c.Entry);
                    var driver = c.Of is { } of ? order.IndexOf(order.First(o => o.Id == of)) : -1;
                    return new Part(c.Id, c.Name, assembly.Id, entry, c.Ratio, null, 1, c.Measure, driver, c.AsOrdered, c.WastePercent ?? (entry as Material)?.WastePercent ?? 0, c.Crew ?? 0);
                })]);
            default:
                throw RefusedException.Of("work/" + item.Id, $"{item.Name} is neither a rate nor an assembly.");
        }
    }
}
