using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Reports;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>A job as it is at one version. Whoever reads it sees that version and nothing of another.</summary>
/// <param name="Version">How many edits have been made.</param>
/// <param name="Estimate">The job reckoned and priced.</param>
/// <param name="History">What can be taken back.</param>
public sealed record JobState(long Version, Estimate Estimate, History History)
{
    /// <summary>What undo and redo would do for a person.</summary>
    public UndoView UndoOf(string person) => new(History.NextUndo(person)?.Did, History.NextRedo(person)?.Did);
}

/// <summary>A job in memory. One queue per job: apply, reckon, commit, publish, answer (architecture decision 5). What is answered, or seen, is on disk.</summary>
public sealed class OpenJob
{
    private readonly SemaphoreSlim queue = new(1, 1);
    private readonly Lock recording = new();
    private readonly JobStore store;
    private volatile JobState now;
    private (Estimate Estimate, Trace Trace)? recorded;
    private bool left;

    private OpenJob(JobStore store, OpenedJob opened)
    {
        this.store = store;
        now = new(opened.Version, Estimate.Of(opened.Job, Trace.Silent), opened.History);
    }

    /// <summary>The newest version: set in one assignment once it is on disk.</summary>
    public JobState Now => now;

    /// <summary>Its estimate.</summary>
    public Estimate Estimate => now.Estimate;

    /// <summary>Opens a job from disk, or null.</summary>
    public static OpenJob? From(JobStore store, Guid id) => store.Open(id) is { } found ? new(store, found) : null;

    /// <summary>Runs a command for a person. The same command again does nothing, and is answered by the job as it stands.</summary>
    /// <returns>The answer as JSON.</returns>
    /// <exception cref="RefusedException">Nothing was changed.</exception>
    public Task<string> Do(Command command, string person, Func<Guid, BookEntry?> book) =>
        InTurn(
            command.Id,
            JsonNamingPolicy.CamelCase.ConvertName(command.GetType().Name),
            SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(command, CoreJson.Options)),
            person,
            () =>
            {
                var (job, changes) = Commands.Apply(now.Estimate.Job, command, book);
                return (job, changes, null);
            }
        );

    /// <summary>Takes back this person's latest command that still stands.</summary>
    /// <exception cref="RefusedException">There is none, or somebody else has changed the same since.</exception>
    public Task<string> Undo(Guid id, string person) =>
        InTurn(
            id,
            History.Undo,
            Reversal(History.Undo),
            person,
            () => Reverse(History.Undo, now.History.NextUndo(person))
        );

    /// <summary>Puts back what this person last took back.</summary>
    /// <exception cref="RefusedException">There is none, or somebody else has changed the same since.</exception>
    public Task<string> Redo(Guid id, string person) =>
        InTurn(
            id,
            History.Redo,
            Reversal(History.Redo),
            person,
            () => Reverse(History.Redo, now.History.NextRedo(person))
        );

    private static byte[] Reversal(string name) => SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(name));

    /// <summary>The job reckoned with every figure explained; made when asked for and kept until the next edit, or until room is wanted.</summary>
    public Trace Recorded()
    {
        lock (recording)
        {
            var estimate = now.Estimate;
            if (recorded is { } kept && ReferenceEquals(kept.Estimate, estimate))
                return kept.Trace;
            var trace = Reported.Record(estimate.Job).Trace;
            recorded = (estimate, trace);
            return trace;
        }
    }

    /// <summary>Lets go of the workings, unless they are being made; they are made again when they are asked for.</summary>
    public void Forget()
    {
        if (!recording.TryEnter())
            return;
        recorded = null;
        recording.Exit();
    }

    /// <summary>Takes the job out of memory unless an edit is on its way: true when nothing more will be written through it.</summary>
    public bool Leave()
    {
        if (!queue.Wait(0))
            return false;
        left = true;
        queue.Release();
        return true;
    }

    private async Task<string> InTurn(
        Guid id,
        string name,
        byte[] hash,
        string person,
        Func<(Job Job, ImmutableArray<Change> Changes, long? Reverses)> edit
    )
    {
        if (id == Guid.Empty)
            throw RefusedException.Of("id", "A command needs an id.");
        await queue.WaitAsync();
        try
        {
            if (left)
                throw new JobLeftException();
            if (store.Find(now.Estimate.Job.Id, id) is not { } found)
                return Commit(id, name, hash, person, edit());
            if (found.Hash is { } was && !was.AsSpan().SequenceEqual(hash))
                throw RefusedException.Of(
                    "id",
                    "Another command was given under that id already. Nothing was changed."
                );
            return Answer(now, now, name, person, null, repeated: true);
        }
        finally
        {
            queue.Release();
        }
    }

    private string Commit(
        Guid id,
        string name,
        byte[] hash,
        string person,
        (Job Job, ImmutableArray<Change> Changes, long? Reverses) made
    )
    {
        var (before, changes) = (now, made.Changes);
        var cells = ChangeSet.OnlyCells(changes);
        var version = before.Version + 1;
        var after = new JobState(
            version,
            changes.IsEmpty ? before.Estimate : before.Estimate.If(made.Job, cells),
            before.History.With(version, name, person, !changes.IsEmpty)
        );
        // Made before it is kept: what cannot be answered is not done either.
        var answer = Answer(before, after, name, person, cells, repeated: false);
        store.Commit(
            made.Job,
            new(version, id, hash, name, person, JobStore.Utc(DateTime.UtcNow), made.Reverses, changes),
            Summary(after.Estimate)
        );
        now = after;
        return answer;
    }

    private static string Answer(
        JobState before,
        JobState after,
        string name,
        string person,
        CellKey[]? cells,
        bool repeated
    )
    {
        var answer = new ViewOf(after.Estimate).Since(
            before.Estimate,
            after.Version,
            name,
            after.UndoOf(person),
            cells
        );
        // Whoever asks again may not know what has happened since: the browser loads the job.
        return JsonSerializer.Serialize(repeated ? answer with { Reload = true } : answer, CoreJson.Options);
    }

    /// <summary>What the list of jobs says of it.</summary>
    public static string Summary(Estimate estimate) =>
        $"{estimate.Job.Places.Sum(p => p.Count)} places · {FigureView.Hours(estimate.Reckoned.Costs.Hours).Shown} h · {FigureView.Money(estimate.Price.BeforeTax).Shown} {estimate.Job.Info.Currency}";

    private (Job, ImmutableArray<Change>, long?) Reverse(string name, Step? step)
    {
        if (step is null)
            throw RefusedException.Of("", $"There is nothing to {name}.");
        var current = now.Estimate.Job;
        var changes = store.Reverse(current, step.Version);
        if (ChangeSet.Overtaken(current, changes) is { } overtaken)
        {
            var by = store.LastToChange(current.Id, overtaken.Path) ?? "somebody";
            throw RefusedException.Of("", $"{by} has changed the same since, so it cannot be taken back.");
        }
        var job = ChangeSet.Apply(current, changes);
        Commands.Check(job, changes);
        return (job, changes, step.Version);
    }
}

/// <summary>The job has left memory since it was looked up: it is to be looked up again.</summary>
public sealed class JobLeftException() : Exception("The job has left memory.");
