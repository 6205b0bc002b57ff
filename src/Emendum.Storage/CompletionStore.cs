using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Snags, and that the customer has taken the work, on disk.</summary>
public sealed class CompletionStore(Database database)
{
    /// <summary>How the completion of a job stands.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    public Completion Of(Guid job, Guid acceptance)
    {
        using var connection = database.Connect();
        return Of(connection, job, acceptance);
    }

    internal static Completion Of(SqliteConnection connection, Guid job, Guid acceptance) =>
        new(
            [
                .. connection.Rows(
                    "SELECT s.id, s.text, s.place_id, s.at, s.by, m.at, m.by FROM snag s LEFT JOIN snag_mended m ON m.mended = 1 AND m.number = (SELECT max(number) FROM snag_mended WHERE snag_id = s.id) WHERE s.job_id = $job ORDER BY s.number",
                    r => new Snag(
                        r.GetGuid(0),
                        r.GetString(1),
                        r.IsDBNull(2) ? null : r.GetGuid(2),
                        JobStore.Moment(r.GetString(3)),
                        r.GetString(4)
                    )
                    {
                        Mended = r.IsDBNull(5) ? null : new(JobStore.Moment(r.GetString(5)), r.GetString(6)),
                    },
                    ("$job", job)
                ),
            ],
            connection
                .Rows(
                    "SELECT id, day, name, how, at, by FROM completion_fact WHERE job_id = $job AND fact_id = $fact AND takes_back IS NULL AND id NOT IN (SELECT takes_back FROM completion_fact WHERE job_id = $job AND takes_back IS NOT NULL) ORDER BY number",
                    r => new CompletionFact(
                        r.GetGuid(0),
                        Day.Of(r.GetString(1)),
                        r.GetString(2),
                        r.GetString(3),
                        JobStore.Moment(r.GetString(4)),
                        r.GetString(5)
                    ),
                    ("$job", job),
                    ("$fact", acceptance)
                )
                .FirstOrDefault()
        );

    /// <summary>Writes a snag. The same id again changes nothing.</summary>
    /// <exception cref="RefusedException">There are too many.</exception>
    public void Write(Guid job, Snag snag)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var there = connection.Rows("SELECT id FROM snag WHERE job_id = $job", r => r.GetGuid(0), ("$job", job));
        if (there.Contains(snag.Id))
            return;
        if (there.Count >= Snag.Most)
            throw RefusedException.Of("text", $"A job keeps at most {Snag.Most:N0} snags.");
        connection.Run(
            "INSERT INTO snag (id, job_id, text, place_id, at, by) VALUES ($id, $job, $text, $place, $at, $by)",
            ("$id", snag.Id),
            ("$job", job),
            ("$text", snag.Text),
            ("$place", snag.Place),
            ("$at", JobStore.Utc(snag.At)),
            ("$by", snag.By)
        );
        writing.Commit();
    }

    /// <summary>Says that a snag was mended, or is open again. The same id again changes nothing.</summary>
    /// <exception cref="RefusedException">The job has no such snag.</exception>
    public void Mend(Guid job, Guid id, Guid snag, bool mended, DateTime at, string by)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (
            connection
                .Rows(
                    "SELECT 1 FROM snag WHERE id = $id AND job_id = $job",
                    r => r.GetInt32(0),
                    ("$id", snag),
                    ("$job", job)
                )
                .Count == 0
        )
            throw RefusedException.Of("snag", "That snag is not of this job.");
        connection.Run(
            "INSERT INTO snag_mended (id, snag_id, mended, at, by) VALUES ($id, $snag, $mended, $at, $by) ON CONFLICT (id) DO NOTHING",
            ("$id", id),
            ("$snag", snag),
            ("$mended", mended ? 1 : 0),
            ("$at", JobStore.Utc(at)),
            ("$by", by)
        );
        writing.Commit();
    }

    /// <summary>Records that the customer has taken the work; who has taken it before has.</summary>
    public void Record(Guid job, Guid acceptance, CompletionFact fact)
    {
        using var writing = database.Writes();
        if (Of(writing.Connection, job, acceptance).Note is not null)
            return;
        Insert(writing.Connection, job, acceptance, fact, null);
        writing.Commit();
    }

    /// <summary>Takes back what was recorded by mistake. The same id again changes nothing.</summary>
    /// <exception cref="RefusedException">There is no note, or a release rests on it.</exception>
    public void TakeBack(Guid job, Guid acceptance, Guid id, DateTime at, string by)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (connection.Rows("SELECT 1 FROM completion_fact WHERE id = $id", r => r.GetInt32(0), ("$id", id)).Count > 0)
            return;
        var note =
            Of(connection, job, acceptance).Note ?? throw RefusedException.Of("note", "There is no completion note.");
        if (
            connection
                .Rows(
                    "SELECT 1 FROM release_fact WHERE job_id = $job AND fact_id = $fact LIMIT 1",
                    r => r.GetInt32(0),
                    ("$job", job),
                    ("$fact", acceptance)
                )
                .Count > 0
        )
            throw RefusedException.Of("note", "A release of what was retained rests on it.");
        Insert(connection, job, acceptance, note with { Id = id, At = at, By = by }, note.Id);
        writing.Commit();
    }

    private static void Insert(
        SqliteConnection connection,
        Guid job,
        Guid acceptance,
        CompletionFact fact,
        Guid? takesBack
    ) =>
        connection.Run(
            "INSERT INTO completion_fact (id, job_id, fact_id, day, name, how, at, by, takes_back) VALUES ($id, $job, $fact, $day, $name, $how, $at, $by, $back)",
            ("$id", fact.Id),
            ("$job", job),
            ("$fact", acceptance),
            ("$day", Day.Written(fact.Day)),
            ("$name", fact.Name),
            ("$how", fact.How),
            ("$at", JobStore.Utc(fact.At)),
            ("$by", fact.By),
            ("$back", takesBack)
        );
}
