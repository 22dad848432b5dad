"""What a setup costs: money, the lines and sums of an offer, and the years against petrol."""
