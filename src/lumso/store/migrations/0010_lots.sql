-- What was bought stands in the workshop, too: lots, one document each.
CREATE TABLE workshop_entry_kept (
  kind     TEXT NOT NULL CHECK (kind IN ('kit', 'recipe', 'shelf', 'lot')),
  slug     TEXT NOT NULL,
  document TEXT NOT NULL,
  saved_at TEXT NOT NULL,
  revision INTEGER NOT NULL DEFAULT 1,
  PRIMARY KEY (kind, slug)
) STRICT;
INSERT INTO workshop_entry_kept SELECT kind, slug, document, saved_at, revision FROM workshop_entry;
DROP TABLE workshop_entry;
ALTER TABLE workshop_entry_kept RENAME TO workshop_entry;
CREATE INDEX workshop_entry_revision ON workshop_entry (revision);

CREATE TABLE set_aside_kept (
  id       INTEGER PRIMARY KEY,
  kind     TEXT NOT NULL CHECK (kind IN ('kit', 'recipe', 'shelf', 'lot', 'setting', 'job')),
  slug     TEXT NOT NULL,
  document TEXT NOT NULL,
  why      TEXT NOT NULL,
  at       TEXT NOT NULL
) STRICT;
INSERT INTO set_aside_kept SELECT id, kind, slug, document, why, at FROM set_aside;
DROP TABLE set_aside;
ALTER TABLE set_aside_kept RENAME TO set_aside;
