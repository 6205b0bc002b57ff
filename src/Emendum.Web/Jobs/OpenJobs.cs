using System.Collections.Concurrent;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>The jobs in memory.</summary>
public sealed class OpenJobs(JobStore store)
{
    private readonly ConcurrentDictionary<Guid, Lazy<OpenJob?>> open = new();

    /// <summary>A job, read from disk the first time.</summary>
    /// <exception cref="NotThereException">There is no such job.</exception>
    public OpenJob Get(Guid id)
    {
        var opening = open.GetOrAdd(id, key => new(() => OpenJob.From(store, key)));
        OpenJob? job = null;
        try
        {
            job = opening.Value;
        }
        finally
        {
            // What could not be opened is tried anew the next time.
            if (job is null)
                open.TryRemove(new(id, opening));
        }
        return job ?? throw new NotThereException("That job is not here.");
    }

    /// <summary>Keeps a new job.</summary>
    /// <exception cref="RefusedException">It cannot be reckoned, or its id is taken.</exception>
    public void Create(Job job)
    {
        var estimate = Estimate.Of(job, Trace.Silent);
        if (store.Has(job.Id))
            throw RefusedException.Of("id", "A job with that id is here already.");
        store.Create(job, OpenJob.Summary(estimate), DateTime.UtcNow);
    }
}

/// <summary>Something asked for is not there.</summary>
public sealed class NotThereException(string message) : Exception(message);
