using System.Collections.Concurrent;
using Emendum.Storage;
using Microsoft.AspNetCore.SignalR;

namespace Emendum.Web.Jobs;

/// <summary>The line to a window: what it shows, and what others change there. Commands go another way (architecture decision 18).</summary>
public sealed class LiveHub(Watchers watchers, JobStore jobs) : Hub
{
    /// <summary>Where it is.</summary>
    public const string Path = "/api/live";

    /// <summary>The window shows a job, and is told of edits of it from now on.</summary>
    public async Task Watch(Guid job, Guid client)
    {
        if (client == Guid.Empty || !jobs.Has(job))
            throw new HubException("That job is not here.");
        if (watchers.JobOf(Context.ConnectionId) is { } shown && shown != job)
            await Groups.RemoveFromGroupAsync(Context.ConnectionId, Live.GroupOf(shown));
        watchers.Watch(Context.ConnectionId, job, client);
        await Groups.AddToGroupAsync(Context.ConnectionId, Live.GroupOf(job));
    }

    /// <inheritdoc/>
    public override Task OnDisconnectedAsync(Exception? exception)
    {
        watchers.Gone(Context.ConnectionId);
        return base.OnDisconnectedAsync(exception);
    }
}

/// <summary>Tells the windows that show a job what an edit has moved. While some window is slow to take it, nothing is piled up: afterwards all are told up to which version they have missed.</summary>
public sealed class Live(IHubContext<LiveHub> hub, Watchers watchers, RevisionStore revisions, ILogger<Live> log)
{
    /// <summary>Most connections at once.</summary>
    public const int MostConnections = 500;

    private readonly ConcurrentDictionary<Guid, Telling> telling = new();

    /// <summary>The group of windows that show a job.</summary>
    internal static string GroupOf(Guid job) => job.ToString();

    /// <summary>What is on its way about one job.</summary>
    private sealed class Telling
    {
        public bool Busy { get; set; }
        public long Missed { get; set; }
    }

    /// <summary>Tells of an edit; does not wait until it has arrived.</summary>
    public void Tell(Guid job, Published moved)
    {
        var at = telling.GetOrAdd(job, _ => new());
        lock (at)
        {
            if (at.Busy)
            {
                at.Missed = moved.Version;
                return;
            }
            at.Busy = true;
        }
        _ = Send(job, at, moved);
    }

    /// <summary>Tells that something has happened to the proposal of a job, and so to the further estimates that went out with it: whoever shows one asks anew.</summary>
    public void Happened(Guid job)
    {
        Tell(job);
        foreach (var further in revisions.FurtherJobs(job))
            Tell(further);
    }

    private void Tell(Guid job) =>
        _ = hub
            .Clients.Group(GroupOf(job))
            .SendAsync("happened", job)
            .ContinueWith(
                sent =>
                    log.LogWarning("Windows could not be told what has happened: {Reason}", sent.Exception?.Message),
                TaskContinuationOptions.OnlyOnFaulted
            );

    private async Task Send(Guid job, Telling at, Published moved)
    {
        try
        {
            // Whoever made it is answered.
            await hub
                .Clients.GroupExcept(GroupOf(job), watchers.Of(moved.By.Client))
                .SendAsync("moved", job, moved.Version, moved.Json);
            while (true)
            {
                long missed;
                lock (at)
                {
                    missed = at.Missed;
                    at.Missed = 0;
                    at.Busy = missed != 0;
                }
                if (missed == 0)
                    return;
                await hub.Clients.Group(GroupOf(job)).SendAsync("moved", job, missed, "");
            }
        }
        catch (Exception wrong)
        {
            // Windows that miss something notice it with the next edit, and ask for it.
            log.LogWarning("Windows could not be told of an edit: {Reason}", wrong.Message);
            lock (at)
                at.Busy = false;
        }
    }
}
