using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Emendum.Core.Proposals;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The life of a proposal (delivery.md): every cell of the table of events and states, read from the page in docs, and the rules L1 to L18 as far as they are about states.</summary>
public class ProposalLifeTests
{
    private static readonly DateOnly Today = new(2027, 6, 1),
        Until = new(2027, 6, 30),
        Late = new(2027, 7, 1);

    private static readonly DateTime Noon = new(2027, 6, 1, 12, 0, 0, DateTimeKind.Utc);

    private static Fact Of(Guid revision, FactKind kind, string words = "because", DateOnly? day = null) =>
        new(Sample.NewId(), revision, kind, Noon, kind == FactKind.Accepted ? "Ida" : "Nora", words) { Day = day };

    private static (ProposalLife Life, Guid Id) Sent(ProposalLife? before = null, DateOnly? until = null)
    {
        var life = before ?? ProposalLife.Empty;
        var start = new RevisionStart(Sample.NewId(), life.Revisions.Length + 1, until ?? Until);
        return (life.Sending(start, Of(start.Id, FactKind.Sent)), start.Id);
    }

    /// <summary>A revision that stands so, and the day on which it does.</summary>
    private static (ProposalLife Life, Guid Id, DateOnly Day) Standing(string state)
    {
        var (life, id) = Sent();
        ProposalLife With(FactKind kind) => life.With(Of(id, kind), Today);
        return state switch
        {
            "sent" => (life, id, Today),
            "seen" => (With(FactKind.Seen), id, Today),
            "on hold" => (With(FactKind.PutOnHold), id, Today),
            "expired" => (life, id, Late),
            "declined" => (With(FactKind.Declined), id, Today),
            "accepted" => (With(FactKind.Accepted), id, Today),
            "superseded" => (Sent(life).Life, id, Today),
            _ => (ProposalLife.Empty, Sample.NewId(), Today),
        };
    }

    /// <summary>What the program does of each event: the life afterwards, and the day.</summary>
    private static (ProposalLife Life, DateOnly Day) After(string happens, ProposalLife life, Guid id, DateOnly day)
    {
        (ProposalLife, DateOnly) Fact(FactKind kind, DateOnly? on = null) =>
            (life.With(Of(id, kind, day: on), day), day);
        return happens switch
        {
            "firm sends it" => (life.Sending(new(id, life.Revisions.Length + 1, Until), Of(id, FactKind.Sent)), day),
            "firm sends it again, or makes a new link" => Fact(FactKind.SentAgain),
            "its page is visible to a signer" => Fact(FactKind.Seen),
            "customer asks" => Fact(FactKind.Asked),
            "customer chooses" => Fact(FactKind.Chosen),
            "customer accepts on page or tablet" => Fact(FactKind.Accepted),
            "customer declines" => Fact(FactKind.Declined),
            "firm records a yes on paper or by word" => Fact(FactKind.YesRecorded, Today),
            "firm records a no" => Fact(FactKind.NoRecorded),
            "firm puts it on hold" => Fact(FactKind.PutOnHold),
            "firm takes it off hold" => Fact(FactKind.TakenOffHold),
            "the valid-until day ends" => (life, Late),
            "firm extends the validity" => Fact(FactKind.Extended, Late.AddDays(30)),
            "firm reopens it" => Fact(FactKind.Reopened),
            "firm withdraws it" => Fact(FactKind.Withdrawn),
            "a later revision is sent" => life.Revisions.IsEmpty
                ? throw RefusedException.Of("revision", "there is none that it could follow")
                : (Sent(life).Life, day),
            "firm annuls the acceptance" => Fact(FactKind.Annulled),
            "its link is revoked or ends" => Fact(FactKind.LinkRevoked),
            _ => throw new ArgumentException(happens),
        };
    }

    private static string[][] Table([CallerFilePath] string here = "")
    {
        var root = Path.GetDirectoryName(Path.GetDirectoryName(Path.GetDirectoryName(here)))!;
        return
        [
            .. File.ReadLines(Path.Combine(root, "docs", "life-of-a-proposal.md"))
                .Where(l => l.StartsWith("| ", StringComparison.Ordinal))
                .Select(l => l.Trim('|').Split('|').Select(c => c.Trim()).ToArray()),
        ];
    }

