"""Open file formats: one file each, SI with units in the keys, JSON Schemas shipped beside them."""
