-- What was agreed, frozen with the fact of it; and the names under it, appended. Nothing of either changes.
CREATE TABLE acceptance (
    fact_id TEXT PRIMARY KEY REFERENCES proposal_fact (id),
    job_id TEXT NOT NULL REFERENCES job (id),
    revision_id TEXT NOT NULL REFERENCES revision (id),
    statement TEXT NOT NULL,
    statement_hash TEXT NOT NULL
) STRICT;
CREATE INDEX acceptance_job ON acceptance (job_id);
CREATE TABLE signature (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    fact_id TEXT NOT NULL REFERENCES acceptance (fact_id),
    by_firm INTEGER NOT NULL,
    name TEXT NOT NULL,
    drawn TEXT NOT NULL,
    at TEXT NOT NULL
) STRICT;
CREATE INDEX signature_fact ON signature (fact_id);
-- The signed PDF with so many names under it: made after the fact, and once (architecture decision 34).
CREATE TABLE signed_pdf (
    fact_id TEXT NOT NULL REFERENCES acceptance (fact_id),
    names INTEGER NOT NULL,
    pdf TEXT NOT NULL,
    PRIMARY KEY (fact_id, names)
) STRICT;
CREATE TRIGGER acceptance_stays BEFORE UPDATE ON acceptance BEGIN SELECT RAISE(ABORT, 'what was agreed does not change'); END;
CREATE TRIGGER acceptance_is_kept BEFORE DELETE ON acceptance BEGIN SELECT RAISE(ABORT, 'what was agreed does not change'); END;
CREATE TRIGGER signature_stays BEFORE UPDATE ON signature BEGIN SELECT RAISE(ABORT, 'what was signed does not change'); END;
CREATE TRIGGER signature_is_kept BEFORE DELETE ON signature BEGIN SELECT RAISE(ABORT, 'what was signed does not change'); END;
CREATE TRIGGER signed_pdf_stays BEFORE UPDATE ON signed_pdf BEGIN SELECT RAISE(ABORT, 'what was signed does not change'); END;
