"""Power, load and people against plate, approval and hull."""

from __future__ import annotations

from jolvek.core.rules import predicates
from jolvek.core.rules.rule import COMMON, OWN, Rule

RULES = (
    Rule(
        "plate-power",
        "block",
        "limits",
        "The motor's {figure:power} exceed the {limit:power} of the boat's plate.",
        (
            "Take a motor of at most {limit:power}; a power limit in the settings does not change "
            "the plate."
        ),
        "builder's plate; local codes decide",
        scope="drive",
        holds=predicates.plate_power,
    ),
    Rule(
        "formula-power",
        "caution",
        "limits",
        (
            "No plate: the usual formula gives {limit:power} for this hull, the motor has "
            "{figure:power}."
        ),
        "Ask the builder, or take a motor of at most {limit:power}.",
        "33 CFR 183.53, from memory",
        school="United States",
    ),
    Rule(
        "formula-load",
        "caution",
        "limits",
        (
            "No plate: a hull of this kind and size likely bears {limit:mass}; people, gear, motor "
            "and batteries weigh {figure:mass}."
        ),
        "Ask the builder, or leave {over:mass} ashore.",
        "33 CFR 183.35 and 183.37, ISO 6185, ISO 14946, from memory",
    ),
    Rule(
        "formula-people",
        "caution",
        "limits",
        "No plate: this kind and size of boat is likely made for {limit:.0f}; {figure:.0f} aboard.",
        "Ask the builder, or take fewer people.",
        "length times beam in feet over 15; common practice, no source",
    ),
    Rule(
        "approval-power",
        "block",
        "limits",
        (
            "The hull's maker approves {limit:power} for this model and year; the motor has "
            "{figure:power}."
        ),
        "Take a motor of at most {limit:power}.",
        "hull maker's approval",
        scope="drive",
        holds=predicates.approval_power,
    ),
    Rule(
        "approval-year",
        "block",
        "limits",
        (
            "The maker's approval is for model years {low:.0f} to {high:.0f}; this hull is of "
            "{figure:.0f}."
        ),
        "Ask the hull's maker about this year.",
        "hull maker's approval",
        scope="need",
        holds=predicates.approval_year,
    ),
    Rule(
        "approval-thrust",
        "block",
        "limits",
        (
            "The hull's maker approves {limit:thrust} of thrust; the motor gives about "
            "{figure:thrust}."
        ),
        "Take a motor of less thrust.",
        "hull maker's approval",
        scope="drive",
        holds=predicates.approval_thrust,
    ),
    Rule(
        "plate-load",
        "block",
        "limits",
        ("People, gear, motor and batteries weigh {figure:mass}; the plate allows {limit:mass}."),
        "Leave {over:mass} ashore, or choose lighter batteries.",
        "builder's plate; local codes decide",
        scope="setup",
        holds=predicates.plate_load,
    ),
    Rule(
        "plate-people",
        "block",
        "limits",
        "{figure:.0f} people aboard; the plate allows {limit:.0f}.",
        "Take fewer people.",
        "builder's plate; local codes decide",
        scope="need",
        holds=predicates.plate_people,
    ),
    Rule(
        "motor-mass",
        "block",
        "limits",
        "The motor weighs {figure:mass}; the transom is rated for {limit:mass}.",
        "Take a lighter motor or one with a separate battery.",
        "builder's plate",
        scope="drive",
        holds=predicates.motor_mass,
    ),
    Rule(
        "awash",
        "block",
        "limits",
        (
            "Loaded to {figure:mass}; this hull is awash at about {limit:mass}. The figures mean "
            "nothing."
        ),
        "Take load off, or choose a larger boat.",
        OWN,
        scope="setup",
        holds=predicates.awash,
    ),
    Rule(
        "low-freeboard",
        "caution",
        "limits",
        (
            "Loaded to {figure:mass}, more than half of the {awash:mass} at which it is awash: "
            "little freeboard."
        ),
        "Take load off; check the builder's load limit.",
        OWN,
    ),
    Rule(
        "one-at-the-side",
        "caution",
        "limits",
        (
            "One person of {each:mass} who steps to the side heels her {figure:.0f}°; water comes "
            "over the side at about {limit:.0f}°."
        ),
        "Sit down under way, and step in and out amidships; take less load.",
        "wall-sided stability; common practice, no source",
    ),
    Rule(
        "plate-above",
        "caution",
        "fitting",
        (
            "The plate sits {figure:.0f} mm above the hull bottom; the upper blade tip lies "
            "{tip:.0f} mm under water, so it draws no air in calm water."
        ),
        "Try it in waves and in turns with all aboard; a longer shaft or a lower mount is safer.",
        COMMON,
    ),
    Rule(
        "overpowered",
        "note",
        "limits",
        (
            "Half of this power already gives {figure:.0%} of the top speed: the rest is bought "
            "dearly."
        ),
        "A smaller motor would do nearly the same for less money and weight.",
        OWN,
    ),
    Rule(
        "weak-in-wind",
        "caution",
        "limits",
        "Against {wind:speed} of wind the boat makes {figure:speed} at full power.",
        "Take more power, or keep to days with less wind.",
        OWN,
    ),
    Rule(
        "people-light",
        "note",
        "limits",
        "{people:.0f} people weighing {total:mass} together make {figure:mass} each.",
        "Give the mass of all people together.",
        OWN,
    ),
    Rule(
        "current-beats-boat",
        "caution",
        "limits",
        (
            "A current of {limit:speed} against is as fast as the boat at full power, "
            "{figure:speed}: no way is made good."
        ),
        "Wait for slack water, or take more power than {watts:power}.",
        OWN,
    ),
)
