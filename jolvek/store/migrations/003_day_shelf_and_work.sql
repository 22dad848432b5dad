-- The day in legs and in full; how far an enquiry has come; finding; the whole shelf with its history.
ALTER TABLE enquiry ADD COLUMN stage TEXT NOT NULL DEFAULT 'open' CHECK (stage IN ('open', 'offered', 'ordered', 'delivered'));
ALTER TABLE enquiry ADD COLUMN reserve_school TEXT NOT NULL DEFAULT 'fifth' CHECK (reserve_school IN ('fifth', 'thirds', 'hour'));
ALTER TABLE enquiry ADD COLUMN speed_limit_m_s REAL;
ALTER TABLE enquiry ADD COLUMN electric_only INTEGER NOT NULL DEFAULT 0 CHECK (electric_only IN (0, 1));
ALTER TABLE enquiry ADD COLUMN temperature_c REAL NOT NULL DEFAULT 20;
ALTER TABLE enquiry ADD COLUMN hotel_w REAL NOT NULL DEFAULT 0;
ALTER TABLE enquiry ADD COLUMN shore_power INTEGER NOT NULL DEFAULT 1 CHECK (shore_power IN (0, 1));
ALTER TABLE enquiry ADD COLUMN solar_w REAL NOT NULL DEFAULT 0;
ALTER TABLE enquiry ADD COLUMN sky TEXT NOT NULL DEFAULT 'fair' CHECK (sky IN ('clear', 'fair', 'mixed', 'overcast'));
ALTER TABLE enquiry ADD COLUMN latitude_deg REAL NOT NULL DEFAULT 55;
ALTER TABLE enquiry ADD COLUMN longitude_deg REAL NOT NULL DEFAULT 10;
ALTER TABLE enquiry ADD COLUMN date TEXT NOT NULL DEFAULT '2026-07-01';
ALTER TABLE enquiry ADD COLUMN start_h REAL NOT NULL DEFAULT 9;
ALTER TABLE boat ADD COLUMN model TEXT NOT NULL DEFAULT '';
ALTER TABLE boat ADD COLUMN storage TEXT NOT NULL DEFAULT '';
ALTER TABLE boat ADD COLUMN photo TEXT NOT NULL DEFAULT '';
ALTER TABLE load ADD COLUMN seat_kg TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(seat_kg));

CREATE TABLE leg (
  enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE, place INTEGER NOT NULL, name TEXT NOT NULL DEFAULT '',
  speed_m_s REAL NOT NULL CHECK (speed_m_s > 0), distance_m REAL CHECK (distance_m >= 0), duration_s REAL CHECK (duration_s >= 0),
  current_m_s REAL NOT NULL DEFAULT 0, wind_m_s REAL NOT NULL DEFAULT 0, hold_s REAL NOT NULL DEFAULT 0 CHECK (hold_s >= 0),
  latitude_deg REAL CHECK (latitude_deg BETWEEN -90 AND 90), longitude_deg REAL CHECK (longitude_deg BETWEEN -180 AND 180),
  PRIMARY KEY (enquiry_id, place), CHECK (distance_m IS NOT NULL OR duration_s IS NOT NULL)
) STRICT;

CREATE VIRTUAL TABLE enquiry_find USING fts5 (customer, title, note, boat, products, tokenize = 'unicode61 remove_diacritics 2');

-- Add-ons of a pinned setup, priced apart from its essentials.
CREATE TABLE setup_extra (
  setup_id INTEGER NOT NULL REFERENCES setup (id) ON DELETE CASCADE, product_id TEXT NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('panel', 'propeller', 'accessory')), title TEXT NOT NULL,
  quantity INTEGER NOT NULL CHECK (quantity > 0), price REAL NOT NULL, data TEXT NOT NULL CHECK (json_valid(data)),
  PRIMARY KEY (setup_id, product_id)
) STRICT;

ALTER TABLE motor ADD COLUMN valid_to TEXT;
ALTER TABLE motor ADD COLUMN stock TEXT CHECK (stock IN ('shelf', 'order', 'none'));
ALTER TABLE motor ADD COLUMN discontinued INTEGER CHECK (discontinued IN (0, 1));
ALTER TABLE battery ADD COLUMN valid_to TEXT;
ALTER TABLE battery ADD COLUMN stock TEXT CHECK (stock IN ('shelf', 'order', 'none'));
ALTER TABLE battery ADD COLUMN discontinued INTEGER CHECK (discontinued IN (0, 1));
ALTER TABLE mount ADD COLUMN valid_to TEXT;
ALTER TABLE mount ADD COLUMN stock TEXT CHECK (stock IN ('shelf', 'order', 'none'));
ALTER TABLE mount ADD COLUMN discontinued INTEGER CHECK (discontinued IN (0, 1));
ALTER TABLE charger ADD COLUMN valid_to TEXT;
ALTER TABLE charger ADD COLUMN stock TEXT CHECK (stock IN ('shelf', 'order', 'none'));
ALTER TABLE charger ADD COLUMN discontinued INTEGER CHECK (discontinued IN (0, 1));
ALTER TABLE battery ADD COLUMN claimed_energy_wh REAL;
ALTER TABLE motor ADD COLUMN claimed_hp REAL;
ALTER TABLE motor ADD COLUMN claimed_speed_m_s REAL;
ALTER TABLE motor ADD COLUMN claimed_runtime_s REAL;

CREATE TABLE panel (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL, price REAL NOT NULL CHECK (price >= 0),
  rated_w REAL NOT NULL CHECK (rated_w > 0), length_m REAL, width_m REAL, mass_kg REAL,
  valid_to TEXT, stock TEXT CHECK (stock IN ('shelf', 'order', 'none')), discontinued INTEGER CHECK (discontinued IN (0, 1))
) STRICT;
CREATE TABLE propeller (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL, price REAL NOT NULL CHECK (price >= 0),
  diameter_m REAL NOT NULL CHECK (diameter_m > 0), pitch_m REAL NOT NULL CHECK (pitch_m > 0), blades INTEGER,
  motor_ids TEXT CHECK (motor_ids IS NULL OR json_valid(motor_ids)),
  valid_to TEXT, stock TEXT CHECK (stock IN ('shelf', 'order', 'none')), discontinued INTEGER CHECK (discontinued IN (0, 1))
) STRICT;
CREATE TABLE accessory (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL, price REAL NOT NULL CHECK (price >= 0),
  kind TEXT NOT NULL, text TEXT, mass_kg REAL,
  valid_to TEXT, stock TEXT CHECK (stock IN ('shelf', 'order', 'none')), discontinued INTEGER CHECK (discontinued IN (0, 1))
) STRICT;

-- Every change of the shelf: what stood before and after, by the batch (an edit or an import) that made it.
CREATE TABLE shelf_batch (
  id INTEGER PRIMARY KEY, at TEXT NOT NULL, what TEXT NOT NULL, undone INTEGER NOT NULL DEFAULT 0 CHECK (undone IN (0, 1))
) STRICT;
CREATE TABLE shelf_change (
  batch_id INTEGER NOT NULL REFERENCES shelf_batch (id) ON DELETE CASCADE, kind TEXT NOT NULL, product_id TEXT NOT NULL,
  before TEXT CHECK (before IS NULL OR json_valid(before)), after TEXT CHECK (after IS NULL OR json_valid(after)),
  PRIMARY KEY (batch_id, kind, product_id)
) STRICT;
CREATE INDEX shelf_change_product ON shelf_change (kind, product_id);
