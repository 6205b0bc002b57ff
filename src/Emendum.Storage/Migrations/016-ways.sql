-- A message goes by mail or as a text to a telephone, and files of the proposal may go with a mail beside its PDF.
ALTER TABLE mail ADD COLUMN way TEXT NOT NULL DEFAULT 'mail';
-- A list of them as JSON: the hash of each in the files, and its name.
ALTER TABLE mail ADD COLUMN more TEXT NOT NULL DEFAULT '[]';
-- Whether it is for the firm's mail server to take: that was on when it was written. What was written before waits for a person.
ALTER TABLE mail ADD COLUMN to_server INTEGER NOT NULL DEFAULT 0;
