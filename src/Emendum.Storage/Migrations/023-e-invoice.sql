-- What an e-invoice needs to know of a customer.
ALTER TABLE customer ADD COLUMN country TEXT NOT NULL DEFAULT '';
ALTER TABLE customer ADD COLUMN tax_number TEXT NOT NULL DEFAULT '';
