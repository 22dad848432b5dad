"""The rule book as data, and what its rules say of a boat."""
