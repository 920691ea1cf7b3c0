-- What was sent under a key, as a hash: another body under the same key is a mistake of the asker's. NULL from before.
ALTER TABLE answered ADD COLUMN sent TEXT;
