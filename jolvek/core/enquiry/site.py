"""What the boat offers beside its hull: mounting places, bays, plate values."""

from __future__ import annotations

from dataclasses import dataclass, field

from jolvek.core.products.mounting import _PADDLED


@dataclass(frozen=True)
class Bay:
    """A place for batteries: inner sizes in m, allowed kg, its middle forward of the transom, to
    starboard of the
    centre line and its floor above the keel in m; the opening of its lid where that is smaller than
    the bay.
    """

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


@dataclass(frozen=True)
class Site:
    """What the boat offers beside its hull: mounting places, bays, plate values. None: not
    known.
    """

    places: tuple[str, ...] = ("transom",)
    bays: tuple[Bay, ...] = ()
    transom_thickness_m: float | None = None
    transom_width_m: float | None = None
    remote_steering: bool = False
    max_motor_kg: float | None = None
    max_load_kg: float | None = None
    max_people: int | None = None
    approval_power_w: float | None = None
    approval_thrust_n: float | None = None
    approval_from_year: int | None = None
    approval_to_year: int | None = None
    model_year: int | None = None
    rake_deg: float = 12.0
    rudder_chord_m: float | None = None
    room_ahead_m: float | None = None  # from the motor's seat to a knee or bulkhead
    notes: tuple[str, ...] = field(default=())


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
