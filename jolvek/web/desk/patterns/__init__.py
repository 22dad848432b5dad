"""Every component once, for whoever builds pages."""
