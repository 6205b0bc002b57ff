using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>What another firm asks for the work of a section. Several stand side by side; one of them may be taken, and then that firm does the work and we do not.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Rank">Sort key.</param>
/// <param name="Section">The section.</param>
/// <param name="From">Who asks it.</param>
/// <param name="Amount">What for all of it, in the job's currency.</param>
/// <param name="Taken">Whether it is taken.</param>
public sealed record Quote(Guid Id, string Rank, Guid Section, string From, decimal Amount, bool Taken)
{
    /// <summary>Last day it holds, like 2027-01-04; empty where nothing is said.</summary>
    public string ValidUntil { get; init; } = "";

    /// <summary>Work of the section that it leaves out, which stays ours.</summary>
    public ImmutableArray<Guid> LeavesOut { get; init; } = [];

    /// <summary>What else it leaves out, in words.</summary>
    public string Without { get; init; } = "";

    /// <summary>Whether it ends before a day; one that says nothing does not.</summary>
    public bool EndsBefore(DateOnly day) => ValidUntil.Length > 0 && Day.Of(ValidUntil) < day;

    /// <summary>Checks it by itself.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(From) || From.Length > 120)
            throw RefusedException.Of("from", "Say whose quote it is, in at most 120 characters.");
        PricingTerms.NotBelowZero(Amount, "amount", "A quote");
        if (ValidUntil.Length > 0 && !RoundTerms.IsDay(ValidUntil))
            throw RefusedException.Of("validUntil", "Write the last day like 2027-01-31.");
        if (Without.Length > 1000)
            throw RefusedException.Of("without", "At most 1,000 characters.");
        if (LeavesOut.Length > JobRules.MostWork || LeavesOut.Distinct().Count() != LeavesOut.Length)
            throw RefusedException.Of("leavesOut", "Work that is left out stands once.");
    }
}
