-- Why no tax is charged to a customer, as jobs have it: kind and reason, or empty.
ALTER TABLE customer ADD COLUMN exempt TEXT NOT NULL DEFAULT '';
ALTER TABLE customer ADD COLUMN exempt_reason TEXT NOT NULL DEFAULT '';
