-- What the customer's side has chosen of a revision: appended, a version each; the last one stands.
CREATE TABLE selection (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    revision_id TEXT NOT NULL REFERENCES revision (id),
    version INTEGER NOT NULL,
    content TEXT NOT NULL,
    link_id TEXT REFERENCES link (id),
    at TEXT NOT NULL,
    UNIQUE (revision_id, version)
) STRICT;
CREATE TRIGGER selection_stays BEFORE UPDATE ON selection BEGIN SELECT RAISE(ABORT, 'what was chosen does not change'); END;
CREATE TRIGGER selection_is_kept BEFORE DELETE ON selection BEGIN SELECT RAISE(ABORT, 'what was chosen does not change'); END;
