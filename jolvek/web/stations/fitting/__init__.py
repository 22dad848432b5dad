"""Station 6, Fitting: drawing, weights, wiring, the rigger's sheet."""
