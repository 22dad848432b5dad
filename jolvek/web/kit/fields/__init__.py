"""How forms are read, and merged where two people had one open."""
