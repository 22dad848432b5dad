"""The day out: summed, stepped in time, and getting home."""
