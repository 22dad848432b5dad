"""The customer's page of one offer."""
