-- What is agreed about paying, for a job: the last one counts.
CREATE TABLE billing_terms (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    content TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL
) STRICT;
CREATE INDEX billing_terms_job ON billing_terms (job_id);
CREATE TRIGGER billing_terms_stays BEFORE UPDATE ON billing_terms BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER billing_terms_is_kept BEFORE DELETE ON billing_terms BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- What is to be mended, that it was (the last word counts), and that the customer has taken the work.
CREATE TABLE snag (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    text TEXT NOT NULL,
    place_id TEXT,
    at TEXT NOT NULL,
    by TEXT NOT NULL
) STRICT;
CREATE INDEX snag_job ON snag (job_id);
CREATE TRIGGER snag_stays BEFORE UPDATE ON snag BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER snag_is_kept BEFORE DELETE ON snag BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TABLE snag_mended (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    snag_id TEXT NOT NULL REFERENCES snag (id),
    mended INTEGER NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL
) STRICT;
CREATE INDEX snag_mended_snag ON snag_mended (snag_id);
CREATE TRIGGER snag_mended_stays BEFORE UPDATE ON snag_mended BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER snag_mended_is_kept BEFORE DELETE ON snag_mended BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TABLE completion_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    fact_id TEXT NOT NULL REFERENCES proposal_fact (id),
    day TEXT NOT NULL,
    name TEXT NOT NULL,
    how TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    takes_back TEXT UNIQUE REFERENCES completion_fact (id)
) STRICT;
CREATE INDEX completion_fact_job ON completion_fact (job_id);
CREATE TRIGGER completion_fact_stays BEFORE UPDATE ON completion_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER completion_fact_is_kept BEFORE DELETE ON completion_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- What was retained is asked for, without an invoice number; and reminders. Each with its document, and a PDF that is made afterwards.
CREATE TABLE release_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    fact_id TEXT NOT NULL REFERENCES proposal_fact (id),
    content TEXT NOT NULL,
    document BLOB NOT NULL
) STRICT;
CREATE INDEX release_fact_job ON release_fact (job_id);
CREATE TRIGGER release_fact_stays BEFORE UPDATE ON release_fact BEGIN SELECT RAISE(ABORT, 'what was issued does not change'); END;
CREATE TRIGGER release_fact_is_kept BEFORE DELETE ON release_fact BEGIN SELECT RAISE(ABORT, 'what was issued does not change'); END;
CREATE TABLE release_fact_pdf (
    paper_id TEXT PRIMARY KEY REFERENCES release_fact (id),
    pdf TEXT NOT NULL
) STRICT;
CREATE TABLE reminder_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    fact_id TEXT NOT NULL REFERENCES proposal_fact (id),
    content TEXT NOT NULL,
    document BLOB NOT NULL
) STRICT;
CREATE INDEX reminder_fact_job ON reminder_fact (job_id);
CREATE TRIGGER reminder_fact_stays BEFORE UPDATE ON reminder_fact BEGIN SELECT RAISE(ABORT, 'what was issued does not change'); END;
CREATE TRIGGER reminder_fact_is_kept BEFORE DELETE ON reminder_fact BEGIN SELECT RAISE(ABORT, 'what was issued does not change'); END;
CREATE TABLE reminder_fact_pdf (
    paper_id TEXT PRIMARY KEY REFERENCES reminder_fact (id),
    pdf TEXT NOT NULL
) STRICT;

-- An early-payment discount that was taken with a payment.
ALTER TABLE payment_fact ADD COLUMN discount TEXT NOT NULL DEFAULT '0';