    [Fact]
    public void Every_event_does_in_every_state_what_the_table_says()
    {
        var table = Table();
        var states = table[0][1..];
        Assert.Equal((18, 8), (table.Length - 1, states.Length));
        foreach (var row in table[1..])
            for (var i = 0; i < states.Length; i++)
            {
                var (state, expected) = (states[i], row[i + 1]);
                // Of a draft there is no revision yet: nothing is recorded of it, and no day ends for it.
                if (state == "draft" && expected == "·")
                    continue;
                var (life, id, day) = Standing(state);
                var cell = $"{row[0]}, {state}";
                try
                {
                    var (after, then) = After(row[0], life, id, day);
                    var now = after.StateOf(id, then).Words();
                    Assert.True(expected != "—", $"{cell}: is not refused, and reads {now}");
                    var should = expected switch
                    {
                        "·" => state,
                        // On hold, expired, declined and accepted were sent, and nothing else happened.
                        "back" => "sent",
                        _ => expected,
                    };
                    Assert.True(should == now, $"{cell}: {now}, and not {should}");
                }
                catch (RefusedException refused)
                {
                    Assert.True(expected == "—", $"{cell}: refused, {refused.Message}");
                    Assert.NotEmpty(refused.Refusal.Message);
                }
            }
    }

    [Fact]
    public void What_comes_back_is_what_the_other_facts_make_of_it()
    {
        var (life, id) = Sent();
        life = life.With(Of(id, FactKind.Seen), Today).With(Of(id, FactKind.PutOnHold), Today);
        Assert.Equal(RevisionState.Seen, life.With(Of(id, FactKind.TakenOffHold), Today).StateOf(id, Today));
        // A no on hold, opened again: on hold still.
        var no = life.With(Of(id, FactKind.NoRecorded), Today);
        Assert.Equal(RevisionState.OnHold, no.With(Of(id, FactKind.Reopened), Today).StateOf(id, Today));
        // Annulled after its last day: expired.
        var yes = life.With(Of(id, FactKind.Accepted), Today);
        Assert.Equal(RevisionState.Accepted, yes.StateOf(id, Late));
        Assert.Equal(RevisionState.Expired, yes.With(Of(id, FactKind.Annulled), Late).StateOf(id, Late));
        // Longer, on hold: on hold on the day that would have been too late.
        var longer = life.With(Of(id, FactKind.Extended, day: Late), Today);
        Assert.Equal(RevisionState.OnHold, longer.StateOf(id, Late));
    }

    [Fact]
    public void Validity_includes_its_last_day_and_no_date_never_ends()
    {
        var (life, id) = Sent(until: new(2027, 6, 3));
        Assert.Equal(RevisionState.Sent, life.StateOf(id, new(2027, 6, 3)));
        life.With(Of(id, FactKind.Accepted), new(2027, 6, 3));
        Assert.Equal(RevisionState.Expired, life.StateOf(id, new(2027, 6, 4)));
        var late = Assert.Throws<RefusedException>(() => life.With(Of(id, FactKind.Accepted), new(2027, 6, 4)));
        Assert.Contains("held until 3 June 2027", late.Refusal.Message);
        // Asking for it again is a question, and no acceptance.
        Assert.Equal(
            RevisionState.Expired,
            life.With(Of(id, FactKind.Asked, "may we have it again?"), new(2027, 6, 4)).StateOf(id, new(2027, 6, 4))
        );
        var start = new RevisionStart(Sample.NewId(), 1, null);
        var never = ProposalLife.Empty.Sending(start, Of(start.Id, FactKind.Sent));
        Assert.Equal(RevisionState.Sent, never.StateOf(start.Id, new(2999, 1, 1)));
    }

    [Fact]
    public void Prices_hold_longer_only_to_a_later_day_and_the_document_keeps_its_own()
    {
        var (life, id) = Sent();
        foreach (var day in new DateOnly?[] { null, Until, new(2027, 1, 1) })
            Assert.Equal(
                "day",
                Assert
                    .Throws<RefusedException>(() => life.With(Of(id, FactKind.Extended, day: day), Today))
                    .Refusal.Field
            );
        life = life.With(Of(id, FactKind.Extended, day: new(2027, 8, 1)), Late);
        Assert.Equal((new DateOnly(2027, 8, 1), Until), (life.HoldsUntil(id), life.Revision(id).ValidUntil));
        Assert.Equal(RevisionState.Sent, life.StateOf(id, Late));
    }

