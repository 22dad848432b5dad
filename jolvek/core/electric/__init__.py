"""Battery, bank, charging, wiring."""
