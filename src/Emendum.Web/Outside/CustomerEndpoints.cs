using Emendum.Core;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Outside;

/// <summary>Something that the customer says: a question, or why they decline.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Words">The words.</param>
public sealed record CustomerSays(Guid Id, string Words);

/// <summary>One thing that is chosen.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Version">Version of the selection that they saw.</param>
/// <param name="Choice">The choice; null for an alternate.</param>
/// <param name="Of">The option, or the alternate.</param>
/// <param name="Taken">Whether it is taken, or given back.</param>
public sealed record ChooseOne(Guid Id, int Version, Guid? Choice, Guid Of, bool Taken)
{
    /// <summary>Whether an option is taken together with what it is only to be had with.</summary>
    public bool Together { get; init; }
}

/// <summary>The year of a link is over.</summary>
public sealed class LinkEndedException() : Exception("This link has ended. Please ask the firm for a new one.");

/// <summary>What can be asked by a customer's link, and nothing beside it.</summary>
public static class CustomerEndpoints
{
    /// <summary>Where links begin.</summary>
    public const string Path = "/p";

    /// <summary>Maps them.</summary>
    public static void MapCustomersPage(this IEndpointRouteBuilder outside)
    {
        var link = outside.MapGroup(Path + "/{token:length(1,64)}").WithMetadata(new BodyLimit(32_000));
        link.MapGet(
            "/page",
            (string token, Behind behind, FirmDay day, Signings signings) =>
            {
                var (link, frozen, life) = behind.Of(token);
                return CustomerPage.Of(frozen, life, link, day, signings);
            }
        );
        link.MapGet(
            "/pdf",
            (string token, Behind behind, FileStore files) =>
                RevisionEndpoints.Pdf(behind.Of(token).Frozen.Revision, files)
        );
        link.MapGet(
            "/schedule.xlsx",
            (string token, Behind behind, FileStore files) =>
                RevisionEndpoints.Schedule(behind.Of(token).Frozen.Revision, files)
        );
        link.MapGet("/signed", Signed);
        link.MapGet("/mark", Mark);
        link.MapPost("/accept", (string token, AcceptRevision accept, Behind behind) => behind.Accept(token, accept));
        link.MapPost("/seen", Seen);
        link.MapGet("/options", Options);
        link.MapGet("/picture", Picture);
        link.MapGet("/shown/{file}", ShownOnPage);
        link.MapGet("/attached/{file}", Attached);
        link.MapPost("/choose", (string token, ChooseOne choose, Behind behind) => behind.Choose(token, choose));
        link.MapPost(
            "/questions",
            (string token, CustomerSays says, Behind behind) => behind.Record(token, FactKind.Asked, says)
        );
        link.MapPost(
            "/decline",
            (string token, CustomerSays says, Behind behind) => behind.Record(token, FactKind.Declined, says)
        );
    }

    /// <summary>The signed PDF.</summary>
    private static Task<IResult> Signed(string token, Behind behind, Signings signings)
    {
        var (_, frozen, life) = behind.Of(token);
        return signings.Sent(life, frozen.Revision);
    }

    /// <summary>Options of a choice whose names have some words in them.</summary>
    private static IReadOnlyList<OptionOnPage> Options(
        string token,
        Guid choice,
        string find,
        Behind behind,
        Signings signings
    )
    {
        var frozen = behind.Of(token).Frozen;
        return OptionsOf(frozen, choice, find, signings);
    }

    /// <summary>Options of a choice of a revision whose names have some words in them.</summary>
    internal static IReadOnlyList<OptionOnPage> OptionsOf(Frozen frozen, Guid choice, string find, Signings signings) =>
        frozen.Offer is { } offer && offer.Choices.FirstOrDefault(c => c.Id == choice) is { } of
            ? OfferView.Found(
                offer,
                of,
                signings.Selected(frozen.Revision.Start.Id),
                find[..Math.Min(find.Length, 100)]
            )
            : throw NothingHere();

    /// <summary>The picture of an option's goods.</summary>
    private static Task<IResult> Picture(
        string token,
        Guid choice,
        Guid option,
        Behind behind,
        FileStore files,
        Pictures pictures
    ) => PictureOf(behind.Of(token).Frozen, choice, option, files, pictures);

    /// <summary>The picture of the goods of an option of a revision.</summary>
    internal static Task<IResult> PictureOf(Frozen frozen, Guid choice, Guid option, FileStore files, Pictures pictures)
    {
        var offer = frozen.Offer;
        var hash =
            offer?.Choices.FirstOrDefault(c => c.Id == choice) is { } of && of.Option(option) is { } one
                ? offer.PictureOf(of, one)
                : "";
        return Shown(files, pictures, hash);
    }

    private static Task<IResult> Mark(string token, Behind behind, FileStore files, Pictures pictures) =>
        Shown(files, pictures, behind.Of(token).Frozen.Revision.Document.Brand.Mark);