    [Fact]
    public void A_later_revision_replaces_the_earlier_and_gives_no_way_to_it()
    {
        var (life, a) = Sent();
        var (both, b) = Sent(life);
        Assert.Equal((RevisionState.Superseded, RevisionState.Sent), (both.StateOf(a, Today), both.StateOf(b, Today)));
        var refused = Assert.Throws<RefusedException>(() => both.With(Of(a, FactKind.Accepted), Today));
        Assert.Equal("Revision A was replaced by B.", refused.Refusal.Message);
        Assert.Equal("C", both.Next);
    }

    [Fact]
    public void What_goes_out_later_leaves_the_earlier_open_until_then_and_gives_its_letter_back()
    {
        // L5.
        var (life, a) = Sent();
        var b = new Scheduled(Sample.NewId(), life.NextNumber, Noon.AddDays(2));
        var waits = life.Scheduling(b);
        Assert.Equal(("B", "C"), (b.Letters, waits.Next));
        Assert.Equal(RevisionState.Sent, waits.StateOf(a, Today));
        Assert.Equal(RevisionState.Accepted, waits.With(Of(a, FactKind.Accepted), Today).StateOf(a, Today));
        // No other goes out, now or later, while it waits.
        var other = new RevisionStart(Sample.NewId(), 2, Until);
        var refused = Assert.Throws<RefusedException>(() => waits.Sending(other, Of(other.Id, FactKind.Sent)));
        Assert.Equal("Revision B waits to go out. Let it go, or cancel it first.", refused.Message);
        Assert.Throws<RefusedException>(() => waits.Scheduling(b with { Id = other.Id }));
        // Cancelled, its letter is free; when it goes, the earlier is replaced.
        Assert.Equal("B", (waits with { Waiting = null }).Next);
        var gone = waits.Sending(new(b.Id, b.Number, Until), Of(b.Id, FactKind.Sent)) with { Waiting = null };
        Assert.Equal(
            (RevisionState.Superseded, RevisionState.Sent),
            (gone.StateOf(a, Today), gone.StateOf(b.Id, Today))
        );
        // Accepted meanwhile, it cannot go any more (L6); after that none is set either.
        var accepted = waits.With(Of(a, FactKind.Accepted), Today);
        Assert.Contains(
            "A was accepted on 1 June 2027",
            Assert
                .Throws<RefusedException>(() => accepted.Sending(new(b.Id, b.Number, Until), Of(b.Id, FactKind.Sent)))
                .Message,
            StringComparison.Ordinal
        );
        Assert.Throws<RefusedException>(() => (accepted with { Waiting = null }).Scheduling(b));
    }

    [Fact]
    public void Of_two_at_once_the_first_stands_and_the_other_is_refused_by_name()
    {
        var (life, a) = Sent();
        // Accepted, then B: B stays a draft.
        var accepted = life.With(Of(a, FactKind.Accepted), Today);
        var late = Assert.Throws<RefusedException>(() => Sent(accepted));
        Assert.Equal(
            "Revision A was accepted on 1 June 2027: what is wanted next is a change order.",
            late.Refusal.Message
        );
        // Accepted twice: the second reads who accepted.
        var second = Assert.Throws<RefusedException>(() => accepted.With(Of(a, FactKind.Accepted), Today));
        Assert.Equal("Revision A was accepted on 1 June 2027 by Ida.", second.Refusal.Message);
        // The same fact twice changes nothing, and is not refused.
        var fact = Of(a, FactKind.Accepted);
        var once = life.With(fact, Today);
        Assert.Same(once, once.With(fact, Today));
    }

    [Fact]
    public void A_yes_on_paper_needs_its_date_and_on_what_is_not_open_the_reason()
    {
        var (life, a) = Sent();
        RefusedException Wrong(ProposalLife of, string words, DateOnly? day, DateOnly today) =>
            Assert.Throws<RefusedException>(() => of.With(Of(a, FactKind.YesRecorded, words, day), today));
        Assert.Equal("day", Wrong(life, "by letter", null, Today).Refusal.Field);
        Assert.Equal("day", Wrong(life, "by letter", Today.AddDays(1), Today).Refusal.Field);
        Assert.Equal("words", Wrong(life, " ", Today, Late).Refusal.Field);
        Assert.Equal(
            RevisionState.Accepted,
            life.With(Of(a, FactKind.YesRecorded, "their post was late", Today), Late).StateOf(a, Late)
        );
        // What is open becomes superseded by it, and what was declined stays so.
        var (both, b) = Sent(life);
        var taken = both.With(Of(a, FactKind.YesRecorded, "they want A after all", Today), Today);
        Assert.Equal(
            (RevisionState.Accepted, RevisionState.Superseded),
            (taken.StateOf(a, Today), taken.StateOf(b, Today))
        );
        Assert.Throws<RefusedException>(() => taken.With(Of(b, FactKind.YesRecorded, "both", Today), Today));
        var refused = both.With(Of(b, FactKind.NoRecorded), Today).With(Of(a, FactKind.YesRecorded, "x", Today), Today);
        Assert.Equal(RevisionState.Declined, refused.StateOf(b, Today));
    }

