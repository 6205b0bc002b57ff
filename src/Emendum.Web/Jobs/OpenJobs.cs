using System.Collections.Concurrent;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reports;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>The jobs in memory: those used last, and those that a window shows. Others leave, and are read from disk when they are asked for again.</summary>
public sealed class OpenJobs(JobStore store, TimeProvider time, Watchers watchers)
{
    /// <summary>Most jobs in memory.</summary>
    public const int Most = 32;

    /// <summary>Most of them with their workings, which take many times as much.</summary>
    public const int MostRecorded = 4;

    /// <summary>Told of every edit of any job, in the order of each job, when it is on disk.</summary>
    public event Action<Guid, Published>? Moved;

    private readonly ConcurrentDictionary<Guid, Opening> open = new();
    private long uses;

    private sealed class Opening(Func<OpenJob?> job)
    {
        public Lazy<OpenJob?> Job { get; } = new(job);
        public long Used { get; set; }
    }

    /// <summary>A job, read from disk the first time.</summary>
    /// <exception cref="NotThereException">There is no such job.</exception>
    public OpenJob Get(Guid id)
    {
        var opening = open.GetOrAdd(
            id,
            key => new(() => OpenJob.From(store, key, time, watchers.IsOpen, moved => Moved?.Invoke(key, moved)))
        );
        OpenJob? job = null;
        try
        {
            job = opening.Job.Value;
        }
        finally
        {
            // What could not be opened is tried anew the next time.
            if (job is null)
                open.TryRemove(new(id, opening));
        }
        opening.Used = Interlocked.Increment(ref uses);
        MakeRoom();
        return job ?? throw new NotThereException("That job is not here.");
    }

    /// <summary>Does something to a job, which may have left memory since it was looked up.</summary>
    public async Task<string> Do(Guid id, Func<OpenJob, Task<string>> edit)
    {
        while (true)
        {
            try
            {
                return await edit(Get(id));
            }
            catch (JobLeftException)
            {
                // It was not used for longest just now; it is read again.
            }
        }
    }

    private void MakeRoom()
    {
        if (open.Count <= MostRecorded)
            return;
        var byUse = open.Where(o => o.Value.Job is { IsValueCreated: true, Value: not null })
            .OrderByDescending(o => o.Value.Used)
            .Skip(MostRecorded)
            .ToList();
        foreach (var (_, opening) in byUse)
            opening.Job.Value!.Forget();
        foreach (var (id, opening) in byUse.Skip(Most - MostRecorded))
            if (!watchers.IsShown(id) && opening.Job.Value!.Leave())
                open.TryRemove(new(id, opening));
    }

    /// <summary>Keeps a new job.</summary>
    /// <exception cref="RefusedException">It cannot be reckoned, or its id is taken.</exception>
    public void Create(Job job)
    {
        var estimate = Estimate.Of(job, Trace.Silent);
        if (!store.Create(job, JobGlance.Of(estimate), time.GetUtcNow().UtcDateTime))
            throw RefusedException.Of("id", "A job with that id is here already.");
    }
}

/// <summary>Something asked for is not there.</summary>
public sealed class NotThereException(string message) : Exception(message);
