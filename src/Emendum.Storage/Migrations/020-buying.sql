-- Purchase orders as they were placed: nothing of one ever changes.
CREATE TABLE purchase_order (
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
CREATE INDEX purchase_order_job ON purchase_order (job_id);
CREATE UNIQUE INDEX purchase_order_text ON purchase_order (lower(text));
CREATE TRIGGER purchase_order_stays BEFORE UPDATE ON purchase_order BEGIN SELECT RAISE(ABORT, 'what was ordered does not change'); END;
CREATE TRIGGER purchase_order_is_kept BEFORE DELETE ON purchase_order BEGIN SELECT RAISE(ABORT, 'what was ordered does not change'); END;
-- Its PDF, made after it was placed.
CREATE TABLE purchase_order_pdf (
    order_id TEXT PRIMARY KEY REFERENCES purchase_order (id),
    pdf TEXT NOT NULL
) STRICT;
-- What happened with one beside goods that came: closed short, a delivery paid, mailed.
CREATE TABLE order_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    order_id TEXT NOT NULL REFERENCES purchase_order (id),
    event TEXT NOT NULL,
    amount TEXT NOT NULL,
    words TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    takes_back TEXT UNIQUE REFERENCES order_fact (id)
) STRICT;
CREATE INDEX order_fact_order ON order_fact (order_id);
CREATE TRIGGER order_fact_stays BEFORE UPDATE ON order_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER order_fact_is_kept BEFORE DELETE ON order_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- Goods that moved, of all jobs and of the firm: appended. An item is a material in a colour and in its unit of use.
CREATE TABLE stock_fact (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    item TEXT NOT NULL,
    material_id TEXT NOT NULL,
    colour TEXT NOT NULL,
    unit TEXT NOT NULL,
    name TEXT NOT NULL,
    move TEXT NOT NULL,
    quantity TEXT NOT NULL,
    job_id TEXT REFERENCES job (id),
    day TEXT NOT NULL,
    words TEXT NOT NULL,
    paid TEXT,
    order_id TEXT REFERENCES purchase_order (id),
    line INTEGER,
    work_id TEXT,
    place_id TEXT,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    takes_back TEXT UNIQUE REFERENCES stock_fact (id)
) STRICT;
CREATE INDEX stock_fact_item ON stock_fact (item);
CREATE INDEX stock_fact_job ON stock_fact (job_id, item);
CREATE INDEX stock_fact_order ON stock_fact (order_id);
CREATE TRIGGER stock_fact_stays BEFORE UPDATE ON stock_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER stock_fact_is_kept BEFORE DELETE ON stock_fact BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- A mail brings a revision of a proposal, an order to a supplier, or an invoice or what reminds of it.
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
    CHECK ((revision_id IS NOT NULL) + (order_id IS NOT NULL) + (invoice_id IS NOT NULL) = 1)
) STRICT;
INSERT INTO mail SELECT number, id, fact_id, job_id, revision_id, NULL, NULL, at, sender_name, sender, address, copy, subject, words, link_id, link, gone, attached, attached_hash, way, more, to_server FROM mail_before;
DROP TABLE mail_before;
CREATE INDEX mail_job ON mail (job_id);
CREATE TRIGGER mail_stays BEFORE UPDATE OF number, id, fact_id, job_id, revision_id, order_id, invoice_id, at, sender_name, sender, address, copy, subject, words, link_id, attached, attached_hash, way, more, to_server ON mail
BEGIN SELECT RAISE(ABORT, 'what was sent does not change'); END;
CREATE TRIGGER mail_goes_once BEFORE UPDATE OF gone, link ON mail WHEN OLD.gone IS NOT NULL OR NEW.gone IS NULL OR NEW.link IS NOT NULL
BEGIN SELECT RAISE(ABORT, 'what has gone does not change'); END;
