using Emendum.Core.Book;

namespace Emendum.Core.Work;

/// <summary>What 'keep in the Book' would keep: the entry of a work item with what the item has instead of it.</summary>
public static class KeptEntry
{
    /// <summary>The entry as this work item uses it, still under its old version number; <paramref name="section"/> is the name of its section.</summary>
    public static WorkEntry Of(WorkItem item, string section, WorkEntry entry)
    {
        var kept = entry with
        {
            Name = item.Name,
            Section = section,
            Wording = item.Wording,
            CrewNote = item.CrewNote ?? entry.CrewNote,
            CustomerNote = item.CustomerNote ?? entry.CustomerNote,
            Hidden = item.Hidden ?? entry.Hidden,
            Step = item.Step ?? entry.Step,
            DryingHours = item.DryingHours ?? entry.DryingHours,
            Surface = item.Surface ?? entry.Surface,
            UnitPrice = entry is PriceOnlyItem ? null : item.UnitPrice ?? entry.UnitPrice,
        };
        if (kept is PriceOnlyItem sold)
            return item.UnitPrice is not { } own
                ? kept
                : sold with
                {
                    Price = own.Price,
                    Unit = own.Unit,
                    BreakKind = own.BreakKind,
                    Breaks = own.Breaks ?? [],
                    NeverMoreThanNext = own.NeverMoreThanNext,
                };
        return kept is not ProductionRate rate
            ? kept
            : rate with
            {
                Role = item.Role ?? rate.Role,
                Product = item.Product ?? rate.Product,
                Paces =
                    item.Pace is not { } pace ? rate.Paces
                    : rate.Paces.Any(p => p.Coats == item.Coats)
                        ? [.. rate.Paces.Select(p => p.Coats == item.Coats ? p with { Pace = pace } : p)]
                    : [.. rate.Paces.Add(new(item.Coats, pace)).OrderBy(p => p.Coats)],
            };
    }
}
