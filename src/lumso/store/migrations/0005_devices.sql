-- Devices that were let in over the network, each by a token of its own; what is kept of that cannot be used to enter.
CREATE TABLE device (
  id          TEXT PRIMARY KEY,
  name        TEXT NOT NULL,
  token_hash  TEXT NOT NULL UNIQUE,
  entered_at  TEXT NOT NULL,
  seen_at     TEXT NOT NULL,
  turned_out  INTEGER NOT NULL DEFAULT 0  -- 1: it is told so at its next visit, and forgets what it kept
) STRICT;
