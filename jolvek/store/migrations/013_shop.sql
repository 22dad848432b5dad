-- What the shop says of itself, one row a setting; enquiries that came in by the customer's own
-- hand, their photos, and how the customer is reached.
CREATE TABLE setting (key TEXT PRIMARY KEY, value TEXT NOT NULL CHECK (json_valid(value))) STRICT;
ALTER TABLE enquiry ADD COLUMN phone TEXT NOT NULL DEFAULT '';
ALTER TABLE enquiry ADD COLUMN mail TEXT NOT NULL DEFAULT '';
ALTER TABLE enquiry ADD COLUMN address TEXT NOT NULL DEFAULT '';
CREATE TABLE came_in (
  enquiry_id INTEGER PRIMARY KEY REFERENCES enquiry (id) ON DELETE CASCADE, at TEXT NOT NULL,
  estimated TEXT NOT NULL CHECK (json_valid(estimated)), looked_at TEXT NOT NULL DEFAULT '',
  looked_by TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX came_in_waiting ON came_in (looked_at, at);
CREATE TABLE photo (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  name TEXT NOT NULL
) STRICT;
CREATE INDEX photo_of ON photo (enquiry_id);
CREATE TABLE api_key (
  token TEXT PRIMARY KEY, name TEXT NOT NULL, made_at TEXT NOT NULL,
  used_at TEXT NOT NULL DEFAULT ''
) STRICT;
