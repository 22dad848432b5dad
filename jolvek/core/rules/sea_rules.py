"""Wind, waves and shallows against the boat, as Day out has them."""

from __future__ import annotations

from jolvek.core.rules import predicates
from jolvek.core.rules.rule import COMMON, OWN, Rule

RULES = (
    Rule(
        "wind-limit",
        "block",
        "day",
        (
            "{figure:speed} of wind is too much for a boat of {length:.1f} m: past {limit:speed} "
            "the boat stays ashore, whatever the battery says."
        ),
        "Another day, sheltered water, or a larger boat; ask the local watch.",
        "ISO 12217 design categories, from memory, carried down by length: common practice",
        scope="need",
        holds=predicates.wind_limit,
    ),
    Rule(
        "waves-limit",
        "block",
        "day",
        (
            "Over {fetch:distance} of open water this wind raises waves of {figure:.1f} m; "
            "{limit:.1f} m is the most for {length:.1f} m of boat."
        ),
        "Keep to the lee shore, or another day.",
        "Bretschneider's waves; limit by length: common practice, no source",
    ),
    Rule(
        "drift",
        "caution",
        "day",
        (
            "With the wind abeam the boat goes {figure:.0f}° sideways at {speed:speed}; past "
            "{limit:.0f}° it is blown rather than steered."
        ),
        "More speed through the water, or keep the wind ahead or astern.",
        OWN,
    ),
    Rule(
        "shallow",
        "caution",
        "day",
        "Boat and motor need {figure:.2f} m of water; there are {limit:.2f} m.",
        "Tilt the motor up and paddle, or go round.",
        COMMON,
    ),
)
