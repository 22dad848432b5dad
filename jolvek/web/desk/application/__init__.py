"""The application itself: health, installing it, units and language, old addresses."""
