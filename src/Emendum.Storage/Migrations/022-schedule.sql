-- The tasks of each job as they are planned, beside the job itself: who lays out another one sees at a look which crews are taken. Written with the edit that changes them.
CREATE TABLE job_tasks (
    job_id TEXT PRIMARY KEY REFERENCES job (id),
    last_start TEXT NOT NULL,
    tasks TEXT NOT NULL
) STRICT;
CREATE INDEX job_tasks_last_start ON job_tasks (last_start);

-- A schedule as it was told to those whom it concerns.
CREATE TABLE schedule_published (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    title TEXT NOT NULL,
    site TEXT NOT NULL,
    tasks TEXT NOT NULL,
    told TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL
) STRICT;
CREATE INDEX schedule_published_job ON schedule_published (job_id);
CREATE TRIGGER schedule_published_stays BEFORE UPDATE ON schedule_published BEGIN SELECT RAISE(ABORT, 'what was told does not change'); END;
CREATE TRIGGER schedule_published_is_kept BEFORE DELETE ON schedule_published BEGIN SELECT RAISE(ABORT, 'what was told does not change'); END;

-- Private addresses at which a crew's calendar program asks for its days.
CREATE TABLE crew_calendar (
    id TEXT PRIMARY KEY,
    crew_id TEXT NOT NULL,
    token_hash TEXT NOT NULL UNIQUE,
    made TEXT NOT NULL,
    revoked TEXT
) STRICT;
CREATE INDEX crew_calendar_crew ON crew_calendar (crew_id);

-- A mail or a text message brings a revision of a proposal, an order to a supplier, an invoice or what reminds of it, or days of a schedule to a crew.
ALTER TABLE mail RENAME TO mail_before;
DROP INDEX mail_job;
DROP TRIGGER mail_stays;
DROP TRIGGER mail_goes_once;
CREATE TABLE mail (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    fact_id TEXT REFERENCES proposal_fact (id),
    job_id TEXT NOT NULL REFERENCES job (id),
    revision_id TEXT REFERENCES revision (id),
    order_id TEXT REFERENCES purchase_order (id),
    invoice_id TEXT REFERENCES invoice (id),
    schedule_id TEXT REFERENCES schedule_published (id),
    at TEXT NOT NULL,
    sender_name TEXT NOT NULL,
    sender TEXT NOT NULL,
    address TEXT NOT NULL,
    copy INTEGER NOT NULL,
    subject TEXT NOT NULL,
    words TEXT NOT NULL,
    link_id TEXT REFERENCES link (id),
    link TEXT,
    gone TEXT,
    attached TEXT NOT NULL,
    attached_hash TEXT NOT NULL,
    way TEXT NOT NULL DEFAULT 'mail',
    more TEXT NOT NULL DEFAULT '[]',
    to_server INTEGER NOT NULL DEFAULT 0,
    CHECK ((revision_id IS NULL) = (fact_id IS NULL)),
    CHECK ((revision_id IS NOT NULL) + (order_id IS NOT NULL) + (invoice_id IS NOT NULL) + (schedule_id IS NOT NULL) = 1)
) STRICT;
INSERT INTO mail SELECT number, id, fact_id, job_id, revision_id, order_id, invoice_id, NULL, at, sender_name, sender, address, copy, subject, words, link_id, link, gone, attached, attached_hash, way, more, to_server FROM mail_before;
DROP TABLE mail_before;
CREATE INDEX mail_job ON mail (job_id);
CREATE TRIGGER mail_stays BEFORE UPDATE OF number, id, fact_id, job_id, revision_id, order_id, invoice_id, schedule_id, at, sender_name, sender, address, copy, subject, words, link_id, attached, attached_hash, way, more, to_server ON mail
BEGIN SELECT RAISE(ABORT, 'what was sent does not change'); END;
CREATE TRIGGER mail_goes_once BEFORE UPDATE OF gone, link ON mail WHEN OLD.gone IS NOT NULL OR NEW.gone IS NULL OR NEW.link IS NOT NULL
BEGIN SELECT RAISE(ABORT, 'what has gone does not change'); END;
