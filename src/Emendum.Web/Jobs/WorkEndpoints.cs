using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Checks;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Emendum.Web.Books;

namespace Emendum.Web.Jobs;

/// <summary>What a cell has instead of its work item.</summary>
public sealed record OwnCell(Guid Place, Cell Own);

/// <summary>An entry that a job has pinned, beside the Book's.</summary>
/// <param name="Id">The entry.</param>
/// <param name="Kind">Its kind.</param>
/// <param name="Name">Its name.</param>
/// <param name="Version">The version it was taken from.</param>
/// <param name="BookVersion">The Book's newest; null when it is not in the Book any more.</param>
/// <param name="ChangedHere">Whether it was changed in this job.</param>
/// <param name="Differences">From the job's to the Book's.</param>
public sealed record PinnedView(
    Guid Id,
    string Kind,
    string Name,
    int Version,
    int? BookVersion,
    bool ChangedHere,
    IReadOnlyList<Difference> Differences
);

/// <summary>What keeping a work item's entry in the Book, or taking it from there, would change.</summary>
/// <param name="BookVersion">The Book's newest version; 0 when it is not there.</param>
/// <param name="Keep">From the Book's to what would be kept.</param>
/// <param name="Take">From what the work item uses to the Book's.</param>
public sealed record KeptView(int BookVersion, IReadOnlyList<Difference> Keep, IReadOnlyList<Difference> Take);

