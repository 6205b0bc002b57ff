-- The customer's private links. What opens one is kept as its hash (SHA-256) alone; that it was revoked is a fact.
CREATE TABLE link (
    id TEXT PRIMARY KEY,
    token_hash TEXT NOT NULL UNIQUE,
    job_id TEXT NOT NULL REFERENCES job (id),
    revision_id TEXT NOT NULL REFERENCES revision (id),
    fact_id TEXT NOT NULL REFERENCES proposal_fact (id),
    made_for TEXT NOT NULL,
    signs INTEGER NOT NULL,
    made TEXT NOT NULL
) STRICT;
CREATE INDEX link_revision ON link (revision_id);
CREATE TRIGGER link_stays BEFORE UPDATE ON link BEGIN SELECT RAISE(ABORT, 'what was made does not change'); END;

ALTER TABLE proposal_fact ADD COLUMN link_id TEXT REFERENCES link (id);
ALTER TABLE proposal_fact ADD COLUMN copy INTEGER NOT NULL DEFAULT 0;
ALTER TABLE proposal_fact ADD COLUMN about_id TEXT REFERENCES proposal_fact (id);
CREATE INDEX proposal_fact_link ON proposal_fact (link_id) WHERE link_id IS NOT NULL;

-- A mail goes to one address, for each has a link of its own. The link stands here until the mail has gone; then it is cut out, and nothing else of it ever changes.
ALTER TABLE mail RENAME TO mail_before;
DROP INDEX mail_job;
CREATE TABLE mail (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    fact_id TEXT NOT NULL REFERENCES proposal_fact (id),
    job_id TEXT NOT NULL REFERENCES job (id),
    revision_id TEXT NOT NULL REFERENCES revision (id),
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
    attached_hash TEXT NOT NULL
) STRICT;
-- What was written to several at once becomes a mail to each; the first keeps its id.
INSERT INTO mail (id, fact_id, job_id, revision_id, at, sender_name, sender, address, copy, subject, words, attached, attached_hash)
SELECT
    CASE recipient.key
        WHEN 0 THEN m.id
        ELSE lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-a' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6)))
    END,
    m.id, m.job_id, m.revision_id, m.at, m.sender_name, m.sender,
    json_extract(recipient.value, '$.address'), json_extract(recipient.value, '$.copy'),
    json_extract(m.message, '$.subject'), json_extract(m.message, '$.words'), m.attached, m.attached_hash
FROM mail_before m, json_each(m.message, '$.to') recipient
ORDER BY m.number, recipient.key;
DROP TABLE mail_before;
CREATE INDEX mail_job ON mail (job_id);
CREATE TRIGGER mail_stays BEFORE UPDATE OF number, id, fact_id, job_id, revision_id, at, sender_name, sender, address, copy, subject, words, link_id, attached, attached_hash ON mail
BEGIN SELECT RAISE(ABORT, 'what was sent does not change'); END;
CREATE TRIGGER mail_goes_once BEFORE UPDATE OF gone, link ON mail WHEN OLD.gone IS NOT NULL OR NEW.gone IS NULL OR NEW.link IS NOT NULL
BEGIN SELECT RAISE(ABORT, 'what has gone does not change'); END;
