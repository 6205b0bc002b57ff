using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>An option that is taken instead of another.</summary>
public sealed record Chosen(Guid Choice, Guid Was, Guid Now);

/// <summary>Takes options, one or several at once, and with each what other choices take with it. What cannot stand together is refused with the reason.</summary>
/// <param name="Options">Which.</param>
/// <param name="FixedPrice">The job's fixed price with them; null where the price is not a fixed one.</param>
public sealed record TakeChoice(ImmutableArray<Chosen> Options, decimal? FixedPrice) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var taken = new List<(Choice, ChoiceOption)>();
        foreach (var chosen in Options)
        {
            var choice = SetChoice.Find(job, chosen.Choice);
            if (choice.Taken != chosen.Was)
                throw new ConflictException("taken", Commands.Node(choice.Taken));
            taken.Add(
                (
                    choice,
                    choice.Option(chosen.Now)
                        ?? throw RefusedException.Of("taken", "That option is not in this choice any more.")
                )
            );
        }
        var changes = ImmutableArray.CreateBuilder<Change>();
        var so = job;
        foreach (var (choice, option) in Choosing.Following(job, taken))
        {
            if (choice.Taken == option.Id)
                continue;
            if (choice.Locked)
                throw RefusedException.Of("taken", $"“{choice.Name}” is locked. Unlock it to take something else.");
            ImmutableArray<Change> made =
            [
                .. Choosing.Changes(so, choice, option),
                new($"choices/{choice.Id}/taken", Commands.Node(choice.Taken), Commands.Node(option.Id)),
            ];
            so = ChangeSet.Apply(so, made);
            changes.AddRange(made);
        }
        if (changes.Count > 0 && job.Pricing.Basis == PriceBasis.Fixed && FixedPrice is { } price)
            changes.AddRange(TakeAlternate.FixedChanges(job, price));
        return changes.ToImmutable();
    }
}
