"""Deciding figures that are missing for a product or a boat."""

from __future__ import annotations

from jolvek.core.rules.rule import OWN, Rule

RULES = (
    Rule(
        "transom-estimated",
        "caution",
        "fitting",
        (
            "The transom's height is only estimated, at {limit:.0f} mm: the shaft may be "
            "{figure:.0f} mm too short."
        ),
        "Measure the transom, from the hull bottom to its top.",
        OWN,
    ),
    Rule(
        "shaft-unknown",
        "caution",
        "fitting",
        (
            "The motor's shaft length is not given, so it is not known whether the propeller sits "
            "deep enough."
        ),
        "Ask the maker, or measure it, and fill it in at the product.",
        OWN,
    ),
    Rule(
        "weight-unknown",
        "caution",
        "fitting",
        "The weight of the {what} is not given; {figure:.0f} kg is estimated.",
        "Ask the maker, or weigh it, and fill it in at the product.",
        OWN,
    ),
)
