using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Work items: by the order of their sections, then their own.</summary>
internal sealed class WorkPart() : ThingsPart<WorkItem>("work")
{
    /// <summary>Most pieces of work that one waits for.</summary>
    private const int MostWaits = 1000;

    /// <inheritdoc/>
    protected override ImmutableArray<WorkItem> Of(Job job) => job.Work;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<WorkItem> things) => job with { Work = things };

    /// <inheritdoc/>
    protected override WorkItem? Find(Job job, Guid id) => job.Item(id);

    /// <inheritdoc/>
    protected override Guid IdOf(WorkItem thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(WorkItem thing) => thing.Rank;

    /// <inheritdoc/>
    protected override int Compare(Job job, WorkItem a, WorkItem b)
    {
        var order = a.Section == b.Section ? 0 : job.PositionOf(a.Section).CompareTo(job.PositionOf(b.Section));
        return order == 0 ? base.Compare(job, a, b) : order;
    }

    /// <summary>The work of a job in its order.</summary>
    public static ImmutableArray<WorkItem> InOrder(Job job) =>
        [
            .. job
                .Work.OrderBy(w => job.PositionOf(w.Section))
                .ThenBy(w => w.Rank, StringComparer.Ordinal)
                .ThenBy(w => w.Id),
        ];

    /// <inheritdoc/>
    public override bool Settable(string field) =>
        field is not ("id" or "rank" or "entry" or "section") && HasField<WorkItem>(field);

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "work item");
        foreach (var item in job.Work)
            Check(item, job);
        WaitRules.Check(job.Work);
    }

    /// <inheritdoc/>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        JobRules.Size(job);
        foreach (var (id, item) in Touched(job, changes))
        {
            if (item is not null)
            {
                Check(item, job);
                CheckCells(item, job);
            }
            else if (job.Places.Any(p => job.Cells.ContainsKey(new(id, p.Id))))
                throw RefusedException.Of("", "Somebody has since put work there, so it cannot be taken away.");
        }
        var first = Touched(job, changes).FirstOrDefault(t => t.Thing is not null).Thing;
        WaitRules.Check(job.Work, first?.Id);
    }

    /// <summary>What places say otherwise of a work item must still be possible beside what it says itself: a job that could not be read again would be kept otherwise.</summary>
    private static void CheckCells(WorkItem item, Job job)
    {
        foreach (var place in job.Places)
        {
            var key = new CellKey(item.Id, place.Id);
            if (!job.Cells.TryGetValue(key, out var cell) || !cell.Differs)
                continue;
            if (item.Labour is not null && cell.Labour is not null)
                throw RefusedException.Of(
                    "labour",
                    $"{place.Name} has hours of its own for {item.Name}: empty those first."
                );
            try
            {
                CellsPart.Check(job, key, cell);
            }
            catch (RefusedException refused)
            {
                throw RefusedException.Of(refused.Refusal.Field, $"At {place.Name}: {refused.Message}");
            }
        }
    }

    /// <summary>Checks a work item against the entries it uses.</summary>
    public static void Check(WorkItem item, Job job)
    {
        if (string.IsNullOrWhiteSpace(item.Name))
            throw RefusedException.Of("name", "Give the work a name.");
        if (job.Section(item.Section) is null)
            throw RefusedException.Of("section", $"{item.Name} stands under a section that is not in this job.");
        if (item.Name.Length > 120 || item.Colour.Length > 120)
            throw RefusedException.Of("name", "A name or colour is at most 120 characters.");
        if (item.Wording.Length > 2000)
            throw RefusedException.Of("wording", "The wording is at most 2,000 characters.");
        if (item.Product is { } id)
        {
            if (job.Book.GetValueOrDefault(id) is not Material product)
                throw RefusedException.Of("product", "That product is not in this job's Book.");
            if (
                job.Book.GetValueOrDefault(item.Entry) is ProductionRate of
                && (
                    product.Coverage is null
                    || (
                        product.Coverage.UnitA.Kind != of.Measure.Kind()
                        && product.Coverage.UnitB.Kind != of.Measure.Kind()
                    )
                )
            )
                throw RefusedException.Of(
                    "product",
                    $"{product.Name} does not cover a {of.Measure.Kind().ToString().ToLowerInvariant()}."
                );
        }
        if (item.Pace is { } pace && job.Book.GetValueOrDefault(item.Entry) is ProductionRate rate)
        {
            var kind = rate.Measure.Kind();
            if ((pace.UnitA.Kind != kind && pace.UnitB.Kind != kind) || pace.Turn(kind).To.Kind != Kind.Time)
                throw RefusedException.Of(
                    "pace",
                    $"{rate.Name} is measured against {rate.Measure.Label(job.Units).ToLowerInvariant()}: write its pace like {rate.Paces[0].Pace}."
                );
        }
        var entry = job.Book.GetValueOrDefault(item.Entry) as WorkEntry;
        if (item.Role is { } role && job.Book.GetValueOrDefault(role) is not LabourRole)
            throw RefusedException.Of("role", "That role is not in this job's Book.");
        if (item.CountedIn is { } unit && entry is not null && unit.Kind != entry.Measure.Kind())
            throw RefusedException.Of(
                "countedIn",
                $"{entry.Name} is measured against {BookCheck.Words(entry.Measure.Kind())}, not counted in {unit}."
            );
        foreach (var swap in item.Roles ?? [])
        {
            if (job.Book.GetValueOrDefault(swap.Instead) is not LabourRole)
                throw RefusedException.Of("roles", "That role is not in this job's Book.");
            if (
                (entry as Assembly)?.Components.Any(c => c.Entry == swap.Role && c.Kind == ComponentKind.Labour) != true
            )
                throw RefusedException.Of("roles", $"No labour of {item.Name} is of that role.");
        }
        if ((item.Roles ?? []).DistinctBy(r => r.Role).Count() != (item.Roles ?? []).Length)
            throw RefusedException.Of("roles", "A role is replaced twice.");
        CheckProducts(job, entry, item.Products ?? [], item.Name);
        if (item.Surface is { } surface && job.Book.GetValueOrDefault(surface) is not SurfaceFactor)
            throw RefusedException.Of("surface", "That surface is not in this job's Book.");
        if (item.Difficulty.Length > 0 && entry?.Levels.Any(l => l.Name == item.Difficulty) == false)
            throw RefusedException.Of("difficulty", $"{entry.Name} has no difficulty “{item.Difficulty}”.");
        if (item.Coats is < 1 or > 20)
            throw RefusedException.Of("coats", "Coats are 1 to 20.");
        if (item.Step is <= 0 or > 1000)
            throw RefusedException.Of("step", "A rounding step is more than 0 and at most 1,000 hours.");
        if (item.DryingHours is < 0 or > 10_000)
            throw RefusedException.Of("dryingHours", "Drying is 0 to 10,000 hours.");
        if (item.Allowance is < 0)
            throw RefusedException.Of("allowance", "A sum is not below zero.");
        PricingTerms.NotBelowZero(item.Least ?? 0, "least", "A least charge");
        item.Doubt?.Check("doubt");
        if (item.Rhythm is { } rhythm && rhythm != Rhythm.Once && job.Rhythm(rhythm) is null)
            throw RefusedException.Of("rhythm", "That rhythm is not in this job any more.");
        if (entry is not null && item.UnitPrice?.Wrong(entry.Measure) is var (_, wrong))
            throw RefusedException.Of("unitPrice", char.ToUpperInvariant(wrong[0]) + wrong[1..]);
        if (item.CrewNote?.Length > 2000)
            throw RefusedException.Of("crewNote", "At most 2,000 characters.");
        if (item.CustomerNote?.Length > 2000)
            throw RefusedException.Of("customerNote", "At most 2,000 characters.");
        if (item.HazardAnswer.Length > 500)
            throw RefusedException.Of("hazardAnswer", "At most 500 characters.");
        if (item.Picks.Length > Assembly.MostComponents || item.WaitsFor.Length > MostWaits)
            throw RefusedException.Of("picks", "Too many are chosen.");
        if (item.Labour is { } labour)
            _ = CrewTime.Read(labour, "labour");
        ConditionsPart.Check(job, item.Conditions);
        CheckAnswers(entry, item.Answers);
        CompiledItem.Of(item, job.Book);
    }

    /// <summary>Checks goods that are taken instead of those of an assembly's parts.</summary>
    public static void CheckProducts(Job job, WorkEntry? entry, ImmutableArray<ProductInstead> products, string name)
    {
        foreach (var swap in products)
        {
            if (job.Book.GetValueOrDefault(swap.Instead) is not Material instead)
                throw RefusedException.Of("products", "That product is not in this job's Book.");
            if (
                (entry as Assembly)?.Components.Any(c => c.Entry == swap.Product && c.Kind == ComponentKind.Material)
                    != true
                || job.Book.GetValueOrDefault(swap.Product) is not Material of
            )
                throw RefusedException.Of("products", $"{name} has no such goods.");
            if (instead.Unit.Kind != of.Unit.Kind)
                throw RefusedException.Of(
                    "products",
                    $"{instead.Name} is bought by the {instead.Unit}, {of.Name} by the {of.Unit}: it cannot take its place."
                );
        }
        if (products.DistinctBy(p => p.Product).Count() != products.Length)
            throw RefusedException.Of("products", "Goods are replaced twice.");
    }

    /// <summary>Checks answers to the questions of an entry.</summary>
    public static void CheckAnswers(WorkEntry? entry, ImmutableArray<Answer> answers)
    {
        foreach (var answer in answers)
        {
            if ((entry as Assembly)?.Questions.FirstOrDefault(q => q.Id == answer.Question) is not { } question)
                throw RefusedException.Of("answers", "That question is not asked here.");
            if (answer.Unit is { } unit && unit.Kind != question.Unit.Kind)
                throw RefusedException.Of(
                    "answers",
                    $"“{question.Text}” asks for {BookCheck.Words(question.Unit.Kind)}, not for {unit}."
                );
            if (answer.Value < 0)
                throw RefusedException.Of("answers", "An answer is not below zero.");
        }
        if (answers.Select(a => a.Question).Distinct().Count() != answers.Length)
            throw RefusedException.Of("answers", "A question is answered twice.");
    }
}
