-- What the list of jobs says of one is figures, as JSON, which can be sorted by. A job of before has none until it is looked at.
ALTER TABLE job RENAME COLUMN summary TO glance;
UPDATE job SET glance = '';
