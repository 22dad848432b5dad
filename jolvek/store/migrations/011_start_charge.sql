-- The share of the charge that the day begins with.
ALTER TABLE enquiry ADD COLUMN start_charge REAL NOT NULL DEFAULT 1;
