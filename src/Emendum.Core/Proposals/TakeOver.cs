using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>What the customer chose of a revision, taken into the job as it stands (L9).</summary>
/// <param name="Commands">What takes it, in order; empty where all of it stands there already.</param>
/// <param name="Gone">Names of what is not in the job any more, or cannot be taken there.</param>
public sealed record TakeOver(ImmutableArray<Command> Commands, ImmutableArray<string> Gone)
{
    /// <summary>That of a selection.</summary>
    /// <param name="now">The job as it stands.</param>
    /// <param name="selection">What was chosen.</param>
    /// <param name="sent">The job that it was chosen of: there everything has its name.</param>
    public static TakeOver Of(Estimate now, Selection selection, Job sent)
    {
        var (job, gone) = (now.Job, ImmutableArray.CreateBuilder<string>());
        var (taken, commands) = (new List<Chosen>(), ImmutableArray.CreateBuilder<Command>());
        // Under a fixed price what is taken is added to it, one after the other.
        var fixedPrice = job.Pricing.Basis == PriceBasis.Fixed ? job.Pricing.FixedPrice : (decimal?)null;
        var choices = new Lazy<Choices>(() => Choices.Of(now, Trace.Silent));
        foreach (var pick in selection.Picks)
        {
            var choice = job.Choices.FirstOrDefault(c => c.Id == pick.Choice);
            if (choice?.Option(pick.Option) is not { } option || choice.Locked)
            {
                gone.Add(NameOf(sent, pick));
                continue;
            }
            if (choice.Taken == option.Id)
                continue;
            taken.Add(new(choice.Id, choice.Taken, option.Id));
            decimal Printed(ChoiceOption of) => choices.Value.Price(choice, of).Price?.V ?? 0;
            if (fixedPrice is not null)
                fixedPrice += Printed(option) - Printed(choice.Option(choice.Taken)!);
        }
        if (taken.Count > 0)
            commands.Add(new TakeChoice([.. taken], fixedPrice));
        var pricing = new Alternates.Pricing(now, Trace.Silent);
        var offered = Alternates.Of(now);
        foreach (var id in selection.Alternates)
        {
            var one = offered.FirstOrDefault(o => o.Id == id);
            // Work by itself that was taken is an alternate no more.
            if (one is null && job.Item(id) is not null)
                continue;
            if (one is null or { Taken: false, Cells.Length: 0 })
            {
                gone.Add(sent.Alternates.FirstOrDefault(a => a.Id == id)?.Name ?? WorkIn(sent, id));
                continue;
            }
            if (one.Taken)
                continue;
            if (fixedPrice is not null)
                fixedPrice += pricing.Price(one).Price.V;
            commands.Add(new TakeAlternate(id, false, true, fixedPrice));
        }
        return new(commands.ToImmutable(), gone.ToImmutable());
    }

    private static string NameOf(Job sent, Pick pick) =>
        sent.Choices.FirstOrDefault(c => c.Id == pick.Choice) is { } choice
            ? $"{choice.Name}: {choice.Option(pick.Option)?.Name}"
            : "a choice";

    private static string WorkIn(Job sent, Guid id) => sent.Item(id) is { } item ? sent.Titled(item) : "an alternate";
}
