using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>Writes what is to be mended.</summary>
/// <param name="Id">Its id; the same again is done once.</param>
/// <param name="Text">What.</param>
/// <param name="Place">Where; null for the job as a whole.</param>
public sealed record WriteSnag(Guid Id, string Text, Guid? Place);

/// <summary>Says that it was mended, or is open again.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Mended">Which of the two.</param>
public sealed record MendSnag(Guid Id, bool Mended);

/// <summary>Records that the customer takes the work.</summary>
/// <param name="Id">Its id; the same again is done once.</param>
/// <param name="Day">The day that it bears, like 2027-01-31.</param>
/// <param name="Name">Who took it.</param>
/// <param name="How">How it came.</param>
public sealed record RecordCompletion(Guid Id, string Day, string Name, string How);

/// <summary>A snag, as it is read.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Text">What.</param>
/// <param name="Where">Where; empty for the job as a whole.</param>
/// <param name="Mended">Whether it was mended.</param>
/// <param name="Said">Who wrote it, or says that it was mended, and when.</param>
public sealed record SnagRow(Guid Id, string Text, string Where, bool Mended, string Said);

/// <summary>Snags and the completion note.</summary>
/// <param name="Snags">Open ones first.</param>
/// <param name="Open">How many are open.</param>
/// <param name="Note">Who took the work when; empty while nobody has.</param>
/// <param name="Places">Where something can be wrong.</param>
/// <param name="Customer">Who would take it, to be typed over.</param>
/// <param name="Today">The firm's day, like 2027-01-31.</param>
public sealed record CompletionView(
    IReadOnlyList<SnagRow> Snags,
    int Open,
    string Note,
    IReadOnlyList<PlaceToWrite> Places,
    string Customer,
    string Today
)
{
    private static List<PlaceToWrite> PlacesOf(WorkOrder order) =>
        [.. order.Lines.DistinctBy(l => l.Place).Select(l => new PlaceToWrite(l.Place, l.At))];

    /// <summary>Snags as they are read, open ones first.</summary>
    internal static IReadOnlyList<SnagRow> Rows(IEnumerable<Snag> snags, WorkOrder order, FirmDay day)
    {
        var (moment, places) = (day.Moments(), PlacesOf(order));
        return
        [
            .. snags
                .OrderBy(s => s.Mended is not null)
                .Select(s => new SnagRow(
                    s.Id,
                    s.Text,
                    places.Find(p => p.Id == s.Place)?.Name ?? "",
                    s.Mended is not null,
                    s.Mended is { } mended ? $"mended {moment(mended.At)}, {mended.By}" : $"{moment(s.At)}, {s.By}"
                )),
        ];
    }

    internal static CompletionView Of(Completion completion, AcceptedWork work, FirmDay day)
    {
        return new(
            Rows(completion.Snags, work.Order, day),
            completion.Open,
            completion.Note is { } note
                ? $"Taken by {note.Name} on {work.Brand.Writes.Day(note.Day)}{(note.How.Length > 0 ? $", {note.How}" : "")}"
                : "",
            PlacesOf(work.Order),
            work.Head.Customer,
            day.Written
        );
    }
}

/// <summary>Snags and completion of a job.</summary>
public sealed class Completing(
    WorkOrders orders,
    CompletionStore store,
    JobStore jobs,
    Pictures pictures,
    FirmDay day,
    Live live,
    TimeProvider time
)
{
    private DateTime Now => time.GetUtcNow().UtcDateTime;

    private AcceptedWork Accepted(Guid job) =>
        orders.Of(job) ?? throw RefusedException.Of("job", "Nothing was accepted yet: there is nothing to complete.");

    /// <summary>How it stands; null while nothing is accepted.</summary>
    internal CompletionView? View(Guid job)
    {
        if (!jobs.Has(job))
            throw new NotThereException("That job is not here.");
        return orders.Of(job) is { } work ? CompletionView.Of(store.Of(job, work.Yes.Id), work, day) : null;
    }

    private CompletionView Told(Guid job, AcceptedWork work)
    {
        live.Happened(job);
        return CompletionView.Of(store.Of(job, work.Yes.Id), work, day);
    }

    /// <summary>Writes a snag.</summary>
    internal CompletionView Write(Guid job, WriteSnag write)
    {
        var work = Accepted(job);
        var snag = new Snag(write.Id, write.Text.Trim(), write.Place, Now, JobEndpoints.Owner);
        snag.Check(work.Order);
        store.Write(job, snag);
        return Told(job, work);
    }

    /// <summary>Says that one was mended, or is open again.</summary>
    internal CompletionView Mend(Guid job, Guid snag, MendSnag mend)
    {
        var work = Accepted(job);
        store.Mend(job, mend.Id, snag, mend.Mended, Now, JobEndpoints.Owner);
        return Told(job, work);
    }

    /// <summary>Records that the customer takes the work.</summary>
    internal CompletionView Record(Guid job, RecordCompletion record)
    {
        var work = Accepted(job);
        var fact = new CompletionFact(
            record.Id,
            Typed.Day(record.Day, "day"),
            record.Name.Trim(),
            record.How.Trim(),
            Now,
            JobEndpoints.Owner
        );
        fact.Check(day.Today);
        store.Record(job, work.Yes.Id, fact);
        return Told(job, work);
    }

    /// <summary>Takes that back.</summary>
    internal CompletionView TakeBack(Guid job, TakeMoveBack take)
    {
        var work = Accepted(job);
        store.TakeBack(job, work.Yes.Id, take.Id, Now, JobEndpoints.Owner);
        return Told(job, work);
    }

    /// <summary>The note to be signed, or as it was recorded.</summary>
    internal async Task<IResult> Pdf(Guid job)
    {
        var work = Accepted(job);
        var document = LatePaper.Of(
            store.Of(job, work.Yes.Id),
            work.Order,
            work.Head,
            OrderView.ReferenceOf(work, day),
            work.Brand
        );
        var info = new JobInfo(document.Head.Title, "", "", null, document.Head.Firm, "", "", day.Written);
        return Results.File(
            await ProposalEndpoints.Set(document, info, work.Brand, pictures),
            "application/pdf",
            $"Completion note, {work.Head.Title}.pdf"
        );
    }
}

/// <summary>What is asked of snags and completion.</summary>
public static class CompletionEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapCompletion(this IEndpointRouteBuilder deliver)
    {
        var completion = deliver.MapGroup("/completion");
        completion.MapGet("/", (Guid id, Completing of) => of.View(id));
        completion.MapPost("/snags", (Guid id, WriteSnag write, Completing of) => of.Write(id, write));
        completion.MapPost(
            "/snags/{snag:guid}/mended",
            (Guid id, Guid snag, MendSnag mend, Completing of) => of.Mend(id, snag, mend)
        );
        completion.MapPost("/note", (Guid id, RecordCompletion record, Completing of) => of.Record(id, record));
        completion.MapPost("/note/take-back", (Guid id, TakeMoveBack take, Completing of) => of.TakeBack(id, take));
        completion.MapGet("/note.pdf", (Guid id, Completing of) => of.Pdf(id)).Produces<byte[]>(200, "application/pdf");
    }
}
