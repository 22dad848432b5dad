"""Whether a setup does the day that was asked."""

from __future__ import annotations

from jolvek.core.rules.rule import OWN, Rule

RULES = (
    Rule(
        "runs-a-charge",
        "caution",
        "day",
        "One charge carries {figure:.0f} of these runs; {limit:.0f} are needed between charges.",
        "Charge more often in the day, keep a charged pack ashore, or take a larger bank.",
        OWN,
    ),
    Rule(
        "too-slow",
        "block",
        "day",
        "Reaches {figure:speed} at best; {limit:speed} was requested.",
        "About {watts:power} would do, or ask for less speed.",
        OWN,
    ),
    Rule(
        "too-slow-all",
        "block",
        "day",
        "Reaches {figure:speed} at best; {limit:speed} was requested.",
        "No motor that fits this boat does it: ask for less speed.",
        OWN,
    ),
    Rule(
        "too-short",
        "block",
        "day",
        (
            "Goes {figure:distance} at the asked speed with the reserve kept; {limit:distance} is "
            "asked."
        ),
        "About {energy:.0f} Wh would do, or go slower.",
        OWN,
    ),
    Rule(
        "speed-missed",
        "caution",
        "day",
        "Reaches {figure:speed} at best; {limit:speed} was requested, so the day takes longer.",
        "Plan for less speed, or choose a stronger motor.",
        OWN,
    ),
    Rule(
        "day-ends-early",
        "caution",
        "day",
        "The boat does not get home: {why}, {figure:distance} before the end of the day.",
        "Go slower or less far, carry more battery, or charge on the way.",
        OWN,
    ),
    Rule(
        "below-reserve",
        "caution",
        "day",
        "The boat comes home with {figure:.0f} %; {limit:.0f} % are to be kept in reserve.",
        "Go slower or less far, carry more battery, or charge on the way.",
        OWN,
    ),
    Rule(
        "day-energy",
        "block",
        "day",
        (
            "One charge must give {figure:.0f} Wh; this bank gives {limit:.0f} Wh with the reserve "
            "kept."
        ),
        "A larger bank, a slower leg, or a charge on the way.",
        OWN,
    ),
    Rule(
        "beaten",
        "note",
        "day",
        (
            "Left out of so large a catalogue: other batteries of this voltage beat it in price, "
            "weight, energy and amps."
        ),
        "None needed; it can still be chosen by hand.",
        OWN,
    ),
    Rule(
        "folded",
        "note",
        "day",
        (
            "Not compared, because the catalogue is large: a similar product costs no more, or is "
            "lighter or stronger."
        ),
        "None needed; it can still be chosen by hand.",
        OWN,
    ),
    Rule(
        "too-dear",
        "block",
        "day",
        "Costs {figure:.0f} at least; the budget is {limit:.0f}.",
        "{over:.0f} more would buy it.",
        OWN,
    ),
)
