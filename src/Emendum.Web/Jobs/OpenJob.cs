using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>A job in memory. One queue per job: apply, reckon, commit, answer (architecture decision 5). What is answered is on disk.</summary>
public sealed class OpenJob
{
    private const string Undoing = "undo",
        Redoing = "redo";

    private readonly SemaphoreSlim queue = new(1, 1);
    private readonly JobStore store;
    private readonly List<LogEntry> log;
    private (Estimate Reckoning, Trace Trace)? recorded;

    private OpenJob(JobStore store, Job job, List<LogEntry> log)
    {
        this.store = store;
        this.log = log;
        Estimate = Estimate.Of(job, Trace.Silent);
    }

    /// <summary>The newest estimate; immutable, so it may be read at any time.</summary>
    public Estimate Estimate { get; private set; }

    /// <summary>How many edits have been made.</summary>
    public long Version => log.Count == 0 ? 0 : log[^1].Version;

    /// <summary>Opens a job from disk, or null.</summary>
    public static OpenJob? From(JobStore store, Guid id) =>
        store.Open(id) is { } found ? new(store, found.Job, found.Log) : null;

    /// <summary>Runs a command for a person. The same command id again gets the first answer again.</summary>
    /// <returns>The answer as JSON.</returns>
    /// <exception cref="RefusedException">Nothing was changed.</exception>
    public Task<string> Do(Command command, string person, Func<Guid, BookEntry?> book) =>
        InTurn(
            command.Id,
            () =>
            {
                var (job, changes) = Commands.Apply(Estimate.Job, command, book);
                return Commit(
                    job,
                    changes,
                    command.Id,
                    JsonNamingPolicy.CamelCase.ConvertName(command.GetType().Name),
                    person,
                    null
                );
            }
        );

    /// <summary>Takes back this person's latest command that still stands.</summary>
    /// <exception cref="RefusedException">There is none, or somebody else has changed the same since.</exception>
    public Task<string> Undo(Guid id, string person) =>
        InTurn(id, () => Reverse(id, Undoing, UndoStack(person).Undo, person));

    /// <summary>Puts back what this person last took back.</summary>
    /// <exception cref="RefusedException">There is none, or somebody else has changed the same since.</exception>
    public Task<string> Redo(Guid id, string person) =>
        InTurn(id, () => Reverse(id, Redoing, UndoStack(person).Redo, person));

    /// <summary>What undo and redo would do for a person.</summary>
    public UndoView UndoOf(string person)
    {
        var (undo, redo) = UndoStack(person);
        return new(undo.TryPeek(out var u) ? u.Name : null, redo.TryPeek(out var r) ? OriginalName(r) : null);
    }

    /// <summary>The job reckoned with every figure explained; made when asked for and kept until the next edit.</summary>
    public Trace Recorded()
    {
        lock (log)
        {
            var now = Estimate;
            if (recorded is { } kept && ReferenceEquals(kept.Reckoning, now))
                return kept.Trace;
            var trace = Reported.Record(now.Job).Trace;
            recorded = (now, trace);
            return trace;
        }
    }

    private async Task<string> InTurn(Guid id, Func<string> edit)
    {
        if (id == Guid.Empty)
            throw RefusedException.Of("id", "A command needs an id.");
        await queue.WaitAsync();
        try
        {
            return log.FindLast(e => e.Command == id)?.Answer ?? edit();
        }
        finally
        {
            queue.Release();
        }
    }

    private string Commit(Job job, ImmutableArray<Change> changes, Guid id, string name, string person, long? reverses)
    {
        var before = Estimate;
        var cells = ChangeSet.OnlyCells(changes);
        var after = changes.IsEmpty ? before : before.If(job, cells);
        var entry = new LogEntry(Version + 1, id, name, person, JobStore.Utc(DateTime.UtcNow), reverses, changes, "");
        log.Add(entry);
        try
        {
            var answer = JsonSerializer.Serialize(
                new ViewOf(after).Since(before, entry.Version, name, UndoOf(person), cells),
                CoreJson.Options
            );
            log[^1] = entry = entry with { Answer = answer };
            store.Commit(job, entry, Summary(after));
            Estimate = after;
            return answer;
        }
        catch
        {
            log.RemoveAt(log.Count - 1);
            throw;
        }
    }

    /// <summary>What the list of jobs says of it.</summary>
    public static string Summary(Estimate estimate) =>
        $"{estimate.Job.Places.Sum(p => p.Count)} places · {FigureView.Hours(estimate.Reckoned.Costs.Hours).Shown} h · {FigureView.Money(estimate.Price.BeforeTax).Shown} {estimate.Job.Info.Currency}";

    private string Reverse(Guid id, string name, Stack<LogEntry> stack, string person)
    {
        if (!stack.TryPeek(out var target))
            throw RefusedException.Of("", $"There is nothing to {name}.");
        var changes = ChangeSet.Reversed(target.Changes);
        if (ChangeSet.Overtaken(Estimate.Job, changes) is { } overtaken)
        {
            var by = log.FindLast(e => e.Changes.Any(c => c.Path == overtaken.Path))?.Person ?? "somebody";
            throw RefusedException.Of("", $"{by} has changed the same since, so it cannot be taken back.");
        }
        var job = ChangeSet.Apply(Estimate.Job, changes);
        Commands.Check(job, changes);
        return Commit(job, changes, id, name, person, target.Version);
    }

    /// <summary>Replays the log into what can be undone and redone: a command clears redo, undo and redo move entries across.</summary>
    private (Stack<LogEntry> Undo, Stack<LogEntry> Redo) UndoStack(string person)
    {
        var (undo, redo) = (new Stack<LogEntry>(), new Stack<LogEntry>());
        foreach (var entry in log.Where(e => e.Person == person && !e.Changes.IsEmpty))
        {
            switch (entry.Name)
            {
                case Undoing:
                    undo.Pop();
                    redo.Push(entry);
                    break;
                case Redoing:
                    redo.Pop();
                    undo.Push(entry);
                    break;
                default:
                    undo.Push(entry);
                    redo.Clear();
                    break;
            }
        }
        return (undo, redo);
    }

    private string OriginalName(LogEntry entry)
    {
        while (entry.Reverses is { } version)
            entry = log.Find(e => e.Version == version)!;
        return entry.Name;
    }
}
