-- What an inspector asks for: sparks near petrol, what a gauge measures, the owner's charger.
ALTER TABLE motor ADD COLUMN ignition_protected INTEGER CHECK (ignition_protected IN (0, 1));
ALTER TABLE accessory ADD COLUMN measures TEXT CHECK (measures IN ('', 'voltage', 'charge'));
ALTER TABLE enquiry ADD COLUMN own_charger_v REAL;
ALTER TABLE enquiry ADD COLUMN shore_limit_w REAL;
ALTER TABLE enquiry ADD COLUMN charges_per_day INTEGER NOT NULL DEFAULT 1;
ALTER TABLE enquiry ADD COLUMN dock_solar_w REAL NOT NULL DEFAULT 0;
ALTER TABLE enquiry ADD COLUMN dock_battery_wh REAL NOT NULL DEFAULT 0;
ALTER TABLE boat ADD COLUMN petrol_aboard INTEGER NOT NULL DEFAULT 0
  CHECK (petrol_aboard IN (0, 1));
