-- A batch as it was printed or begun: it no longer changes when its job does. Only ever added to.
CREATE TABLE frozen_batch (
  id        TEXT PRIMARY KEY,
  code      TEXT NOT NULL UNIQUE,        -- short, to be read aloud and scanned
  job_id    TEXT NOT NULL REFERENCES job (id),
  revision  INTEGER NOT NULL,            -- of the job, when it was frozen
  batch     TEXT NOT NULL,               -- the batch's own id on the sheet
  document  TEXT NOT NULL,               -- a batch file
  frozen_at TEXT NOT NULL,               -- UTC, ISO 8601
  UNIQUE (job_id, revision, batch, document)
) STRICT;
