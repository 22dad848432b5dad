"""Station 8, Handover: steps, serial numbers, faults, the signed record."""
