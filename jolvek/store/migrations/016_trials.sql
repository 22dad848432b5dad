-- Sea trials: what they found of a boat, their runs, faults; the handover's steps, serial numbers
-- and its signed record; what a shop learned of a family.
ALTER TABLE boat ADD COLUMN planing_factor REAL NOT NULL DEFAULT 1
  CHECK (planing_factor BETWEEN 0.2 AND 5);
ALTER TABLE boat ADD COLUMN efficiency_factor REAL NOT NULL DEFAULT 1
  CHECK (efficiency_factor BETWEEN 0.4 AND 2.5);
ALTER TABLE boat ADD COLUMN trial_spread TEXT
  CHECK (trial_spread IS NULL OR json_valid(trial_spread));
ALTER TABLE boat ADD COLUMN tried_on TEXT NOT NULL DEFAULT '';
CREATE TABLE trial (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  letter TEXT NOT NULL, began_at TEXT NOT NULL, who TEXT NOT NULL,
  data TEXT NOT NULL CHECK (json_valid(data)), family TEXT NOT NULL,
  factors TEXT CHECK (factors IS NULL OR json_valid(factors)),
  left_out INTEGER NOT NULL DEFAULT 0 CHECK (left_out IN (0, 1))
) STRICT;
CREATE INDEX trial_of ON trial (enquiry_id, id);
CREATE INDEX trial_of_family ON trial (family) WHERE factors IS NOT NULL;
CREATE TABLE trial_run (
  id INTEGER PRIMARY KEY, trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
  op TEXT NOT NULL UNIQUE, data TEXT NOT NULL CHECK (json_valid(data)), source TEXT NOT NULL
) STRICT;
CREATE INDEX trial_run_of ON trial_run (trial_id, id);
CREATE TABLE live_sample (
  trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE, at_s REAL NOT NULL,
  speed_m_s REAL NOT NULL, course_deg REAL, power_w REAL, charge REAL,
  PRIMARY KEY (trial_id, at_s)
) STRICT;
CREATE TABLE handover_act (
  op TEXT PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  step TEXT NOT NULL, state TEXT NOT NULL CHECK (state IN ('done', 'not_needed', 'open')),
  who TEXT NOT NULL, at TEXT NOT NULL, kept_at TEXT NOT NULL, note TEXT NOT NULL DEFAULT '',
  photo TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX handover_act_of ON handover_act (enquiry_id, step);
CREATE TABLE serial (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  what TEXT NOT NULL, title TEXT NOT NULL, product_id TEXT NOT NULL DEFAULT '',
  number TEXT NOT NULL CHECK (number <> ''), warranty_to TEXT NOT NULL DEFAULT '',
  who TEXT NOT NULL, at TEXT NOT NULL, UNIQUE (what, number)
) STRICT;
CREATE INDEX serial_of ON serial (enquiry_id);
CREATE TABLE fault (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  kind TEXT NOT NULL, why TEXT NOT NULL, state TEXT NOT NULL CHECK (state IN ('open', 'closed',
  'accepted')), found_at TEXT NOT NULL, found_by TEXT NOT NULL, done_at TEXT NOT NULL DEFAULT '',
  done_by TEXT NOT NULL DEFAULT '', cure TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX fault_of ON fault (enquiry_id);
CREATE TABLE handover (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL UNIQUE REFERENCES enquiry (id)
  ON DELETE CASCADE, signed_at TEXT NOT NULL, data TEXT NOT NULL CHECK (json_valid(data)),
  pdf BLOB NOT NULL
) STRICT;
CREATE TABLE foreign_trial (
  id INTEGER PRIMARY KEY, family TEXT NOT NULL, came_at TEXT NOT NULL, key TEXT NOT NULL UNIQUE,
  factors TEXT NOT NULL CHECK (json_valid(factors)),
  left_out INTEGER NOT NULL DEFAULT 0 CHECK (left_out IN (0, 1))
) STRICT;
CREATE TABLE family_used (family TEXT PRIMARY KEY) STRICT;
