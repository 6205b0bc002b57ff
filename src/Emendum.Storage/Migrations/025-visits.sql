-- What was said of the visits of a round: appended, the last word counts.
CREATE TABLE visit_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    visit_id TEXT NOT NULL,
    kind_id TEXT NOT NULL,
    said TEXT NOT NULL,
    day TEXT NOT NULL,
    words TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    link_id TEXT REFERENCES crew_link (id)
) STRICT;
CREATE INDEX visit_fact_job ON visit_fact (job_id);
CREATE TRIGGER visit_fact_stays BEFORE UPDATE ON visit_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER visit_fact_is_kept BEFORE DELETE ON visit_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- The visit on which hours were worked.
ALTER TABLE hours_fact ADD COLUMN visit_id TEXT;
