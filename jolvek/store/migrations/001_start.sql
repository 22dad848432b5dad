-- The shelf: one table per kind of product, columns as in the format jolvek-shelf. Lists are JSON.
CREATE TABLE motor (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL, price REAL NOT NULL CHECK (price >= 0),
  style TEXT NOT NULL CHECK (style IN ('outboard', 'pole', 'fin', 'pod')),
  shafts_m TEXT CHECK (shafts_m IS NULL OR json_valid(shafts_m)), pack_ids TEXT CHECK (pack_ids IS NULL OR json_valid(pack_ids)), noise_db REAL,
  input_power_w REAL NOT NULL CHECK (input_power_w > 0), peak_power_w REAL, voltage_v REAL, voltage_min_v REAL,
  voltage_max_v REAL, mass_kg REAL CHECK (mass_kg > 0), shaft_length_m REAL, propeller_diameter_m REAL,
  propeller_pitch_m REAL, propeller_rpm REAL, static_thrust_n REAL, controller_max_a REAL
) STRICT;

CREATE TABLE battery (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL, price REAL NOT NULL CHECK (price >= 0),
  chemistry TEXT NOT NULL CHECK (chemistry IN ('lfp', 'nmc', 'agm', 'gel', 'flooded')),
  nominal_voltage_v REAL NOT NULL CHECK (nominal_voltage_v > 0), capacity_ah REAL NOT NULL CHECK (capacity_ah > 0),
  mass_kg REAL CHECK (mass_kg > 0), max_continuous_a REAL, max_peak_a REAL, full_voltage_v REAL, empty_voltage_v REAL,
  length_m REAL, width_m REAL, height_m REAL
) STRICT;

CREATE TABLE mount (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL, price REAL NOT NULL CHECK (price >= 0),
  kind TEXT NOT NULL, max_motor_kg REAL NOT NULL, max_thrust_n REAL NOT NULL, mass_kg REAL,
  transom_min_m REAL, transom_max_m REAL, drop_m REAL, offset_m REAL, hours REAL,
  hands_free INTEGER CHECK (hands_free IN (0, 1)), parts TEXT CHECK (parts IS NULL OR json_valid(parts))
) STRICT;

CREATE TABLE charger (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL, price REAL NOT NULL CHECK (price >= 0),
  voltage_v REAL NOT NULL, current_a REAL NOT NULL CHECK (current_a > 0),
  chemistries TEXT NOT NULL CHECK (json_valid(chemistries)), mass_kg REAL, outputs INTEGER
) STRICT;

-- Enquiries: who asks, the day, the boat, its load and bays.
CREATE TABLE enquiry (
  id INTEGER PRIMARY KEY, customer TEXT NOT NULL DEFAULT '', title TEXT NOT NULL DEFAULT '', note TEXT NOT NULL DEFAULT '',
  changed_at TEXT NOT NULL, archived INTEGER NOT NULL DEFAULT 0 CHECK (archived IN (0, 1)),
  water TEXT NOT NULL DEFAULT 'salt' CHECK (water IN ('salt', 'fresh')),
  speed_m_s REAL NOT NULL CHECK (speed_m_s > 0), distance_m REAL NOT NULL CHECK (distance_m >= 0),
  reserve REAL NOT NULL CHECK (reserve BETWEEN 0 AND 0.9), wind_m_s REAL NOT NULL, current_m_s REAL NOT NULL,
  charge_h REAL NOT NULL CHECK (charge_h > 0), max_lift_kg REAL, budget REAL,
  hands_free INTEGER NOT NULL DEFAULT 0 CHECK (hands_free IN (0, 1)), max_noise_db REAL,
  weights TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(weights))
) STRICT;

CREATE TABLE boat (
  enquiry_id INTEGER PRIMARY KEY REFERENCES enquiry (id) ON DELETE CASCADE,
  family TEXT NOT NULL, length_m REAL NOT NULL CHECK (length_m > 0), beam_m REAL NOT NULL CHECK (beam_m > 0),
  mass_kg REAL NOT NULL CHECK (mass_kg > 0), waterline_length_m REAL, waterline_beam_m REAL, bodies INTEGER,
  body_spacing_m REAL, body_beam_m REAL, chine_beam_m REAL, deadrise_deg REAL, transom_height_m REAL, max_power_w REAL,
  bottom TEXT NOT NULL DEFAULT 'clean' CHECK (bottom IN ('clean', 'slime', 'weed')),
  places TEXT NOT NULL DEFAULT '["transom"]' CHECK (json_valid(places)), transom_thickness_m REAL, transom_width_m REAL,
  remote_steering INTEGER NOT NULL DEFAULT 0 CHECK (remote_steering IN (0, 1)), max_motor_kg REAL, max_load_kg REAL,
  max_people INTEGER, approval_power_w REAL, approval_thrust_n REAL, model_year INTEGER
) STRICT;

CREATE TABLE load (
  enquiry_id INTEGER PRIMARY KEY REFERENCES enquiry (id) ON DELETE CASCADE,
  people INTEGER NOT NULL CHECK (people BETWEEN 0 AND 60), people_kg REAL, gear_kg REAL NOT NULL DEFAULT 0
) STRICT;

CREATE TABLE bay (
  enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE, place INTEGER NOT NULL, name TEXT NOT NULL,
  length_m REAL NOT NULL, width_m REAL NOT NULL, height_m REAL NOT NULL, max_kg REAL, ahead_m REAL,
  ventilated INTEGER NOT NULL DEFAULT 1 CHECK (ventilated IN (0, 1)), PRIMARY KEY (enquiry_id, place)
) STRICT;

-- Setups pinned to an enquiry, lettered A to E, and their parts with title and price as they were then.
CREATE TABLE setup (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  letter TEXT NOT NULL CHECK (letter IN ('A', 'B', 'C', 'D', 'E')), series INTEGER NOT NULL CHECK (series BETWEEN 1 AND 16),
  parallel INTEGER NOT NULL CHECK (parallel BETWEEN 1 AND 16), shaft_m REAL,
  chosen INTEGER NOT NULL DEFAULT 0 CHECK (chosen IN (0, 1)), UNIQUE (enquiry_id, letter)
) STRICT;

CREATE TABLE setup_item (
  setup_id INTEGER NOT NULL REFERENCES setup (id) ON DELETE CASCADE,
  kind TEXT NOT NULL CHECK (kind IN ('motor', 'battery', 'mount', 'charger')),
  product_id TEXT NOT NULL, title TEXT NOT NULL, quantity INTEGER NOT NULL CHECK (quantity > 0), price REAL NOT NULL,
  data TEXT NOT NULL CHECK (json_valid(data)), PRIMARY KEY (setup_id, kind)
) STRICT;

CREATE INDEX setup_of_enquiry ON setup (enquiry_id);
