-- A trimaran's amas, the months since a bottom was cleaned, how a setup is fitted,
-- the budgets to compare, and the customer's own gear.
ALTER TABLE boat ADD COLUMN ama_share REAL;
ALTER TABLE boat ADD COLUMN ama_length_m REAL;
ALTER TABLE boat ADD COLUMN months_afloat REAL;
ALTER TABLE boat ADD COLUMN construction TEXT NOT NULL DEFAULT '' CHECK (construction IN
  ('', 'moulded', 'laminate', 'wood', 'aluminium', 'inflatable'));
ALTER TABLE setup ADD COLUMN fitting TEXT CHECK (fitting IS NULL OR json_valid(fitting));
ALTER TABLE enquiry ADD COLUMN budgets TEXT CHECK (budgets IS NULL OR json_valid(budgets));
CREATE TABLE own_gear (
  id INTEGER PRIMARY KEY, enquiry_id INTEGER NOT NULL REFERENCES enquiry (id) ON DELETE CASCADE,
  kind TEXT NOT NULL CHECK (kind IN ('motors', 'batteries', 'chargers')),
  since_year INTEGER CHECK (since_year BETWEEN 1950 AND 2100),
  health REAL NOT NULL DEFAULT 1 CHECK (health BETWEEN 0.2 AND 1),
  count INTEGER NOT NULL DEFAULT 1 CHECK (count BETWEEN 1 AND 8),
  data TEXT NOT NULL CHECK (json_valid(data))
) STRICT;
CREATE INDEX own_gear_of_enquiry ON own_gear (enquiry_id);
