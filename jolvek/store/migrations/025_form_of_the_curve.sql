-- What a trial tells of the form of a boat's resistance curve, at the nodes of core/hydro/shape.
ALTER TABLE boat ADD COLUMN trial_shape TEXT
  CHECK (trial_shape IS NULL OR json_valid(trial_shape));
