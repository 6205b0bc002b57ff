using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Several estimates in one proposal (L22): the document's sums, the statement, and the life of an estimate that went out with another one's proposal, event by event.</summary>
public class FurtherEstimatesTests
{
    private static readonly DateOnly Today = new(2027, 6, 1),
        Late = new(2027, 7, 1);

    private static readonly DateTime Noon = new(2027, 6, 1, 12, 0, 0, DateTimeKind.Utc);

    private static Fact Of(Guid revision, FactKind kind, DateOnly? day = null) =>
        new(Sample.NewId(), revision, kind, Noon, "Ida", "because") { Day = day };

    /// <summary>The life of an estimate of which something was sent before by itself, and which then went out with revision A of another job's proposal.</summary>
    private sealed class Two
    {
        private readonly Guid job = Sample.NewId();
        private readonly RevisionStart first,
            second;

        public Two()
        {
            var a = new RevisionStart(Sample.NewId(), 1, new(2027, 6, 30));
            Lead = ProposalLife.Empty.Sending(a, Of(a.Id, FactKind.Sent));
            LeadId = a.Id;
            first = new(Sample.NewId(), 1, new(2027, 6, 30));
            second = new(Sample.NewId(), 2, new(2027, 6, 30)) { Lead = new(job, a.Id) };
        }

        public ProposalLife Lead { get; private set; }

        public Guid LeadId { get; private set; }

        public Guid Alone => first.Id;

        public Guid With => second.Id;

        public ProposalLife Life =>
            new ProposalLife([first, second], [Of(first.Id, FactKind.Sent)])
            {
                Leads = ImmutableDictionary<Guid, ProposalLife>.Empty.Add(job, Lead),
            };

        public Two Then(FactKind kind, DateOnly? day = null)
        {
            Lead = Lead.With(Of(LeadId, kind, day), Today);
            return this;
        }

        public Two SendsNext()
        {
            var b = new RevisionStart(Sample.NewId(), 2, null);
            Lead = Lead.Sending(b, Of(b.Id, FactKind.Sent));
            return this;
        }
    }

    [Fact]
    public void What_happens_to_the_proposal_happens_to_its_estimates()
    {
        RevisionState State(Two two, DateOnly? day = null) => two.Life.StateOf(two.With, day ?? Today);
        Assert.Equal(RevisionState.Sent, State(new()));
        Assert.Equal(RevisionState.Expired, State(new(), Late));
        Assert.Equal(RevisionState.Seen, State(new Two().Then(FactKind.Seen)));
        Assert.Equal(RevisionState.OnHold, State(new Two().Then(FactKind.PutOnHold)));
        Assert.Equal(RevisionState.Sent, State(new Two().Then(FactKind.Extended, Late.AddDays(1)), Late));
        Assert.Equal(RevisionState.Declined, State(new Two().Then(FactKind.Declined)));
        Assert.Equal(RevisionState.Superseded, State(new Two().Then(FactKind.Withdrawn)));
        Assert.Equal(RevisionState.Superseded, State(new Two().SendsNext()));
        var accepted = new Two().Then(FactKind.Accepted);
        Assert.Equal(RevisionState.Accepted, State(accepted));
        Assert.Equal(accepted.With, accepted.Life.Acceptance!.Revision);
        Assert.Equal(RevisionState.Sent, State(accepted.Then(FactKind.Annulled)));
        // What was sent before by itself is superseded whatever becomes of the proposal (L4).
        var declined = new Two().Then(FactKind.Declined);
        Assert.Equal(RevisionState.Superseded, declined.Life.StateOf(declined.Alone, Today));
    }

