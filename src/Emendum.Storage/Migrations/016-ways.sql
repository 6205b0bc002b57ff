-- A message goes by mail or as a text to a telephone, and files of the proposal may go with a mail beside its PDF.
ALTER TABLE mail ADD COLUMN way TEXT NOT NULL DEFAULT 'mail';
-- A list of them as JSON: the hash of each in the files, and its name.
ALTER TABLE mail ADD COLUMN more TEXT NOT NULL DEFAULT '[]';
