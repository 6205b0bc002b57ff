using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>What a job is called and who it is for.</summary>
internal sealed class InfoPart() : RecordPart<JobInfo>("info")
{
    /// <inheritdoc/>
    protected override JobInfo Of(Job job) => job.Info;

    /// <inheritdoc/>
    protected override Job With(Job job, JobInfo value) => job with { Info = value };

    /// <inheritdoc/>
    public override void Check(Job job) => Check(job.Info);

    /// <summary>Checks names and addresses.</summary>
    public static void Check(JobInfo info)
    {
        if (string.IsNullOrWhiteSpace(info.Name))
            throw RefusedException.Of("name", "Give the job a name.");
        foreach (
            var (text, field) in new[]
            {
                (info.Name, "name"),
                (info.Subtitle, "subtitle"),
                (info.Number, "number"),
                (info.Firm, "firm"),
                (info.FirmAddress, "firmAddress"),
                (info.Currency, "currency"),
                (info.Date, "date"),
                (info.ContactAbout ?? "", "contactAbout"),
            }
        )
            if (text.Length > 300)
                throw RefusedException.Of(field, "At most 300 characters.");
        Currency.Check(info.Currency);
        if (!Day.Read(info.Date, out _))
            throw RefusedException.Of("date", "A date is written like 2026-11-23.");
        if (info.NextContact is { } contact && !Day.Read(contact, out _))
            throw RefusedException.Of("nextContact", "A date is written like 2026-11-23.");
    }
}
