-- Money that came by bank, as a bank file said it: kept once, however often a file brings it.
CREATE TABLE bank_entry (
    number INTEGER PRIMARY KEY AUTOINCREMENT,
    id TEXT NOT NULL UNIQUE,
    customer_id TEXT,
    content TEXT NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL
) STRICT;
CREATE TRIGGER bank_entry_stays BEFORE UPDATE ON bank_entry BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;
CREATE TRIGGER bank_entry_is_kept BEFORE DELETE ON bank_entry BEGIN SELECT RAISE(ABORT, 'what has happened does not change'); END;

-- The entry that brought a payment.
ALTER TABLE payment_fact ADD COLUMN entry_id TEXT REFERENCES bank_entry (id);
CREATE INDEX payment_fact_entry ON payment_fact (entry_id);
