"""Mount, shaft, bays, trim and tilt."""

from __future__ import annotations

from jolvek.core.rules import predicates
from jolvek.core.rules.rule import COMMON, MAKER, OWN, Rule

RULES = (
    Rule(
        "mount-style",
        "block",
        "fitting",
        "The mount takes {needs} motors; this is a {style} motor.",
        "Take a mount made for it.",
        MAKER,
        scope="drive",
        holds=predicates.mount_style,
    ),
    Rule(
        "mount-place",
        "block",
        "fitting",
        "The mount needs {needs}; this boat has {has}.",
        "Take another mount, or have the place built.",
        MAKER,
        scope="drive",
        holds=predicates.mount_place,
    ),
    Rule(
        "fin-box",
        "block",
        "fitting",
        "The adapter's foot is {long:.0f} mm by {wide:.1f} mm; the boat has a {box}.",
        "Take an adapter made for this box, or measure the slot: two kinds look alike.",
        "slots from memory; the maker's drawing decides",
        scope="drive",
        holds=predicates.fin_box,
    ),
    Rule(
        "registration",
        "note",
        "fitting",
        "Here a boat under power is to be registered, whatever the motor's size.",
        "Show the number before the first trip; ask the place's own authority.",
        "local codes decide",
    ),
    Rule(
        "throttle-cable",
        "caution",
        "fitting",
        "From helm to motor the throttle's cable runs {figure:.1f} m; {limit:.1f} m were set.",
        "Take the next longer cable; it bends no tighter than the maker allows.",
        OWN,
    ),
    Rule(
        "helm-unknown",
        "note",
        "fitting",
        "Nobody said where the boat is steered from: the throttle's cable cannot be measured.",
        "Type the helm's place on Boat.",
        OWN,
    ),
    Rule(
        "rudder-only",
        "caution",
        "fitting",
        "The motor is locked straight, and the boat has no rudder that is known: nothing steers "
        "it.",
        "Type the rudder on Boat, or let the motor steer.",
        OWN,
    ),
    Rule(
        "mount-transom",
        "block",
        "fitting",
        (
            "The mount takes transoms from {low:.0f} to {high:.0f} mm thick; this one has "
            "{figure:.0f} mm."
        ),
        "Pack the transom out, or take another mount.",
        MAKER,
        scope="drive",
        holds=predicates.mount_transom,
    ),
    Rule(
        "mount-motor-mass",
        "block",
        "fitting",
        "The motor weighs {figure:mass}; the mount carries {limit:mass}.",
        "Take a stronger mount.",
        MAKER,
        scope="drive",
        holds=predicates.mount_motor_mass,
    ),
    Rule(
        "mount-thrust",
        "block",
        "fitting",
        "The motor pushes {figure:thrust}; the mount takes {limit:thrust}.",
        "Take a stronger mount, or less power.",
        MAKER,
        scope="drive",
        holds=predicates.mount_thrust,
    ),
    Rule(
        "rudder-strikes",
        "block",
        "fitting",
        (
            "The rudder swings into the motor, blade or motor up or down: {figure:.0f} mm of "
            "clearance, {limit:.0f} mm are needed."
        ),
        "Move the bracket outboard, limit the rudder's angle, or mount the motor elsewhere.",
        OWN,
        scope="drive",
        holds=predicates.rudder_strikes,
    ),
    Rule(
        "trim-beyond",
        "block",
        "fitting",
        "The boat would lie {figure:.0f}° by the {way}; beyond {limit:.0f}° nothing here holds.",
        "Move battery, people or gear towards the middle, or take a lighter setup.",
        OWN,
        scope="setup",
        holds=predicates.trim_beyond,
    ),
    Rule(
        "heel-beyond",
        "block",
        "fitting",
        "The boat would heel {figure:.0f}° with nobody moving; beyond {limit:.0f}° nothing here "
        "holds.",
        "Bring the weights to the centre line and lower, or take a lighter setup.",
        OWN,
        scope="setup",
        holds=predicates.heel_beyond,
    ),
    Rule(
        "rudder-unknown",
        "caution",
        "fitting",
        "The rudder is not given: nobody knows yet whether it swings into the motor.",
        "Measure its blade from hinge to trailing edge, or say 0 where none hangs at the stern.",
        OWN,
    ),
    Rule(
        "shaft-short",
        "block",
        "fitting",
        (
            "The shaft is {short:.0f} mm too short{on}: the plate would sit above the hull bottom "
            "and the propeller draw air."
        ),
        "{first}Would fit with {short:.0f} mm more shaft, or a lower mount.",
        COMMON,
        scope="drive",
        holds=predicates.shaft_short,
    ),
    Rule(
        "shaft-shallow",
        "caution",
        "fitting",
        (
            "The hub is {figure:.0f} mm and the upper blade tip {tip:.0f} mm under water: it "
            "draws air {when}."
        ),
        "Lower the motor 25 mm at a time, move weight aft, or take a longer shaft.",
        COMMON,
    ),
    Rule(
        "shaft-long",
        "note",
        "fitting",
        (
            "The plate sits {figure:.0f} mm below the hull bottom, more than {limit:.0f} mm: "
            "drag, and it grounds early."
        ),
        "A shorter shaft or a raised bracket saves depth.",
        COMMON,
    ),
    Rule(
        "bay-size",
        "block",
        "fitting",
        "Of {packs:.0f} wanted {figure:.0f} fit in {bay}, in any orientation.",
        "Use a smaller pack, fewer packs, or another bay.",
        OWN,
    ),
    Rule(
        "bay-lid",
        "block",
        "fitting",
        "The pack is {figure:.0f} mm across; the lid of {bay} opens {limit:.0f} mm.",
        "Use a smaller pack, another bay, or a larger lid.",
        OWN,
    ),
    Rule(
        "tilt-short",
        "caution",
        "fitting",
        (
            "The motor tilts {figure:.0f}° before its head meets the boat; {limit:.0f}° lift it "
            "clear."
        ),
        "A bracket further aft, or tilt it by hand off its bracket.",
        OWN,
    ),
    Rule(
        "bay-mass",
        "block",
        "fitting",
        "The bank weighs {figure:mass}; {bay} carries {limit:mass}.",
        "Spread the packs over two bays, or use lighter ones.",
        "boat's own data",
    ),
    Rule(
        "bay-ventilation",
        "caution",
        "fitting",
        "{bay} has no ventilation, and lead-acid batteries give off hydrogen.",
        "Ventilate it to the outside, or use lithium.",
        COMMON,
    ),
    Rule(
        "lift-mass",
        "caution",
        "fitting",
        ("The heaviest single lift is {figure:mass}; {limit:mass} was given as the most to lift."),
        "Choose a motor and battery that come apart, or smaller packs in parallel.",
        "customer's own limit",
    ),
    Rule(
        "no-mount",
        "block",
        "fitting",
        "No mount in the catalogue puts this {style} motor on the boat's places: {places}.",
        "Order a mount for it, or take another kind of motor.",
        OWN,
    ),
    Rule(
        "side-mount-yaw",
        "caution",
        "fitting",
        (
            "The off-centre thrust turns the boat with {figure:.0f} N·m; the helm answers "
            "{limit:.0f} N·m."
        ),
        "Less power, a stern mount, or a larger rudder.",
        OWN,
    ),
    Rule(
        "side-mount-heel",
        "caution",
        "fitting",
        (
            "The weight on one side heels the boat {figure:.1f}°; {limit:.0f}° is much for a "
            "narrow hull."
        ),
        "Put the battery on the other side.",
        OWN,
    ),
    Rule(
        "trim-angle",
        "caution",
        "fitting",
        "The boat trims {figure:.1f}° {way}; {limit:.1f}° is much.",
        "Move {what} {direction}.",
        OWN,
    ),
    Rule(
        "salt-anode",
        "note",
        "fitting",
        "Salt water: a motor without an anode corrodes.",
        "Fit an anode and renew it by season; rinse after each trip.",
        COMMON,
    ),
    Rule(
        "noise",
        "note",
        "fitting",
        "The maker states {figure:.0f} dB(A); the customer wants at most {limit:.0f}.",
        "Take a quieter motor.",
        MAKER,
    ),
    Rule(
        "hands-free",
        "caution",
        "fitting",
        "Hands-free steering was requested; this mount is steered by {how}.",
        "Take a mount with foot pedals or a remote helm.",
        MAKER,
    ),
)
