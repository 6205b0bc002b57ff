using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;
using Emendum.Documents;
using Emendum.Documents.Workbooks;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Emendum.Web.Deliver;
using Microsoft.AspNetCore.Mvc;

namespace Emendum.Web.Jobs;

/// <summary>What a new job is made from.</summary>
public sealed record NewJob(Guid Id, string Name, string Subtitle, Guid? Customer, UnitSystem Units);

/// <summary>A tape line to be read, for a new place or one that is there.</summary>
public sealed record TapeText(string Line, Guid? Place);

/// <summary>A job made or taken in.</summary>
public sealed record JobMade(Guid Id);

/// <summary>The workings of a figure as plain text.</summary>
public sealed record WorkingsText(string Text);

/// <summary>What can be done to jobs.</summary>
public static class JobEndpoints
{
    /// <summary>Who asks, until people sign in.</summary>
    internal const string Owner = "the owner";

    /// <summary>Maps them.</summary>
    public static void MapJobs(this IEndpointRouteBuilder app)
    {
        var jobs = app.MapGroup("/api/jobs");
        jobs.MapGet("/", JobListView.Of);
        jobs.MapPost("/", Create);
        jobs.MapPost("/import", Import)
            .WithMetadata(new BodyLimit(JobFile.MostBytes))
            .Accepts<byte[]>("application/json")
            .Produces<JobMade>();
        jobs.MapGet(
            "/{id:guid}",
            (Guid id, Guid? client, OpenJobs open, Watchers watchers) => View(open.Get(id).Now, client, watchers)
        );
        jobs.MapGet(
                "/{id:guid}/changes",
                (Guid id, long since, Guid client, OpenJobs open) =>
                    Answered(open.Get(id).ChangesSince(since, new(Owner, client)))
            )
            .Produces<AnswerView>();
        jobs.MapGet(
            "/{id:guid}/file",
            (Guid id, OpenJobs open, CustomerStore customers) =>
            {
                var job = open.Get(id).Estimate.Job;
                var party = customers.Party(job.Info.Customer);
                return Results.File(
                    JobFile.Write(job, party: party == Party.None ? null : party),
                    "application/json",
                    "job.json"
                );
            }
        );
        jobs.MapPost(
                "/{id:guid}/commands",
                async (
                    Guid id,
                    SentCommand sent,
                    OpenJobs open,
                    Shelf shelf,
                    CustomerStore customers,
                    FileStore files
                ) =>
                {
                    files.NameInProposal(sent.Command.Files);
                    if (
                        sent.Command is SetInfo { Field: "customer", Now: { } now }
                        && !(
                            Guid.TryParse(now.ToString(), out var customer) && customers.Party(customer).Id == customer
                        )
                    )
                        throw RefusedException.Of("customer", "That customer is not here any more.");
                    return Answered(await open.Do(id, job => job.Do(sent, sent.Command, Owner, shelf.Find)));
                }
            )
            .Produces<AnswerView>();
        jobs.MapPost(
                "/{id:guid}/undo",
                async (Guid id, SentUndo sent, OpenJobs open) =>
                    Answered(await open.Do(id, job => job.Undo(sent, Owner)))
            )
            .Produces<AnswerView>();
        jobs.MapPost(
                "/{id:guid}/redo",
                async (Guid id, SentRedo sent, OpenJobs open) =>
                    Answered(await open.Do(id, job => job.Redo(sent, Owner)))
            )
            .Produces<AnswerView>();
        jobs.MapPost(
            "/{id:guid}/read-tape",
            (Guid id, TapeText text, OpenJobs open) => TapeView.Of(open.Get(id).Estimate.Job, text.Line, text.Place)
        );
        jobs.MapGet(
            "/{id:guid}/places/{place:guid}",
            (Guid id, Guid place, OpenJobs open) => PlaceSheetView.Of(open.Get(id), place)
        );
        jobs.MapGet("/{id:guid}/measured", (Guid id, OpenJobs open) => MeasuredView.Of(open.Get(id).Estimate));
        jobs.MapGet(
            "/{id:guid}/deduction",
            (Guid id, string rule, OpenJobs open) => DeductionView.Of(open.Get(id).Estimate, rule)
        );
        jobs.MapWork();
        jobs.MapPrice();
        jobs.MapProposal();
        jobs.MapFurther();
        jobs.MapRevisions();
        jobs.MapDeliver();
        jobs.MapGet(
            "/{id:guid}/cost-sheet.pdf",
            (Guid id, OpenJobs open, CustomerStore customers) => CostSheet(open.Get(id).Estimate, customers)
        );
        jobs.MapGet(
                "/{id:guid}/cost-sheet.xlsx",
                (Guid id, OpenJobs open) =>
                {
                    var job = open.Get(id).Estimate.Job;
                    return Results.File(
                        CostWorkbook.Write(job),
                        TableEndpoints.Workbooks,
                        $"Cost sheet {job.Info.Number}.xlsx"
                    );
                }
            )
            .Produces<byte[]>(200, TableEndpoints.Workbooks);
        jobs.MapGet(
                "/{id:guid}/workings.xlsx",
                (Guid id, OpenJobs open) =>
                    Results.File(
                        WorkingsWorkbook.Write(open.Get(id).Recorded()),
                        TableEndpoints.Workbooks,
                        "Workings.xlsx"
                    )
            )
            .Produces<byte[]>(200, TableEndpoints.Workbooks);
        jobs.MapGet(
            "/{id:guid}/workings",
            (Guid id, string figure, int? levels, OpenJobs open, OtherBooks books) =>
                Explanation.Of(Recorded(open.Get(id), figure, books), figure, levels)
                ?? throw new NotThereException("That figure is not in this job any more.")
        );
        jobs.MapGet(
            "/{id:guid}/workings/text",
            (Guid id, string figure, OpenJobs open, OtherBooks books) =>
                new WorkingsText(
                    Explanation.Text(Recorded(open.Get(id), figure, books), figure)
                        ?? throw new NotThereException("That figure is not in this job any more.")
                )
        );
    }

