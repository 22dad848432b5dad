"""A case for every rule, by the module it stands in.

rule → (what it says at a figure, figures that are silent, figures that speak); the limit itself
stands among them.
"""
