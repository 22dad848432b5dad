"""The sea trial, of station 8: plan, runs, what they say of the boat."""
