"""Volts and amps: what motor, bank and battery management ask of each other."""

from __future__ import annotations

from jolvek.core.rules import predicates
from jolvek.core.rules.rule import COMMON, MAKER, OWN, Rule

LESS_POWER = "Limit the motor to {watts:power}, or choose batteries that deliver more."

RULES = (
    Rule(
        "adapter-lead",
        "caution",
        "electrics",
        "The customer's battery and this motor may have different plugs; {figure:.0f} A pass here.",
        "An adapter lead with plugs for that current and a fuse of {limit:.0f} A at the battery.",
        COMMON,
    ),
    Rule(
        "pack-own",
        "block",
        "electrics",
        "This motor takes only its own clip-on battery, and that one serves no other motor.",
        "Order its own battery, or take a motor with a separate bank.",
        MAKER,
        scope="pair",
        holds=predicates.pack_own,
    ),
    Rule(
        "series-most",
        "block",
        "electrics",
        "{figure:.0f} packs in series; their management allows {limit:.0f}.",
        "Take packs of a higher voltage, or ones made to be joined.",
        MAKER,
        scope="pair",
        holds=predicates.series_allowed,
    ),
    Rule(
        "parallel-most",
        "block",
        "electrics",
        "{figure:.0f} strings in parallel; the packs' management allows {limit:.0f}.",
        "Take larger packs, or ones made to be joined.",
        MAKER,
        scope="pair",
        holds=predicates.parallel_allowed,
    ),
    Rule(
        "voltage-high",
        "block",
        "electrics",
        (
            "Fully charged, the bank stands at {figure:.1f} V; this motor takes at most "
            "{limit:.1f} V."
        ),
        "Put fewer packs in series, or take a motor for this voltage.",
        MAKER,
        scope="pair",
        holds=predicates.voltage_high,
        otherwise="Choose a motor for this voltage, or a battery within its voltage range.",
    ),
    Rule(
        "voltage-low",
        "block",
        "electrics",
        "Under load the bank gives {figure:.1f} V at 60 % charge; this motor needs {limit:.1f} V.",
        "Put {packs:.0f} packs in series, or take a motor for this voltage.",
        MAKER,
        scope="pair",
        holds=predicates.voltage_low,
        otherwise="Choose a motor for this voltage, or a battery within its voltage range.",
    ),
    Rule(
        "voltage-ends-early",
        "note",
        "electrics",
        (
            "Near empty the bank falls to {figure:.1f} V; the motor stops at {limit:.1f} V before "
            "the bank is used up."
        ),
        "Count on a little less than the rated energy, or take a motor with a lower limit.",
        MAKER,
    ),
    Rule(
        "voltage-none",
        "block",
        "electrics",
        (
            "No motor in the catalogue takes this battery's voltage, alone or in series"
            " ({figure:.1f} V when full)."
        ),
        "None with this catalogue.",
        MAKER,
    ),
    Rule("no-bank", "block", "electrics", "It finds no partner here: {why}.", "{how}", OWN),
    Rule(
        "current-continuous",
        "block",
        "electrics",
        "Full power draws {figure:.0f} A at {volts:g} V; the bank gives {limit:.0f} A.",
        (
            "{strings:.0f} strings in parallel ({packs:.0f} packs) are enough, or limit the motor "
            "to {watts:power}."
        ),
        MAKER,
        scope="pair",
        holds=predicates.current_continuous,
        otherwise=LESS_POWER,
    ),
    Rule(
        "current-unknown",
        "caution",
        "electrics",
        (
            "Full power draws {figure:.0f} A at {volts:g} V; the bank's limit is not known, about "
            "{limit:.0f} A is usual."
        ),
        "Ask the maker; {strings:.0f} strings in parallel ({packs:.0f} packs) would be enough.",
        COMMON,
        scope="pair",
        holds=predicates.current_unknown,
        otherwise="Ask the maker, or choose batteries that deliver more.",
    ),
    Rule(
        "current-peak",
        "block",
        "electrics",
        (
            "The motor's peak of {peak:power} draws {figure:.0f} A; the bank gives {limit:.0f} A "
            "for moments."
        ),
        (
            "{strings:.0f} strings in parallel ({packs:.0f} packs) are enough, or lock out "
            "the peak power."
        ),
        MAKER,
        scope="pair",
        holds=predicates.current_peak,
        otherwise="Lock out the peak power, or choose batteries that deliver more.",
    ),
    Rule(
        "controller-limits",
        "note",
        "electrics",
        (
            "The controller lets {limit:.0f} A through: {watts:power} at {volts:g} V, not "
            "{full:power}."
        ),
        "A bank of higher voltage within the motor's window gives the full power.",
        MAKER,
    ),
    Rule(
        "voltage-dangerous",
        "caution",
        "electrics",
        "The bank reaches {figure:.0f} V, above 60 V DC: touching it can kill.",
        "Only a qualified marine electrician may work on it; local codes decide.",
        "IEC 60364-4-41 extra-low voltage, from memory",
    ),
    Rule(
        "high-current",
        "caution",
        "electrics",
        "The motor draws up to {figure:.0f} A: a short circuit melts tools and starts fires.",
        (
            "Fuse at the battery, insulate the terminals, secure the packs, no tools across the "
            "poles."
        ),
        COMMON,
    ),
    Rule(
        "connector-limit",
        "block",
        "electrics",
        "Full power draws {figure:.0f} A through a connector rated {limit:.0f} A.",
        "Fit a connector of the next rating, or limit the power.",
        MAKER,
        scope="pair",
        holds=predicates.connector_limit,
    ),
    Rule(
        "gauge-lithium",
        "caution",
        "electrics",
        (
            "A lithium pack's voltage is nearly flat: the voltage gauge will show it full until "
            "it is almost empty."
        ),
        "Fit a shunt monitor or read the battery's own.",
        COMMON,
    ),
    Rule(
        "gauge-missing",
        "note",
        "electrics",
        (
            "Nothing here shows the charge: lithium needs a shunt monitor or a battery with its "
            "own display."
        ),
        "Add a shunt monitor.",
        COMMON,
    ),
    Rule(
        "bms-limit",
        "block",
        "electrics",
        (
            "Full power draws {figure:.0f} A; the battery management lets {limit:.0f} A through "
            "and then switches off."
        ),
        (
            "{strings:.0f} strings in parallel ({packs:.0f} packs) are enough, or limit the motor "
            "to {watts:power}."
        ),
        MAKER,
        scope="pair",
        holds=predicates.bms_limit,
        otherwise=LESS_POWER,
    ),
    Rule(
        "bank-hot",
        "caution",
        "electrics",
        (
            "At {figure:.0f} °C the packs age fast and may switch off; {limit:.0f} °C is the "
            "usual most."
        ),
        "Shade and air for the bay, or less power.",
        COMMON,
    ),
    Rule(
        "bank-cold",
        "note",
        "electrics",
        "At {figure:.0f} °C the bank holds {share:.0%} of its rated charge.",
        "Keep the packs warm before the trip; the figures count the cold in.",
        COMMON,
    ),
    Rule(
        "lead-ventilation",
        "note",
        "electrics",
        "Lead-acid batteries give off hydrogen while charging.",
        "Ventilate the bay to the outside and keep sparks away.",
        COMMON,
    ),
    Rule(
        "lithium-charging",
        "note",
        "electrics",
        "Lithium packs need their own battery management and a matching charger.",
        "Use the charger made for this chemistry; never charge below freezing.",
        COMMON,
    ),
    Rule(
        "no-battery",
        "note",
        "electrics",
        "No battery given: power and speed are known, time and distance are not.",
        "Choose a battery.",
        OWN,
    ),
)
