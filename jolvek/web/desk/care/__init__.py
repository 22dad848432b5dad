"""Boats in service: what is due, figures, the fleet, recalls, letters."""
