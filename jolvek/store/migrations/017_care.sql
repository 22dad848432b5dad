-- Aftercare: trips as logged, and what was done of the care that is due.
CREATE TABLE trip (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  on_day TEXT NOT NULL, hours REAL NOT NULL CHECK (hours BETWEEN 0 AND 240),
  energy_wh REAL CHECK (energy_wh BETWEEN 0 AND 10000000),
  charge_from REAL CHECK (charge_from BETWEEN 0 AND 1),
  charge_to REAL CHECK (charge_to BETWEEN 0 AND 1), note TEXT NOT NULL DEFAULT '',
  who TEXT NOT NULL, typed_at TEXT NOT NULL
) STRICT;
CREATE INDEX trip_of ON trip (enquiry_id, on_day);
CREATE TABLE care_act (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  step TEXT NOT NULL, on_day TEXT NOT NULL, who TEXT NOT NULL, note TEXT NOT NULL DEFAULT '',
  typed_at TEXT NOT NULL
) STRICT;
CREATE INDEX care_act_of ON care_act (enquiry_id, step, on_day);
