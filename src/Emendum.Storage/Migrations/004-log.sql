-- With which version of the job file the changes of an entry are written; what is here was written with version 4 or an older one.
ALTER TABLE job_log ADD COLUMN schema INTEGER NOT NULL DEFAULT 4;
-- SHA-256 of the command: the same id with another command is refused. Entries from before are not compared.
ALTER TABLE job_log ADD COLUMN command_hash BLOB;
-- Answers are made from the job, and not kept.
ALTER TABLE job_log DROP COLUMN answer;
