using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What holds of choices of any job under any terms: 300 of them here, 10,000 in ./run-long.</summary>
[Trait("Category", "Long")]
public class ChoicesPropertyTests
{
    private static readonly int Count = Properties.Times(300, 10_000);

    [Fact]
    public void A_printed_difference_is_what_taking_it_alone_moves_and_what_is_printed_adds_up_and_is_undone_to_the_byte()
    {
        var looked = 0;
        for (var seed = 7_000_000; seed < 7_000_000 + Count; seed++)
        {
            var random = new Random(seed);
            try
            {
                var job = Choosing(RandomPricing.Job(random), random);
                if (job.Choices.IsEmpty)
                    continue;
                Holds(seed, random, job);
                looked++;
            }
            catch (RefusedException)
            {
                // A job that cannot be priced as its terms say, or options that do not go together.
            }
        }
        Assert.InRange(looked, Count / 3, Count);
    }

    /// <summary>The job with up to four choices of goods, coats and colours, some of which rule out or follow others.</summary>
    internal static Job Choosing(Job job, Random random)
    {
        for (var n = random.Next(1, 5); n > 0; n--)
        {
            var work = job.Work[random.Next(job.Work.Length)];
            var goods = (job.Book[work.Entry] as Assembly)
                ?.Components.FirstOrDefault(c => c.Kind == ComponentKind.Material)
                ?.Entry;
            ChoiceOption[] options =
            [
                .. Enumerable
                    .Range(0, random.Next(2, 5))
                    .Select(i => new ChoiceOption(Sample.NewId(), $"Option {i}")
                    {
                        Price = goods is not null && i > 0 ? random.Next(1, 30_000) / 100m : null,
                        Colour = random.Next(3) == 0 ? $"colour {i}" : null,
                        RulesOut =
                            random.Next(4) == 0 && job.Choices.LastOrDefault() is { } last
                                ? [last.Options[random.Next(last.Options.Length)].Id]
                                : [],
                    }),
            ];
            try
            {
                job = job.Do(
                    new AddChoice(
                        new(Sample.NewId(), "", $"Choice {n}", work.Id, [.. options], options[0].Id, options[0].Id)
                        {
                            Of = goods,
                            Places = [.. job.Places.Select(p => p.Id).Where(_ => random.Next(3) == 0)],
                            Follows =
                                random.Next(4) == 0 && !job.Choices.IsEmpty
                                    ? job.Choices[random.Next(job.Choices.Length)].Id
                                    : null,
                        }
                    )
                );
            }
            catch (RefusedException)
            {
                // Two choices would decide the same, or what is included does not go together.
            }
        }
        return job;
    }

    private static (Job Job, ImmutableArray<Change> Changes) Take(Job job, Choice choice, Guid option) =>
        Commands.Apply(
            job,
            new TakeChoice([new(choice.Id, job.Choices.Single(c => c.Id == choice.Id).Taken, option)], null),
            _ => null
        );

    private static decimal BeforeRounding(Job job) => Worth.Base(Sample.Reckon(job)).Price.BeforeTax.V;

    private static void Holds(int seed, Random random, Job job)
    {
        void Same(decimal a, decimal b, string what) => Assert.True(a == b, $"{seed}, {what}: {a} and {b}");
        var choices = Choices.Of(Sample.Reckon(job), Trace.Silent);
        var start = BeforeRounding(job);
        Same(start, choices.Included.V, "as it is included");
        var taken = job;
        var all = new List<ImmutableArray<Change>>();
        foreach (var choice in job.Choices)
        {
            var option = choice.Options[random.Next(choice.Options.Length)];
            // Alone, by the command, against what is included.
            try
            {
                Same(
                    BeforeRounding(Take(job, choice, option.Id).Job) - start,
                    choices.Price(choice, option).Price!.V,
                    option.Name
                );
                var (next, changes) = Take(taken, choice, option.Id);
                (taken, _) = (next, changes);
                all.Add(changes);
            }
            catch (RefusedException)
            {
                // What does not go together changes nothing.
            }
        }
        var together = Choices.Of(Sample.Reckon(taken), Trace.Silent);
        var printed = together.Taken();
        Same(
            BeforeRounding(taken),
            together.Included.V
                + printed.Sum(t => t.Option.Price!.V)
                + together.Together(printed.Select(t => t.Option)).V,
            "together"
        );
        Same(start, together.Included.V, "as it is included, whatever is taken");
        Assert.Empty(Jobs.Choosing.Conflicts(taken));
        var back = all.AsEnumerable()
            .Reverse()
            .Aggregate(taken, (so, made) => ChangeSet.Apply(so, ChangeSet.Reversed(made)));
        Assert.Equal(JobFile.Write(job), JobFile.Write(back));
    }
}
