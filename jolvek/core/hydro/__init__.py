"""Water, hull, resistance, planing, propulsor."""
