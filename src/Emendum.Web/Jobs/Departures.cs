using Emendum.Core;
using Emendum.Core.Proposals;
using Emendum.Storage;
using Emendum.Web.Outside;
using Microsoft.Data.Sqlite;

namespace Emendum.Web.Jobs;

/// <summary>Lets revisions go out at the day and hour that was set for them (L5), each with the mails and links that bring it.</summary>
public sealed class Departures(
    RevisionStore revisions,
    ScheduledStore scheduled,
    OutsideAddress outside,
    FirmDay day,
    TimeProvider time,
    ILogger<Departures> log
) : BackgroundService
{
    /// <summary>How often it looks.</summary>
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(20);

    /// <summary>Told of a job of which something went out, or was dropped.</summary>
    public event Action<Guid>? Happened;

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every, time);
        while (await timer.WaitForNextTickAsync(stoppingToken))
            try
            {
                Go();
            }
            catch (SqliteException wrong)
            {
                // It waits, and is tried again.
                log.LogError("What was set to go out waits: {Reason}", wrong.Message);
            }
    }

    /// <summary>Lets go what is due by now.</summary>
    public void Go()
    {
        foreach (var row in scheduled.Due(time.GetUtcNow().UtcDateTime))
            Go(row);
    }

    private void Go(ScheduledRow row)
    {
        var (now, id) = (time.GetUtcNow().UtcDateTime, row.Of.Id);
        if (scheduled.Content(id) is not { } sending)
            return;
        try
        {
            // Its date is printed: on another day it would say an untrue one.
            if (day.Days()(row.Of.Goes) != day.Today)
                throw RefusedException.Of("day", "The program was not running on the day on which it was to go out.");
            RevisionMails.CheckLink(sending.Message, outside);
            revisions.Send(
                sending.Revision,
                RevisionEndpoints.SentBy(
                    row.Fact,
                    sending.Revision,
                    now,
                    row.By,
                    sending.Message.Went(),
                    sending.Words,
                    sending.Further
                ),
                RevisionMails.Bringing(sending.Message, row.Fact, sending.Revision, sending.Sender, now, outside),
                scheduled: true,
                sending.Further
            );
        }
        catch (RefusedException refused)
        {
            scheduled.Ends(
                row.Job,
                id,
                ScheduledOutcome.Dropped,
                $"Revision {row.Of.Letters} did not go out: {refused.Message}",
                now
            );
        }
        Happened?.Invoke(row.Job);
    }
}
