"""What everything stands on: errors and units."""
