"""What the shop set on a fitting by hand, kept with its setup; what is not set is as planned."""

from __future__ import annotations

from dataclasses import asdict, dataclass, fields, replace
from typing import Any, ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.electric.netlist import SCHOOLS_12V, TAKE_OFFS, Loads12V, Plan
from jolvek.core.fit.leg import PINS
from jolvek.core.fit.trim import TRIM_MOST_DEG, Weight, moved

MOST_PLACES, AHEAD_M = 40, (-0.5, 15.0)
THROTTLES = ("cable", "wireless")  # a remote one's; not set: as the motor comes


@dataclass(frozen=True)
class AsSet:
    """Weights moved (name, m ahead of the stern), a pole's height, the trim pin's hole, how she is
    worked, the installation, and her trim as measured; SI, None and empty: as planned. Raises
    ValueRefused.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "pole_m": (0.2, 2.0),
        "pin": (1, PINS),
        "run_m": (0.2, 30),
        "load_a": (0, 200),
        "load_h": (60 / 3600, 240),
        "throttle_m": (0.3, 15.0),
        "controller_ahead_m": (0, 15.0),
        "lead_m": (0.3, 10.0),
        "trim_deg": (-TRIM_MOST_DEG, TRIM_MOST_DEG),
        "hull_aft_m": (-10.0, 10.0),
    }
    CHOICES: ClassVar[checked.Choices] = {
        "take_off": ("", *TAKE_OFFS),
        "school": ("", *SCHOOLS_12V),
        "throttle": ("", *THROTTLES),
    }
    TEXTS: ClassVar[checked.Counts] = {"bay": 200}

    places: tuple[tuple[str, float], ...] = ()
    pole_m: float | None = None
    pin: int | None = None
    run_m: float | None = None
    take_off: str = ""
    engine_space: bool = False
    load_a: float = 0.0
    load_h: float | None = None
    school: str = ""
    throttle: str = ""
    throttle_m: float | None = None  # cable from helm to motor
    locked: bool = False  # straight, the rudder steers
    controller_ahead_m: float | None = None  # a pod's, ahead of the stern
    lead_m: float | None = None  # that takes a clip-on battery off the motor
    bay: str = ""  # the one that the bank goes into
    trim_deg: float | None = None  # measured afloat, by the stern
    hull_aft_m: float = 0.0  # how far aft of level the hull's own weight acts for that
    claims: bool = False  # what its makers say stands on the offer, with what is held of it

    def __post_init__(self) -> None:
        checked.check(self, "fitting")
        if len(self.places) > MOST_PLACES:
            raise ValueRefused(
                "fitting.places",
                len(self.places),
                msg("at most %(most_places)s", most_places=MOST_PLACES),
            )
        for name, ahead in self.places:
            if not AHEAD_M[0] <= ahead <= AHEAD_M[1]:
                allowed = msg(
                    "%(ahead)s to %(ahead2)s m for %(name)s",
                    ahead=f"{AHEAD_M[0]:g}",
                    ahead2=f"{AHEAD_M[1]:g}",
                    name=name,
                )
                raise ValueRefused("fitting.places", ahead, allowed)

    def plan(self, usual: Plan) -> Plan:
        """The installation as set; the run follows from the places (`Fitted.run_m`).

        >>> AsSet(load_a=2.0).plan(Plan()).loads.current_a
        2.0
        """
        loads = Loads12V(
            self.load_a or usual.loads.current_a,
            usual.loads.hours if self.load_h is None else self.load_h,
            self.school or usual.loads.school,
        )
        return replace(
            usual,
            take_off=self.take_off or usual.take_off,
            engine_space=self.engine_space or usual.engine_space,
            loads=loads,
        )

    def weights(self, planned: list[Weight]) -> list[Weight]:
        """The weights where they were put; places of weights that are not there are left out.

        >>> AsSet((("gear", 1.5),)).weights([Weight("gear", 20, 2.0, 0.0, 0.2)])[0].ahead_m
        1.5
        """
        out, there = planned, {w.name for w in planned}
        for name, ahead in self.places:
            out = moved(out, name, ahead) if name in there else out
        return out


AS_PLANNED = AsSet()


def merged(seen: AsSet, mine: AsSet, now: AsSet) -> AsSet:
    """What one hand changed of what it saw, over what stands now; each moved weight by itself.

    >>> a, b = AsSet((("gear", 1.5),)), AsSet((("battery", 0.4),), run_m=3.0)
    >>> merged(AS_PLANNED, a, b) == AsSet((("battery", 0.4), ("gear", 1.5)), run_m=3.0)
    True
    """
    saw, put, places = dict(seen.places), dict(mine.places), dict(now.places)
    for name in {*saw, *put}:
        if name not in put:
            places.pop(name, None)
        elif put[name] != saw.get(name):
            places[name] = put[name]
    names = [f.name for f in fields(AsSet) if f.name != "places"]
    set_by_me = {k: getattr(mine, k) for k in names if getattr(mine, k) != getattr(seen, k)}
    return replace(now, **set_by_me, places=tuple(sorted(places.items())))


def as_set_plain(fitting: AsSet) -> dict[str, Any]:
    """What is set, as the plain data that is kept.

    >>> as_set_plain(AsSet(run_m=3.0))
    {'run_m': 3.0}
    """
    usual = asdict(AS_PLANNED)
    return {k: v for k, v in asdict(fitting).items() if v != usual[k]}


def as_set_from(data: Any) -> AsSet:
    """The record in plain data. Raises ValueRefused for what it cannot be.

    >>> as_set_from({"places": [["gear", 1.5]]}).places
    (('gear', 1.5),)
    """
    try:
        places = tuple((str(name), float(ahead)) for name, ahead in data.get("places", ()))
        return AsSet(**{**data, "places": places})
    except (TypeError, ValueError, AttributeError) as error:
        raise ValueRefused("fitting", data, msg("what the Fitting station keeps")) from error
