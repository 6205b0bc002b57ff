-- Who saved each version of an entry and when; entries that were deleted, which keeps their versions; pictures of materials, once by content.
ALTER TABLE book_entry ADD COLUMN person TEXT NOT NULL DEFAULT 'the owner';
ALTER TABLE book_entry ADD COLUMN at TEXT NOT NULL DEFAULT '';

CREATE TABLE book_deleted (
    id TEXT PRIMARY KEY,
    person TEXT NOT NULL,
    at TEXT NOT NULL
) STRICT;

CREATE TABLE book_picture (
    hash TEXT PRIMARY KEY,
    type TEXT NOT NULL,
    content BLOB NOT NULL
) STRICT;

-- Which jobs have pinned an entry, so that 'where used' need not open every job.
CREATE TABLE job_pin (
    job_id TEXT NOT NULL REFERENCES job (id),
    entry_id TEXT NOT NULL,
    PRIMARY KEY (job_id, entry_id)
) STRICT;
CREATE INDEX job_pin_entry ON job_pin (entry_id);

INSERT OR IGNORE INTO job_pin SELECT s.job_id, e.value ->> 'id' FROM job_snapshot s, json_each(CAST(s.content AS TEXT), '$.book') e;
INSERT OR IGNORE INTO job_pin SELECT l.job_id, substr(c.value ->> 'path', 6) FROM job_log l, json_each(l.change_set) c WHERE c.value ->> 'path' LIKE 'book/%';
