using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>A job as it is at one version. Whoever reads it sees that version and nothing of another.</summary>
/// <param name="Version">How many edits have been made.</param>
/// <param name="Estimate">The job reckoned and priced.</param>
/// <param name="History">What can be taken back.</param>
/// <param name="Touched">What the last edits have touched.</param>
public sealed record JobState(long Version, Estimate Estimate, History History, LastTouched Touched)
{
    /// <summary>What undo and redo would do for an author.</summary>
    public UndoView UndoOf(Author author, Func<Guid, bool> isOpen) =>
        new(History.NextUndo(author)?.Did, History.NextRedo(author)?.Did, History.LeftBehind(author, isOpen));
}

/// <summary>What one edit has moved, as everybody is told it.</summary>
/// <param name="By">Whose edit.</param>
/// <param name="Version">The job's version after it.</param>
/// <param name="Json">A <see cref="MovedView"/>.</param>
public sealed record Published(Author By, long Version, string Json);

/// <summary>
/// A job in memory. One queue per job: apply, reckon, commit, publish, answer (architecture decision 5). What is answered, or seen, is on disk. Edits that have come meanwhile are put on disk together.
/// </summary>
public sealed class OpenJob
{
    /// <summary>Most edits that wait; more are asked to come again.</summary>
    public const int MostWaiting = 1000;

    /// <summary>Most edits that are put on disk together.</summary>
    private const int MostTogether = 32;

    private readonly JobStore store;
    private readonly TimeProvider time;
    private readonly Func<Guid, bool> isOpen;
    private readonly Action<Published> publish;
    private readonly Lock gate = new();
    private readonly Queue<Wanted> waiting = new();
    private readonly Lock recording = new();
    private volatile JobState now;
    private (Estimate Estimate, Trace Trace)? recorded;
    private bool working;
    private bool left;

    private OpenJob(
        JobStore store,
        OpenedJob opened,
        TimeProvider time,
        Func<Guid, bool> isOpen,
        Action<Published> publish
    )
    {
        (this.store, this.time, this.isOpen, this.publish) = (store, time, isOpen, publish);
        now = new(
            opened.Version,
            Estimate.Of(opened.Job, Trace.Silent),
            opened.History,
            LastTouched.At(opened.Version)
        );
    }

    /// <summary>The newest version: set in one assignment once it is on disk.</summary>
    public JobState Now => now;

    /// <summary>Its estimate.</summary>
    public Estimate Estimate => now.Estimate;

    /// <summary>Opens a job from disk, or null.</summary>
    /// <param name="store">Where jobs are.</param>
    /// <param name="id">Which.</param>
    /// <param name="time">The clock.</param>
    /// <param name="isOpen">Whether a window is open.</param>
    /// <param name="publish">Is told what each edit has moved, in their order, when they are on disk.</param>
    public static OpenJob? From(
        JobStore store,
        Guid id,
        TimeProvider time,
        Func<Guid, bool> isOpen,
        Action<Published> publish
    ) => store.Open(id) is { } found ? new(store, found, time, isOpen, publish) : null;

    /// <summary>Runs a command for a person. The same command again does nothing, and is answered by what has changed since the version its sender holds.</summary>
    /// <returns>An <see cref="AnswerView"/> as JSON.</returns>
    /// <exception cref="RefusedException">Nothing was changed.</exception>
    public Task<string> Do(Sent sent, Command command, string person, Func<Guid, BookEntry?> book) =>
        InTurn(
            sent,
            JsonNamingPolicy.CamelCase.ConvertName(command.GetType().Name),
            JsonSerializer.SerializeToUtf8Bytes(command, CoreJson.Options),
            person,
            state =>
            {
                var (job, changes) = Commands.Apply(state.Estimate.Job, command, book);
                return (job, changes, null);
            }
        );

