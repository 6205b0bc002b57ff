-- What a change order holds (a revision whose number is below nothing: a chain of its own), frozen with it.
CREATE TABLE change_order (
    revision_id TEXT PRIMARY KEY REFERENCES revision (id),
    job_id TEXT NOT NULL REFERENCES job (id),
    content TEXT NOT NULL
) STRICT;
CREATE INDEX change_order_job ON change_order (job_id);
CREATE TRIGGER change_order_stays BEFORE UPDATE ON change_order BEGIN SELECT RAISE(ABORT, 'what was sent does not change'); END;
CREATE TRIGGER change_order_is_kept BEFORE DELETE ON change_order BEGIN SELECT RAISE(ABORT, 'what was sent does not change'); END;
