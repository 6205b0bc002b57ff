using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What a customer chooses on the page: every price from the core on the frozen job (architecture decision 19; L8, L10).</summary>
public class OfferTests
{
    private static (Offer Offer, Estimate Sent, Statement AsSent) Made(Job job)
    {
        var estimate = Sample.Reckon(job);
        var document = Sample.Document(estimate);
        var figures = RevisionFigures.Of(estimate);
        var asSent = Statement.AsSent(
            document,
            Brand.Starting,
            figures,
            new RevisionStart(Guid.Empty, 1, null),
            new string('a', 64)
        );
        Assert.True(Offer.IsMadeBy(document));
        return (Offer.Of(job, figures, Brand.Starting, asSent)!, estimate, asSent);
    }

    private static decimal Read(string amount) => StatementTests.Read(amount.Replace("+", ""));

    private static decimal Sum(Statement statement) => statement.Price.Sum(r => Read(r.Amount));

    [Fact]
    public void Nothing_chosen_is_what_was_sent()
    {
        var (offer, sent, asSent) = Made(Sample.Library());
        var (statement, total) = offer.With(Selection.AsSent);
        Assert.Equal((asSent, sent.Price.Total.V), (statement, total));
        // There and back is what was sent, under a version of its own.
        var choice = offer.Choices.First(c => !c.Locked);
        var other = choice.Options.First(o => o.Id != choice.Taken);
        var back = Selection.AsSent.With(choice.Id, other.Id, true).With(choice.Id, choice.Taken, true);
        Assert.Equal(2, back.Version);
        Assert.Equal((asSent with { Selection = 2 }).Text, offer.With(back).Statement.Text);
    }

    [Fact]
    public void What_an_option_is_only_to_be_had_with_is_chosen_together_with_it_where_that_is_offered()
    {
        var job = Sample.Library();
        var (first, second) = (job.Choices.First(c => !c.Locked), job.Choices.Last(c => !c.Locked));
        Assert.NotEqual(first.Id, second.Id);
        var (wanted, needed) = (
            first.Options.First(o => o.Id != first.Taken),
            second.Options.First(o => o.Id != second.Taken)
        );
        Job With(Choice changed) =>
            job with
            {
                Choices = [.. job.Choices.Select(c => c.Id == changed.Id ? changed : c)],
            };
        var needing = first with
        {
            Options = [.. first.Options.Select(o => o.Id == wanted.Id ? o with { Needs = [needed.Id] } : o)],
        };
        job = With(needing);
        var (offer, sent, _) = Made(job);
        OfferedOption Offered(Selection selection) =>
            offer.Options(needing, selection, [needing.Option(wanted.Id)!]).Single();
        Assert.StartsWith($"“{wanted.Name}” ({first.Name}) is only to be had with", Offered(Selection.AsSent).Conflict);
        Assert.Equal($"{second.Name}: {needed.Name}", Offered(Selection.AsSent).Together);
        Assert.Throws<RefusedException>(() => offer.With(Selection.AsSent.With(first.Id, wanted.Id, true)));
        // Both at once, as one change.
        var both = offer.Together(Selection.AsSent, first.Id, wanted.Id);
        Assert.Equal((1, 2), (both.Version, both.Picks.Length));
        var (statement, total) = offer.With(both);
        Assert.Equal($"{wanted.Name}; {needed.Name}", string.Join("; ", statement.Taken));
        var whole = Estimate.Of(Choosing.In(job, [(needing, wanted), (second, needed)]), Trace.Silent);
        Assert.Equal(whole.Price.Total.V, total);
        // Where what it needs stands already there is nothing more to take.
        var there = Offered(Selection.AsSent.With(second.Id, needed.Id, true));
        Assert.Equal(("", ""), (there.Conflict, there.Together));
        // What is settled or not offered cannot be taken along.
        foreach (var closed in new[] { second with { Locked = true }, second with { Hidden = true } })
        {
            offer = Made(With(closed)).Offer;
            Assert.NotEqual("", Offered(Selection.AsSent).Conflict);
            Assert.Equal("", Offered(Selection.AsSent).Together);
        }
    }

