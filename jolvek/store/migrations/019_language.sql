-- The language of what a customer gets.
ALTER TABLE enquiry ADD COLUMN language TEXT NOT NULL DEFAULT 'en'
  CHECK (language IN ('en', 'de', 'fr', 'nl', 'es'));
