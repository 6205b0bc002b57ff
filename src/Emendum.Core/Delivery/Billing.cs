using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>How parts by work use up what was billed on account (M8).</summary>
public enum AccountUse
{
    /// <summary>What is left × this part ÷ the value that is not yet billed.</summary>
    InProportion,

    /// <summary>As much as the part bears.</summary>
    First,

    /// <summary>Only what the open sum no longer bears.</summary>
    Last,
}

/// <summary>A contract with what was billed of it: what the next part comes to.</summary>
/// <param name="Contract">The contract as it stands on the day of the next part.</param>
/// <param name="Use">How what is on account is used up.</param>
/// <param name="Retention">What is kept back.</param>
/// <param name="Parts">What was billed, in order, without what was credited whole.</param>
public sealed record Billing(Contract Contract, AccountUse Use, Retention Retention, ImmutableArray<Part> Parts)
{
    private ByCategory Of(Func<Part, ByCategory> of) =>
        Parts.Aggregate(ByCategory.Nothing(Contract.Categories.Length), (sum, part) => sum + of(part));

    private ByCategory Nothing => ByCategory.Nothing(Contract.Categories.Length);

    /// <summary>What was billed, before tax.</summary>
    public ByCategory Billed => Of(p => p.Net);

    /// <summary>The value of work that was billed.</summary>
    public ByCategory Worked => Of(p => p.Work);

    /// <summary>What was billed on account and is not used up.</summary>
    public ByCategory OnAccount => Of(p => p.OnAccount - p.Used);

    /// <summary>What is not billed yet; less than nothing in a category that was billed ahead.</summary>
    public ByCategory Open => Contract.Sum - Billed;

    /// <summary>All that was retained.</summary>
    public decimal Retained => Parts.Sum(p => p.Retained);

    /// <summary>By how much more was billed than the contract sum bears (M21); nothing where it was not.</summary>
    public decimal BilledAhead => Math.Max(-Open.Sum, 0);

    /// <summary>An amount that is not tied to work: a deposit, or a sum on account, before tax. It retains nothing, and counts from now on, not from its payment (M8, M10).</summary>
    public Part Account(decimal amount) => Made(Nothing, Open.Share(amount, Contract.Sum, Contract.Places), Nothing, 0);

    /// <summary>A step of the payment plan, before tax (M3). Where it is on account, it counts as value from the next step on (M10).</summary>
    /// <param name="amount">The step's signed amount.</param>
    /// <param name="onAccount">Whether it is not tied to work.</param>
    public Part Step(decimal amount, bool onAccount)
    {
        if (onAccount)
            return Account(amount);
        var work = Open.Share(amount, Contract.Sum, Contract.Places);
        return Made(work, Nothing, Nothing, Retains((Billed + work).Sum, work.Sum));
    }

    /// <summary>A step of the payment plan, or nothing, with changes that are billed with it (M6), in their own categories.</summary>
    /// <param name="amount">The step's signed amount; 0 for none.</param>
    /// <param name="changes">The changes, before tax.</param>
    public Part StepWith(decimal amount, ByCategory changes)
    {
        // The step is shared over what was open before the changes came.
        var work = (Open - changes).Share(amount, Contract.Sum, Contract.Places) + changes;
        return Made(work, Nothing, Nothing, Retains((Billed + work).Sum, work.Sum));
    }

    /// <summary>The last step: it closes on what is open, whatever has been added meanwhile (M6), and brings the rounding after tax (M2).</summary>
    public Part LastStep()
    {
        var work = Open;
        return Closing(Made(work, Nothing, Nothing, Retains((Billed + work).Sum, work.Sum)));
    }

    /// <summary>Work done to date: the part is that less what was billed of it before; less than nothing is a credit note (M7). What is on account is used up by it (M8, M9).</summary>
    /// <param name="value">Value to date.</param>
    /// <param name="last">Whether nothing comes after it.</param>
    public Part ToDate(ByCategory value, bool last = false)
    {
        var work = value - Worked;
        // What parts that stand have used of an amount on account that was credited since is billed with the next one (M20).
        var owed = new ByCategory([.. OnAccount.Amounts.Select(a => Math.Min(a, 0))]);
        var used = owed + OnAccount.Share(Uses(value.Sum, work.Sum), OnAccount, Contract.Places);
        var part = Made(work, Nothing, used, Retains(value.Sum, (work - used).Sum));
        return last ? Closing(part) : part;
    }

    /// <summary>What a percent of the contract sum as it is now comes to, as value to date (M7).</summary>
    /// <param name="percent">Done to date.</param>
    public ByCategory Percent(decimal percent) =>
        WorkDone.ToDate([new(Contract.Sum, percent)], Contract.Categories.Length, Contract.Places);

    private decimal Uses(decimal value, decimal part)
    {
        var left = OnAccount.Amounts.Sum(a => Math.Max(a, 0));
        if (part <= 0 || left <= 0)
            return 0;
        var open = Contract.Sum.Sum - Worked.Sum;
        var uses = Use switch
        {
            AccountUse.First => part,
            AccountUse.Last => left - (Contract.Sum.Sum - value),
            _ => open > 0 ? Rounding.Money(left * part / open, Contract.Places) : left,
        };
        return Math.Clamp(uses, 0, Math.Min(left, part));
    }

    /// <summary>What a part retains: what is to have been retained by now less what was, and no more than it bills (M10).</summary>
    private decimal Retains(decimal value, decimal bills) =>
        Math.Clamp(Retention.ToDate(value, Contract.Sum.Sum, Contract.Places) - Retained, 0, Math.Max(bills, 0));

    private Part Made(ByCategory work, ByCategory onAccount, ByCategory used, decimal retained) =>
        new(work, onAccount, used, retained, Contract.Tax(work + onAccount - used), 0);

    /// <summary>The last part, with what brings the sum of all totals to what was signed (M2).</summary>
    private Part Closing(Part part) =>
        Contract.RoundsAfterTax ? part with { Rounding = Contract.Total - Parts.Sum(p => p.Total) - part.Total } : part;
}
