"""What an inspector looks for: sparks, restraint, loss of way, touch, papers."""

from __future__ import annotations

from jolvek.core.rules import predicates
from jolvek.core.rules.rule import COMMON, OWN, Rule

RULES = (
    Rule(
        "no-charger",
        "block",
        "charging",
        "Nothing charges this bank: no charger is chosen, and the customer's own does not suit it.",
        "Choose a charger of {figure:.1f} V at the end of its charge, or give the customer's own.",
        OWN,
        scope="pair",
        holds=predicates.has_charger,
    ),
    Rule(
        "bms-cuts-off",
        "caution",
        "electrics",
        (
            "Full power takes {figure:.0f} A of the {limit:.0f} A that the pack's management lets "
            "through; when it switches off, the boat loses way at once."
        ),
        "{strings:.0f} strings ({packs:.0f} packs), or limit the motor to {watts:power}.",
        "ABYC E-13, from memory",
        otherwise="Limit the motor to {watts:power}, or choose batteries that deliver more.",
    ),
    Rule(
        "inrush",
        "caution",
        "electrics",
        (
            "At {figure:.0f} V a controller of {watts:power} draws an arc as it is joined: the "
            "contacts of switch and plug burn."
        ),
        "A controller that charges itself up first, or a pre-charge resistor; ask its maker.",
        "ABYC E-30, from memory",
    ),
    Rule(
        "petrol-aboard",
        "caution",
        "electrics",
        "Petrol is aboard and this motor is not stated to be ignition-protected.",
        "Keep every spark out of the petrol's space, or take a motor tested to ISO 8846.",
        "ISO 8846 and 33 CFR 183.410, from memory",
    ),
    Rule(
        "aluminium-hull",
        "caution",
        "wiring",
        "The hull is aluminium: copper, stainless steel and stray current eat it.",
        (
            "Sleeves and a plastic pad under clamp and bolts, both poles kept off the hull, no "
            "copper paint, an anode that suits the hull."
        ),
        COMMON,
    ),
    Rule(
        "cut-edges",
        "note",
        "fitting",
        "Wood and sandwich take up water through every hole.",
        "Seal holes and cut edges with epoxy before anything is bolted; plates behind the bolts.",
        COMMON,
    ),
    Rule(
        "bay-wet",
        "caution",
        "wiring",
        "The floor of {bay} lies {figure:.0f} mm above the keel: bilge water reaches the packs.",
        "Raise the packs to {limit:.0f} mm at least, or take packs made to be submerged.",
        "33 CFR 183.420, from memory",
    ),
    Rule(
        "derating",
        "note",
        "electrics",
        "In air of {figure:.0f} °C a controller may cut the power back to save itself.",
        "Air to the controller, and less than full power for long runs.",
        COMMON,
    ),
    Rule(
        "wet-touch",
        "note",
        "wiring",
        "The bank reaches {figure:.0f} V: above {limit:.0f} V DC wet hands feel it.",
        "Cover the terminals; switch off before a plug is opened.",
        "ISO 13297 and ABYC E-30, from memory",
    ),
    Rule(
        "main-fuse",
        "note",
        "precautions",
        (
            "The fuse of {figure:.0f} A stands within {within:.0f} mm of the bank, takes "
            "{limit:.0f} V DC and breaks {breaks:.0f} A."
        ),
        "Read all three figures on the fuse itself; before it the cable is not guarded at all.",
        "33 CFR 183.455, ISO 13297 and ABYC E-11, from memory",
    ),
    Rule(
        "fuse-volts",
        "caution",
        "wiring",
        (
            "The bank reaches {figure:.0f} V; common blade and strip fuses are made for "
            "{limit:.0f} V and may burn on instead of breaking."
        ),
        "Fuses stamped {takes:.0f} V DC or more, as the parts list has them.",
        "ISO 13297 and ABYC E-11, from memory",
    ),
    Rule(
        "packs-alike",
        "note",
        "precautions",
        "{figure:.0f} packs are joined; the weakest is overcharged and run flat by the others.",
        "One type, age and capacity, joined at equal voltage; never an old pack with new ones.",
        COMMON,
    ),
    Rule(
        "restraint",
        "note",
        "precautions",
        "A pack of {figure:mass} may move {limit:.0f} mm at most when the boat is thrown about.",
        "Straps or a tray that hold it from every side; covers on its terminals.",
        "33 CFR 183.420 and ABYC E-10, from memory",
    ),
    Rule(
        "polarity",
        "note",
        "precautions",
        "Plus and minus changed over destroy a controller of {watts:power} in an instant.",
        "Measure at the motor's plug before it is joined; mark both cables.",
        COMMON,
    ),
    Rule(
        "cable-run",
        "note",
        "precautions",
        (
            "{amps:.0f} A in two cables side by side turn a compass by a degree at {figure:.1f} m; "
            "laid apart they do so across the whole boat."
        ),
        "Plus and minus together, away from the compass, held every {limit:.0f} mm.",
        "Biot–Savart; ISO 13297 and ABYC E-11 for the supports, from memory",
    ),
    Rule(
        "charge-watched",
        "note",
        "precautions",
        "The bank charges for {figure:.1f} h: most lithium fires begin while charging.",
        "On a hard floor, in sight, with a smoke alarm; not overnight under people asleep.",
        "ABYC E-13 and ISO/TS 23625, from memory",
    ),
    Rule(
        "shore-side",
        "note",
        "precautions",
        "A charger wired aboard brings mains to the boat: shock in the water kills swimmers.",
        (
            "Residual-current protection of 30 mA, protective earth, a galvanic isolator, DC minus "
            "bonded; a licensed electrician."
        ),
        "ISO 13297 and ABYC E-11, from memory",
    ),
    Rule(
        "transport",
        "note",
        "precautions",
        "A pack of {figure:.0f} Wh, above {limit:.0f} Wh, travels as dangerous goods, class 9.",
        "Ask for its UN 38.3 test summary; most ferries, airlines and carriers have rules.",
        "UN 38.3 and ADR class 9, from memory",
    ),
    Rule(
        "insurer",
        "note",
        "precautions",
        "{figure:.1f} kWh of lithium are built in: insurers and surveyors ask for it.",
        "Tell the insurer, and keep manuals and the sheet with the boat's papers.",
        COMMON,
    ),
    Rule(
        "tiller-reach",
        "caution",
        "fitting",
        "The tiller is out of the helm's reach by {figure:.2f} m.",
        "Fit a tiller extension or a remote throttle, or seat the helm nearer to the motor.",
        COMMON,
    ),
)
