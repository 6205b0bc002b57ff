using System.Collections.Immutable;
using Emendum.Core.Jobs;

namespace Emendum.Core.Checks;

/// <summary>Something an estimator should look at twice before the price goes out. It refuses nothing.</summary>
/// <param name="Key">The same for the same thing in every reckoning of the job; what is set aside is kept under it.</param>
/// <param name="Kind">What kind of thing, in a few words.</param>
/// <param name="Says">What was found.</param>
/// <param name="Why">Why that is worth a look.</param>
/// <param name="Place">The place it is about, if any.</param>
/// <param name="Work">The work item it is about, if any.</param>
/// <param name="Entry">The Book entry it is about, if any.</param>
/// <param name="Offers">Edits that would settle it, ready to be made.</param>
/// <param name="Reason">Why somebody set it aside; empty while it stands.</param>
public sealed record Finding(
    string Key,
    string Kind,
    string Says,
    string Why,
    Guid? Place,
    Guid? Work,
    Guid? Entry,
    ImmutableArray<Offer> Offers,
    string Reason
);

/// <summary>An edit that would settle a finding.</summary>
/// <param name="Words">What it does.</param>
/// <param name="Does">The edit.</param>
public sealed record Offer(string Words, Command Does);