/// <summary>What can be done on the Work station beside commands.</summary>
public static class WorkEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapWork(this RouteGroupBuilder jobs)
    {
        jobs.MapGet(
            "/{id:guid}/cells/{work:guid}/{place:guid}",
            (Guid id, Guid work, Guid place, OpenJobs open) => CellSheetView.Of(open.Get(id), new(work, place))
        );
        jobs.MapGet(
            "/{id:guid}/cells/{work:guid}/own",
            (Guid id, Guid work, OpenJobs open) =>
                open.Get(id)
                    .Estimate.Job.Cells.Where(c => c.Key.Work == work && c.Value.Differs)
                    .OrderBy(c => c.Key.Place)
                    .Select(c => new OwnCell(c.Key.Place, c.Value))
        );
        jobs.MapGet("/{id:guid}/cells/money", (Guid id, OpenJobs open) => MoneyView.Of(open.Get(id).Estimate));
        jobs.MapPost(
            "/{id:guid}/preview",
            (Guid id, Command command, OpenJobs open, Shelf shelf) =>
                PreviewView.Of(open.Get(id).Estimate, command, shelf.Find)
        );
        jobs.MapPost(
                "/{id:guid}/preview/workings",
                (Guid id, string figure, Command command, OpenJobs open, Shelf shelf) =>
                    PreviewWorkings(open.Get(id), figure, command, shelf)
            )
            .Produces<object>();
        jobs.MapGet(
            "/{id:guid}/checks",
            (Guid id, OpenJobs open, Shelf shelf, SettingStore settings) =>
                Findings.Of(
                    open.Get(id).Estimate,
                    [.. shelf.Entries.Values],
                    settings.Get(UsualSizes.Setting, StarterPlaces.Sizes)
                )
        );
        jobs.MapGet(
            "/{id:guid}/book",
            (Guid id, OpenJobs open, Shelf shelf, BookStore store) => Pinned(open.Get(id).Estimate.Job, shelf, store)
        );
        jobs.MapGet(
            "/{id:guid}/book/{entry:guid}",
            (Guid id, Guid entry, OpenJobs open) => InJob(open.Get(id).Estimate.Job, entry)
        );
        jobs.MapPut(
                "/{id:guid}/book/{entry:guid}",
                async (Guid id, Guid entry, SaveInJob save, OpenJobs open, Shelf shelf, FileStore files) =>
                {
                    var (was, now) = (BookEndpoints.Read(save.Was), BookEndpoints.Read(save.Entry));
                    if (now.Id != entry)
                        throw RefusedException.Of("id", "The id of an entry does not change.");
                    if (BookEndpoints.Picture(now) != BookEndpoints.Picture(was))
                        files.NamePicture(now);
                    return JobEndpoints.Answered(
                        await open.Do(id, job => job.Do(save, new SetEntry(was, now), JobEndpoints.Owner, shelf.Find))
                    );
                }
            )
            .Produces<AnswerView>();
        jobs.MapGet(
            "/{id:guid}/work/{work:guid}/kept",
            (Guid id, Guid work, OpenJobs open, Shelf shelf) => Kept(open.Get(id).Estimate, work, shelf)
        );
        jobs.MapPost(
                "/{id:guid}/book/{entry:guid}/keep",
                async (Guid id, Guid entry, KeepInBook keep, OpenJobs open, Shelf shelf) =>
                {
                    var job = open.Get(id).Estimate.Job;
                    var pinned =
                        job.Book.GetValueOrDefault(entry)
                        ?? throw new NotThereException("That entry is not in this job any more.");
                    if (keep.Work is { } work)
                        pinned = Kept(
                            job,
                            job.Item(work) ?? throw new NotThereException("That work is not in this job any more.")
                        );
                    var take = new TakeFromBook([entry], keep.Work);
                    // What the job could not take is not kept either.
                    Commands.Apply(job, take, e => e == entry ? pinned with { Version = keep.Was + 1 } : shelf.Find(e));
                    shelf.Save(pinned, keep.Was, JobEndpoints.Owner);
                    return JobEndpoints.Answered(
                        await open.Do(id, job => job.Do(keep, take, JobEndpoints.Owner, shelf.Find))
                    );
                }
            )
            .Produces<AnswerView>();
    }

    private static System.Text.Json.Nodes.JsonObject PreviewWorkings(
        OpenJob open,
        string figure,
        Command command,
        Shelf shelf
    )
    {
        var before = figure.StartsWith(PreviewView.Before, StringComparison.Ordinal);
        var trace = before
            ? open.Recorded()
            : Reported.Record(Commands.Apply(open.Estimate.Job, command, shelf.Find).Job).Trace;
        return Explanation.Of(trace, before ? figure[PreviewView.Before.Length..] : figure, 0)
            ?? throw new NotThereException("There is no such figure.");
    }

    private static List<PinnedView> Pinned(Job job, Shelf shelf, BookStore store)
    {
        var kinds = BookEntry.Kinds.Select(k => k.Kind).ToList();
        return
        [
            .. job
                .Book.Values.OrderBy(e => kinds.IndexOf(e.KindName()))
                .ThenBy(e => e.Name, StringComparer.Ordinal)
                .ThenBy(e => e.Id)
                .Select(entry =>
                {
                    var newest = shelf.Find(entry.Id);
                    var differences = newest is null ? [] : Between(job, shelf, entry, newest);
                    // Most entries are as the newest version has them; the store is asked for the others only.
                    var changed =
                        newest?.Version == entry.Version
                            ? differences.Count > 0
                            : store.Versions(entry.Id).FirstOrDefault(v => v.Entry.Version == entry.Version)
                                is { } taken
                                && Between(job, shelf, taken.Entry, entry).Count > 0;
                    return new PinnedView(
                        entry.Id,
                        entry.KindName(),
                        entry.Name,
                        entry.Version,
                        newest?.Version,
                        changed,
                        differences
                    );
                }),
        ];
    }

    private static IReadOnlyList<Difference> Between(Job job, Shelf shelf, BookEntry? was, BookEntry? now) =>
        Differences.Between(was, now, e => shelf.Find(e)?.Name ?? job.Book.GetValueOrDefault(e)?.Name);

    private static EntryView InJob(Job job, Guid entry) =>
        job.Book.GetValueOrDefault(entry) is { } pinned
            ? BookViews.Of(
                pinned,
                "",
                "",
                job.Units,
                job.Book.Values.Where(e => e.Needs.Contains(entry)).OrderBy(e => e.Name, StringComparer.Ordinal),
                []
            )
            : throw new NotThereException("That entry is not in this job any more.");

    /// <summary>The entry of a work item as the job uses it.</summary>
    private static WorkEntry Kept(Job job, WorkItem item) =>
        KeptEntry.Of(item, job.SectionOf(item), (WorkEntry)job.Book[item.Entry]);

    private static KeptView Kept(Estimate estimate, Guid work, Shelf shelf)
    {
        var job = estimate.Job;
        var item = job.Item(work) ?? throw new NotThereException("That work is not in this job any more.");
        var (used, newest) = (Kept(job, item), shelf.Find(item.Entry));
        return new(
            newest?.Version ?? 0,
            Between(job, shelf, newest, used),
            newest is null ? [] : Between(job, shelf, used, newest)
        );
    }
}
