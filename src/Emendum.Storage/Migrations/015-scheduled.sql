-- Revisions that are frozen and go out later: each with all that it will keep, until it has gone, was cancelled or was dropped. A job has at most one that waits.
CREATE TABLE scheduled (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    fact_id TEXT NOT NULL UNIQUE,
    revision_number INTEGER NOT NULL,
    made TEXT NOT NULL,
    by TEXT NOT NULL,
    goes TEXT NOT NULL,
    content BLOB,
    ended TEXT,
    outcome TEXT,
    words TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE UNIQUE INDEX scheduled_waits ON scheduled (job_id) WHERE ended IS NULL;
CREATE INDEX scheduled_job ON scheduled (job_id);
CREATE TRIGGER scheduled_stays BEFORE UPDATE OF number, id, job_id, fact_id, revision_number, made, by, goes ON scheduled
BEGIN SELECT RAISE(ABORT, 'what was set to go out does not change'); END;
CREATE TRIGGER scheduled_ends_once BEFORE UPDATE OF ended, outcome, words, content ON scheduled WHEN OLD.ended IS NOT NULL
BEGIN SELECT RAISE(ABORT, 'what has ended does not change'); END;
