"""Station 4, Side by side: pinned setups compared."""
