"""Station 2, Waters: the day with its legs, wind, current, energy and wishes."""
