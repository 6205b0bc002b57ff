using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Everything reckoned of a job but its price: what it takes, where, and what that costs.</summary>
public sealed class Reckoned
{
    /// <summary>What was reckoned.</summary>
    public required Job Job { get; init; }

    /// <summary>Measures by place.</summary>
    public required Dictionary<Guid, PlaceMeasures> Measures { get; init; }

    /// <summary>Work items looked up, in job order.</summary>
    public required CompiledItem[] Items { get; init; }

    /// <summary>Included cells, by work item and then place in job order.</summary>
    public required Line[] Lines { get; init; }

    /// <summary>The same by position: work item × places + place; null where nothing is done. Alternates stand here too.</summary>
    public required Line?[] Grid { get; init; }

    /// <summary>What it costs.</summary>
    public required Costs Costs { get; init; }

    /// <summary>Work that comes back, each rhythm by itself, and last what is done once; empty in a job where all is. Then <see cref="Costs"/> are those of the first year, and <see cref="Lines"/> those of one
    /// occurrence each.</summary>
    public ImmutableArray<Occurrence> Occurrences { get; init; } = [];

    /// <summary>Labour hours of a line of <see cref="Lines"/> in the first year; of a job without rhythms, its hours.</summary>
    public Val HoursInYear(int line) => Occurrences.IsEmpty ? Lines[line].Hours : (inYear ??= InYear())[line];

    /// <summary>What the first year has of an amount of a line that is the same each time.</summary>
    public Val InYear(int line, Val one) =>
        Occurrences.IsEmpty
            ? one
            : Figures.Sum.Of(
                Occurrences.Where(o => Array.BinarySearch(o.LineAt, line) >= 0).Select(o => o.InYear(one))
            );

    private Val[]? inYear;

    private Val[] InYear()
    {
        var all = new Val[Lines.Length];
        foreach (var of in Occurrences)
            for (var i = 0; i < of.LineAt.Length; i++)
            {
                var hours = of.InYear(of.Reckoned.Lines[i].Hours);
                all[of.LineAt[i]] = all[of.LineAt[i]].V == 0 ? hours : all[of.LineAt[i]] + hours;
            }
        return all;
    }

    /// <summary>What comes once for a work item each time it is done; of an event, as its first band has it.</summary>
    public IEnumerable<(CompiledItem Item, CompiledItem.Part Part, Val Amount)> EachTime =>
        Occurrences.IsEmpty
            ? Costs.Once
            : Occurrences.DistinctBy(o => o.Rhythm?.Id).SelectMany(o => o.Reckoned.Costs.Once);

    /// <summary>The same for a job that differs in nothing that is reckoned with: its price, its proposal, what it is called.</summary>
    internal Reckoned For(Job job) =>
        new()
        {
            Job = job,
            Measures = Measures,
            Items = Items,
            Lines = Lines,
            Grid = Grid,
            Costs = Costs,
            Occurrences = Occurrences.IsEmpty
                ? Occurrences
                :
                [
                    .. Occurrences.Select(
                        (o, n) => o with { Reckoned = o.Reckoned.For(Occurrence.JobOf(job, o.Rhythm, o.Band, n == 0)) }
                    ),
                ],
            itemAt = itemAt,
            placeAt = placeAt,
        };

    /// <summary>A measure over places, counting each as often as it stands for.</summary>
    public Val Sum(Measure measure, IEnumerable<Place> places, Trace trace)
    {
        var sum = new Sum();
        foreach (var place in places)
        {
            var measures = Measures[place.Id];
            if (!measures.Has(measure))
                continue;
            sum.Add(
                place.Count == 1
                    ? measures[measure]
                    : measures[measure] * trace.Typed(place.Count, "", "equal places", null, "places", place.Id)
            );
        }
        return sum.Total;
    }

    /// <summary>Whether it stands for another job as it is.</summary>
    internal bool Serves(Job job) =>
        job.Places == Job.Places
        && job.Work == Job.Work
        && ReferenceEquals(job.Cells, Job.Cells)
        && ReferenceEquals(job.Book, Job.Book)
        && job.Crew == Job.Crew
        && job.Conditions == Job.Conditions
        && ReferenceEquals(job.Pace, Job.Pace)
        && job.Rhythms == Job.Rhythms
        && job.Quotes == Job.Quotes
        && (Occurrences.IsEmpty || (job.Round, job.Info.Currency) == (Job.Round, Job.Info.Currency))
        && (job.Units, job.Deduct) == (Job.Units, Job.Deduct);

    private Dictionary<Guid, int>? itemAt,
        placeAt;

    /// <summary>The line of an included or alternate cell, or null.</summary>
    public Line? At(CellKey key) => Position(key) is { } at ? Grid[at] : null;

    /// <summary>Where a cell stands in <see cref="Grid"/>; null when the job has no such work or place.</summary>
    public int? Position(CellKey key)
    {
        itemAt ??= Positions(Items.Length, i => Items[i].Item.Id);
        placeAt ??= Positions(Job.Places.Length, i => Job.Places[i].Id);
        return itemAt.TryGetValue(key.Work, out var item) && placeAt.TryGetValue(key.Place, out var place)
            ? item * Job.Places.Length + place
            : null;
    }

    private static Dictionary<Guid, int> Positions(int count, Func<int, Guid> id)
    {
        var positions = new Dictionary<Guid, int>(count);
        for (var i = 0; i < count; i++)
            positions.Add(id(i), i);
        return positions;
    }
}
