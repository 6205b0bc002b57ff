-- What was sent of a proposal, frozen: the job it was made from, its reckoning, its document and PDF. Nothing of it changes.
CREATE TABLE revision (
    id TEXT PRIMARY KEY,
    job_id TEXT NOT NULL REFERENCES job (id),
    number INTEGER NOT NULL,
    sent TEXT NOT NULL,
    job_version INTEGER NOT NULL,
    rules INTEGER NOT NULL,
    valid_until TEXT,
    job BLOB NOT NULL,
    reckoning BLOB NOT NULL,
    document BLOB NOT NULL,
    figures BLOB NOT NULL,
    pdf TEXT NOT NULL,
    UNIQUE (job_id, number)
) STRICT;

-- What happened to revisions, in the order in which it was committed: appended, and never changed (architecture decision 34).
CREATE TABLE proposal_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    revision_id TEXT NOT NULL REFERENCES revision (id),
    kind TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    words TEXT NOT NULL,
    day TEXT,
    total TEXT
) STRICT;
CREATE INDEX proposal_fact_job ON proposal_fact (job_id);
CREATE TRIGGER revision_stays BEFORE UPDATE ON revision BEGIN SELECT RAISE(ABORT, 'what was sent does not change'); END;
CREATE TRIGGER proposal_fact_stays BEFORE UPDATE ON proposal_fact BEGIN SELECT RAISE(ABORT, 'what happened does not change'); END;
CREATE TRIGGER proposal_fact_is_kept BEFORE DELETE ON proposal_fact BEGIN SELECT RAISE(ABORT, 'what happened does not change'); END;
