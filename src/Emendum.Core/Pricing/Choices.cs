using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Pricing;

/// <summary>An option with what it adds to the price before tax, or below zero takes off, against the one that is included.</summary>
/// <param name="Option">It.</param>
/// <param name="Price">Money; null where it cannot be priced.</param>
/// <param name="Refused">Why not, or empty.</param>
public sealed record PricedOption(ChoiceOption Option, Total? Price, string Refused);

/// <summary>
/// What choices come to (estimating model §8). A printed difference is that option alone, with what follows it, against the one that is included, all other choices as they are included; before tax and before the job's rounding. What is
/// taken need not sum to the price: the rest is said.
/// </summary>
public sealed class Choices
{
    private readonly Estimate estimate;
    private readonly Trace trace;
    private readonly Estimate included;

    private Choices(Estimate estimate, Trace trace, Estimate included) =>
        (this.estimate, this.trace, this.included) = (estimate, trace, included);

    /// <summary>Start of the paths of an option's figures.</summary>
    public static string Within(Guid option) => $"choices/{option}/";

    /// <summary>The choices of an estimate; made with <paramref name="trace"/> where that records.</summary>
    /// <exception cref="RefusedException">The job cannot be priced as it is included.</exception>
    public static Choices Of(Estimate estimate, Trace trace)
    {
        var job = Choosing.Just(
            estimate.Job,
            estimate.Job.Choices.Where(c => c.Taken != c.Included).Select(c => (c, c.Option(c.Included)!))
        );
        job = job with { Pricing = Alternates.WithoutWhole(job.Pricing) };
        return new(estimate, trace, trace.On ? Estimate.Of(job, trace.Within("choices/included/")) : estimate.If(job));
    }

    /// <summary>The price before tax and rounding with every choice as it is included.</summary>
    public Total Included => included.Price.BeforeTax;

    /// <summary>What an option adds.</summary>
    public PricedOption Price(Choice choice, ChoiceOption option)
    {
        var within = trace.Under(Within(option.Id));
        try
        {
            var job = Choosing.In(included.Job, [(choice, option)]);
            var with = trace.On ? Estimate.Of(job, trace.Within(Within(option.Id) + "with/")) : included.If(job);
            return new(
                option,
                within.Total(
                    with.Price.BeforeTax - included.Price.BeforeTax,
                    "",
                    $"{choice.Name}: {option.Name}, against what is included",
                    new("choice", "price")
                ),
                ""
            );
        }
        catch (RefusedException refused)
        {
            return new(option, null, refused.Refusal.Message);
        }
    }

    /// <summary>What is taken otherwise than it is included, with its difference; what follows another stands with that.</summary>
    public ImmutableArray<(Choice Choice, PricedOption Option)> Taken() =>
        [
            .. estimate
                .Job.Choices.Where(c => c.Taken != c.Included && !Followed(c))
                .Select(c => (c, Price(c, c.Option(c.Taken)!))),
        ];

    /// <summary>Whether what it has is what it takes with the choice it follows.</summary>
    private bool Followed(Choice choice) =>
        estimate.Job.Choices.FirstOrDefault(c => c.Id == choice.Follows) is { } of
        && of.Taken != of.Included
        && choice.Named(of.Option(of.Taken)!.Name)?.Id == choice.Taken;

    /// <summary>What is left between the price as it stands, before rounding, and the printed differences.</summary>
    public Total Together(IEnumerable<PricedOption> taken)
    {
        var now = trace.On
            ? Estimate.Of(
                estimate.Job with
                {
                    Pricing = Alternates.WithoutWhole(estimate.Job.Pricing),
                },
                trace.Within("choices/now/")
            )
            : Worth.Base(estimate);
        return trace.Total(
            now.Price.BeforeTax
                - included.Price.BeforeTax
                - Sum.Of(taken.Select(t => t.Price is { } price ? price.Value : 0m)),
            "",
            "Choices taken together",
            new("choices", "together")
        );
    }
}
