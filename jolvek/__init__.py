"""Jolvek matches electric outboards, batteries and mounts to a boat, with the physics worked
out."""

__version__ = "0.7.0.dev0"
