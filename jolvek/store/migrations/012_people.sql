-- Who may come in, who is in, what they did; and who saved each version of an enquiry.
CREATE TABLE person (
  id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE COLLATE NOCASE, shown TEXT NOT NULL,
  role TEXT NOT NULL CHECK (role IN ('owner', 'advisor', 'rigger', 'reader')),
  password TEXT NOT NULL DEFAULT '', second_factor TEXT NOT NULL DEFAULT '',
  factor_step INTEGER NOT NULL DEFAULT 0,
  active INTEGER NOT NULL DEFAULT 1 CHECK (active IN (0, 1)), made_at TEXT NOT NULL
) STRICT;
CREATE TABLE signed_in (
  token TEXT PRIMARY KEY, person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE,
  made_at TEXT NOT NULL, seen_at TEXT NOT NULL, address TEXT NOT NULL, device TEXT NOT NULL
) STRICT;
CREATE INDEX signed_in_of ON signed_in (person_id);
CREATE TABLE invitation (
  token TEXT PRIMARY KEY, person_id INTEGER REFERENCES person (id) ON DELETE CASCADE,
  until TEXT NOT NULL
) STRICT;
CREATE TABLE trail (
  id INTEGER PRIMARY KEY, at TEXT NOT NULL, who TEXT NOT NULL, role TEXT NOT NULL,
  address TEXT NOT NULL, action TEXT NOT NULL, path TEXT NOT NULL, detail TEXT NOT NULL,
  chain TEXT NOT NULL
) STRICT;
CREATE INDEX trail_of ON trail (path, id);
ALTER TABLE enquiry_version ADD COLUMN who TEXT NOT NULL DEFAULT '';
