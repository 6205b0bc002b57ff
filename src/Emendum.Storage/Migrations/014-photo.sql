-- A photo or scan of the paper that a yes came on, by its hash in the file store.
ALTER TABLE proposal_fact ADD COLUMN photo TEXT;
