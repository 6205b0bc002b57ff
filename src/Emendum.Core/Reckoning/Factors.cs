using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>What difficulty and conditions make of an amount: factors that multiply, each with its name (estimating model §6).</summary>
internal static class Factors
{
    /// <summary>The conditions on a line: of the job, the place, the band it works, the item, the cell.</summary>
    public static ImmutableArray<Condition> On(Line line, Job job)
    {
        var (place, cell) = (line.Measures.Place, line.Cell);
        if (job.Conditions.IsEmpty && place.Conditions.IsEmpty && cell.Conditions.IsEmpty)
            return line.Item.Conditions;
        var all = ImmutableArray.CreateBuilder<Condition>();
        void Add(Guid id)
        {
            // The same condition on two levels counts once.
            if (job.Book.GetValueOrDefault(id) is Condition condition && !all.Contains(condition))
                all.Add(condition);
        }
        foreach (var id in job.Conditions)
            Add(id);
        foreach (var at in place.Conditions)
            if (at.Band.Length == 0 || at.Band == cell.Source)
                Add(at.Condition);
        foreach (var condition in line.Item.Conditions)
            Add(condition.Id);
        foreach (var id in cell.Conditions)
            Add(id);
        return all.ToImmutable();
    }

    /// <summary>The amount rounded up to a step of the Book.</summary>
    public static Val Stepped(Val amount, decimal step, Guid source, Trace trace)
    {
        var by = trace.Book(step, "", "rounding step", source);
        return (amount / by).Ceil() * by;
    }

    /// <summary>Labour with what has built up since the last time, and with how far an event goes.</summary>
    private static Val BuiltUp(CompiledItem item, Val amount, Job job, Trace trace)
    {
        if (RhythmTimes.Of(job, item.Item) is not { } rhythm)
            return amount;
        if (rhythm.Kind == RhythmKind.Event)
            return job.Band is { Factor: not 1 } band
                ? amount * trace.Typed(band.Factor, "", band.Name, null, "rhythms", rhythm.Id)
                : amount;
        return item.Entry.BuiltUp(RhythmTimes.AYear(job, rhythm)) is { Factor: not 1 } built
            ? amount * trace.Book(built.Factor, "", $"build-up, {rhythm.Name}", item.Entry.Id)
            : amount;
    }

    /// <summary>What difficulty, conditions, pace and what has built up make of the labour of a line together; 1 where nothing does.</summary>
    public static decimal OfLabour(Line line, CompiledItem.Part labour, Job job) =>
        Apply(line.Item, labour, 1m, On(line, job), job, Trace.Silent).V;

    /// <summary>The amount with difficulty, where it scales the part, and conditions of its class.</summary>
    public static Val Apply(
        CompiledItem item,
        CompiledItem.Part part,
        Val amount,
        ImmutableArray<Condition> conditions,
        Job job,
        Trace trace
    )
    {
        if (part.Scales && item.Level is { Factor: not 1 } level)
            amount *= trace.Book(level.Factor, "", level.Name, item.Entry.Id);
        if (part.Kind.IsLabour && job.Pace is { Factor: not 1 } pace)
            amount *= trace.Typed(pace.Factor, "", pace.Reason, null, "pace", job.Id);
        if (part.Kind.IsLabour)
            amount = BuiltUp(item, amount, job, trace);
        if (conditions.IsEmpty)
            return amount;
        foreach (var condition in conditions)
        {
            var factor = part.Kind.Factor(condition);
            if (factor != 1)
                amount *= trace.Book(factor, "", condition.Name, condition.Id);
        }
        return amount;
    }
}
