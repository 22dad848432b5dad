-- What the rule book and the fitting need to know of the boat, and the current limits of a battery's parts.
ALTER TABLE boat ADD COLUMN approval_from_year INTEGER;
ALTER TABLE boat ADD COLUMN approval_to_year INTEGER;
ALTER TABLE boat ADD COLUMN rake_deg REAL NOT NULL DEFAULT 12;
ALTER TABLE boat ADD COLUMN rudder_chord_m REAL;
ALTER TABLE boat ADD COLUMN room_ahead_m REAL;
ALTER TABLE bay ADD COLUMN off_m REAL NOT NULL DEFAULT 0;
ALTER TABLE bay ADD COLUMN above_m REAL NOT NULL DEFAULT 0.05;
ALTER TABLE bay ADD COLUMN lid_length_m REAL;
ALTER TABLE bay ADD COLUMN lid_width_m REAL;
ALTER TABLE battery ADD COLUMN bms_max_a REAL;
ALTER TABLE battery ADD COLUMN connector_max_a REAL;
ALTER TABLE battery ADD COLUMN monitor INTEGER CHECK (monitor IN (0, 1));
