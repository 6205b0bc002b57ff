using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>A named set of the firm's terms. A job takes one with a copy of it, and what it bends shows beside that copy.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Terms">The terms; what is of one job alone (<see cref="OfTheJob"/>) is not taken over.</param>
public sealed record PricePolicy(Guid Id, string Name, PricingTerms Terms)
{
    /// <summary>Terms that belong to one job and not to a policy, as files name them.</summary>
    public static readonly ImmutableArray<string> OfTheJob =
    [
        "fixedPrice",
        "discounts",
        "adjustment",
        "adjustmentReason",
        "typed",
        "exemption",
    ];

    /// <summary>The terms of a job that takes this policy.</summary>
    public PricingTerms Onto(PricingTerms job) =>
        Terms with
        {
            FixedPrice = job.FixedPrice,
            Discounts = job.Discounts,
            Adjustment = job.Adjustment,
            AdjustmentReason = job.AdjustmentReason,
            Exemption = job.Exemption,
            Typed = null,
        };

    /// <summary>Fields in which a job's terms are not its policy's, with what the policy says, as files have them.</summary>
    public ImmutableSortedDictionary<string, JsonNode?> Bent(PricingTerms job)
    {
        static JsonObject Node(PricingTerms terms) =>
            JsonSerializer.SerializeToNode(terms, CoreJson.Options)!.AsObject();
        var (own, theirs) = (Node(job), Node(Terms));
        return own.Select(f => f.Key)
            .Concat(theirs.Select(f => f.Key))
            .Distinct()
            .Where(f => !OfTheJob.Contains(f) && !JsonNode.DeepEquals(own[f], theirs[f]))
            .ToImmutableSortedDictionary(f => f, f => theirs[f]?.DeepClone(), StringComparer.Ordinal);
    }

    /// <summary>Refuses what no policy is.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 120)
            throw RefusedException.Of("name", "A price policy has a name of at most 120 characters.");
        Terms.Check();
    }
}

/// <summary>The firm's price policies, and which of them new jobs take.</summary>
public sealed record PricePolicies(ImmutableArray<PricePolicy> All, Guid Usual)
{
    /// <summary>Name of the firm's setting.</summary>
    public const string Setting = "pricePolicies";

    /// <summary>What a firm starts with.</summary>
    public static readonly PricePolicies Starting = new(
        [new(Quantities.DerivedId.Of("policy/first"), "Usual work", PricingTerms.Starting)],
        Quantities.DerivedId.Of("policy/first")
    );

    /// <summary>What new jobs take.</summary>
    public PricePolicy OfNewJobs() => All.First(p => p.Id == Usual);

    /// <summary>Refuses what cannot be kept.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        NamedOnes.Check(All, Usual, p => p.Id, p => p.Name, "price policy", "price policies", "policy");
        foreach (var policy in All)
            policy.Check();
    }
}
