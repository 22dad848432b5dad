"""What the boat offers beside its hull: mounting places, bays, plate values."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.products.boat_model import (
    CHAMBERS,
    CONSTRUCTIONS,
    FIN_BOXES,
    LIMITS,
    YEARS,
    BoatModel,
)
from jolvek.core.products.mounting import _PADDLED, PLACES

MOST_BAYS = 12


@dataclass(frozen=True)
class Bay:
    """A place for batteries: inner sizes in m, allowed kg, its middle forward of the transom, to
    starboard of the centre line and its floor above the keel in m; the opening of its lid where
    that is smaller than the bay.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "length_m": (0.05, 5),
        "width_m": (0.05, 5),
        "height_m": (0.05, 3),
        "max_kg": (1, 5000),
        "ahead_m": (-1, 15),
        "off_m": (-4, 4),
        "above_m": (0, 3),
        "lid_length_m": (0.02, 5),
        "lid_width_m": (0.02, 5),
    }
    TEXTS: ClassVar[checked.Counts] = {"name": 200}

    name: str
    length_m: float
    width_m: float
    height_m: float
    max_kg: float | None = None
    ahead_m: float | None = None
    ventilated: bool = True
    off_m: float = 0.0
    above_m: float = 0.05
    lid_length_m: float | None = None
    lid_width_m: float | None = None

    def __post_init__(self) -> None:
        checked.check(self, "bay")


@dataclass(frozen=True)
class Site:
    """What the boat offers beside its hull: mounting places, bays, plate values. None: not
    known.
    """

    RANGES: ClassVar[checked.Ranges] = {
        **{k: BoatModel.RANGES[k] for k in ("transom_thickness_m", "transom_width_m", *LIMITS)},
        **dict.fromkeys(("model_year", "approval_from_year", "approval_to_year"), YEARS),
        "rake_deg": (-20, 45),
        "rudder_chord_m": (0, 1.5),
        "room_ahead_m": (0, 3),
        "rudder_depth_m": (0.05, 2.5),
        "helm_ahead_m": (0, 15),
        "hull_slope_deg": (-20, 20),
    }
    CHOICES: ClassVar[checked.Choices] = {
        "places": tuple(PLACES),
        "construction": CONSTRUCTIONS,
        "chambers": tuple(CHAMBERS),
        "fin_box": ("", *FIN_BOXES),
    }
    COUNTS: ClassVar[checked.Counts] = {"bays": MOST_BAYS}

    places: tuple[str, ...] = ("transom",)
    bays: tuple[Bay, ...] = ()
    transom_thickness_m: float | None = None
    transom_width_m: float | None = None
    remote_steering: bool = False
    petrol_aboard: bool = False
    construction: str = ""  # not told: as the kind of boat is usually built
    max_motor_kg: float | None = None
    max_load_kg: float | None = None
    max_people: int | None = None
    approval_power_w: float | None = None
    approval_thrust_n: float | None = None
    approval_from_year: int | None = None
    approval_to_year: int | None = None
    model_year: int | None = None
    rake_deg: float = 12.0
    rudder_chord_m: float | None = None  # of a blade hung at the stern; 0: none hangs there
    room_ahead_m: float | None = None  # from the motor's seat to a knee or bulkhead
    rudder_depth_m: float | None = None  # of its blade below the hull's bottom
    rudder_lifts: bool = True  # its blade swings up aft
    fin_box: str = ""
    chambers: str = ""  # of an inflatable: what its floor is
    helm_ahead_m: float | None = None  # of the transom, where one steers from
    hull_slope_deg: float | None = None  # of the bottom where a pod goes, down towards the bow
    registration: bool = False  # asked for by the place, for any motor

    def __post_init__(self) -> None:
        checked.check(self, "site")


def default_places(family_id: str) -> tuple[str, ...]:
    """Mounting places to expect on a family where nothing is said; common practice, no source.

    >>> default_places("kayak")
    ('fin_box', 'rail', 'stern_deck')
    """
    if family_id == "board":
        return ("fin_box",)
    if family_id in _PADDLED:
        return ("fin_box", "rail", "stern_deck") if family_id == "kayak" else ("rail", "transom")
    if family_id in ("sailing_dinghy", "rigid_dinghy"):
        return ("transom", "rowlock")
    if family_id in ("keelboat", "cabin", "multihull"):
        return ("transom", "hull_bottom", "stern_deck")
    return ("transom",)
