using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage;

namespace Emendum.Web.Outside;

/// <summary>An answer of the firm, as the customer reads it.</summary>
public sealed record AnswerToCustomer(string Words, string At);

/// <summary>A question of the customer's side.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Own">Whether it came by this very link.</param>
/// <param name="Words">The question.</param>
/// <param name="At">When, in the firm's zone.</param>
/// <param name="Answers">The firm's answers.</param>
public sealed record CustomerQuestion(
    Guid Id,
    bool Own,
    string Words,
    string At,
    IReadOnlyList<AnswerToCustomer> Answers
);

/// <summary>What moves on the customer's page.</summary>
/// <param name="Revision">Letters of the revision.</param>
/// <param name="Open">Whether it can be declined and signed.</param>
/// <param name="Stands">Why it is not open, as a sentence; empty where it is.</param>
/// <param name="Holds">Until when the prices hold, where that is longer than the document says; empty otherwise.</param>
/// <param name="Questions">What was asked, the first first.</param>
/// <param name="Statement">What would be signed, or was.</param>
/// <param name="StatementHash">SHA-256 of it.</param>
/// <param name="Agreed">Whether it was agreed, and stands.</param>
/// <param name="Recorded">How the firm came by the yes, where nobody signed here; empty otherwise.</param>
/// <param name="Names">The names under it; empty where it was not signed.</param>
/// <param name="Offer">What can be chosen; null where nothing is offered, or where it was signed.</param>
public sealed record PageNow(
    string Revision,
    bool Open,
    string Stands,
    string Holds,
    IReadOnlyList<CustomerQuestion> Questions,
    Statement Statement,
    string StatementHash,
    bool Agreed,
    string Recorded,
    IReadOnlyList<SignedBy> Names,
    OfferView? Offer
)
{
    /// <summary>That of a revision.</summary>
    /// <param name="frozen">The revision.</param>
    /// <param name="life">The life of its proposal.</param>
    /// <param name="link">The link it is looked at by; null where the firm looks.</param>
    /// <param name="day">The firm's day.</param>
    /// <param name="signings">What was signed.</param>
    public static PageNow Of(Frozen frozen, ProposalLife life, Link? link, FirmDay day, Signings signings)
    {
        var id = frozen.Revision.Start.Id;
        var (signed, selection, moment) = (signings.Standing(life, id), signings.Selected(id), day.Moments());
        var statement = signed?.Statement ?? frozen.With(selection, out _).Statement;
        var writes = frozen.Revision.Document.Brand.Writes;
        var reads = CustomerReads.Of(life, id, day.Today, writes, day.Days());
        return new(
            frozen.Revision.Start.Letters,
            reads.Open,
            reads.Stands,
            reads.Holds,
            [
                .. life
                    .Facts.Where(f => f.Revision == id && f.Kind == FactKind.Asked)
                    .Select(question => new CustomerQuestion(
                        question.Id,
                        question.Link is { } by && by == link?.Id,
                        question.Words,
                        moment(question.At),
                        [
                            .. life
                                .Facts.Where(f => f.Kind == FactKind.Answered && f.About == question.Id)
                                .Select(f => new AnswerToCustomer(f.Words, moment(f.At))),
                        ]
                    )),
            ],
            statement,
            statement.Hash,
            signed is not null,
            signed?.Recorded ?? "",
            [.. signed?.Under(moment) ?? []],
            signed is null ? OfferView.Of(frozen, selection) : null
        );
    }
}

/// <summary>The customer's page: one frozen revision, and how it stands. Nothing else of the firm leaves by it.</summary>
/// <param name="Document">The document, without what is not read and without paths of figures.</param>
/// <param name="Brand">Its look.</param>
/// <param name="HasMark">Whether the firm has a mark.</param>
/// <param name="HasSchedule">Whether their schedule of quantities stands here, priced.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="For">Whom the link was made for; empty where the firm looks at it.</param>
/// <param name="Signs">Whether they may choose, decline and sign; otherwise they read and ask.</param>
/// <param name="Now">What moves on it.</param>
public sealed record CustomerPage(
    Document Document,
    Brand Brand,
    bool HasMark,
    bool HasSchedule,
    string Currency,
    string For,
    bool Signs,
    PageNow Now
)
{
    /// <summary>That of a revision; what its parts are is said at <see cref="PageNow.Of"/>.</summary>
    public static CustomerPage Of(Frozen frozen, ProposalLife life, Link? link, FirmDay day, Signings signings)
    {
        var brand = frozen.Revision.Document.Brand;
        return new(
            frozen.Read,
            brand with
            {
                Mark = "",
            },
            brand.Mark.Length > 0,
            frozen.Revision.Figures.Schedule.Length > 0,
            frozen.AsSent.Statement.Currency,
            link?.For ?? "",
            link?.Signs ?? false,
            PageNow.Of(frozen, life, link, day, signings)
        );
    }
}