    [Fact]
    public void A_no_ends_the_offer_until_the_firm_opens_it_again_and_never_after_a_later_one()
    {
        var (life, a) = Sent();
        var no = life.With(Of(a, FactKind.Declined), Today);
        Assert.Throws<RefusedException>(() => no.With(Of(a, FactKind.Accepted), Today));
        Assert.Equal(
            "day",
            Assert.Throws<RefusedException>(() => no.With(Of(a, FactKind.Reopened), Late)).Refusal.Field
        );
        var again = no.With(Of(a, FactKind.Reopened, day: Late), Late);
        Assert.Equal(RevisionState.Sent, again.StateOf(a, Late));
        var (both, _) = Sent(no);
        Assert.Contains(
            "A later revision",
            Assert.Throws<RefusedException>(() => both.With(Of(a, FactKind.Reopened), Today)).Refusal.Message
        );
    }

    [Fact]
    public void Withdrawing_needs_a_reason_and_brings_no_earlier_one_back()
    {
        var (life, a) = Sent();
        var (both, b) = Sent(life);
        Assert.Throws<RefusedException>(() => both.With(Of(b, FactKind.Withdrawn, ""), Today));
        var withdrawn = both.With(Of(b, FactKind.Withdrawn, "a mistake in it"), Today);
        Assert.Equal(
            (RevisionState.Superseded, RevisionState.Superseded),
            (withdrawn.StateOf(a, Today), withdrawn.StateOf(b, Today))
        );
        Assert.Equal(
            "Revision B was withdrawn on 1 June 2027.",
            Assert.Throws<RefusedException>(() => withdrawn.With(Of(b, FactKind.Accepted), Today)).Refusal.Message
        );
        // The next can be sent.
        Assert.Equal("C", withdrawn.Next);
        Sent(withdrawn);
    }

    [Fact]
    public void Letters_go_on_after_Z() =>
        Assert.Equal(
            ["A", "Z", "AA", "AZ", "BA", "ZZ", "AAA"],
            new[] { 1, 26, 27, 52, 53, 702, 703 }.Select(RevisionStart.LettersOf)
        );

    [Fact]
    public void Nothing_is_recorded_of_a_revision_that_is_not_there() =>
        Assert.Throws<RefusedException>(() => Sent().Life.With(Of(Sample.NewId(), FactKind.Seen), Today));

    [Fact]
    public void Who_has_a_copy_reads_and_asks_and_nothing_more()
    {
        var (life, id) = Sent();
        Fact Copy(FactKind kind) => Of(id, kind) with { Copy = true };
        foreach (var kind in new[] { FactKind.Seen, FactKind.Chosen, FactKind.Accepted, FactKind.Declined })
            Assert.Equal("link", Assert.Throws<RefusedException>(() => life.With(Copy(kind), Today)).Refusal.Field);
        var asked = life.With(Copy(FactKind.Asked), Today);
        Assert.Equal(RevisionState.Sent, asked.StateOf(id, Today));
        Assert.Equal(RevisionState.Seen, asked.With(Of(id, FactKind.Asked), Today).StateOf(id, Today));
    }

    [Fact]
    public void A_visit_is_recorded_once_and_comes_again_after_half_an_hour()
    {
        var (life, id) = Sent();
        var link = Sample.NewId();
        bool IsNew(Guid? by, DateTime at) => life.IsNewVisit(by, id, at, FactKind.Seen);
        Assert.True(IsNew(link, Noon));
        life = life.With(Of(id, FactKind.Seen) with { Link = link }, Today);
        Assert.False(IsNew(link, Noon.AddMinutes(29)));
        Assert.True(IsNew(link, Noon.AddMinutes(30)));
        Assert.True(IsNew(Sample.NewId(), Noon));
        // In person there is no link, and another revision is another visit.
        life = life.With(Of(id, FactKind.Chosen), Today);
        Assert.False(life.IsNewVisit(null, id, Noon.AddMinutes(29), FactKind.Chosen));
        Assert.True(life.IsNewVisit(null, Sample.NewId(), Noon.AddMinutes(29), FactKind.Chosen));
        for (var i = 1; i < ProposalLife.MostVisits; i++)
            life = life.With(Of(id, FactKind.Seen) with { Link = link }, Today);
        Assert.False(IsNew(link, Noon.AddDays(1)));
    }

