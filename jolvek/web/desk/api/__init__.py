"""Answers for the dealer's own site."""
