"""How each form is read and shown."""
