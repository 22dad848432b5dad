"""Station 9, Aftercare: care, log, faults, parts, the battery, the people behind a boat."""
