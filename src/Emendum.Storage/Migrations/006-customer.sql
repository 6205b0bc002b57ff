-- Names of customers stand in their own rows only; jobs have the id. What older jobs say of theirs is read from their snapshots at the start.
ALTER TABLE job DROP COLUMN customer;
