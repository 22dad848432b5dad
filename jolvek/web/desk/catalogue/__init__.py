"""The catalogue: products, price lists, stock, what to stock."""
