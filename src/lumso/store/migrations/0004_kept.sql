-- Whose file this is: "Lums".
PRAGMA application_id = 1282764147;

-- Two counters, each one row's own. A change of the workshop takes the next number of `workshop`, work on a job the next
-- of `touched`: what was read at a number is still true at it, and the order of jobs asks no clock of the machine.
CREATE TABLE clock (
  one      INTEGER PRIMARY KEY CHECK (one = 1),
  workshop INTEGER NOT NULL,
  touched  INTEGER NOT NULL
) STRICT;
INSERT INTO clock SELECT 1, 1, count(*) FROM job;

-- Documents of the workshop are saved with the revision they were made from, as jobs are.
ALTER TABLE workshop_entry ADD COLUMN revision INTEGER NOT NULL DEFAULT 1;
ALTER TABLE setting ADD COLUMN revision INTEGER NOT NULL DEFAULT 1;
CREATE INDEX workshop_entry_revision ON workshop_entry (revision);

-- Which job was worked on last.
ALTER TABLE job ADD COLUMN touched INTEGER NOT NULL DEFAULT 0;
UPDATE job SET touched = (SELECT count(*) FROM job AS o WHERE (o.opened_at, o.id) <= (job.opened_at, job.id));
CREATE INDEX job_touched ON job (put_away, touched);

-- What a list shows of a revision, as JSON, and the state of the workshop it was worked out in; NULL until it is asked.
ALTER TABLE job_revision ADD COLUMN summary TEXT;
ALTER TABLE job_revision ADD COLUMN summed_at INTEGER NOT NULL DEFAULT 0;
CREATE INDEX job_revision_parent ON job_revision (job_id, parent);

-- What was asked under a key of the asker's own, so that the same asked again comes to the same.
CREATE TABLE answered (
  key      TEXT PRIMARY KEY,
  what     TEXT NOT NULL,                -- the document, such as "job/…"
  revision INTEGER NOT NULL,             -- what it came to
  at       TEXT NOT NULL
) STRICT;

-- Documents of the workshop that were taken out, or could not be read: found, brought back, or deleted by choice.
CREATE TABLE set_aside (
  id       INTEGER PRIMARY KEY,
  kind     TEXT NOT NULL CHECK (kind IN ('kit', 'recipe', 'shelf', 'setting', 'job')),
  slug     TEXT NOT NULL,
  document TEXT NOT NULL,
  why      TEXT NOT NULL,
  at       TEXT NOT NULL
) STRICT;
INSERT INTO set_aside (kind, slug, document, why, at)
  SELECT 'setting', substr(key, 1, instr(key, ', set aside') - 1), document, 'could not be read', saved_at
  FROM setting WHERE instr(key, ', set aside') > 0;
DELETE FROM setting WHERE instr(key, ', set aside') > 0;

-- A material's colour was free text once. What is none becomes grey; the entry as it was is set aside.
INSERT INTO set_aside (kind, slug, document, why, at)
  SELECT kind, slug, document, 'its colour was none', saved_at FROM workshop_entry
  WHERE kind = 'shelf' AND with_colours(document) <> document;
UPDATE workshop_entry SET document = with_colours(document)
  WHERE kind = 'shelf' AND with_colours(document) <> document;
INSERT INTO set_aside (kind, slug, document, why, at)
  SELECT 'job', job_id, document, 'a colour in it was none', saved_at FROM job_revision
  WHERE with_colours(document) <> document;
UPDATE job_revision SET document = with_colours(document) WHERE with_colours(document) <> document;

-- Printed batches outlive the job they were printed from.
CREATE TABLE frozen_batch_kept (
  id        TEXT PRIMARY KEY,
  code      TEXT NOT NULL UNIQUE,        -- short, to be read aloud and scanned
  job_id    TEXT NOT NULL,               -- of a job that may be gone
  revision  INTEGER NOT NULL,            -- of the job, when it was frozen
  batch     TEXT NOT NULL,               -- the batch's own id on the sheet
  document  TEXT NOT NULL,               -- a batch file
  frozen_at TEXT NOT NULL,               -- UTC, ISO 8601
  UNIQUE (job_id, revision, batch, document)
) STRICT;
INSERT INTO frozen_batch_kept SELECT id, code, job_id, revision, batch, document, frozen_at FROM frozen_batch;
DROP TABLE frozen_batch;
ALTER TABLE frozen_batch_kept RENAME TO frozen_batch;
