-- Mail that went out, or is to: written with the fact that it belongs to (whose id it has), in one transaction, and never changed.
CREATE TABLE mail (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE REFERENCES proposal_fact (id),
    job_id TEXT NOT NULL REFERENCES job (id),
    revision_id TEXT NOT NULL REFERENCES revision (id),
    at TEXT NOT NULL,
    sender_name TEXT NOT NULL,
    sender TEXT NOT NULL,
    message TEXT NOT NULL,
    attached TEXT NOT NULL,
    attached_hash TEXT NOT NULL
) STRICT;
CREATE INDEX mail_job ON mail (job_id);
CREATE TRIGGER mail_stays BEFORE UPDATE ON mail BEGIN SELECT RAISE(ABORT, 'what was sent does not change'); END;
