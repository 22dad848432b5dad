"""SQLite through sqlite3: SQL written out, rows turned into dataclasses at once."""