    [Fact]
    public void What_is_chosen_stands_with_its_printed_price_and_the_rest_is_said()
    {
        var job = Sample.Library();
        var (offer, sent, asSent) = Made(job);
        var looked = 0;
        foreach (var choice in offer.Choices.Where(c => !c.Locked))
        foreach (var option in choice.Options.Where(o => o.Id != choice.Taken).Take(3))
        {
            var selection = Selection.AsSent.With(choice.Id, option.Id, true);
            if (Choosing.Conflicts(job, [(choice, option)]).Any())
            {
                Assert.Equal("choose", Assert.Throws<RefusedException>(() => offer.With(selection)).Refusal.Field);
                continue;
            }
            var (statement, total) = offer.With(selection);
            // The same job with it taken, reckoned from the beginning, comes to the same.
            var whole = Estimate.Of(Choosing.In(job, [(choice, option)]), Trace.Silent);
            Assert.Equal(whole.Price.Total.V, total);
            Assert.Equal(total, Read(statement.Total));
            Assert.Equal(total, Sum(statement));
            Assert.Equal(asSent.Price[0], statement.Price[0]);
            var row = statement.Price.Single(r => r.Label == $"{choice.Name}: {option.Name}");
            Assert.Equal($"in place of {choice.Option(choice.Taken)!.Name}", row.Detail);
            var choices = Choices.Of(sent, Trace.Silent);
            Assert.Equal(
                choices.Price(choice, option).Price!.V - choices.Price(choice, choice.Option(choice.Taken)!).Price!.V,
                Read(row.Amount)
            );
            if (!statement.Steps.IsEmpty)
                Assert.Equal(total, statement.Steps.Sum(s => Read(s.Amount)));
            Assert.Contains(option.Name, statement.Sentence, StringComparison.Ordinal);
            Assert.NotEqual(asSent.Hash, statement.Hash);
            looked++;
        }
        Assert.True(looked > 2, $"{looked}");
    }

    [Fact]
    public void An_alternate_is_added_and_given_back()
    {
        var (offer, sent, _) = Made(Sample.Library());
        var alternate = offer.Alternates(Selection.AsSent)[0];
        var taken = Selection.AsSent.With(null, alternate.Id, true);
        Assert.True(offer.Alternates(taken)[0].Taken);
        var (statement, total) = offer.With(taken);
        Assert.Equal(TakenTogether.Of(sent, [alternate.Id], Trace.Silent).Estimate.Price.Total.V, total);
        Assert.Equal(total, Sum(statement));
        Assert.Equal(Read(alternate.Amount), Read(statement.Price.Single(r => r.Label == alternate.Name).Amount));
        Assert.DoesNotContain(statement.Offered, o => o.Label == alternate.Name);
        Assert.Equal(sent.Price.Total.V, offer.With(taken.With(null, alternate.Id, false)).Total);
        Assert.Throws<RefusedException>(() => offer.With(Selection.AsSent.With(null, Sample.NewId(), true)));
    }

    [Fact]
    public void What_is_hidden_locked_or_unknown_is_not_chosen()
    {
        var job = Sample.Library();
        var first = job.Choices[0];
        var other = first.Options.First(o => o.Id != first.Taken);
        RefusedException Refused(Func<Choice, Choice> otherwise, Pick pick)
        {
            var (offer, _, _) = Made(job with { Choices = job.Choices.SetItem(0, otherwise(first)) });
            return Assert.Throws<RefusedException>(() => offer.With(new(1, [pick], [])));
        }
        Assert.Contains("not offered", Refused(c => c with { Hidden = true }, new(first.Id, other.Id)).Message);
        Assert.Contains("settled already", Refused(c => c with { Locked = true }, new(first.Id, other.Id)).Message);
        Assert.Contains("not offered", Refused(c => c, new(first.Id, Sample.NewId())).Message);
        Assert.Contains("not offered", Refused(c => c, new(Sample.NewId(), other.Id)).Message);
        var (locked, _, _) = Made(job with { Choices = job.Choices.SetItem(0, first with { Locked = true }) });
        Assert.All(
            locked.Options(locked.Choices.First(), Selection.AsSent, first.Options),
            o => Assert.Equal(o.Chosen, o.Conflict.Length == 0)
        );
    }

    [Fact]
    public void Another_total_than_was_sent_stops_live_pricing()
    {
        var job = Sample.Library();
        var estimate = Sample.Reckon(job);
        var figures = RevisionFigures.Of(estimate);
        var asSent = Statement.AsSent(
            Sample.Document(estimate),
            Brand.Starting,
            figures,
            new RevisionStart(Guid.Empty, 1, null),
            "x"
        );
        Assert.NotNull(Offer.Of(job, figures, Brand.Starting, asSent));
        Assert.Null(Offer.Of(job, figures with { Total = figures.Total + 0.01m }, Brand.Starting, asSent));
        Assert.Null(Offer.Of(job, figures with { BeforeTax = figures.BeforeTax - 0.01m }, Brand.Starting, asSent));
    }

    [Fact]
    public void Under_a_fixed_price_what_is_chosen_is_added_to_it()
    {
        var job = Sample.Library();
        job = job with
        {
            Pricing = job.Pricing with { Basis = PriceBasis.Fixed, FixedPrice = 40_000, Rounding = null },
        };
        var (offer, sent, _) = Made(job);
        var choice = offer.Choices.First(c => !c.Locked && c.Follows is null);
        var option = choice.Options.First(o => o.Id != choice.Taken && !Choosing.Conflicts(job, [(choice, o)]).Any());
        var (statement, total) = offer.With(Selection.AsSent.With(choice.Id, option.Id, true));
        var by = Read(statement.Price[1].Amount);
        Assert.NotEqual(0, by);
        Assert.Equal(total, Sum(statement));
        var before = statement
            .Price.Skip(1)
            .TakeWhile(r => !r.Label.Contains("tax", StringComparison.OrdinalIgnoreCase));
        Assert.Equal(by, before.Sum(r => Read(r.Amount)));
        Assert.Equal(sent.Price.BeforeTax.V, Read(statement.Price[0].Amount));
    }

