-- Series of numbers, each year's its own where its scheme has the year; and what a person moved on.
CREATE TABLE number_series (
    name TEXT NOT NULL,
    year INTEGER NOT NULL,
    next INTEGER NOT NULL,
    last_day TEXT NOT NULL,
    PRIMARY KEY (name, year)
) STRICT;
CREATE TABLE number_moved (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    name TEXT NOT NULL,
    year INTEGER NOT NULL,
    was INTEGER NOT NULL,
    now INTEGER NOT NULL,
    reason TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL
) STRICT;
CREATE TRIGGER number_moved_stays BEFORE UPDATE ON number_moved BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER number_moved_is_kept BEFORE DELETE ON number_moved BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- Invoices and credit notes as they were issued: nothing of one ever changes; a credit note mends.
CREATE TABLE invoice (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    fact_id TEXT NOT NULL REFERENCES proposal_fact (id),
    text TEXT NOT NULL,
    content TEXT NOT NULL,
    document BLOB NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL
) STRICT;
CREATE INDEX invoice_job ON invoice (job_id);
-- No number is given twice, whatever the case of its letters.
CREATE UNIQUE INDEX invoice_text ON invoice (lower(text));
CREATE TRIGGER invoice_stays BEFORE UPDATE ON invoice BEGIN SELECT RAISE(ABORT, 'what was issued does not change'); END;
CREATE TRIGGER invoice_is_kept BEFORE DELETE ON invoice BEGIN SELECT RAISE(ABORT, 'what was issued does not change'); END;
-- Its PDF, made after it was issued.
CREATE TABLE invoice_pdf (
    invoice_id TEXT PRIMARY KEY REFERENCES invoice (id),
    pdf TEXT NOT NULL
) STRICT;
CREATE TABLE payment_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    invoice_id TEXT NOT NULL REFERENCES invoice (id),
    day TEXT NOT NULL,
    amount TEXT NOT NULL,
    how TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    takes_back TEXT UNIQUE REFERENCES payment_fact (id)
) STRICT;
CREATE INDEX payment_fact_job ON payment_fact (job_id);
CREATE TRIGGER payment_fact_stays BEFORE UPDATE ON payment_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER payment_fact_is_kept BEFORE DELETE ON payment_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
