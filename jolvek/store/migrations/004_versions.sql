-- What stood at each time, to merge two people's changes with; the sea trial's factors of a hull;
-- when setups changed, apart from when the enquiry did. Finding is written anew for all.
CREATE TABLE enquiry_version (
  id INTEGER PRIMARY KEY,
  enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  at TEXT NOT NULL,
  page TEXT NOT NULL DEFAULT '',
  data TEXT NOT NULL CHECK (json_valid(data)),
  form TEXT NOT NULL CHECK (json_valid(form))
) STRICT;
CREATE INDEX enquiry_version_of ON enquiry_version (enquiry_id, id);

ALTER TABLE enquiry ADD COLUMN touched_at TEXT NOT NULL DEFAULT '';
ALTER TABLE boat ADD COLUMN friction_factor REAL NOT NULL DEFAULT 1;
ALTER TABLE boat ADD COLUMN wave_factor REAL NOT NULL DEFAULT 1;

DELETE FROM enquiry_find;
INSERT INTO enquiry_find (rowid, customer, title, note, boat, products)
SELECT e.id, e.customer, e.title, e.note, replace(b.family, '_', ' ') || ' ' || b.model,
  coalesce((
    SELECT group_concat(i.title, ' ') FROM setup s JOIN setup_item i ON i.setup_id = s.id
    WHERE s.enquiry_id = e.id
  ), '')
FROM enquiry e JOIN boat b ON b.enquiry_id = e.id;
