using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Choices of product or tier, in order.</summary>
internal sealed class ChoicesPart() : ThingsPart<Choice>("choices")
{
    /// <summary>Most of them in a job, and most options of all of them.</summary>
    private const int Most = 200,
        MostOptions = 10_000;

    /// <inheritdoc/>
    protected override ImmutableArray<Choice> Of(Job job) => job.Choices;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<Choice> things) => job with { Choices = things };

    /// <inheritdoc/>
    protected override Guid IdOf(Choice thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(Choice thing) => thing.Rank;

    /// <inheritdoc/>
    public override bool Settable(string field) =>
        field is "name" or "options" or "included" or "places" or "follows" or "locked" or "hidden" or "supplierShown";

    private const string TakenField = "/taken";

    /// <summary>What is taken is set by itself: a choice of a supplier's whole table is not written and read anew for it.</summary>
    public override Job Set(Job job, string at, JsonNode? value)
    {
        if (
            !at.EndsWith(TakenField, StringComparison.Ordinal)
            || job.Choices.FirstOrDefault(c => at.StartsWith(c.Id.ToString(), StringComparison.Ordinal))
                is not { } choice
            || value?.GetValue<string>() is not { } text
            || !Guid.TryParse(text, out var taken)
        )
            return base.Set(job, at, value);
        return job with { Choices = job.Choices.Replace(choice, choice with { Taken = taken }) };
    }

    /// <inheritdoc/>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        if (!changes.All(c => c.Path.EndsWith(TakenField, StringComparison.Ordinal)))
        {
            Check(job);
            return;
        }
        foreach (var (_, choice) in Touched(job, changes))
            if (choice is not null && choice.Option(choice.Taken) is null)
                throw RefusedException.Of("taken", "That option is not in this choice any more.");
        CheckTogether(job);
    }

    private static void CheckTogether(Job job)
    {
        if (Choosing.Conflicts(job).FirstOrDefault() is { } conflict)
            throw RefusedException.Of("taken", conflict);
    }

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "choice");
        if (job.Choices.Length > Most || job.Choices.Sum(c => c.Options.Length) > MostOptions)
            throw RefusedException.Of("choices", $"A job has at most {Most} choices between {MostOptions:N0} options.");
        foreach (var choice in job.Choices)
        {
            choice.Check();
            CheckWork(job, choice);
            CheckFollows(job, choice);
        }
        OnceNamed(job, of => of.Name, "a choice");
        CheckApart(job);
        CheckTogether(job);
    }

    private static void CheckWork(Job job, Choice choice)
    {
        if (job.Item(choice.Work) is null)
            throw RefusedException.Of("work", "That work is not in this job any more.");
        var goods = Choosing.GoodsOf(job, choice);
        foreach (var option in choice.Options)
        {
            if (option.Product is not { } id)
                continue;
            if (job.Book.GetValueOrDefault(id) is not Material product)
                throw RefusedException.Of("options", $"The goods of {option.Name} are not in this job's Book.");
            if (goods is null || product.Unit.Kind != goods.Unit.Kind)
                throw RefusedException.Of(
                    "options",
                    goods is null
                        ? "That work takes no goods that could be chosen."
                        : $"{product.Name} is bought by the {product.Unit}, {goods.Name} by the {goods.Unit}: it cannot take its place."
                );
        }
    }

    private static void CheckFollows(Job job, Choice choice)
    {
        var seen = new HashSet<Guid> { choice.Id };
        for (var at = choice; at.Follows is { } follows; )
        {
            at =
                job.Choices.FirstOrDefault(c => c.Id == follows)
                ?? throw RefusedException.Of("follows", "It follows a choice that is not in this job any more.");
            if (!seen.Add(at.Id))
                throw RefusedException.Of("follows", $"{choice.Name} would follow itself.");
        }
    }

    /// <summary>Two choices do not decide the same of the same work.</summary>
    private static void CheckApart(Job job)
    {
        foreach (var of in job.Choices.GroupBy(c => c.Work).Where(g => g.Count() > 1))
        {
            var all = of.Select(c => (Choice: c, Fields: Choosing.Fields(job, c))).ToArray();
            for (var i = 0; i < all.Length; i++)
            for (var j = i + 1; j < all.Length; j++)
                if (
                    all[i].Fields.Intersect(all[j].Fields).Any()
                    && (
                        all[i].Choice.Places.IsEmpty
                        || all[j].Choice.Places.IsEmpty
                        || all[i].Choice.Places.Intersect(all[j].Choice.Places).Any()
                    )
                )
                    throw RefusedException.Of(
                        "work",
                        $"{all[i].Choice.Name} and {all[j].Choice.Name} would decide the same of {job.Item(of.Key)?.Name}."
                    );
        }
    }
}
