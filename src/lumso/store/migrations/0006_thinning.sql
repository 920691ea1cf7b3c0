-- Old revisions are let go by age. What was made from one that is gone is joined to what that was made from.
ALTER TABLE job_revision ADD COLUMN gap INTEGER NOT NULL DEFAULT 0;   -- how many were let go between it and its parent
ALTER TABLE job_revision ADD COLUMN turn INTEGER NOT NULL DEFAULT 0;  -- redo goes to the highest; its own number, or
UPDATE job_revision SET turn = number;                                -- that of the one it took the place of
