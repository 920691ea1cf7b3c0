-- What each device may do, and how long. Those already in go on as they did.
ALTER TABLE device ADD COLUMN kind TEXT NOT NULL DEFAULT 'works' CHECK (kind IN ('looks', 'works', 'keeps'));
ALTER TABLE device ADD COLUMN until TEXT;           -- UTC; NULL: until it is turned out
