using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Microsoft.AspNetCore.Mvc;

namespace Emendum.Web.Jobs;

/// <summary>What a new job is made from.</summary>
public sealed record NewJob(Guid Id, string Name, string Subtitle, Guid? Customer, UnitSystem Units);

/// <summary>A tape line to be read.</summary>
public sealed record TapeText(string Line);

/// <summary>Reading of a tape line: its words, or what is wrong with it.</summary>
public sealed record TapeView(string Name, IReadOnlyList<string> Words, Refusal? Refusal);

/// <summary>An id made by the client for an undo or redo.</summary>
public sealed record ReverseRequest(Guid Id);

/// <summary>A job made or taken in.</summary>
public sealed record JobMade(Guid Id);

/// <summary>What can be done to jobs.</summary>
public static class JobEndpoints
{
    /// <summary>Who asks, until people sign in.</summary>
    private const string Owner = "the owner";

    /// <summary>Most bytes of a file that are read at all before the connection is dropped.</summary>
    private const int MostDrained = 256_000_000;

    /// <summary>Maps them.</summary>
    public static void MapJobs(this IEndpointRouteBuilder app)
    {
        var jobs = app.MapGroup("/api/jobs");
        jobs.MapGet("/", (JobStore store) => store.List());
        jobs.MapPost("/", Create);
        jobs.MapPost("/import", Import).Accepts<byte[]>("application/json").Produces<JobMade>().WithMetadata(new RequestSizeLimitAttribute(MostDrained));
        jobs.MapGet("/{id:guid}", (Guid id, OpenJobs open) => View(open.Get(id)));
        jobs.MapGet("/{id:guid}/file", (Guid id, OpenJobs open) => Results.File(JobFile.Write(open.Get(id).Reckoning.Job), "application/json", "job.json"));
        jobs.MapPost("/{id:guid}/commands", async (Guid id, Command command, OpenJobs open, Shelf shelf) => Answered(await open.Get(id).Do(command, Owner, shelf.Find))).Produces<AnswerView>();
        jobs.MapPost("/{id:guid}/undo", async (Guid id, ReverseRequest request, OpenJobs open) => Answered(await open.Get(id).Undo(request.Id, Owner))).Produces<AnswerView>();
        jobs.MapPost("/{id:guid}/redo", async (Guid id, ReverseRequest request, OpenJobs open) => Answered(await open.Get(id).Redo(request.Id, Owner))).Produces<AnswerView>();
        jobs.MapPost("/{id:guid}/read-tape", (Guid id, TapeText text, OpenJobs open) => ReadTape(text.Line, open.Get(id).Reckoning.Job.Units));
        jobs.MapGet("/{id:guid}/places/{place:guid}/drawing", (Guid id, Guid place, OpenJobs open) => Drawing(open.Get(id).Reckoning.Job, place));
        jobs.MapGet("/{id:guid}/cells/{work:guid}/{place:guid}", (Guid id, Guid work, Guid place, OpenJobs open) => CellSheetView.Of(open.Get(id), new(work, place)));
        jobs.MapGet("/{id:guid}/price", (Guid id, OpenJobs open) => PriceView.Of(open.Get(id).Reckoning));
        jobs.MapGet("/{id:guid}/proposal", (Guid id, OpenJobs open) => Proposal.Of(open.Get(id).Reckoning, Trace.Silent));
        jobs.MapGet("/{id:guid}/proposal.pdf", (Guid id, OpenJobs open) => Pdf(open.Get(id).Reckoning));
        jobs.MapGet("/{id:guid}/workings", (Guid id, string figure, int? levels, OpenJobs open) =>
            Explanation.Of(open.Get(id).Recorded(), figure, levels) ?? throw new NotThereException("That figure is not in this job any more."));
    }

    private static JobView View(OpenJob job) => new ViewOf(job.Reckoning).Job(job.Version, job.UndoOf(Owner));

    private static IResult Answered(string json) => Results.Text(json, "application/json");

    private static JobMade Create(NewJob request, OpenJobs open, CompanyStore companies, CustomerStore customers)
    {
        var company = companies.Get()!;
        var customer = request.Customer is { } id ? customers.List().Find(c => c.Id == id) ?? throw RefusedException.Of("customer", "That customer is not here any more.") : null;
        var info = new JobInfo(request.Name.Trim(), request.Subtitle.Trim(), "", customer?.Name ?? "", customer?.Address ?? "", customer?.Id, company.Name, company.Address, company.Currency,
            DateTime.UtcNow.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture));
        JobChecks.Info(info);
        var job = LibraryJob.Empty(request.Id, info with { Number = companies.TakeNumber().ToString(System.Globalization.CultureInfo.InvariantCulture) }, request.Units);
        JobChecks.Check(job);
        open.Create(job);
        return new(job.Id);
    }

    private static async Task<JobMade> Import(HttpRequest request, OpenJobs open)
    {
        // A file that is too large is read to its end and thrown away: answering earlier would break the connection before the answer is seen.
        using var content = new MemoryStream();
        var (chunk, length) = (new byte[64 * 1024], 0L);
        while (await request.Body.ReadAsync(chunk) is var read and > 0)
            if ((length += read) <= JobFile.MostBytes) content.Write(chunk, 0, read);
        if (length > JobFile.MostBytes) throw new BadHttpRequestException("too large", StatusCodes.Status413PayloadTooLarge);
        var job = JobFile.Read(content.GetBuffer().AsSpan(0, (int)content.Length));
        open.Create(job);
        return new(job.Id);
    }

    private static TapeView ReadTape(string line, UnitSystem system)
    {
        var (reading, refusal) = TapeLine.Read(line, system);
        return new(reading?.Name ?? "", reading?.ReadBack(system) ?? [], refusal);
    }

    private static UnfoldedRoom Drawing(Job job, Guid place) =>
        UnfoldedRoom.Of(job.Place(place) ?? throw new NotThereException("That place is not in this job any more."), job.Units, job.Rule);

    private static IResult Pdf(Reckoning reckoning) =>
        Results.File(ProposalPdf.Write(Proposal.Of(reckoning, Trace.Silent), reckoning.Job.Info), "application/pdf", $"Proposal {reckoning.Job.Info.Number}.pdf");
}
