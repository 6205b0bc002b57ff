-- In which window of a browser an edit was made: undo goes by it. Entries from before have none.
ALTER TABLE job_log ADD COLUMN client TEXT;
-- The hash was of the command with its id in it; it is of the command alone now, and what is here already is not compared.
UPDATE job_log SET command_hash = NULL;
-- In which zone of the IANA database the firm's days begin; until now they were days of UTC.
ALTER TABLE company ADD COLUMN zone TEXT NOT NULL DEFAULT 'Etc/UTC';
