-- What the workshop holds of its own: kits, recipes and what is on the shelf, one document each.
CREATE TABLE workshop_entry (
  kind     TEXT NOT NULL CHECK (kind IN ('kit', 'recipe', 'shelf')),
  slug     TEXT NOT NULL,
  document TEXT NOT NULL,
  saved_at TEXT NOT NULL,
  PRIMARY KEY (kind, slug)
) STRICT;
