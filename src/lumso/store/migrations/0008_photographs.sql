-- Photographs of strips and pieces: files beside the database, each named by what it holds.
CREATE TABLE photograph (
  name     TEXT PRIMARY KEY,             -- SHA-256 of the file, in hex
  bytes    INTEGER NOT NULL,
  width    INTEGER NOT NULL,
  height   INTEGER NOT NULL,
  taken    TEXT NOT NULL DEFAULT '',     -- when it was taken, only where that was asked for
  added_at TEXT NOT NULL
) STRICT;
