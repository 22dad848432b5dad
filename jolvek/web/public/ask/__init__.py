"""The form by which a customer asks."""
