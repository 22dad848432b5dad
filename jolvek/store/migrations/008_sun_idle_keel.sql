-- The controller between panels and bank, the volts of panels, and what a motor takes at rest.
ALTER TABLE panel ADD COLUMN open_v REAL;
ALTER TABLE panel ADD COLUMN working_v REAL;
ALTER TABLE motor ADD COLUMN idle_w REAL CHECK (idle_w >= 0);
CREATE TABLE sun_controller (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL,
  price REAL NOT NULL CHECK (price >= 0),
  output_a REAL NOT NULL CHECK (output_a > 0), input_max_v REAL NOT NULL CHECK (input_max_v > 0),
  bank_min_v REAL NOT NULL, bank_max_v REAL NOT NULL CHECK (bank_max_v >= bank_min_v),
  chemistries TEXT NOT NULL CHECK (json_valid(chemistries)), starts_over_v REAL, mass_kg REAL,
  valid_to TEXT, stock TEXT CHECK (stock IN ('shelf', 'order', 'none')),
  discontinued INTEGER CHECK (discontinued IN (0, 1))
) STRICT;
CREATE TABLE setup_extra_new (
  setup_id INTEGER NOT NULL REFERENCES setup (id) ON DELETE CASCADE, product_id TEXT NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('panel', 'controller', 'propeller', 'accessory')),
  title TEXT NOT NULL, quantity INTEGER NOT NULL CHECK (quantity > 0), price REAL NOT NULL,
  data TEXT NOT NULL CHECK (json_valid(data)),
  PRIMARY KEY (setup_id, product_id)
) STRICT;
INSERT INTO setup_extra_new (setup_id, product_id, kind, title, quantity, price, data)
  SELECT setup_id, product_id, kind, title, quantity, price, data FROM setup_extra;
DROP TABLE setup_extra;
ALTER TABLE setup_extra_new RENAME TO setup_extra;
-- How deep the keel goes, and how high the transom's lower edge stands.
ALTER TABLE boat ADD COLUMN keel_draught_m REAL;
ALTER TABLE boat ADD COLUMN transom_clearance_m REAL;
