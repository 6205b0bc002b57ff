using System.Collections.Immutable;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>The parts of a job, in the order in which they are checked: what others name comes before them.</summary>
internal static class JobParts
{
    /// <summary>All of them. A new part is its file and its line here.</summary>
    private static readonly ImmutableArray<JobPart> All =
    [
        new InfoPart(),
        new UnitsPart(),
        new DeductPart(),
        new BookPart(),
        new CrewPart(),
        new PricingPart(),
        new PolicyPart(),
        new ConditionsPart(),
        new PacePart(),
        new SurenessPart(),
        new SetAsidePart(),
        new ProposalPart(),
        new BlocksPart(),
        new PlacesPart(),
        new SectionsPart(),
        new RoundPart(),
        new RhythmsPart(),
        new WorkPart(),
        new AlternatesPart(),
        new QuotesPart(),
        new SchedulePart(),
        new CellsPart(),
        new ChoicesPart(),
        new TasksPart(),
        new VariantsPart(),
        new DiffersPart(),
    ];

    private static readonly Dictionary<string, JobPart> ByName = All.ToDictionary(p => p.Name);

    /// <summary>The part that a path is in, and the path within it.</summary>
    /// <exception cref="RefusedException">There is no such part.</exception>
    public static (JobPart Part, string At) Of(string path)
    {
        var cut = path.IndexOf('/');
        var name = cut < 0 ? path : path[..cut];
        return ByName.TryGetValue(name, out var part)
            ? (part, cut < 0 ? "" : path[(cut + 1)..])
            : throw RefusedException.Of("path", $"There is nothing at {path} in a job.");
    }

    /// <summary>Checks a whole job.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public static void Check(Job job)
    {
        foreach (var part in All)
            part.Check(job);
    }

    /// <summary>Checks a job as one of its variants has it: all but the variants themselves.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public static void CheckVariant(Job job)
    {
        foreach (var part in All)
            if (part is not (VariantsPart or DiffersPart))
                part.Check(job);
    }

    /// <summary>Checks what a change set touched, in the changed job. <paramref name="cellsAreSound"/> where its cells need not be looked at again.</summary>
    /// <exception cref="RefusedException">The changed job would contradict itself.</exception>
    public static void CheckTouched(Job job, ImmutableArray<Change> changes, bool cellsAreSound)
    {
        var touched = new Dictionary<JobPart, List<Change>>();
        foreach (var change in changes)
        {
            if (cellsAreSound && change.After is not null && ChangeSet.CellOf(change.Path) is not null)
                continue;
            var part = Of(change.Path).Part;
            if (!touched.TryGetValue(part, out var list))
                touched.Add(part, list = []);
            list.Add(change);
        }
        foreach (var part in All)
            if (touched.TryGetValue(part, out var of))
                part.CheckTouched(job, of);
    }
}
