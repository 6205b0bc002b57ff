-- An estimate that goes out with the proposal of another job is a revision of its own, whose life is led with that one's.
ALTER TABLE revision ADD COLUMN lead_job_id TEXT REFERENCES job (id);
ALTER TABLE revision ADD COLUMN lead_id TEXT REFERENCES revision (id);
CREATE INDEX revision_by_lead ON revision (lead_id) WHERE lead_id IS NOT NULL;
