"""The rule book: every rule as data, with its level, sentence, cure, source, and the school it
belongs to.
"""

from __future__ import annotations

from dataclasses import dataclass

COMMON = "common practice, no source"
OWN = "Jolvek's own model"
MAKER = "maker's data"


@dataclass(frozen=True)
class Rule:
    """One rule: `sentence` and `cure` are templates filled with the boat's figures; all SI
    inside.
    """

    id: str
    level: str
    topic: str
    sentence: str
    cure: str
    source: str
    school: str = "all"


def _book(*rows: tuple[str, ...]) -> dict[str, Rule]:
    return {row[0]: Rule(*row) for row in rows}


RULES: dict[str, Rule] = _book(
    # voltage and current
    (
        "voltage-high",
        "block",
        "electrics",
        "Fully charged, the bank stands at {figure:.1f} V; this motor takes at most {limit:.1f} V.",
        "Put fewer packs in series, or take a motor for this voltage.",
        MAKER,
    ),
    (
        "voltage-low",
        "block",
        "electrics",
        "The bank's {figure:.1f} V is below the {limit:.1f} V that this motor needs.",
        "Put {packs} packs in series, or take a motor for this voltage.",
        MAKER,
    ),
    (
        "voltage-ends-early",
        "note",
        "electrics",
        (
            "Near empty the bank falls to {figure:.1f} V; the motor stops at {limit:.1f} V before"
            " the bank is used up."
        ),
        "Count on a little less than the rated energy, or take a motor with a lower limit.",
        MAKER,
    ),
    (
        "voltage-none",
        "block",
        "electrics",
        (
            "No motor on the shelf takes this battery's voltage, alone or in series ({figure:.1f} V"
            " when full)."
        ),
        "None with this shelf.",
        MAKER,
    ),
    (
        "pack-own",
        "block",
        "electrics",
        "This motor takes only its own clip-on battery, and that one serves no other motor.",
        "Order its own battery, or take a motor with a separate bank.",
        MAKER,
    ),
    ("no-bank", "block", "electrics", "It finds no partner here: {why}.", "{how}", OWN),
    (
        "too-slow",
        "block",
        "day",
        "Reaches {figure:speed} at best; {limit:speed} is asked.",
        "About {watts:power} would do, or ask for less speed.",
        OWN,
    ),
    (
        "too-slow-all",
        "block",
        "day",
        "Reaches {figure:speed} at best; {limit:speed} is asked.",
        "No motor that fits this boat does it: ask for less speed.",
        OWN,
    ),
    (
        "too-short",
        "block",
        "day",
        (
            "Goes {figure:distance} at the asked speed with the reserve kept; {limit:distance} is"
            " asked."
        ),
        "About {energy:.0f} Wh would do, or go slower.",
        OWN,
    ),
    (
        "short-of-day",
        "caution",
        "day",
        (
            "Goes {figure:distance} at the wished speed with the reserve kept; {limit:distance} is"
            " asked."
        ),
        "Go slower, carry more battery, or charge on the way.",
        OWN,
    ),
    (
        "day-energy",
        "block",
        "day",
        (
            "The whole day takes {figure:.0f} Wh; this bank gives {limit:.0f} Wh with the reserve"
            " kept."
        ),
        "A larger bank, a slower leg, or a charge on the way.",
        OWN,
    ),
    (
        "beaten",
        "note",
        "day",
        (
            "Left out of so large a shelf: other batteries of this voltage beat it in price,"
            " weight, energy and amps."
        ),
        "None needed; it can still be chosen by hand.",
        OWN,
    ),
    (
        "too-dear",
        "block",
        "day",
        "Costs {figure:.0f} at least; the budget is {limit:.0f}.",
        "{over:.0f} more would buy it.",
        OWN,
    ),
    (
        "current-continuous",
        "block",
        "electrics",
        "Full power draws {figure:.0f} A at {volts:g} V; the bank gives {limit:.0f} A.",
        "{parallel} packs in parallel are enough, or limit the motor to {watts:power}.",
        MAKER,
    ),
    (
        "current-unknown",
        "caution",
        "electrics",
        (
            "Full power draws {figure:.0f} A at {volts:g} V; the bank's limit is not known, about"
            " {limit:.0f} A is usual."
        ),
        "Ask the maker; {parallel} packs in parallel would be enough.",
        COMMON,
    ),
    (
        "current-peak",
        "block",
        "electrics",
        (
            "The motor's peak of {watts:power} draws {figure:.0f} A; the bank gives {limit:.0f} A"
            " for moments."
        ),
        "Add a pack in parallel, or lock out the peak power.",
        MAKER,
    ),
    (
        "controller-limits",
        "note",
        "electrics",
        (
            "The controller lets {limit:.0f} A through: {watts:power} at {volts:g} V, not"
            " {full:power}."
        ),
        "A bank of higher voltage within the motor's window gives the full power.",
        MAKER,
    ),
    (
        "voltage-dangerous",
        "caution",
        "electrics",
        "The bank reaches {figure:.0f} V, above 60 V DC: touching it can kill.",
        "Only a qualified marine electrician may work on it; local codes decide.",
        "IEC 60364-4-41 extra-low voltage, from memory",
    ),
    (
        "high-current",
        "caution",
        "electrics",
        "Up to {figure:.0f} A flow: a short circuit melts tools and starts fires.",
        "Fuse at the battery, insulate the terminals, secure the packs, no tools across the poles.",
        COMMON,
    ),
    (
        "connector-limit",
        "block",
        "electrics",
        "Full power draws {figure:.0f} A through a connector rated {limit:.0f} A.",
        "Fit a connector of the next rating, or limit the power.",
        MAKER,
    ),
    (
        "mixed-bank",
        "block",
        "electrics",
        "The bank mixes {what}: the weaker pack is overcharged and run flat by the others.",
        "Use packs of one type, age and capacity, joined at equal voltage.",
        COMMON,
    ),
    (
        "gauge-lithium",
        "caution",
        "electrics",
        (
            "A lithium pack's voltage is nearly flat: the voltage gauge will show it full until it"
            " is almost empty."
        ),
        "Fit a shunt monitor or read the battery's own.",
        COMMON,
    ),
    (
        "gauge-missing",
        "note",
        "electrics",
        (
            "Nothing here shows the charge: lithium needs a shunt monitor or a battery with its own"
            " display."
        ),
        "Add a shunt monitor.",
        COMMON,
    ),
    (
        "bms-limit",
        "block",
        "electrics",
        (
            "Full power draws {figure:.0f} A; the battery management lets {limit:.0f} A through and"
            " then switches off."
        ),
        "Add a pack in parallel, or limit the motor to {watts:power}.",
        MAKER,
    ),
    (
        "bank-hot",
        "caution",
        "electrics",
        (
            "At {figure:.0f} °C the packs age fast and may switch off; {limit:.0f} °C is the usual"
            " most."
        ),
        "Shade and air for the bay, or less power.",
        COMMON,
    ),
    (
        "bank-cold",
        "note",
        "electrics",
        "At {figure:.0f} °C the bank holds {share:.0%} of its rated charge.",
        "Keep the packs warm before the trip; the figures count the cold in.",
        COMMON,
    ),
    (
        "lead-ventilation",
        "note",
        "electrics",
        "Lead-acid batteries give off hydrogen while charging.",
        "Ventilate the bay to the outside and keep sparks away.",
        COMMON,
    ),
    (
        "lithium-charging",
        "note",
        "electrics",
        "Lithium packs need their own battery management and a matching charger.",
        "Use the charger made for this chemistry; never charge below freezing.",
        COMMON,
    ),
    (
        "no-battery",
        "note",
        "electrics",
        "No battery given: power and speed are known, time and distance are not.",
        "Choose a battery.",
        OWN,
    ),
    # power and hull
    (
        "plate-power",
        "block",
        "limits",
        "The motor's {figure:power} exceed the {limit:power} of the boat's plate.",
        (
            "Take a motor of at most {limit:power}; a power limit in the settings does not change"
            " the plate."
        ),
        "builder's plate; local codes decide",
    ),
    (
        "formula-power",
        "caution",
        "limits",
        (
            "No plate: the usual formula gives {limit:power} for this hull, the motor has"
            " {figure:power}."
        ),
        "Ask the builder, or take a motor of at most {limit:power}.",
        "33 CFR 183.53, from memory",
        "United States",
    ),
    (
        "approval-power",
        "block",
        "limits",
        (
            "The hull's maker approves {limit:power} for this model and year; the motor has"
            " {figure:power}."
        ),
        "Take a motor of at most {limit:power}.",
        "hull maker's approval",
    ),
    (
        "approval-year",
        "block",
        "limits",
        (
            "The maker's approval is for model years {low:.0f} to {high:.0f}; this hull is of"
            " {figure:.0f}."
        ),
        "Ask the hull's maker about this year.",
        "hull maker's approval",
    ),
    (
        "approval-thrust",
        "block",
        "limits",
        (
            "The hull's maker approves {limit:thrust} of thrust; the motor gives about"
            " {figure:thrust}."
        ),
        "Take a motor of less thrust.",
        "hull maker's approval",
    ),
    (
        "plate-load",
        "block",
        "limits",
        "People, gear, motor and batteries weigh {figure:mass}; the plate allows {limit:mass}.",
        "Leave {over:mass} ashore, or choose lighter batteries.",
        "builder's plate; local codes decide",
    ),
    (
        "plate-people",
        "block",
        "limits",
        "{figure:.0f} people aboard; the plate allows {limit:.0f}.",
        "Take fewer people.",
        "builder's plate; local codes decide",
    ),
    (
        "motor-mass",
        "block",
        "limits",
        "The motor weighs {figure:mass}; the transom is rated for {limit:mass}.",
        "Take a lighter motor or one with a separate battery.",
        "builder's plate",
    ),
    (
        "awash",
        "block",
        "limits",
        (
            "Loaded to {figure:mass}; this hull is awash at about {limit:mass}. The figures mean"
            " nothing."
        ),
        "Take load off, or choose a larger boat.",
        OWN,
    ),
    (
        "low-freeboard",
        "caution",
        "limits",
        (
            "Loaded to {figure:mass}, more than half of the {awash:mass} at which she is awash:"
            " little freeboard."
        ),
        "Take load off; check the builder's load limit.",
        OWN,
    ),
    (
        "overpowered",
        "note",
        "limits",
        (
            "Half of this power already gives {figure:.0%} of the top speed: the rest is bought"
            " dearly."
        ),
        "A smaller motor would do nearly the same for less money and weight.",
        OWN,
    ),
    (
        "weak-in-wind",
        "caution",
        "limits",
        "Against {wind:speed} of wind the boat makes {figure:speed} at full power.",
        "Take more power, or keep to days with less wind.",
        OWN,
    ),
    (
        "hull-does-not-plane",
        "note",
        "hull",
        "This kind of hull does not plane, whatever the power.",
        "None needed; a planing hull is another boat.",
        OWN,
    ),
    (
        "does-not-plane",
        "note",
        "hull",
        (
            "She does not plane with this load: about {limit:power} would be needed, there are"
            " {figure:power}."
        ),
        "More power, less load, or be content with displacement speed.",
        OWN,
    ),
    (
        "pitch-bound",
        "note",
        "propeller",
        "The propeller runs out of pitch at {figure:speed} before all the power is used.",
        "A propeller of more pitch, if the maker offers one.",
        OWN,
    ),
    (
        "thrust-claim",
        "caution",
        "propeller",
        (
            "The claimed static thrust of {figure:thrust} is above what a propeller of that size"
            " does at that power, about {limit:thrust} at the very best; the usual loss factor is"
            " used instead."
        ),
        "Trust watts and diameter, not the claim.",
        "Rankine–Froude momentum theory",
    ),
    (
        "thrust-impossible",
        "caution",
        "propeller",
        (
            "The claimed static thrust of {figure:thrust} breaks the momentum limit of"
            " {limit:thrust}: it is impossible."
        ),
        "Trust watts and diameter, not the claim.",
        "Rankine–Froude momentum theory",
    ),
    (
        "beyond-tried",
        "note",
        "hull",
        "The top speed is {figure:.1f} times the hull speed: the model has not been tried there.",
        "Take the top speed as a guess; test on the water.",
        OWN,
    ),
    (
        "people-light",
        "note",
        "limits",
        "{people:.0f} people weighing {total:mass} together make {figure:mass} each.",
        "Give the mass of all people together.",
        OWN,
    ),
    (
        "current-beats-boat",
        "caution",
        "limits",
        (
            "A current of {limit:speed} against is as fast as the boat at full power,"
            " {figure:speed}: no way is made good."
        ),
        "Wait for slack water, or take more power than {watts:power}.",
        OWN,
    ),
    (
        "life-jacket",
        "note",
        "safety",
        (
            "Life jackets on, kill cord clipped, and another way to move the boat aboard: oars,"
            " paddle or spare motor."
        ),
        "None: carry them always.",
        COMMON,
    ),
    # fit
    (
        "shaft-short",
        "block",
        "fitting",
        (
            "The shaft is {short:.0f} mm too short: the plate would sit above the hull bottom and"
            " the propeller draw air."
        ),
        "Would fit with {short:.0f} mm more shaft, or a lower mount.",
        COMMON,
    ),
    (
        "shaft-shallow",
        "caution",
        "fitting",
        (
            "The hub is {figure:.0f} mm and the upper blade tip {tip:.0f} mm under water: it draws"
            " air {when}."
        ),
        "Lower the motor 25 mm at a time, move weight aft, or take a longer shaft.",
        COMMON,
    ),
    (
        "shaft-long",
        "note",
        "fitting",
        (
            "The plate sits {figure:.0f} mm below the hull bottom, more than {limit:.0f} mm: drag,"
            " and it grounds early."
        ),
        "A shorter shaft or a raised bracket saves depth.",
        COMMON,
    ),
    (
        "bay-size",
        "block",
        "fitting",
        "{figure:.0f} of {packs:.0f} packs fit in {bay}, in any orientation.",
        "Use a smaller pack, fewer packs, or another bay.",
        OWN,
    ),
    (
        "bay-lid",
        "block",
        "fitting",
        "The pack is {figure:.0f} mm across; the lid of {bay} opens {limit:.0f} mm.",
        "Use a smaller pack, another bay, or a larger lid.",
        OWN,
    ),
    (
        "rudder-strikes",
        "block",
        "fitting",
        (
            "The rudder swings into the propeller: {figure:.0f} mm of clearance, {limit:.0f} mm are"
            " needed."
        ),
        "Move the bracket outboard, limit the rudder's angle, or mount the motor elsewhere.",
        OWN,
    ),
    (
        "tilt-short",
        "caution",
        "fitting",
        "The motor tilts {figure:.0f}° before its head meets the boat; {limit:.0f}° lift it clear.",
        "A bracket further aft, or tilt it by hand off its bracket.",
        OWN,
    ),
    (
        "bay-mass",
        "block",
        "fitting",
        "The bank weighs {figure:mass}; {bay} carries {limit:mass}.",
        "Spread the packs over two bays, or use lighter ones.",
        "boat's own data",
    ),
    (
        "bay-ventilation",
        "caution",
        "fitting",
        "{bay} has no ventilation, and lead-acid batteries give off hydrogen.",
        "Ventilate it to the outside, or use lithium.",
        COMMON,
    ),
    (
        "lift-mass",
        "caution",
        "fitting",
        "The heaviest single lift is {figure:mass}; {limit:mass} was given as the most to lift.",
        "Choose a motor and battery that come apart, or smaller packs in parallel.",
        "customer's own limit",
    ),
    (
        "mount-motor-mass",
        "block",
        "fitting",
        "The motor weighs {figure:mass}; the mount carries {limit:mass}.",
        "Take a stronger mount.",
        MAKER,
    ),
    (
        "mount-thrust",
        "block",
        "fitting",
        "The motor pushes {figure:thrust}; the mount takes {limit:thrust}.",
        "Take a stronger mount, or less power.",
        MAKER,
    ),
    (
        "mount-place",
        "block",
        "fitting",
        "The mount needs {needs}; this boat has {has}.",
        "Take another mount, or have the place built.",
        MAKER,
    ),
    (
        "mount-style",
        "block",
        "fitting",
        "The mount takes {needs} motors; this is a {style} motor.",
        "Take a mount made for it.",
        MAKER,
    ),
    (
        "no-mount",
        "block",
        "fitting",
        "No mount on the shelf puts this {style} motor on the boat's places: {places}.",
        "Order a mount for it, or take another kind of motor.",
        OWN,
    ),
    (
        "mount-transom",
        "block",
        "fitting",
        (
            "The mount takes transoms from {low:.0f} to {high:.0f} mm thick; this one has"
            " {figure:.0f} mm."
        ),
        "Pack the transom out, or take another mount.",
        MAKER,
    ),
    (
        "side-mount-yaw",
        "caution",
        "fitting",
        (
            "The off-centre thrust turns the boat with {figure:.0f} N·m; the helm answers"
            " {limit:.0f} N·m."
        ),
        "Less power, a stern mount, or a larger rudder.",
        OWN,
    ),
    (
        "side-mount-heel",
        "caution",
        "fitting",
        (
            "The weight on one side heels the boat {figure:.1f}°; {limit:.0f}° is much for a narrow"
            " hull."
        ),
        "Put the battery on the other side.",
        OWN,
    ),
    (
        "trim-angle",
        "caution",
        "fitting",
        "She trims {figure:.1f}° {way}; {limit:.1f}° is much.",
        "Move {what} {direction}.",
        OWN,
    ),
    (
        "salt-anode",
        "note",
        "fitting",
        "Salt water: a motor without an anode corrodes.",
        "Fit an anode and renew it by season; rinse after each trip.",
        COMMON,
    ),
    (
        "noise",
        "note",
        "fitting",
        "The maker states {figure:.0f} dB(A); the customer asked for at most {limit:.0f}.",
        "Take a quieter motor.",
        MAKER,
    ),
    (
        "hands-free",
        "caution",
        "fitting",
        "Hands-free steering was asked for; this mount is steered by {how}.",
        "Take a mount with foot pedals or a remote helm.",
        MAKER,
    ),
    # charging and wiring
    (
        "charger-voltage",
        "block",
        "charging",
        "The charger is made for {figure:g} V; the bank has {limit:g} V.",
        "Take a charger for this voltage.",
        MAKER,
    ),
    (
        "charger-chemistry",
        "block",
        "charging",
        "The charger has no programme for {chem}.",
        "Take a charger made for this chemistry.",
        MAKER,
    ),
    (
        "charge-current",
        "caution",
        "charging",
        "The charger gives {figure:.0f} A; the packs take {limit:.0f} A at most.",
        "Take a smaller charger.",
        MAKER,
    ),
    (
        "not-full-by-morning",
        "caution",
        "charging",
        "Charging takes {figure:.1f} h; there are {limit:.1f} h.",
        "A stronger charger, or start earlier.",
        OWN,
    ),
    (
        "first-charge",
        "note",
        "charging",
        "Delivered packs are about {figure:.0%} charged: the first charge takes {hours:.1f} h.",
        "Charge fully before the first trip.",
        COMMON,
    ),
    (
        "charge-freezing",
        "block",
        "charging",
        "At {figure:.0f} °C a lithium pack must not be charged.",
        "Bring it into a frost-free place first.",
        COMMON,
    ),
    (
        "ampacity",
        "block",
        "wiring",
        "{figure:.0f} A are too much for {size}, which carries {limit:.0f} A.",
        "Take {cure_size}.",
        "33 CFR 183.425 Table 5",
    ),
    (
        "voltage-drop",
        "caution",
        "wiring",
        "{figure:.1%} of the voltage is lost in the cable; {limit:.0%} is the usual limit.",
        "Take {cure_size}.",
        COMMON,
    ),
    (
        "fuse-cable",
        "block",
        "wiring",
        "A fuse of {figure:.0f} A does not protect this cable: at most {limit:.0f} A would.",
        "Take the next larger cable.",
        "33 CFR 183.455",
    ),
    (
        "strings-uneven",
        "caution",
        "wiring",
        "The parallel strings do not share: one gives {most:.0f} A, another {least:.0f} A.",
        "Take plus from one end and minus from the other, or lead equal cables to bars.",
        "Kirchhoff's laws on the netlist",
    ),
    (
        "string-current",
        "caution",
        "wiring",
        "One string has to give {figure:.0f} A; its packs allow {limit:.0f} A.",
        "Balance the take-off, add a string, or lower the motor's power.",
        MAKER,
    ),
    (
        "twelve-volt-tap",
        "caution",
        "wiring",
        (
            "Taking 12 V from the end batteries leaves them {figure:.1f} Ah behind the others after"
            " each outing."
        ),
        "Use a converter or a separate 12 V battery.",
        COMMON,
        "end-battery taps",
    ),
    (
        "solar-none",
        "note",
        "charging",
        "The panels give nothing at this place and date.",
        "Charge ashore.",
        "pvlib clear sky",
    ),
)
