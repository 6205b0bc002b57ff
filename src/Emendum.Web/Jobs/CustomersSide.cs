using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Storage;
using Emendum.Web.Outside;

namespace Emendum.Web.Jobs;

/// <summary>Makes a customer's link to a revision by hand.</summary>
/// <param name="Fact">Id of the fact.</param>
/// <param name="For">Whom it is for.</param>
/// <param name="Signs">Whether they may sign; otherwise they have a copy.</param>
public sealed record MakeLink(Guid Fact, string For, bool Signs);

/// <summary>A link that was made.</summary>
/// <param name="Address">Where it leads. Nobody is told it again.</param>
public sealed record LinkMade(string Address);

/// <summary>Revokes a link.</summary>
/// <param name="Fact">Id of the fact.</param>
public sealed record RevokeLink(Guid Fact);

/// <summary>A further name under what was agreed.</summary>
/// <param name="Id">Id of the signature.</param>
/// <param name="ByFirm">Whether it is the firm's; otherwise the customer's.</param>
/// <param name="Name">The name in full.</param>
/// <param name="Drawn">It as it was drawn; empty where it was typed.</param>
public sealed record SignToo(Guid Id, bool ByFirm, string Name, string Drawn);

/// <summary>Answers a question.</summary>
/// <param name="Id">Id of the answer.</param>
/// <param name="Question">The question.</param>
/// <param name="Words">The answer.</param>
public sealed record AnswerQuestion(Guid Id, Guid Question, string Words);

/// <summary>The customer's side of a revision, as the firm has it: links, questions, what was chosen, and what is signed.</summary>
public static class CustomersSide
{
    /// <summary>Maps what is asked of it.</summary>
    public static void MapCustomersSide(this IEndpointRouteBuilder jobs)
    {
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/links", MakeLink);
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/links/{link:guid}/revoke", Revoke);
        jobs.MapGet(
            "/{id:guid}/revisions/questions",
            (Guid id, RevisionStore revisions, FirmDay day) => Questions(id, revisions, day)
        );
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/answers", Answer);
        // The firm looks at the page as the customer has it; that never counts as seen (L19).
        jobs.MapGet(
            "/{id:guid}/revisions/{revision:guid}/page",
            (Guid id, Guid revision, RevisionStore revisions, FirmDay day, Signings signings) =>
                CustomerPage.Of(Frozen(signings, id, revision), revisions.Life(id, revision), null, day, signings)
        );
        jobs.MapGet("/{id:guid}/revisions/{revision:guid}/chosen", Chosen);
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/choose", ChooseInPerson);
        jobs.MapGet(
            "/{id:guid}/revisions/{revision:guid}/options",
            (Guid id, Guid revision, Guid choice, string find, Signings signings) =>
                CustomerEndpoints.OptionsOf(Frozen(signings, id, revision), choice, find, signings)
        );
        jobs.MapGet(
                "/{id:guid}/revisions/{revision:guid}/picture",
                (
                    Guid id,
                    Guid revision,
                    Guid choice,
                    Guid option,
                    Signings signings,
                    FileStore files,
                    Pictures pictures
                ) => CustomerEndpoints.PictureOf(Frozen(signings, id, revision), choice, option, files, pictures)
            )
            .Produces<byte[]>();
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/accept", AcceptInPerson);
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/signatures", SignsToo);
        jobs.MapGet("/{id:guid}/revisions/{revision:guid}/signed", Signed).Produces<byte[]>(200, "application/pdf");
    }

    private static Frozen Frozen(Signings signings, Guid job, Guid id) =>
        signings.Frozen(job, id) ?? throw RevisionEndpoints.NotInJob();

    /// <summary>Makes a link by hand; its address is said in this answer and never again.</summary>
    private static LinkMade MakeLink(
        Guid id,
        Guid revision,
        MakeLink make,
        RevisionStore revisions,
        FirmDay day,
        OutsideAddress outside,
        TimeProvider time
    )
    {
        var who = make.For.Trim();
        Link.CheckFor(who);
        _ = RevisionEndpoints.Row(revisions, id, revision);
        var now = time.GetUtcNow().UtcDateTime;
        var (made, address) = RevisionMails.NewLinkTo(revision, who, make.Signs, now, outside);
        var was = revisions.Life(id, revision).Facts.Length;
        var life = revisions.Record(
            id,
            new(
                make.Fact,
                revision,
                FactKind.SentAgain,
                now,
                JobEndpoints.Owner,
                $"a link for {who}, {(make.Signs ? "to read, ask and sign" : "to read and ask")}"
            ),
            day.Today,
            new([made], [])
        );
        return life.Facts.Length > was
            ? new(address)
            : throw RefusedException.Of(
                "for",
                "That link was made before, and its address is said only once. Make another one."
            );
    }

