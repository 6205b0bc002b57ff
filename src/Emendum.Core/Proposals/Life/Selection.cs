using System.Collections.Immutable;

namespace Emendum.Core.Proposals;

/// <summary>An option that is chosen instead of the one that was sent.</summary>
public sealed record Pick(Guid Choice, Guid Option);

/// <summary>What the customer's side has chosen of a revision: one for all who have a link to it, with a version that grows with each change (L8).</summary>
/// <param name="Version">1 for the first; 0 for what was sent.</param>
/// <param name="Picks">Options that were chosen; what follows one by its name is not among them.</param>
/// <param name="Alternates">Alternates that were taken.</param>
public sealed record Selection(int Version, ImmutableArray<Pick> Picks, ImmutableArray<Guid> Alternates)
{
    /// <summary>Most versions of one revision.</summary>
    public const int Most = 1000;

    /// <summary>What was sent.</summary>
    public static readonly Selection AsSent = new(0, [], []);

    /// <summary>It after options that are chosen together.</summary>
    public Selection With(IReadOnlyCollection<Pick> together) =>
        this with
        {
            Version = Version + 1,
            Picks = [.. Picks.Where(p => together.All(t => t.Choice != p.Choice)), .. together],
        };

    /// <summary>It after one thing more: an option that is chosen, or an alternate that is taken or given back.</summary>
    /// <param name="choice">The choice; null for an alternate.</param>
    /// <param name="of">The option, or the alternate.</param>
    /// <param name="taken">Whether it is taken.</param>
    public Selection With(Guid? choice, Guid of, bool taken) =>
        choice is { } which
            ? this with
            {
                Version = Version + 1,
                Picks = [.. Picks.Where(p => p.Choice != which), .. taken ? [new Pick(which, of)] : (Pick[])[]],
            }
            : this with
            {
                Version = Version + 1,
                Alternates = [.. Alternates.Where(a => a != of), .. taken ? [of] : (Guid[])[]],
            };
}
