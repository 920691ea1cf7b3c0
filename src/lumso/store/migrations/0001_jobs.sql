-- A job is a tree of documents that is only ever added to; undo and redo move its head.
CREATE TABLE job (
  id         TEXT PRIMARY KEY,
  head       INTEGER NOT NULL,           -- number of the revision that counts
  created_at TEXT NOT NULL,              -- UTC, ISO 8601
  opened_at  TEXT NOT NULL,              -- when someone last worked on it
  put_away   INTEGER NOT NULL DEFAULT 0  -- 1: out of the list, not gone
) STRICT;

CREATE TABLE job_revision (
  job_id   TEXT NOT NULL REFERENCES job (id),
  number   INTEGER NOT NULL,
  parent   INTEGER,                      -- the revision it was made from; NULL for the first
  name     TEXT NOT NULL,                -- the document's own name, for lists
  document TEXT NOT NULL,                -- a job file
  saved_at TEXT NOT NULL,
  PRIMARY KEY (job_id, number),
  FOREIGN KEY (job_id, parent) REFERENCES job_revision (job_id, number)
) STRICT;

-- The workshop and its settings: one document per key.
CREATE TABLE setting (
  key      TEXT PRIMARY KEY,
  document TEXT NOT NULL,
  saved_at TEXT NOT NULL
) STRICT;
