-- Acts on pots are events like any other; which pots an event is of, so that one pot's life is found among all.
ALTER TABLE event ADD COLUMN pot TEXT NOT NULL DEFAULT '';   -- the pot it is done to
ALTER TABLE event ADD COLUMN jar TEXT NOT NULL DEFAULT '';   -- the jar it takes from, where it takes from one
CREATE INDEX event_by_pot ON event (pot) WHERE pot <> '';
CREATE INDEX event_by_jar ON event (jar) WHERE jar <> '';

-- Each pot as it follows from its events: written anew with every one of them, to be listed and searched.
CREATE TABLE pot (
  id        TEXT PRIMARY KEY,
  job_id    TEXT NOT NULL,               -- of a job that may be gone
  job       TEXT NOT NULL,               -- what the job was called
  code      TEXT NOT NULL,
  begun_min REAL NOT NULL,               -- minutes since 1970 UTC
  state     TEXT NOT NULL,
  left_g    REAL NOT NULL,
  rate_of   TEXT NOT NULL DEFAULT '',    -- what its rate is one of: recipe|technique; '' where it says nothing
  rate      REAL NOT NULL DEFAULT 0,     -- what it took, as a multiple of what was planned
  words     TEXT NOT NULL,               -- what it is found by, folded
  document  TEXT NOT NULL                -- a summary, as JSON
) STRICT;
CREATE INDEX pot_by_time ON pot (begun_min);
CREATE INDEX pot_by_job ON pot (job_id);
CREATE INDEX pot_by_code ON pot (code);
CREATE INDEX pot_by_rate ON pot (rate_of) WHERE rate_of <> '';
CREATE INDEX pot_left ON pot (state) WHERE left_g > 0;

-- What was seen of how long films dry, and how long work took: written with the events that say so.
CREATE TABLE sighting (
  event    TEXT PRIMARY KEY,
  kind     TEXT NOT NULL CHECK (kind IN ('wait', 'pace')),
  of       TEXT NOT NULL,                -- the recipe; the technique
  job_id   TEXT NOT NULL,
  at_min   REAL NOT NULL,
  planned  REAL NOT NULL,                -- minutes
  seen     REAL NOT NULL,                -- minutes
  dry      INTEGER NOT NULL DEFAULT 1    -- of a wait: 1 dry by then, 0 not yet
) STRICT;

-- Recorded notes: short, named by what they hold; never listened to by anybody but a person.
CREATE TABLE recording (
  name     TEXT PRIMARY KEY,             -- SHA-256 of the content, in hex
  kind     TEXT NOT NULL,                -- audio/webm, audio/ogg, audio/mp4, audio/wav
  content  BLOB NOT NULL,
  added_at TEXT NOT NULL
) STRICT;
