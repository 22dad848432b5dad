-- A trimaran's amas, the months since a bottom was cleaned, how a setup is fitted,
-- and the budgets to compare.
ALTER TABLE boat ADD COLUMN ama_share REAL;
ALTER TABLE boat ADD COLUMN ama_length_m REAL;
ALTER TABLE boat ADD COLUMN months_afloat REAL;
ALTER TABLE setup ADD COLUMN fitting TEXT CHECK (fitting IS NULL OR json_valid(fitting));
ALTER TABLE enquiry ADD COLUMN budgets TEXT CHECK (budgets IS NULL OR json_valid(budgets));
