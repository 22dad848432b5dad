-- When the wind and the current of a day are against the boat: on the way home, or all day.
ALTER TABLE enquiry ADD COLUMN against TEXT NOT NULL DEFAULT 'home'
  CHECK (against IN ('home', 'all day'));