    /// <summary>Takes back the latest command of this person's window that still stands; or the one named, left by a window of theirs that is closed.</summary>
    /// <exception cref="RefusedException">There is none, or somebody else has changed the same since.</exception>
    public Task<string> Undo(SentUndo sent, string person) =>
        InTurn(
            sent,
            History.Undo,
            Encoding.UTF8.GetBytes($"{History.Undo} {sent.LeftBehind}"),
            person,
            state =>
            {
                var author = new Author(person, sent.Client);
                var step = state.History.NextUndo(author);
                if (step is null && state.History.LeftBehind(author, isOpen) is { } found)
                    step =
                        found.Version == sent.LeftBehind
                            ? found
                            : throw RefusedException.Of(
                                "",
                                "There is nothing to undo that was made in this window, and something else to take back than was named."
                            );
                return Reverse(state, History.Undo, step, author);
            }
        );

    /// <summary>Puts back what was last taken back in this window.</summary>
    /// <exception cref="RefusedException">There is none, or somebody else has changed the same since.</exception>
    public Task<string> Redo(SentRedo sent, string person) =>
        InTurn(
            sent,
            History.Redo,
            Encoding.UTF8.GetBytes(History.Redo),
            person,
            state =>
            {
                var author = new Author(person, sent.Client);
                return Reverse(state, History.Redo, state.History.NextRedo(author), author);
            }
        );

    /// <summary>What has changed since a version, for an author.</summary>
    /// <returns>An <see cref="AnswerView"/> as JSON.</returns>
    public string ChangesSince(long version, Author author) => ChangesSince(version, author, repeated: false);

