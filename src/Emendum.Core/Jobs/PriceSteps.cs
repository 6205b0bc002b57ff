using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>By what a job's size is told.</summary>
public enum BracketBy
{
    /// <summary>The price as it is built.</summary>
    Price,

    /// <summary>Labour hours.</summary>
    Hours,

    /// <summary>A measure of all places where something is done.</summary>
    Quantity,
}

/// <summary>From a size on, inclusive, so many percent on the whole built price; below zero it is less.</summary>
public sealed record BracketRow(decimal From, decimal Percent);

/// <summary>One percent on the whole built price by how large the job is.</summary>
/// <param name="By">By what its size is told.</param>
/// <param name="Rows">From small to large; below the first nothing is added.</param>
/// <param name="NeverMoreThanNext">Never more than at the lower edge of the next row, at the same built price per measure.</param>
public sealed record Brackets(BracketBy By, ImmutableArray<BracketRow> Rows, bool NeverMoreThanNext)
{
    /// <summary>The measure, where it is by quantity.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Measure? Measure { get; init; }

    /// <summary>The unit that the edges are in, where it is by quantity.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Unit? Unit { get; init; }

    internal void Check()
    {
        static RefusedException Wrong(string message) => RefusedException.Of("brackets", message);
        if (Rows.IsEmpty)
            throw Wrong("Brackets need a row: from which size, and how many percent.");
        PricingTerms.AtMost(Rows.Length, "brackets", "rows of brackets");
        for (var i = 0; i < Rows.Length; i++)
        {
            if (Rows[i].From < 0 || (i > 0 && Rows[i].From <= Rows[i - 1].From))
                throw Wrong("Brackets go from small to large, from zero on.");
            if (Rows[i].Percent is <= -100 or >= 1000)
                throw Wrong("A bracket is over −100 to under 1000 percent.");
        }
        if (By == BracketBy.Quantity && Measure is null)
            throw Wrong("Say which measure tells how large the job is.");
        if (By == BracketBy.Quantity && Unit?.Kind != Measure!.Value.Kind())
            throw Wrong($"{Measure.Value.Name()} is not counted in {Unit?.Symbol ?? "no unit"}.");
    }
}

/// <summary>Something taken off the price, with its reason.</summary>
/// <param name="Reason">Why, as the customer reads it.</param>
/// <param name="Percent">Of what is left; or</param>
/// <param name="Amount">money.</param>
public sealed record Discount(string Reason, decimal? Percent, decimal? Amount)
{
    internal void Check(bool raised)
    {
        if (string.IsNullOrWhiteSpace(Reason) || Reason.Length > 200)
            throw RefusedException.Of("discounts", "A discount needs its reason, in at most 200 characters.");
        if (Percent is null == Amount is null)
            throw RefusedException.Of("discounts", $"{Reason}: a discount is a percent or an amount of money.");
        if (Percent is < 0 or > 100 || (raised && Percent == 100))
            throw RefusedException.Of(
                "discounts",
                $"{Reason}: a discount is 0 to {(raised ? "under " : "")}100 percent."
            );
        if (Amount is < 0)
            throw RefusedException.Of("discounts", $"{Reason}: a discount is not below zero.");
    }
}

/// <summary>A cost that is a percent of the price: a commission, a bond, the fee of a card.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Percent">Percent.</param>
/// <param name="OnTotal">Of what the customer pays, tax and all; otherwise of the price before tax.</param>
public sealed record Fee(string Name, decimal Percent, bool OnTotal)
{
    internal void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 120)
            throw RefusedException.Of("fees", "A fee has a name of at most 120 characters.");
        if (Percent is < 0 or >= 90)
            throw RefusedException.Of("fees", $"{Name}: a fee is 0 to under 90 percent.");
    }
}

/// <summary>How the price is rounded.</summary>
/// <param name="To">To a multiple of this: 1, 5, 10.</param>
/// <param name="Up">Up; otherwise to the nearest, half away from zero.</param>
/// <param name="AfterTax">What the customer pays is rounded, by an untaxed amount of its own; otherwise the price before tax.</param>
public sealed record PriceRounding(decimal To, bool Up, bool AfterTax)
{
    internal void Check()
    {
        if (To is <= 0 or > 100_000)
            throw RefusedException.Of("rounding", "A price is rounded to more than 0 and at most 100,000.");
    }
}

/// <summary>A part of the price and when it is paid: a percent of the price, a sum of money, or (neither) what the others leave, in equal parts.</summary>
/// <param name="When">When, as the customer reads it: <c>on acceptance</c>.</param>
/// <param name="Percent">Percent of the price before tax; or</param>
/// <param name="Amount">money, as the customer pays it; or neither.</param>
/// <param name="BeforeTax">Whether the money is before tax.</param>
public sealed record PaymentStep(string When, decimal? Percent, decimal? Amount, bool BeforeTax)
{
    /// <summary>Refuses steps that do not come to the whole price.</summary>
    internal static void Check(ImmutableArray<PaymentStep> steps)
    {
        static RefusedException Wrong(string message) => RefusedException.Of("payment", message);
        PricingTerms.AtMost(steps.Length, "payment", "payment steps");
        foreach (var step in steps)
        {
            if (string.IsNullOrWhiteSpace(step.When) || step.When.Length > 200)
                throw Wrong("Say when a step is paid, in at most 200 characters.");
            if (step is { Percent: not null, Amount: not null })
                throw Wrong($"{step.When}: a step is a percent or a sum of money.");
            if (step.Percent is <= 0 or > 100)
                throw Wrong($"{step.When}: a step is more than 0 and at most 100 percent.");
            if (step.Amount is <= 0)
                throw Wrong($"{step.When}: a step is more than nothing.");
        }
        if (steps.IsEmpty)
            return;
        var percent = steps.Sum(s => s.Percent ?? 0);
        var left = steps.Any(s => s is { Percent: null, Amount: null });
        if (percent > 100)
            throw Wrong($"The steps come to {Rounding.Text(percent)} %, which is more than the price.");
        if (left ? percent == 100 : percent != 100 || steps.Any(s => s.Amount is not null))
            throw Wrong(
                left ? "The percents come to 100: nothing is left for the step without one."
                : steps.Any(s => s.Amount is not null)
                    ? "One step has neither percent nor money: it takes what the others leave."
                : $"The steps come to {Rounding.Text(percent)} %. Leave one without a percent: it takes what the others leave."
            );
    }
}
