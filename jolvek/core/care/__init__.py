"""After the sale: what is due on a boat and when, and how her battery ages."""