    private static RevisionsView Revoke(
        Guid id,
        Guid revision,
        Guid link,
        RevokeLink revoke,
        OpenJobs open,
        RevisionStore revisions,
        LinkStore links,
        Told told,
        FirmDay day,
        TimeProvider time
    )
    {
        var found =
            links.Of(id)[revision].FirstOrDefault(l => l.Id == link) ?? throw new NotThereException(
                "That link is not in this job."
            );
        revisions.Record(
            id,
            new(
                revoke.Fact,
                revision,
                FactKind.LinkRevoked,
                time.GetUtcNow().UtcDateTime,
                JobEndpoints.Owner,
                found.For
            )
            {
                Link = link,
            },
            day.Today
        );
        return told.Of(open.Get(id).Estimate);
    }

    /// <summary>What the customer chose, and what takes it into the job as it stands (L9).</summary>
    private static ChosenView Chosen(Guid id, Guid revision, OpenJobs open, Signings signings)
    {
        var (frozen, selection) = (Frozen(signings, id, revision), signings.Selected(revision));
        var statement = frozen.With(selection, out _).Statement;
        // Where live pricing has stopped, nothing is chosen any more.
        if (frozen.Offer is not { } offer)
            return new(statement.Taken, statement.Total, [], []);
        var takes = TakeOver.Of(open.Get(id).Estimate, selection, offer.Sent);
        return new(statement.Taken, statement.Total, takes.Commands, takes.Gone);
    }

    /// <summary>The customer chooses at the firm's own screen.</summary>
    private static PageNow ChooseInPerson(
        Guid id,
        Guid revision,
        ChooseOne choose,
        FirmDay day,
        Signings signings,
        Live live
    )
    {
        var frozen = Frozen(signings, id, revision);
        var life = signings.Choose(id, frozen, choose, choose.Id, null);
        live.Happened(id);
        return PageNow.Of(frozen, life, null, day, signings);
    }

    /// <summary>The customer signs at the firm's own tablet.</summary>
    private static PageNow AcceptInPerson(
        Guid id,
        Guid revision,
        AcceptRevision accept,
        FirmDay day,
        Signings signings,
        Live live
    )
    {
        var frozen = Frozen(signings, id, revision);
        var life = signings.Accept(id, frozen, accept, accept.Id, null);
        live.Happened(id);
        return PageNow.Of(frozen, life, null, day, signings);
    }

    /// <summary>The firm signs too (L16), or somebody else of the customer's side (L21).</summary>
    private static RevisionsView SignsToo(
        Guid id,
        Guid revision,
        SignToo sign,
        OpenJobs open,
        RevisionStore revisions,
        Signings signings,
        Told told
    )
    {
        _ = RevisionEndpoints.Row(revisions, id, revision);
        signings.Sign(revisions.Life(id, revision), revision, sign.Id, sign.ByFirm, sign.Name, sign.Drawn);
        return told.Of(open.Get(id).Estimate);
    }

    private static Task<IResult> Signed(Guid id, Guid revision, RevisionStore revisions, Signings signings) =>
        signings.Sent(revisions.Life(id, revision), Frozen(signings, id, revision).Revision);

    private static QuestionsView Answer(
        Guid id,
        Guid revision,
        AnswerQuestion answer,
        RevisionStore revisions,
        FirmDay day,
        TimeProvider time
    )
    {
        RevisionEndpoints.CheckWords(answer.Words);
        _ = RevisionEndpoints.Row(revisions, id, revision);
        revisions.Record(
            id,
            new(
                answer.Id,
                revision,
                FactKind.Answered,
                time.GetUtcNow().UtcDateTime,
                JobEndpoints.Owner,
                answer.Words.Trim()
            )
            {
                About = answer.Question,
            },
            day.Today
        );
        return Questions(id, revisions, day);
    }

    /// <summary>All that was asked of a job: about its proposal, and about its change orders.</summary>
    private static QuestionsView Questions(Guid job, RevisionStore revisions, FirmDay day) =>
        QuestionsView.Of([revisions.Life(job), .. revisions.Changes(job).Select(c => c.Life)], day);
}
