using System.Globalization;
using Emendum.Core;
using Emendum.Storage;

namespace Emendum.Web;

/// <summary>A backup in the data folder.</summary>
public sealed record BackupView(string Name, string At, long Bytes);

/// <summary>The backups there are, how many are kept, and what went wrong with the last, if anything.</summary>
public sealed record BackupsView(IReadOnlyList<BackupView> Backups, BackupPlan Plan, string Folder, string Wrong);

/// <summary>Makes a backup whenever the last is a day old, and lets those go that are not to be kept.</summary>
public sealed class Backups(
    Database database,
    FileStore files,
    DataFolder folder,
    SettingStore settings,
    TimeProvider time,
    FirmDay day,
    ILogger<Backups> log
) : BackgroundService
{
    private const string Prefix = "emendum-";

    /// <summary>How long a file stays that nothing has ever referred to.</summary>
    private const int DaysUnnamed = 30;

    private readonly string path = Path.Combine(folder.Path, "backups");
    private readonly Lock making = new();
    private volatile string wrong = "";

    /// <summary>What is set.</summary>
    private BackupPlan Plan => settings.Get(BackupPlan.Setting, BackupPlan.Starting);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The first is not made while the program starts.
        await Task.Yield();
        using var timer = new PeriodicTimer(TimeSpan.FromMinutes(10), time);
        do
        {
            try
            {
                if (Days().LastOrDefault() is var last && last < Today)
                    Make();
            }
            catch (Exception failed) when (failed is RefusedException or IOException or UnauthorizedAccessException)
            {
                wrong = failed.Message;
                log.LogError("No backup was made: {Reason}", failed.Message);
            }
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    private DateOnly Today => day.Today;

    private string FileOf(DateOnly day) =>
        Path.Combine(path, Prefix + day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) + ".db");

    private List<DateOnly> Days() =>
        !Directory.Exists(path)
            ? []
            :
            [
                .. Directory
                    .GetFiles(path, Prefix + "*.db")
                    .Select(f => Path.GetFileNameWithoutExtension(f)[Prefix.Length..])
                    .Select(d =>
                        DateOnly.TryParseExact(
                            d,
                            "yyyy-MM-dd",
                            CultureInfo.InvariantCulture,
                            DateTimeStyles.None,
                            out var day
                        )
                            ? day
                            : default
                    )
                    .Where(day => day != default)
                    .Order(),
            ];

    /// <summary>Makes today's backup, in the place of one that was made today, and lets go of those that are too many.</summary>
    /// <exception cref="RefusedException">It could not be made; those that are there stay.</exception>
    public BackupsView Make()
    {
        lock (making)
        {
            Directory.CreateDirectory(path);
            var (file, fresh) = (FileOf(Today), FileOf(Today) + ".fresh");
            File.Delete(fresh);
            var now = time.GetUtcNow().UtcDateTime;
            Backup.Make(database, files, fresh, now);
            // The new one is whole; whoever sees it by its name sees no more than are kept.
            foreach (var day in Plan.Surplus([.. Days(), Today]))
                File.Delete(FileOf(day));
            File.Move(fresh, file, overwrite: true);
            files.Sweep(now.AddDays(-DaysUnnamed));
            wrong = "";
            return View();
        }
    }

    /// <summary>Sets how many are kept.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public BackupsView Set(Save<BackupPlan> save)
    {
        save.Now.Check();
        settings.Change<BackupPlan>(BackupPlan.Setting, stands => save.Onto(stands ?? BackupPlan.Starting));
        return View();
    }

    /// <summary>What there is, newest first.</summary>
    public BackupsView View() =>
        new(
            [
                .. Days()
                    .OrderDescending()
                    .Select(day => new FileInfo(FileOf(day)))
                    // One may go while they are listed.
                    .Where(f => f.Exists)
                    .Select(f => new BackupView(f.Name, JobStore.Utc(f.LastWriteTimeUtc), f.Length)),
            ],
            Plan,
            path,
            wrong
        );
}

/// <summary>What can be done about backups.</summary>
public static class BackupEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapBackups(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/backups", (Backups backups) => backups.View());
        app.MapPost("/api/backups", (Backups backups) => backups.Make());
        app.MapPut("/api/backups/plan", (Save<BackupPlan> save, Backups backups) => backups.Set(save));
    }
}
