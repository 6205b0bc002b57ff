-- The work order of an accepted job: the job as it was agreed, with what was chosen, and what the crew is told of it. Made once for each acceptance, and never changed.
CREATE TABLE work_order (
    fact_id TEXT NOT NULL REFERENCES proposal_fact (id),
    job_id TEXT NOT NULL REFERENCES job (id),
    rules INTEGER NOT NULL,
    made TEXT NOT NULL,
    content BLOB NOT NULL,
    money TEXT NOT NULL,
    job BLOB NOT NULL,
    PRIMARY KEY (job_id, fact_id)
) STRICT;
CREATE TRIGGER work_order_stays BEFORE UPDATE ON work_order BEGIN SELECT RAISE(ABORT, 'what was agreed does not change'); END;
CREATE TRIGGER work_order_is_kept BEFORE DELETE ON work_order BEGIN SELECT RAISE(ABORT, 'what was agreed does not change'); END;

-- Private links of crews, by the hash of what opens them; that one was revoked is a row of its own.
CREATE TABLE crew_link (
    id TEXT PRIMARY KEY,
    token_hash TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    made_for TEXT NOT NULL,
    sections TEXT NOT NULL,
    made TEXT NOT NULL
) STRICT;
CREATE INDEX crew_link_job ON crew_link (job_id);
CREATE TRIGGER crew_link_stays BEFORE UPDATE ON crew_link BEGIN SELECT RAISE(ABORT, 'what was made does not change'); END;
CREATE TABLE crew_link_revoked (
    link_id TEXT PRIMARY KEY REFERENCES crew_link (id),
    at TEXT NOT NULL
) STRICT;
CREATE TRIGGER crew_link_revoked_stays BEFORE UPDATE ON crew_link_revoked BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- What was done and worked on site: appended.
CREATE TABLE done_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    work_id TEXT NOT NULL,
    place_id TEXT NOT NULL,
    percent TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    link_id TEXT REFERENCES crew_link (id)
) STRICT;
CREATE INDEX done_fact_job ON done_fact (job_id);
CREATE TRIGGER done_fact_stays BEFORE UPDATE ON done_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER done_fact_is_kept BEFORE DELETE ON done_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TABLE hours_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    worked_for TEXT NOT NULL,
    work_id TEXT,
    place_id TEXT,
    person TEXT NOT NULL,
    day TEXT NOT NULL,
    hours TEXT NOT NULL,
    words TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    link_id TEXT REFERENCES crew_link (id),
    takes_back TEXT UNIQUE REFERENCES hours_fact (id)
) STRICT;
CREATE INDEX hours_fact_job ON hours_fact (job_id);
CREATE TRIGGER hours_fact_stays BEFORE UPDATE ON hours_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER hours_fact_is_kept BEFORE DELETE ON hours_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- What finished jobs reached by each rate: made from the facts above, and again with each of them.
CREATE TABLE rate_reached (
    job_id TEXT NOT NULL REFERENCES job (id),
    entry_id TEXT NOT NULL,
    coats INTEGER NOT NULL,
    unit TEXT NOT NULL,
    weighted TEXT NOT NULL,
    hours TEXT NOT NULL,
    last_day TEXT NOT NULL,
    basis TEXT NOT NULL,
    PRIMARY KEY (job_id, entry_id, coats, unit)
) STRICT;
CREATE INDEX rate_reached_entry ON rate_reached (entry_id, coats);

-- Why a version of an entry was written, where that says more than what differs in it.
ALTER TABLE book_entry ADD COLUMN why TEXT NOT NULL DEFAULT '';