    [Fact]
    public void An_answer_belongs_to_a_question_and_questions_have_a_bound()
    {
        var (life, id) = Sent();
        var question = Of(id, FactKind.Asked);
        life = life.With(question, Today);
        life = life.With(Of(id, FactKind.Answered) with { About = question.Id }, Today);
        foreach (var about in new Guid?[] { null, Sample.NewId(), life.Facts[^1].Id })
            Assert.Throws<RefusedException>(() => life.With(Of(id, FactKind.Answered) with { About = about }, Today));
        for (var i = 1; i < ProposalLife.MostQuestions; i++)
            life = life.With(Of(id, FactKind.Asked), Today);
        Assert.Contains(
            "please call",
            Assert.Throws<RefusedException>(() => life.With(Of(id, FactKind.Asked), Today)).Refusal.Message
        );
    }

    [Fact]
    public void A_link_lives_a_year_unless_it_is_revoked()
    {
        var link = new Link(Sample.NewId(), Sample.NewId(), "Ida", true, Noon, null);
        Assert.Equal(LinkState.Open, link.StateAt(Noon.AddYears(1).AddTicks(-1)));
        Assert.Equal(LinkState.Ended, link.StateAt(Noon.AddYears(1)));
        Assert.Equal(LinkState.Revoked, (link with { Revoked = Noon }).StateAt(Noon.AddYears(2)));
        // Made on 29 February, it ends with the day before 1 March.
        var leap = link with
        {
            Made = new(2028, 2, 29, 8, 0, 0, DateTimeKind.Utc),
        };
        Assert.Equal(new(2029, 2, 28, 8, 0, 0, DateTimeKind.Utc), leap.Ends);
        Link.CheckFor("Ida Marrow");
        foreach (var name in new[] { "", "  ", "Ida\nMarrow", new string('x', 255) })
            Assert.Throws<RefusedException>(() => Link.CheckFor(name));
    }

    [Fact]
    public void The_customer_reads_how_it_stands_in_a_sentence()
    {
        var (life, id) = Sent();
        CustomerReads Reads(ProposalLife of, DateOnly? day = null) =>
            CustomerReads.Of(of, id, day ?? Today, PaperLanguage.English, DateOnly.FromDateTime);
        ProposalLife With(FactKind kind, DateOnly? day = null) => life.With(Of(id, kind, day: day), Today);
        Assert.Equal(new(true, "", ""), Reads(life));
        Assert.Equal(new(true, "", ""), Reads(With(FactKind.PutOnHold)));
        Assert.Equal(
            "The prices held until 30 June 2027. Ask for it again, and we look at them anew.",
            Reads(life, Late).Stands
        );
        Assert.Equal(
            "We let the prices hold longer than the document says: until 1 July 2027.",
            Reads(With(FactKind.Extended, Late)).Holds
        );
        Assert.Equal(
            "Declined on 1 June 2027. If you think otherwise now, ask us.",
            Reads(With(FactKind.Declined)).Stands
        );
        Assert.Equal("Withdrawn on 1 June 2027.", Reads(With(FactKind.Withdrawn)).Stands);
        // A yes on paper has the date that it bears.
        Assert.Equal("Accepted on 30 May 2027.", Reads(With(FactKind.YesRecorded, new(2027, 5, 30))).Stands);
        var (replaced, b) = Sent(life);
        Assert.Equal("Replaced on 1 June 2027 by revision B, which has a link of its own.", Reads(replaced).Stands);
        // An earlier one that was declined stays so; one that is replaced says so even when a later one is accepted.
        Assert.StartsWith("Declined", Reads(Sent(With(FactKind.Declined)).Life).Stands, StringComparison.Ordinal);
        Assert.StartsWith(
            "Replaced on 1 June 2027 by revision B",
            Reads(replaced.With(Of(b, FactKind.Accepted), Today)).Stands,
            StringComparison.Ordinal
        );
        // The earlier one was taken after all: the later one says which.
        var earlier = replaced.With(Of(id, FactKind.YesRecorded, day: Today), Today);
        Assert.Equal(
            "Replaced: revision A was accepted on 1 June 2027.",
            CustomerReads.Of(earlier, b, Today, PaperLanguage.English, DateOnly.FromDateTime).Stands
        );
    }
}
