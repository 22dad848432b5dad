"""Charging, cables, fuses and 12 V loads."""

from __future__ import annotations

from jolvek.core.rules import predicates
from jolvek.core.rules.rule import COMMON, MAKER, OWN, Rule

RULES = (
    Rule(
        "charger-voltage",
        "block",
        "charging",
        "The charger is made for {figure:g} V; the bank has {limit:g} V.",
        "Take a charger for this voltage.",
        MAKER,
    ),
    Rule(
        "charger-chemistry",
        "block",
        "charging",
        "The charger has no programme for {chem}.",
        "Take a charger made for this chemistry.",
        MAKER,
    ),
    Rule(
        "charge-current",
        "caution",
        "charging",
        "The charger gives {figure:.0f} A; the packs take {limit:.0f} A at most.",
        "Take a smaller charger.",
        MAKER,
    ),
    Rule(
        "not-full-by-morning",
        "caution",
        "charging",
        "Charging takes {figure:.1f} h; there are {limit:.1f} h.",
        "A stronger charger, or start earlier.",
        OWN,
    ),
    Rule(
        "first-charge",
        "note",
        "charging",
        ("Delivered packs are about {figure:.0%} charged: the first charge takes {hours:.1f} h."),
        "Charge fully before the first trip.",
        COMMON,
    ),
    Rule(
        "fuse-most",
        "block",
        "wiring",
        "Full power asks for a fuse of {figure:.0f} A; {limit:.0f} A is the largest known here.",
        "A bank and motor of higher voltage draw less.",
        COMMON,
        scope="pair",
        holds=predicates.fuse_most,
    ),
    Rule(
        "charge-voltage-unknown",
        "caution",
        "charging",
        "The charger's end voltage is not stated; full, what it charges stands at {figure:.1f} V.",
        "Ask its maker: 97 to 100 % of that is right, more ruins the cells.",
        COMMON,
    ),
    Rule(
        "packs-in-turn",
        "note",
        "charging",
        (
            "This charger is made for single packs: the {packs:.0f} packs are charged ashore, "
            "unplugged from each other, in {figure:.0f} rounds. It is not wired to the bank."
        ),
        "A charger for the whole bank, or one with an output for each pack, saves the unplugging.",
        OWN,
    ),
    Rule(
        "charge-freezing",
        "caution",
        "charging",
        "At the outing's {figure:.0f} °C a lithium pack must not be charged, by the sun neither.",
        "Bring it into a frost-free place first, and let the sun charge it above freezing only.",
        COMMON,
    ),
    Rule(
        "voltage-drop",
        "caution",
        "wiring",
        "{figure:.1%} of the voltage is lost in the cable; {limit:.0%} is the usual limit.",
        "Take {cure_size}.",
        COMMON,
    ),
    Rule(
        "strings-uneven",
        "caution",
        "wiring",
        "The parallel strings do not share: one gives {most:.0f} A, another {least:.0f} A.",
        "Take plus from one end and minus from the other, or lead equal cables to bars.",
        "Kirchhoff's laws on the netlist",
    ),
    Rule(
        "string-current",
        "caution",
        "wiring",
        "One string has to give {figure:.0f} A; its packs allow {limit:.0f} A.",
        "Balance the take-off, add a string, or lower the motor's power.",
        MAKER,
    ),
    Rule(
        "twelve-volt-tap",
        "caution",
        "wiring",
        (
            "Taking 12 V from the end batteries leaves them {figure:.1f} Ah behind the others "
            "after each outing."
        ),
        "Use a converter or a separate 12 V battery.",
        COMMON,
        school="end-battery taps",
    ),
    Rule(
        "no-shore",
        "caution",
        "charging",
        "No shore power: the day's charges take {figure:.0f} Wh, the sun gives {limit:.0f} Wh.",
        "Carry the packs ashore, fit more panels, or a larger dock station.",
        OWN,
    ),
    Rule(
        "charges-a-day",
        "caution",
        "charging",
        "{figure:.0f} charges a day are wanted; the hours hold {limit:.1f}.",
        "More chargers at once, a larger bank, or a second set of packs.",
        OWN,
    ),
    Rule(
        "cable-short",
        "block",
        "wiring",
        "The cable among the add-ons is {limit:.1f} m long; from the battery to the motor it takes "
        "{figure:.1f} m.",
        "Take a longer cable, or move the battery nearer to the motor.",
        MAKER,
    ),
)
