-- An estimate that goes out with the proposal of another job is a revision of its own, whose life is led with that one's.
ALTER TABLE revision ADD COLUMN lead_job_id TEXT REFERENCES job (id);
ALTER TABLE revision ADD COLUMN lead_id TEXT REFERENCES revision (id);
-- What lives are read from stands in the index: in the rows these columns come after job file and reckoning, which nobody wants to read for them.
CREATE INDEX revision_life ON revision (job_id, number, id, valid_until, lead_job_id, lead_id);
CREATE INDEX revision_by_lead ON revision (lead_job_id, lead_id, job_id, id);
