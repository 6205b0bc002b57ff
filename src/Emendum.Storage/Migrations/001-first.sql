CREATE TABLE company (
    one INTEGER PRIMARY KEY CHECK (one = 1),
    name TEXT NOT NULL,
    address TEXT NOT NULL,
    currency TEXT NOT NULL,
    units TEXT NOT NULL,
    next_number INTEGER NOT NULL
) STRICT;

CREATE TABLE customer (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    address TEXT NOT NULL,
    email TEXT NOT NULL,
    phone TEXT NOT NULL
) STRICT;

CREATE TABLE book_entry (
    id TEXT NOT NULL,
    version INTEGER NOT NULL,
    content TEXT NOT NULL,
    PRIMARY KEY (id, version)
) STRICT;

-- What the list of jobs shows; the job itself is its newest snapshot and the change sets after it.
CREATE TABLE job (
    id TEXT PRIMARY KEY,
    number TEXT NOT NULL,
    name TEXT NOT NULL,
    customer TEXT NOT NULL,
    customer_id TEXT REFERENCES customer (id),
    created TEXT NOT NULL,
    changed TEXT NOT NULL,
    summary TEXT NOT NULL
) STRICT;

CREATE TABLE job_snapshot (
    job_id TEXT NOT NULL REFERENCES job (id),
    version INTEGER NOT NULL,
    schema_version INTEGER NOT NULL,
    content BLOB NOT NULL,
    PRIMARY KEY (job_id, version)
) STRICT;

CREATE TABLE job_log (
    job_id TEXT NOT NULL REFERENCES job (id),
    version INTEGER NOT NULL,
    command_id TEXT NOT NULL,
    name TEXT NOT NULL,
    person TEXT NOT NULL,
    at TEXT NOT NULL,
    reverses INTEGER,
    change_set TEXT NOT NULL,
    answer TEXT NOT NULL,
    PRIMARY KEY (job_id, version),
    UNIQUE (job_id, command_id)
) STRICT;