    [Fact]
    public void What_was_chosen_is_taken_into_the_job_as_it_stands_and_what_is_gone_is_named()
    {
        var job = Sample.Library();
        var (offer, sent, _) = Made(job);
        var choice = offer.Choices.First(c => c.Follows is null && c.Options.Any(o => o.Price is not null));
        var option = choice.Options.First(o => o.Id != choice.Taken);
        var alternate = offer.Alternates(Selection.AsSent)[0];
        var selection = Selection.AsSent.With(choice.Id, option.Id, true).With(null, alternate.Id, true);
        var takes = TakeOver.Of(sent, selection, job);
        Assert.Empty(takes.Gone);
        Assert.Equal(2, takes.Commands.Length);
        var then = takes.Commands.Aggregate(job, (so, command) => so.Do(command));
        Assert.Equal(offer.With(selection).Total, Sample.Reckon(then).Price.Total.V);
        // Taken over, nothing is left to take.
        var again = TakeOver.Of(Sample.Reckon(then), selection, job);
        Assert.Empty(again.Commands);
        Assert.Empty(again.Gone);
        // A job without them names what is gone.
        var bare = job with
        {
            Choices = [],
        };
        bare = bare with
        {
            Alternates = [],
            Work = [.. bare.Work.Where(w => w.Id != alternate.Id)],
            Cells = bare.Cells.RemoveRange(
                bare.Cells.Where(c => c.Value.Alternate is not null || c.Key.Work == alternate.Id).Select(c => c.Key)
            ),
        };
        takes = TakeOver.Of(Sample.Reckon(bare), selection, job);
        Assert.Empty(takes.Commands);
        Assert.Equal([$"{choice.Name}: {option.Name}", alternate.Name], takes.Gone.ToArray());
    }

    /// <summary>Random jobs with random things chosen: what is read adds up to what is signed, and choosing back gives what was sent.</summary>
    [Fact]
    [Trait("Category", "Long")]
    public void Whatever_is_chosen_adds_up_to_what_is_signed()
    {
        var (count, looked) = (Properties.Times(300, 10_000), 0);
        for (var seed = 12_000_000; seed < 12_000_000 + count; seed++)
        {
            var random = new Random(seed);
            Job job;
            Estimate sent;
            try
            {
                job = ChoicesPropertyTests.Choosing(
                    AlternatesPropertyTests.Offering(RandomPricing.Job(random), random),
                    random
                );
                sent = Sample.Reckon(job);
            }
            catch (RefusedException)
            {
                continue;
            }
            var figures = RevisionFigures.Of(sent);
            var asSent = Statement.AsSent(
                Sample.Document(sent),
                Brand.Starting,
                figures,
                new RevisionStart(Guid.Empty, 1, null),
                "x"
            );
            if (Offer.Of(job, figures, Brand.Starting, asSent) is not { } offer)
            {
                Assert.Fail($"{seed}: live pricing stopped");
                return;
            }
            var selection = Selection.AsSent;
            for (var n = random.Next(1, 5); n > 0; n--)
            {
                Choice[] choices = [.. offer.Choices];
                var alternates = offer.Alternates(selection);
                var next =
                    choices.Length > 0 && (alternates.IsEmpty || random.Next(2) == 0)
                        ? choices[random.Next(choices.Length)] is var choice
                            ? selection.With(choice.Id, choice.Options[random.Next(choice.Options.Length)].Id, true)
                            : selection
                        : alternates.Length > 0
                            ? selection.With(null, alternates[random.Next(alternates.Length)].Id, random.Next(3) > 0)
                            : selection;
                try
                {
                    var (statement, total) = offer.With(next);
                    Assert.True(Sum(statement) == total, $"{seed}: {statement.Text}");
                    Assert.True(Read(statement.Total) == total, $"{seed}: {statement.Total}");
                    if (!statement.Steps.IsEmpty)
                        Assert.True(
                            statement.Steps.Sum(s => Read(s.Amount)) == total,
                            $"{seed}: steps of {statement.Text}"
                        );
                    selection = next;
                    looked++;
                }
                catch (RefusedException)
                {
                    // What does not go together changes nothing.
                }
            }
            var back = selection.Picks.Aggregate(
                selection with
                {
                    Alternates = [],
                },
                (so, p) => so.With(p.Choice, p.Option, false)
            );
            Assert.Equal(sent.Price.Total.V, offer.With(back).Total);
        }
        Assert.True(looked > count / 3, $"{looked}");
    }
}
