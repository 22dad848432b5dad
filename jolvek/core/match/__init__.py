"""All setups of a shelf at once, ranked, with the reasons against the rest."""
