-- With which version of the job file the changes of an entry are written. What is here was written with version 4 or an older one.
ALTER TABLE job_log ADD COLUMN schema INTEGER NOT NULL DEFAULT 4;