    /// <summary>The workings that a figure stands in: of the job, or of another way of pricing it, what one piece of it is worth, what is offered beside it, how sure it is or what another estimator says, which are made when asked for.</summary>
    private static Trace Recorded(OpenJob open, string figure, OtherBooks books)
    {
        var trace = Trace.Recording();
        if (
            OptionEndpoints.Record(open.Estimate.Job, figure, trace)
            || ChoiceEndpoints.Record(open.Estimate.Job, figure, trace)
            || QuoteEndpoints.Record(open.Estimate.Job, figure, trace)
            || YearEndpoints.Record(open.Estimate.Job, figure, trace)
            || VariantEndpoints.Record(open.Estimate, figure, trace)
            || SureEndpoints.Record(open.Estimate, figure, books, trace)
        )
            return trace;
        if (figure.Split('/') is ["ways", var way, ..])
        {
            if (!Enum.TryParse<PriceBasis>(way, out var basis) || !Enum.IsDefined(basis))
                return trace;
            var within = trace.Within(Way.Within(basis));
            var so = Way.Recorded(open.Estimate, basis, within);
            foreach (var measure in Measures.All)
                Core.Reports.PricePerArea.Of(so, measure, within);
            return trace;
        }
        if (figure.Split('/') is not ["worth", var kind, var id, var state, ..])
            return open.Recorded();
        var job = open.Estimate.Job;
        if (
            Enum.TryParse<PieceKind>(kind, true, out var of)
            && Enum.TryParse<PieceState>(state, true, out var stands)
            && Guid.TryParse(id, out var piece)
            && Piece.Of(job, of, piece, stands) is { } found
        )
            Worth.Recorded(job, found, trace);
        return trace;
    }

    private static JobView View(JobState job, Guid? client, Watchers watchers) =>
        new ViewOf(job.Estimate).Job(job.Version, job.UndoOf(new(Owner, client ?? Guid.AllBitsSet), watchers.IsOpen));

    internal static IResult Answered(string json) => Results.Text(json, "application/json");

    private static JobMade Create(
        NewJob request,
        OpenJobs open,
        CompanyStore companies,
        SettingStore settings,
        Shelf shelf,
        CustomerStore customers,
        FirmDay day
    )
    {
        var company = companies.Get()!;
        var customer = request.Customer is { } id
            ? customers.Find(id) ?? throw RefusedException.Of("customer", "That customer is not here any more.")
            : null;
        var info = new JobInfo(
            request.Name.Trim(),
            request.Subtitle.Trim(),
            "",
            customer?.Id,
            company.Name,
            company.Address,
            company.Currency,
            day.Written
        );
        JobRules.Info(info);
        var policy = settings.Get(PricePolicies.Setting, PricePolicies.Starting).OfNewJobs();
        var job = Job.Empty(
            request.Id,
            info with
            {
                Number = companies.TakeNumber().ToString(System.Globalization.CultureInfo.InvariantCulture),
            },
            request.Units
        ) with
        {
            Deduct = company.Deduct,
            Crew = settings.Get(CrewTerms.Setting, CrewTerms.Starting),
            Policy = policy,
            Pricing = policy.Onto(PricingTerms.Starting) with { Exemption = customer?.Exemption },
        };
        job = ProposalEndpoints.AsUsual(job, settings, shelf);
        JobRules.Check(job);
        open.Create(job);
        return new(job.Id);
    }

    private static async Task<JobMade> Import(HttpRequest request, OpenJobs open, CustomerStore customers)
    {
        var job = JobFile.Read(await Bodies.Read(request), out var party);
        open.Create(job with { Info = job.Info with { Customer = customers.Known(party, job.Info.Customer) } });
        return new(job.Id);
    }

    private static IResult CostSheet(Estimate estimate, CustomerStore customers) =>
        Results.File(
            CostSheetPdf.Write(
                Core.Reports.CostSheet.Of(estimate, Trace.Silent),
                customers.Party(estimate.Job.Info.Customer).Name
            ),
            "application/pdf",
            $"Cost sheet {estimate.Job.Info.Number}.pdf"
        );
}
