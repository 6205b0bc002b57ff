-- Files by the hash of their content (SHA-256, lower case). Content comes first, in pieces; a row here says that all of them are there.
CREATE TABLE file (
  hash TEXT PRIMARY KEY,
  -- Media type as its content says.
  type TEXT NOT NULL,
  bytes INTEGER NOT NULL,
  -- Size of a picture in points; null for what is none.
  width INTEGER,
  height INTEGER,
  added TEXT NOT NULL,
  -- Whether anything has ever referred to it.
  named INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE TABLE piece (
  hash TEXT NOT NULL,
  at INTEGER NOT NULL,
  content BLOB NOT NULL,
  UNIQUE (hash, at)
) STRICT;
