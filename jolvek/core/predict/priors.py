"""What is not known of a setup before anything of it is tried: each unknown's doubt."""

from __future__ import annotations

from collections.abc import Mapping

from jolvek.core.hydro.hull import FACTORS
from jolvek.core.predict.setup import Setup

# 1σ of each, relative: from the residuals of the measured points, and common practice, no source
PRIORS: Mapping[str, float] = {
    "mass": 0.05,
    "length": 0.03,
    "beam": 0.07,
    "friction": 0.15,
    "waves": 0.20,
    "transom": 0.40,
    "leg": 0.40,
    "air": 0.30,
    "planing": 0.20,  # owners' speeds and one measured boat lie that far apart
    "seas": 0.40,  # waves, shallows, a tow: formulas made for ships
    "efficiency": 0.08,
}
# what the model leaves out of a family, Jolvek's own: of pontoons the deck's structure in the spray
# and air drawn in between the tubes, of keel boats how dirty and heavy they really are and what
# their raised stern does to the propeller, of paddled hulls where the flow turns turbulent
WIDER: Mapping[str, Mapping[str, float]] = {
    "pontoon": {"waves": 0.35, "transom": 0.6, "air": 0.4, "efficiency": 0.13},
    "keelboat": {"friction": 0.20, "waves": 0.25, "efficiency": 0.13},
    "kayak": {"friction": 0.18, "waves": 0.30},
    "canoe": {"friction": 0.18, "waves": 0.30},
    "board": {"friction": 0.20, "waves": 0.30},
}
GIVEN = {"length": 0.01, "beam": 0.025}  # typed rather than estimated
NO_PROPELLER = 0.11  # efficiency where no diameter is known
TRIED = {"friction": 0.05, "waves": 0.06, "transom": 0.1, "leg": 0.1, "planing": 0.04}
TRIED_EFFICIENCY = 0.03
WEIGHED = 0.01


def priors(setup: Setup) -> dict[str, float]:
    """1σ of each unknown of one setup: wide where estimated, narrow where given or tried.

    >>> from dataclasses import replace
    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.motor import Motor
    >>> s = Setup(Hull("kayak", 3.7, 0.78, 34), Load(1), Motor(500))
    >>> priors(s)["beam"], priors(replace(s, hull=replace(s.hull, waterline_beam_m=0.6)))["beam"]
    (0.07, 0.025)
    """
    hull, motor, out = setup.hull, setup.motor, dict(PRIORS)
    out |= WIDER.get(hull.family, {})
    if hull.waterline_length_m is not None:
        out["length"] = GIVEN["length"]
    if (hull.waterline_beam_m or hull.body_beam_m) is not None:
        out["beam"] = GIVEN["beam"]
    if motor.propeller_diameter_m is None:
        out["efficiency"] = max(NO_PROPELLER, out["efficiency"])
    if hull.trial_spread:
        return out  # what the trial knows of them is in its spread
    if any(getattr(hull, name) != 1.0 for name in FACTORS):
        out |= {**TRIED, "efficiency": TRIED_EFFICIENCY}
    return out
