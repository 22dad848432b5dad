-- What a charger gives at the end of its charge.
ALTER TABLE charger ADD COLUMN charge_voltage_v REAL;
