-- A trimaran's amas, and the months since a bottom was cleaned.
ALTER TABLE boat ADD COLUMN ama_share REAL;
ALTER TABLE boat ADD COLUMN ama_length_m REAL;
ALTER TABLE boat ADD COLUMN months_afloat REAL;
