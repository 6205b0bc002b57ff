using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;

namespace Emendum.Core.Delivery;

/// <summary>What the visits of one rhythm were agreed at.</summary>
/// <param name="Id">The rhythm; of an event its band.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Price">Of one visit, before tax, by the contract's tax categories.</param>
/// <param name="ByMonth">How often it comes in each of the twelve months, as it was agreed.</param>
public sealed record AgreedVisits(Guid Id, string Name, ByCategory Price, ImmutableArray<int> ByMonth)
{
    /// <summary>How often it was agreed; of an event, how often it is expected.</summary>
    [JsonIgnore]
    public int Times => ByMonth.Sum();

    /// <summary>Whether it is an event, of which nobody knows the days.</summary>
    public bool IsEvent { get; init; }

    /// <summary>How often an event is billed at the most; null for as often as it comes.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? Cap { get; init; }
}

/// <summary>The contract year of a round as it was agreed in money (M30).</summary>
/// <param name="First">The first day of its first month.</param>
/// <param name="Billing">When it is billed.</param>
/// <param name="Visits">What visits were agreed at.</param>
/// <param name="Months">What each of the twelve months bills as it was agreed, before tax; what is done once falls into the first.</param>
public sealed record AgreedRound(
    DateOnly First,
    RoundBilling Billing,
    ImmutableArray<AgreedVisits> Visits,
    ImmutableArray<decimal> Months
)
{
    /// <summary>Months of a contract year.</summary>
    public const int MonthCount = 12;

    /// <summary>The contract of a round with its year.</summary>
    /// <param name="contract">The contract, without it.</param>
    /// <param name="agreed">The estimate that was agreed.</param>
    public static AgreedContract With(AgreedContract contract, Estimate agreed)
    {
        if (Year.Of(agreed, Trace.Silent) is not { } year)
            return contract;
        var visits = ImmutableArray.CreateBuilder<AgreedVisits>();
        foreach (var one in year.Occurrences)
        {
            // A category that the year has nothing of, because all of it is done otherwise, is one of the contract all the same.
            var (categories, price) = contract.Placed(
                [.. AgreedContract.CategoriesOf(one.Of.Estimate.Price).Select(c => c.Category)]
            );
            contract = contract with { Categories = categories };
            visits.Add(
                new(one.Of.Occurrence.Id, one.Of.Occurrence.Name, price, one.Visits)
                {
                    IsEvent = one.Of.Occurrence.Band is not null,
                    Cap = one.Of.Occurrence.Band?.Cap,
                }
            );
        }
        return contract with
        {
            Round = new(
                year.Months[0].From,
                agreed.Job.Round.Billing,
                visits.ToImmutable(),
                [.. year.Months.Select(m => m.Billed.V)]
            ),
        };
    }
}
