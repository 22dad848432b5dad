-- Aftercare whole: where trips come from, charges, spares, parts replaced, faults in service,
-- bookings, the shop's own steps of care, what is due kept by day, letters, recalls, owners.
ALTER TABLE trip ADD COLUMN temperature_c REAL CHECK (temperature_c BETWEEN -20 AND 50);
ALTER TABLE trip ADD COLUMN distance_m REAL CHECK (distance_m BETWEEN 0 AND 2000000);
ALTER TABLE trip ADD COLUMN op TEXT NOT NULL DEFAULT '';
CREATE UNIQUE INDEX trip_once ON trip (enquiry_id, op) WHERE op <> '';
CREATE TABLE charge (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  on_day TEXT NOT NULL, wall_wh REAL CHECK (wall_wh BETWEEN 0 AND 10000000),
  charge_from REAL CHECK (charge_from BETWEEN 0 AND 1),
  charge_to REAL NOT NULL CHECK (charge_to BETWEEN 0 AND 1),
  note TEXT NOT NULL DEFAULT '', who TEXT NOT NULL, typed_at TEXT NOT NULL
) STRICT;
CREATE INDEX charge_of ON charge (enquiry_id, on_day);
CREATE TABLE spare (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  what TEXT NOT NULL, good_to TEXT NOT NULL, who TEXT NOT NULL, typed_at TEXT NOT NULL
) STRICT;
CREATE INDEX spare_of ON spare (enquiry_id, good_to);
CREATE TABLE part_swap (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  on_day TEXT NOT NULL, what TEXT NOT NULL, title TEXT NOT NULL, product_id TEXT NOT NULL,
  old_number TEXT NOT NULL, new_number TEXT NOT NULL, why TEXT NOT NULL, verdict TEXT NOT NULL,
  cost REAL NOT NULL DEFAULT 0 CHECK (cost BETWEEN 0 AND 1000000), who TEXT NOT NULL,
  typed_at TEXT NOT NULL
) STRICT;
CREATE INDEX part_swap_of ON part_swap (enquiry_id, on_day);
ALTER TABLE fault ADD COLUMN in_service INTEGER NOT NULL DEFAULT 0 CHECK (in_service IN (0, 1));
ALTER TABLE fault ADD COLUMN part TEXT NOT NULL DEFAULT '';
ALTER TABLE fault ADD COLUMN product_id TEXT NOT NULL DEFAULT '';
ALTER TABLE fault ADD COLUMN hours REAL NOT NULL DEFAULT 0;
ALTER TABLE fault ADD COLUMN photo TEXT NOT NULL DEFAULT '';
CREATE INDEX fault_in_service ON fault (in_service, product_id);
ALTER TABLE serial ADD COLUMN batch TEXT NOT NULL DEFAULT '';
CREATE INDEX serial_by_number ON serial (number);
CREATE INDEX serial_by_product ON serial (product_id);
CREATE INDEX serial_by_batch ON serial (batch) WHERE batch <> '';
CREATE TABLE booking (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  on_day TEXT NOT NULL, from_h REAL NOT NULL CHECK (from_h BETWEEN 0 AND 24),
  hours REAL NOT NULL CHECK (hours BETWEEN 0 AND 24), who TEXT NOT NULL
) STRICT;
CREATE INDEX booking_on ON booking (on_day, enquiry_id);
CREATE TABLE care_edit (
  product_id TEXT NOT NULL, step TEXT NOT NULL, dropped INTEGER NOT NULL CHECK (dropped IN (0, 1)),
  data TEXT NOT NULL CHECK (json_valid(data)), who TEXT NOT NULL, at TEXT NOT NULL,
  PRIMARY KEY (product_id, step)
) STRICT;
CREATE TABLE care_stand (
  enquiry_id INTEGER PRIMARY KEY REFERENCES enquiry (id) ON DELETE CASCADE,
  state TEXT NOT NULL CHECK (state IN ('setup', 'log', 'good')), worked_on TEXT NOT NULL DEFAULT '',
  profile TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(profile))
) STRICT;
CREATE INDEX care_stand_by_state ON care_stand (state, worked_on);
CREATE TABLE care_due (
  enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE, step TEXT NOT NULL,
  on_day TEXT NOT NULL, text TEXT NOT NULL, hazard TEXT NOT NULL, why TEXT NOT NULL,
  PRIMARY KEY (enquiry_id, step)
) STRICT;
CREATE INDEX care_due_by_day ON care_due (on_day, enquiry_id);
INSERT INTO care_stand (enquiry_id, state) SELECT id, 'setup' FROM enquiry
  WHERE stage = 'delivered' AND archived = 0;
ALTER TABLE outbox ADD COLUMN enquiry_id INTEGER REFERENCES enquiry (id) ON DELETE SET NULL;
CREATE TABLE reminder (
  enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE, step TEXT NOT NULL,
  due_on TEXT NOT NULL, at TEXT NOT NULL, who TEXT NOT NULL,
  PRIMARY KEY (enquiry_id, step, due_on)
) STRICT;
CREATE TABLE signed_way (
  kind TEXT NOT NULL, of_id INTEGER NOT NULL, number INTEGER NOT NULL, PRIMARY KEY (kind, of_id)
) STRICT;
CREATE TABLE recall (
  id INTEGER PRIMARY KEY, at TEXT NOT NULL, who TEXT NOT NULL, title TEXT NOT NULL,
  asked TEXT NOT NULL, words TEXT NOT NULL
) STRICT;
CREATE TABLE recall_letter (
  id INTEGER PRIMARY KEY, recall_id INTEGER NOT NULL REFERENCES recall (id) ON DELETE CASCADE,
  enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE, piece TEXT NOT NULL,
  number TEXT NOT NULL, mailed TEXT NOT NULL DEFAULT '', answer TEXT NOT NULL DEFAULT '',
  answered_at TEXT NOT NULL DEFAULT '', answered_by TEXT NOT NULL DEFAULT '',
  UNIQUE (recall_id, enquiry_id, number)
) STRICT;
CREATE INDEX recall_letter_of ON recall_letter (enquiry_id);
CREATE TABLE owner_change (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  on_day TEXT NOT NULL, was TEXT NOT NULL CHECK (json_valid(was)), who TEXT NOT NULL
) STRICT;
CREATE INDEX owner_change_of ON owner_change (enquiry_id);
CREATE TABLE erasure (
  id INTEGER PRIMARY KEY, at TEXT NOT NULL, who TEXT NOT NULL, enquiries TEXT NOT NULL
  CHECK (json_valid(enquiries)), told TEXT NOT NULL
) STRICT;
CREATE INDEX enquiry_in_service ON enquiry (stage, archived, customer);