    [Fact]
    public void Nothing_is_recorded_of_the_estimate_itself_and_while_it_is_open_it_goes_no_other_way()
    {
        var two = new Two();
        foreach (var kind in Enum.GetValues<FactKind>())
        {
            if (kind is FactKind.Sent)
                continue;
            var fact = Of(two.With, kind, Today);
            Assert.Contains(
                "went out with another proposal",
                Assert.Throws<RefusedException>(() => two.Life.With(fact, Today)).Message
            );
            Assert.False(two.Life.May(kind, two.With, Today), $"{kind}");
        }
        string Sends(Two of, Guid? with = null)
        {
            var start = new RevisionStart(Sample.NewId(), 3, null)
            {
                Lead = with is { } job ? new(job, Sample.NewId()) : null,
            };
            try
            {
                of.Life.Sending(start, Of(start.Id, FactKind.Sent));
                return "sent";
            }
            catch (RefusedException refused)
            {
                return refused.Message;
            }
        }
        const string stands =
            "This estimate stands in another proposal that is open. Send it from there, or withdraw that first.";
        var job = two.Life.Revisions[1].Lead!.Job;
        Assert.Equal(stands, Sends(two));
        Assert.Equal(stands, Sends(two, Sample.NewId()));
        Assert.Equal("sent", Sends(two, job));
        Assert.Equal(stands, Sends(two.Then(FactKind.PutOnHold)));
        Assert.Equal("sent", Sends(two.Then(FactKind.Declined)));
        Assert.Equal("sent", Sends(new Two().Then(FactKind.Withdrawn)));
        Assert.Equal("sent", Sends(new Two().SendsNext()));
        Assert.Contains("was accepted on", Sends(new Two().Then(FactKind.Accepted)));
        // A yes on paper to what was sent before would part it from the proposal, too.
        var yes = Of(two.Alone, FactKind.YesRecorded, Today);
        var open = new Two();
        Assert.False(open.Life.May(FactKind.YesRecorded, open.Alone, Today));
        Assert.Equal(
            stands,
            Assert.Throws<RefusedException>(() => open.Life.With(yes with { Revision = open.Alone }, Today)).Message
        );
        Assert.True(two.Life.May(FactKind.YesRecorded, two.Alone, Today));
    }

    /// <summary>Random jobs: what each estimate prints is its own, and the sums of all are what is signed.</summary>
    [Fact]
    public void All_estimates_sum_to_what_is_signed()
    {
        for (var seed = 12_000_000; seed < 12_000_060; seed++)
        {
            var random = new Random(seed);
            Estimate Any() => Sample.Reckon(RandomPricing.Job(random) with { Id = Sample.NewId() });
            var lead = Any();
            Estimate[] further =
            [
                .. Enumerable.Range(0, 2).Select(_ => Any()).Where(f => f.Job.Info.Currency == lead.Job.Info.Currency),
            ];
            var block = new ProposalBlock(Sample.NewId(), BlockKind.Estimates, "9")
            {
                Estimates = [.. further.Select(f => f.Job.Id)],
            };
            lead = lead.If(lead.Job with { Blocks = lead.Job.Blocks.Add(block) });
            var document = Proposal.Of(lead, Party.None, Brand.Starting, Trace.Silent, "A", [.. further]);
            var made = document.Blocks.Single(b => b.Id == block.Id);
            Assert.Equal(further.Length > 0, made.IsRead);
            if (further.Length == 0)
                continue;
            var rows = made.Made.OfType<PriceTable>().Last().Rows;
            decimal Sum(RowKind kind) => rows.Where(r => r.Kind == kind).Sum(r => r.Amount!.Value);
            Assert.Equal(Sum(RowKind.Subtotal), Sum(RowKind.Part));
            Assert.Equal(Sum(RowKind.Total), Sum(RowKind.Subtotal) + Sum(RowKind.Tax));
            var total = lead.Price.Total.V + further.Sum(f => f.Price.Total.V);
            Assert.Equal(total, Sum(RowKind.Total));
            Statement Of(Estimate one) =>
                Statement.AsSent(
                    Proposal.Of(one, Party.None, Brand.Starting, Trace.Silent, "A"),
                    Brand.Starting,
                    RevisionFigures.Of(one),
                    new RevisionStart(Guid.Empty, 1, null),
                    "x"
                );
            var statement = Of(lead).With([.. further.Select(Of)], "all of it");
            Assert.True(total == statement.Price.Sum(StatementTests.Read), $"{seed}: {statement.Text}");
            Assert.Equal(further.Select(f => f.Job.Info.Name), statement.Also);
            Assert.Contains("all of it", statement.Sentence);
            Assert.NotEqual(Of(lead).Hash, statement.Hash);
        }
    }
}
