-- In which order a page sent its saves, so that one that comes late undoes nothing; what a device
-- sent later, so that it counts once; devices that somebody has signed in from; a second factor
-- that is being set up; when the parts of an accepted offer were ordered; the language of what a
-- customer gets, empty where nobody chose one: the shop's.
ALTER TABLE enquiry_version ADD COLUMN turn INTEGER NOT NULL DEFAULT 0;
CREATE TABLE sent_later (
  op TEXT PRIMARY KEY, at TEXT NOT NULL
) STRICT;
CREATE TABLE known_device (
  token TEXT PRIMARY KEY, person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE,
  seen_at TEXT NOT NULL
) STRICT;
CREATE INDEX known_device_of ON known_device (person_id);
ALTER TABLE enquiry ADD COLUMN ordered_at TEXT NOT NULL DEFAULT '';
UPDATE enquiry SET ordered_at = changed_at WHERE stage IN ('ordered', 'delivered');
ALTER TABLE owner_change ADD COLUMN at TEXT NOT NULL DEFAULT '';
UPDATE owner_change SET at = on_day || 'T00:00:00';
ALTER TABLE enquiry ADD COLUMN spoken TEXT NOT NULL DEFAULT ''
  CHECK (spoken IN ('', 'en', 'de', 'fr', 'nl', 'es'));
UPDATE enquiry SET spoken = language WHERE language <> 'en';
ALTER TABLE enquiry DROP COLUMN language;
ALTER TABLE enquiry RENAME COLUMN spoken TO language;
CREATE TABLE health (at TEXT NOT NULL) STRICT;
INSERT INTO health (at) VALUES ('');
ALTER TABLE person ADD COLUMN factor_offered TEXT NOT NULL DEFAULT '';
