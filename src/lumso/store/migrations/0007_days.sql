-- What was done, as it was noted: only ever added to. A mis-tap is taken back by another event.
CREATE TABLE event (
  id        TEXT PRIMARY KEY,            -- made where it was noted
  job_id    TEXT NOT NULL,             -- kept where the job is deleted: it was done all the same
  at_min    REAL NOT NULL,               -- when it happened, minutes since 1970 UTC
  noted_min REAL NOT NULL,               -- when it was noted: what is so follows from this order
  revision  INTEGER NOT NULL,
  document  TEXT NOT NULL
) STRICT;
CREATE INDEX event_by_job ON event (job_id, noted_min, id);

-- What the thermo-hygrometer said, believed or not: one reading a minute at most.
CREATE TABLE reading (
  at_min        REAL PRIMARY KEY,        -- minutes since 1970 UTC
  temperature_c REAL NOT NULL,
  humidity      REAL NOT NULL            -- 0 to 1
) STRICT;

-- What was handed to a calendar: so that what moves rises in its sequence, and what goes is cancelled.
CREATE TABLE calendar_entry (
  uid      TEXT PRIMARY KEY,
  sequence INTEGER NOT NULL,
  begins   TEXT NOT NULL,                -- UTC, ISO 8601
  ends     TEXT NOT NULL,
  summary  TEXT NOT NULL,
  state    TEXT NOT NULL,                -- what it was written from: another state rises
  gone     INTEGER NOT NULL DEFAULT 0
) STRICT;