    /// <summary>A picture that stands in the document.</summary>
    private static Task<IResult> ShownOnPage(
        string token,
        string file,
        Behind behind,
        FileStore files,
        Pictures pictures
    )
    {
        var rows = behind.Of(token).Frozen.Revision.Document.Document.Elements.OfType<PictureRow>();
        return Shown(files, pictures, rows.Any(row => row.Pictures.Any(p => p.File == file)) ? file : "");
    }

    /// <summary>A file that goes with the proposal, to be kept.</summary>
    private static async Task<IResult> Attached(
        string token,
        string file,
        Behind behind,
        FileStore files,
        Pictures pictures
    )
    {
        var document = behind.Of(token).Frozen.Revision.Document.Document;
        var attached =
            document.Elements.OfType<Attached>().SelectMany(a => a.Files).FirstOrDefault(a => a.File == file)
            ?? throw NothingHere();
        var (leaving, name) = await pictures.Leaving(attached) ?? throw NothingHere();
        return Results.Stream(files.Read(leaving), leaving.Type, name);
    }

    /// <summary>A picture as it leaves the house.</summary>
    private static async Task<IResult> Shown(FileStore files, Pictures pictures, string hash)
    {
        var file = await pictures.Of(hash) ?? throw NothingHere();
        return Results.Stream(files.Read(file), file.Type);
    }

    private static NotThereException NothingHere() => new("There is nothing here.");

    /// <summary>The page says that it is visible: whatever fetches it without being looked at, as scanners of mail do, does not.</summary>
    private static IResult Seen(string token, Behind behind)
    {
        behind.Visit(token);
        return Results.NoContent();
    }

    /// <summary>What stands behind a link: one revision, and the life of its proposal.</summary>
    public sealed class Behind(
        LinkStore links,
        RevisionStore revisions,
        FirmDay day,
        TimeProvider time,
        Live live,
        Signings signings
    )
    {
        private DateTime Now => time.GetUtcNow().UtcDateTime;

        /// <summary>The link that a token opens, with its revision and the life of its proposal.</summary>
        /// <exception cref="NotThereException">It opens nothing, or was revoked: the same answer to both (L20).</exception>
        /// <exception cref="LinkEndedException">Its year is over.</exception>
        public (Link Link, Frozen Frozen, ProposalLife Life) Of(string token)
        {
            var (link, job) = Found(token);
            return (link, signings.Frozen(job, link.Revision)!, revisions.Life(job, link.Revision));
        }

        private FoundLink Found(string token)
        {
            var found = links.Find(Token.HashOf(token));
            return found?.Link.StateAt(Now) switch
            {
                LinkState.Open => found,
                LinkState.Ended => throw new LinkEndedException(),
                _ => throw new NotThereException("This link opens nothing. Please ask whoever gave it to you."),
            };
        }

        /// <summary>Records what the customer says, and answers with the page as it then is.</summary>
        /// <exception cref="RefusedException">It may not be said as the proposal stands; says why.</exception>
        public PageNow Record(string token, FactKind kind, CustomerSays says)
        {
            var (link, job) = Found(token);
            var words = says.Words.Trim();
            if (words.Length > Fact.MostWords)
                throw RefusedException.Of("words", $"At most {Fact.MostWords:N0} characters at a time.");
            // The id is the sender's for this link alone: nobody can take one that is another's.
            var life = revisions.Record(
                job,
                new(DerivedId.Of($"{link.Id}/{says.Id}"), link.Revision, kind, Now, link.For, words)
                {
                    Link = link.Id,
                    Copy = !link.Signs,
                },
                day.Today
            );
            live.Happened(job);
            return PageNow.Of(signings.Frozen(job, link.Revision)!, life, link, day, signings);
        }

        /// <summary>Accepts and signs.</summary>
        /// <exception cref="RefusedException">It cannot be accepted as it stands; says why.</exception>
        public PageNow Accept(string token, AcceptRevision accept)
        {
            var (link, job) = Found(token);
            var frozen = signings.Frozen(job, link.Revision)!;
            var life = signings.Accept(job, frozen, accept, DerivedId.Of($"{link.Id}/{accept.Id}"), link);
            live.Happened(job);
            return PageNow.Of(frozen, life, link, day, signings);
        }

        /// <summary>Chooses one thing more.</summary>
        /// <exception cref="RefusedException">It cannot be chosen as the proposal stands; says why.</exception>
        public PageNow Choose(string token, ChooseOne choose)
        {
            var (link, job) = Found(token);
            var frozen = signings.Frozen(job, link.Revision)!;
            var life = signings.Choose(job, frozen, choose, DerivedId.Of($"{link.Id}/{choose.Id}"), link);
            live.Happened(job);
            return PageNow.Of(frozen, life, link, day, signings);
        }

        /// <summary>Records that somebody who may sign has looked, once a visit (L19).</summary>
        public void Visit(string token)
        {
            var (link, job) = Found(token);
            if (
                !link.Signs
                || !revisions.Life(job, link.Revision).IsNewVisit(link.Id, link.Revision, Now, FactKind.Seen)
            )
                return;
            revisions.Record(
                job,
                new(Guid.CreateVersion7(), link.Revision, FactKind.Seen, Now, link.For, "") { Link = link.Id },
                day.Today
            );
            live.Happened(job);
        }
    }
}
