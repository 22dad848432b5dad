"""From panel to bank: what stands between the sun and the battery."""

from __future__ import annotations

from jolvek.core.rules.rule import COMMON, MAKER, Rule

RULES = (
    Rule(
        "solar-none",
        "note",
        "charging",
        "The panels give nothing at this place and date.",
        "Charge ashore.",
        "pvlib clear sky",
    ),
    Rule(
        "sun-controller-none",
        "caution",
        "charging",
        "Panels of {figure:power} are aboard and no sun controller is chosen.",
        "Take one of {amps:.0f} A or more for this bank among the add-ons; never panel to bank.",
        COMMON,
    ),
    Rule(
        "sun-bank",
        "block",
        "charging",
        "The bank has {figure:.0f} V; the sun controller is made for {least:g} to {most:g} V.",
        "Take a sun controller for this voltage.",
        MAKER,
    ),
    Rule(
        "sun-chemistry",
        "block",
        "charging",
        "The sun controller has no programme for {chem}.",
        "Take one that ends the charge at {full:.1f} V.",
        MAKER,
    ),
    Rule(
        "sun-window",
        "block",
        "charging",
        (
            "On a cold morning {row:.0f} of the panels in a row stand at {figure:.0f} V; the sun "
            "controller's input takes {limit:.0f} V."
        ),
        "Panels of fewer volts, or a controller with a higher window.",
        COMMON,
    ),
    Rule(
        "sun-volts-dangerous",
        "caution",
        "charging",
        (
            "On a cold morning {row:.0f} panels in series reach {figure:.0f} V, above 60 V DC, "
            "whenever light falls on them: touching the leads can kill."
        ),
        (
            "Cover the panels before any work; fuse and plugs for {takes:.0f} V DC or more; only a "
            "qualified marine electrician may work on it."
        ),
        "IEC 60364-4-41 extra-low voltage, from memory",
    ),
    Rule(
        "sun-low",
        "caution",
        "charging",
        (
            "At work {row:.0f} of the panels in a row give {figure:.0f} V; into the full bank the "
            "sun controller needs {limit:.0f} V: it stops before the bank is full."
        ),
        "More panels in a row, or a controller that steps the volts up.",
        COMMON,
        otherwise="Use a controller that steps the voltage up.",
    ),
    Rule(
        "sun-volts-unknown",
        "caution",
        "charging",
        "The panels' open volts are not stated; the sun controller's input takes {figure:.0f} V.",
        "Ask their maker: no more than {limit:.0f} V a row at 25 °C, since cold lifts them.",
        COMMON,
    ),
    Rule(
        "sun-amps",
        "note",
        "charging",
        (
            "Panels of {watts:power} could give {figure:.0f} A; the sun controller passes "
            "{limit:.0f} A, and no more is counted."
        ),
        "A larger controller, if the noon's sun is wanted too.",
        MAKER,
    ),
)
