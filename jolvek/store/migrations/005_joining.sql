-- How packs may be joined, and which clip onto one motor alone.
ALTER TABLE battery ADD COLUMN max_series INTEGER;
ALTER TABLE battery ADD COLUMN max_parallel INTEGER;
ALTER TABLE battery ADD COLUMN clip_on INTEGER NOT NULL DEFAULT 0 CHECK (clip_on IN (0, 1));