    /// <summary>A <see cref="MovedView"/> as JSON: from a version to a state.</summary>
    private static string Moved(long from, JobState to, string did, string person) =>
        JsonSerializer.Serialize(
            new ViewOf(to.Estimate).Moved(from, to.Version, to.Touched.Since(from), did, person),
            CoreJson.Options
        );

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
        lock (gate)
            return left = left || !working;
    }

    /// <summary>An edit in the queue.</summary>
    private sealed record Wanted(
        Sent Sent,
        string Name,
        byte[] Hash,
        Author By,
        Func<JobState, (Job Job, ImmutableArray<Change> Changes, long? Reverses)> Edit
    )
    {
        public TaskCompletionSource<string> Answered { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        /// <summary>What is taken back is read from the log, so what stands there must be all of it.</summary>
        public bool ReadsLog => Name is History.Undo or History.Redo;
    }

    /// <summary>An edit that is made and not yet on disk.</summary>
    private sealed record Made(Wanted Wanted, JobState After, LogEntry Entry, string Moved, string Answer);

    private Task<string> InTurn(
        Sent sent,
        string name,
        byte[] content,
        string person,
        Func<JobState, (Job Job, ImmutableArray<Change> Changes, long? Reverses)> edit
    )
    {
        if (sent.Id == Guid.Empty)
            throw RefusedException.Of("id", "A command needs an id.");
        if (sent.Client == Guid.Empty)
            throw RefusedException.Of("client", "A command needs the id of the window it comes from.");
        var wanted = new Wanted(sent, name, SHA256.HashData(content), new(person, sent.Client), edit);
        lock (gate)
        {
            if (left)
                throw new JobLeftException();
            if (waiting.Count >= MostWaiting)
                throw new BusyException("Too many edits of this job are waiting. Try again in a moment.");
            waiting.Enqueue(wanted);
            if (!working)
                ThreadPool.UnsafeQueueUserWorkItem(static job => job.Work(), this, preferLocal: false);
            working = true;
        }
        return wanted.Answered.Task;
    }

    private void Work()
    {
        while (true)
        {
            List<Wanted> batch;
            lock (gate)
            {
                if (waiting.Count == 0)
                {
                    working = false;
                    return;
                }
                batch = new(Math.Min(waiting.Count, MostTogether));
                while (batch.Count < MostTogether && waiting.TryDequeue(out var next))
                    batch.Add(next);
            }
            var made = new List<Made>(batch.Count);
            foreach (var wanted in batch)
            {
                if (made.Count > 0 && (wanted.ReadsLog || made.Any(m => m.Entry.Command == wanted.Sent.Id)))
                    Keep(made);
                try
                {
                    Make(wanted, made);
                }
                catch (Exception wrong)
                {
                    wanted.Answered.SetException(wrong);
                }
            }
            Keep(made);
        }
    }

    private void Make(Wanted wanted, List<Made> made)
    {
        var before = made.Count > 0 ? made[^1].After : now;
        if (store.Find(before.Estimate.Job.Id, wanted.Sent.Id) is { } found)
        {
            if (found.Hash is { } was && !was.AsSpan().SequenceEqual(wanted.Hash))
                throw RefusedException.Of(
                    "id",
                    "Another command was given under that id already. Nothing was changed."
                );
            wanted.Answered.SetResult(ChangesSince(wanted.Sent.Base, wanted.By, repeated: true));
            return;
        }
        var (job, changes, reverses) = wanted.Edit(before);
        var version = before.Version + 1;
        var cells = ChangeSet.OnlyCells(changes);
        var estimate = changes.IsEmpty ? before.Estimate : before.Estimate.If(job, cells);
        var touched = changes.IsEmpty ? Touched.Nothing : Touched.Between(before.Estimate, estimate, cells);
        var after = new JobState(
            version,
            estimate,
            before.History.With(version, wanted.Name, wanted.By, reverses, !changes.IsEmpty),
            before.Touched.With(touched)
        );
        // Made before it is kept: what cannot be answered is not done either.
        string Since(long held) => Moved(held, after, wanted.Name, wanted.By.Person);
        var moved = Since(before.Version);
        var answer = Answer(
            wanted.Sent.Base == before.Version ? moved : Since(wanted.Sent.Base),
            new(after.UndoOf(wanted.By, isOpen), ViewOf.Delta(before.Estimate, estimate)),
            repeated: false
        );
        made.Add(
            new(
                wanted,
                after,
                new(
                    version,
                    wanted.Sent.Id,
                    wanted.Hash,
                    wanted.Name,
                    wanted.By,
                    JobStore.Utc(time.GetUtcNow().UtcDateTime),
                    reverses,
                    changes
                ),
                moved,
                answer
            )
        );
    }

    /// <summary>Puts what was made on disk, shows it, and answers; where it cannot be kept, all of it is refused and the job is as it was.</summary>
    private void Keep(List<Made> made)
    {
        if (made.Count == 0)
            return;
        try
        {
            store.Commit([.. made.Select(m => (m.After.Estimate.Job, m.Entry))], JobGlance.Of(made[^1].After.Estimate));
        }
        catch (Exception wrong)
        {
            foreach (var one in made)
                one.Wanted.Answered.SetException(wrong);
            made.Clear();
            return;
        }
        now = made[^1].After;
        foreach (var one in made)
        {
            publish(new(one.Wanted.By, one.After.Version, one.Moved));
            one.Wanted.Answered.SetResult(one.Answer);
        }
        made.Clear();
    }

    private string ChangesSince(long version, Author author, bool repeated)
    {
        var state = now;
        return Answer(Moved(version, state, "", author.Person), new(state.UndoOf(author, isOpen), null), repeated);
    }

    /// <summary>An <see cref="AnswerView"/>; what has moved is written once for everybody.</summary>
    private static string Answer(string moved, YoursView yours, bool repeated) =>
        $$"""{"moved":{{moved}},"yours":{{JsonSerializer.Serialize(yours, CoreJson.Options)}},"repeated":{{(repeated ? "true" : "false")}}}""";

    private (Job, ImmutableArray<Change>, long?) Reverse(JobState state, string name, Undoable? step, Author author)
    {
        if (step is null)
            throw RefusedException.Of("", $"There is nothing to {name}.");
        var current = state.Estimate.Job;
        var changes = store.Reverse(current, step.Version);
        if (ChangeSet.Overtaken(current, changes) is { } overtaken)
        {
            var by = store.LastToChange(current.Id, overtaken.Path);
            var who =
                by is not { } other ? "Somebody"
                : other.Person == author.Person && other.Client != author.Client ? $"{other.Person}, in another window,"
                : other.Person;
            throw RefusedException.Of("", $"{who} has changed the same since, so it cannot be taken back.");
        }
        var job = ChangeSet.Apply(current, changes);
        Commands.Check(job, changes);
        return (job, changes, step.Version);
    }
}

/// <summary>The job has left memory since it was looked up: it is to be looked up again.</summary>
public sealed class JobLeftException() : Exception("The job has left memory.");

/// <summary>There is too much to do at once; the same again in a moment will be taken.</summary>
public sealed class BusyException(string message) : Exception(message);
