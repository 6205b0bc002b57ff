using Emendum.Core;
using Emendum.Core.Proposals;
using Emendum.Core.Reports;
using Emendum.Storage;
using Microsoft.Data.Sqlite;

namespace Emendum.Web.Jobs;

/// <summary>A job in the list of jobs.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Its number.</param>
/// <param name="Name">Its name.</param>
/// <param name="Customer">Its customer's name, or empty.</param>
/// <param name="State">How its proposal stands: <c>draft</c>, <c>Rev A sent</c>.</param>
/// <param name="Changed">When it was last changed, UTC.</param>
/// <param name="Places">How many places; null, like the rest, where it cannot be opened.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="Price">Price before tax.</param>
/// <param name="Margin">Margin; null where there is no price.</param>
/// <param name="BelowFloor">Whether the margin is below its floor.</param>
public sealed record JobListView(
    Guid Id,
    string Number,
    string Name,
    string Customer,
    string State,
    string Changed,
    int? Places,
    FigureView? Hours,
    FigureView? Price,
    FigureView? Margin,
    bool BelowFloor
)
{
    /// <summary>All jobs, the last changed first. Jobs an older version kept are looked at once.</summary>
    public static IReadOnlyList<JobListView> Of(JobStore store, OpenJobs open, RevisionStore revisions, FirmDay day)
    {
        var (lives, today) = (revisions.Lives(), day.Today);
        return
        [
            .. store
                .List()
                .Select(row =>
                    Of(
                        row,
                        row.Glance ?? Look(row.Id, store, open),
                        StandsView.Of(lives.GetValueOrDefault(row.Id, ProposalLife.Empty), today).Words
                    )
                ),
        ];
    }

    private static JobListView Of(JobRow row, JobGlance? glance, string state) =>
        new(
            row.Id,
            row.Number,
            row.Name,
            row.Customer,
            state,
            row.Changed,
            glance?.Places,
            glance is null ? null : FigureView.Hours("", glance.Hours),
            glance is null
                ? null
                : FigureView.Money(
                    "",
                    glance.Price,
                    glance.Currency,
                    Core.Quantities.Currency.Places(glance.Currency) ?? 2
                ),
            glance?.Margin is { } margin ? FigureView.Percent("", margin) : null,
            glance?.BelowFloor ?? false
        );

    private static JobGlance? Look(Guid id, JobStore store, OpenJobs open)
    {
        try
        {
            var glance = JobGlance.Of(open.Get(id).Estimate);
            store.Keep(id, glance);
            return glance;
        }
        catch (Exception wrong) when (wrong is RefusedException or SqliteException)
        {
            // It cannot be opened, and says why when somebody tries to.
            return null;
        }
    }
}
