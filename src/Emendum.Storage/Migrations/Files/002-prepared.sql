-- What a picture has become to leave the house: turned upright, no larger than needed, without what its file says beside it. It can be made again, so nothing refers to it and no backup has it.
CREATE TABLE prepared (
  original TEXT PRIMARY KEY,
  hash TEXT NOT NULL
) STRICT;
