"""A setup fitted to its boat: trim, leg, stowage, the rigger's sheet."""
