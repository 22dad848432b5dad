-- What a customer asks by the question form is an intake.
ALTER TABLE came_in RENAME TO intake;
DROP INDEX came_in_waiting;
CREATE INDEX intake_waiting ON intake (looked_at, at);
ALTER TABLE signed_way RENAME TO signed_link;
