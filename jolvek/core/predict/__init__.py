"""One setup on one boat: what it does, what is claimed of it, what limits it."""
