"""Station 5, Day out: the day simulated with the current setup."""
