-- More of the boat, boat models on the shelf, several boats in one job, hire, and what a box holds.
ALTER TABLE boat ADD COLUMN rudder_depth_m REAL;
ALTER TABLE boat ADD COLUMN rudder_lifts INTEGER NOT NULL DEFAULT 1 CHECK (rudder_lifts IN (0, 1));
ALTER TABLE boat ADD COLUMN fin_box TEXT NOT NULL DEFAULT '';
ALTER TABLE boat ADD COLUMN chambers TEXT NOT NULL DEFAULT '';
ALTER TABLE boat ADD COLUMN helm_ahead_m REAL;
ALTER TABLE boat ADD COLUMN canopy_m2 REAL;
ALTER TABLE boat ADD COLUMN hull_slope_deg REAL;
ALTER TABLE boat ADD COLUMN registration INTEGER NOT NULL DEFAULT 0 CHECK (registration IN (0, 1));
ALTER TABLE enquiry ADD COLUMN standby_s REAL NOT NULL DEFAULT 0;
ALTER TABLE enquiry ADD COLUMN runs_per_day INTEGER NOT NULL DEFAULT 1;
ALTER TABLE enquiry ADD COLUMN days_a_season REAL;
ALTER TABLE enquiry ADD COLUMN job INTEGER REFERENCES enquiry (id) ON DELETE SET NULL;
CREATE INDEX enquiry_of_job ON enquiry (job);
ALTER TABLE mount ADD COLUMN foot_length_m REAL;
ALTER TABLE mount ADD COLUMN foot_width_m REAL;
ALTER TABLE motor ADD COLUMN claimed_half_runtime_s REAL;
ALTER TABLE motor ADD COLUMN warranty_years REAL;
ALTER TABLE motor ADD COLUMN ip_water INTEGER;
ALTER TABLE motor ADD COLUMN display TEXT;
ALTER TABLE motor ADD COLUMN in_box TEXT CHECK (in_box IS NULL OR json_valid(in_box));
ALTER TABLE battery ADD COLUMN warranty_years REAL;
ALTER TABLE battery ADD COLUMN ip_water INTEGER;
ALTER TABLE accessory ADD COLUMN cable_m REAL;
CREATE TABLE boat_model (
  id TEXT PRIMARY KEY, maker TEXT NOT NULL, name TEXT NOT NULL, family TEXT NOT NULL,
  length_m REAL NOT NULL, beam_m REAL NOT NULL, mass_kg REAL NOT NULL,
  from_year INTEGER, to_year INTEGER, transom_height_m REAL, transom_thickness_m REAL,
  transom_width_m REAL, keel_draught_m REAL, max_power_w REAL, max_motor_kg REAL, max_load_kg REAL,
  max_people INTEGER, approval_power_w REAL, approval_thrust_n REAL, construction TEXT,
  chambers TEXT, fin_box TEXT,
  places TEXT CHECK (places IS NULL OR json_valid(places))
) STRICT;
-- How a supplier's columns are read: remembered by its name and the kind of product.
CREATE TABLE supplier_columns (
  supplier TEXT NOT NULL, kind TEXT NOT NULL, columns TEXT NOT NULL CHECK (json_valid(columns)),
  PRIMARY KEY (supplier, kind)
) STRICT;
