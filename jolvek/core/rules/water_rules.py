"""Planing, propeller and safety on the water."""

from __future__ import annotations

from jolvek.core.rules.rule import COMMON, OWN, Rule

RULES = (
    Rule(
        "hull-does-not-plane",
        "note",
        "hull",
        "This kind of hull does not plane, whatever the power.",
        "None needed; a planing hull is another boat.",
        OWN,
    ),
    Rule(
        "does-not-plane",
        "note",
        "hull",
        (
            "The boat does not plane with this load: about {limit:power} would be needed, there "
            "are "
            "{figure:power}."
        ),
        "More power, less load, or be content with displacement speed.",
        OWN,
    ),
    Rule(
        "pitch-bound",
        "note",
        "propeller",
        "The propeller’s pitch limits the boat to {figure:speed} before all the power is used.",
        "A propeller of more pitch, if the maker offers one.",
        OWN,
    ),
    Rule(
        "propeller-lugs",
        "caution",
        "propeller",
        (
            "The propeller lugs: from rest the motor's torque turns it for {figure:thrust}, where "
            "the power would give {limit:thrust}. The boat gets going, and over the hump, slowly."
        ),
        "A propeller of less pitch or less diameter.",
        OWN,
    ),
    Rule(
        "thrust-claim",
        "caution",
        "propeller",
        (
            "The claimed static thrust of {figure:thrust} is above what a propeller of that size "
            "does at that power, about {limit:thrust} at the very best; the prediction does not "
            "follow it."
        ),
        "Trust watts and diameter, not the claim.",
        "Rankine–Froude momentum theory",
    ),
    Rule(
        "thrust-impossible",
        "caution",
        "propeller",
        (
            "The claimed static thrust of {figure:thrust} breaks the momentum limit of "
            "{limit:thrust}: it is impossible."
        ),
        "Trust watts and diameter, not the claim.",
        "Rankine–Froude momentum theory",
    ),
    Rule(
        "beyond-tried",
        "note",
        "hull",
        ("The top speed is {figure:.1f} times the hull speed: the model has not been tried there."),
        "Take the top speed as a guess; test on the water.",
        OWN,
    ),
    Rule(
        "beyond-planing",
        "note",
        "hull",
        "At {figure:speed} the boat planes flatter or steeper than the planing formulas were "
        "tried for.",
        "Take the top speed as a guess until the boat is tried on the water.",
        "Savitsky 1964: trim 2 to 15°, wetted length to 4 beams",
    ),
    Rule(
        "life-jacket",
        "note",
        "safety",
        (
            "Life jackets on, kill cord clipped, and another way to move the boat aboard: oars, "
            "paddle or spare motor."
        ),
        "Carry them always.",
        COMMON,
    ),
)
