-- When the wind and the current of a day are against the boat: on the way home, or all day.
ALTER TABLE enquiry ADD COLUMN against TEXT NOT NULL DEFAULT 'home'
  CHECK (against IN ('home', 'all day'));
-- A job before its last change and after it, so that what followed can be told and taken back.
CREATE TABLE undo (
  enquiry_id INTEGER PRIMARY KEY REFERENCES enquiry (id) ON DELETE CASCADE,
  at TEXT NOT NULL, who TEXT NOT NULL, act TEXT NOT NULL, before TEXT NOT NULL, after TEXT NOT NULL
) STRICT;
