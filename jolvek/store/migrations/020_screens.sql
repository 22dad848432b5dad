-- The language of a person's own screens; empty: the shop's.
ALTER TABLE person ADD COLUMN language TEXT NOT NULL DEFAULT ''
  CHECK (language IN ('', 'en', 'de'));
