"""Mounts: what each needs on the boat, what it carries, where it puts the motor, and what may go on
it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from jolvek.core.battery import Battery
from jolvek.core.findings import Finding, find
from jolvek.core.hull import Hull
from jolvek.core.motor import Motor

PLATE_BELOW_M = 0.025  # plate below the hull bottom; common practice, no source
PLATE_TOO_DEEP_M = 0.15
HUB_COVER_M = 0.10  # water over the hub; common practice, no source
HUB_BELOW_PLATE = 0.62  # of the propeller diameter


@dataclass(frozen=True)
class MountKind:
    """One way to hang a motor on a boat, in general."""

    id: str
    name: str
    place: str  # what the boat must have
    styles: tuple[str, ...]  # motors that go on it
    families: tuple[str, ...]  # hulls it makes sense on; empty = all with the place
    steering: str
    shallows: str
    loses: str


PLACES = {
    "transom": "a transom",
    "fin_box": "a fin box",
    "rail": "side rails or mounting pads",
    "rowlock": "rowlock sockets",
    "stern_deck": "a stern deck to bolt through",
    "hull_bottom": "a hull bottom to bolt through",
    "motor_well": "a motor well",
}
TRANSOM_PLACES = ("transom", "motor_well")  # where the leg hangs behind the boat
_PADDLED = ("kayak", "canoe", "board")
_KEELED = ("sailing_dinghy", "cabin", "keelboat", "multihull")
KINDS: dict[str, MountKind] = {
    k.id: k
    for k in (
        MountKind(
            "transom_clamp",
            "Transom clamp",
            "transom",
            ("outboard", "pole"),
            (),
            "tiller or remote",
            "tilts up",
            "nothing",
        ),
        MountKind(
            "quick_release",
            "Quick-release bracket",
            "transom",
            ("outboard", "pole"),
            (),
            "tiller or remote",
            "tilts up",
            "a little height at the transom",
        ),
        MountKind(
            "rowlock_pin",
            "Rowlock-pin bracket",
            "rowlock",
            ("pole",),
            (),
            "tiller, off to one side",
            "lifts out",
            "one rowlock",
        ),
        MountKind(
            "side_bar",
            "Side bar",
            "rail",
            ("pole",),
            _PADDLED,
            "tiller behind the seat; thrust is off-centre",
            "swings up",
            "paddling room on one side",
        ),
        MountKind(
            "stern_plate",
            "Stern plate with pedals",
            "stern_deck",
            ("pole", "outboard"),
            _PADDLED,
            "foot pedals, hands free",
            "swings up by line",
            "a weekend of work",
        ),
        MountKind(
            "fin_box",
            "Fin-box adapter",
            "fin_box",
            ("fin",),
            _PADDLED,
            "paddle; throttle at the wrist",
            "fixed: lift the stern",
            "the fin",
        ),
        MountKind(
            "pod",
            "Pod with wedge",
            "hull_bottom",
            ("pod",),
            _KEELED,
            "rudder; remote throttle",
            "fixed below the hull",
            "a hole in the hull, drag under sail",
        ),
        MountKind(
            "swing_arm",
            "Swing-up arm",
            "stern_deck",
            ("pod",),
            _KEELED,
            "rudder; remote throttle",
            "swings up",
            "deck space aft",
        ),
        MountKind(
            "offset_bracket",
            "Offset bracket beside the rudder",
            "transom",
            ("outboard", "pole"),
            ("sailing_dinghy", "keelboat", "multihull"),
            "rudder; motor locked straight",
            "tilts up",
            "off-centre thrust",
        ),
        MountKind(
            "well",
            "Motor-well plate",
            "motor_well",
            ("outboard",),
            (),
            "tiller or remote",
            "lifts out",
            "the well",
        ),
    )
}


@dataclass(frozen=True)
class Mount:
    """One mount on the shelf; lengths m, masses kg, thrust N, work in hours.

    `drop_m` lowers the motor's seat below the top of the place (negative raises it); `offset_m` is
    from the centre line; `transom_min_m` and `transom_max_m` are the thickness it clamps.
    """

    kind: str
    max_motor_kg: float
    max_thrust_n: float
    mass_kg: float = 0.0
    transom_min_m: float = 0.0
    transom_max_m: float = 1.0
    drop_m: float = 0.0
    offset_m: float = 0.0
    hours: float = 0.5
    hands_free: bool = False
    parts: tuple[str, ...] = ()
    name: str = ""

    @property
    def general(self) -> MountKind:
        """Its kind."""
        return KINDS[self.kind]


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


def seat_m(hull: Hull, mount: Mount) -> float:
    """Height in m of the motor's seat above the hull bottom at the motor.

    >>> round(seat_m(Hull("rib", 3.6, 1.75, 110, transom_height_m=0.4), Mount("transom_clamp", 60, 2000)), 2)
    0.4
    """
    return hull.transom_m - mount.drop_m


def plate_depth_m(hull: Hull, mount: Mount, shaft_m: float) -> float:
    """Depth in m of the anti-ventilation plate below the hull bottom; negative: above it.

    >>> h = Hull("rib", 3.6, 1.75, 110, transom_height_m=0.35)
    >>> round(plate_depth_m(h, Mount("transom_clamp", 60, 2000), 0.381), 3)
    0.031
    """
    return shaft_m - seat_m(hull, mount)


def shaft_missing_m(hull: Hull, mount: Mount, shaft_m: float) -> float:
    """How much shaft in m is missing for the plate to reach the hull bottom (0 = it does).

    25 mm below is right; down to level with the bottom is taken as just enough.

    >>> h = Hull("rib", 3.6, 1.75, 110, transom_height_m=0.5)
    >>> round(shaft_missing_m(h, Mount("transom_clamp", 60, 2000), 0.381), 3)
    0.119
    """
    return max(0.0, -plate_depth_m(hull, mount, shaft_m))


def fits(
    hull: Hull, site: Site, mount: Mount, motor: Motor, style: str, thrust_n: float
) -> list[Finding]:
    """Blocks that keep this motor off this mount on this boat; an empty list when it fits.

    >>> m = Mount("transom_clamp", 10, 2000)
    >>> [f.rule for f in fits(Hull("rib", 3.6, 1.75, 110), Site(), m, Motor(2000, mass_kg=19), "outboard", 500)]
    ['mount-motor-mass']
    """
    kind, out = mount.general, []
    if kind.place not in site.places or (kind.families and hull.family not in kind.families):
        has = ", ".join(PLACES[p] for p in site.places) or "no mounting place"
        if kind.place in site.places:
            has += f", but {kind.name.lower()}s are not made for this kind of hull"
        out.append(find("mount-place", needs=PLACES[kind.place], has=has))
    if style not in kind.styles:
        out.append(find("mount-style", needs=" or ".join(kind.styles), style=style))
    if motor.weight_kg > mount.max_motor_kg:
        out.append(find("mount-motor-mass", motor.weight_kg, mount.max_motor_kg))
    if thrust_n > mount.max_thrust_n:
        out.append(find("mount-thrust", thrust_n, mount.max_thrust_n))
    thick = site.transom_thickness_m
    if (
        thick is not None
        and kind.place == "transom"
        and not mount.transom_min_m <= thick <= mount.transom_max_m
    ):
        out.append(
            find(
                "mount-transom",
                1000 * thick,
                low=1000 * mount.transom_min_m,
                high=1000 * mount.transom_max_m,
            )
        )
    if site.max_motor_kg is not None and motor.weight_kg + mount.mass_kg > site.max_motor_kg:
        out.append(find("motor-mass", motor.weight_kg + mount.mass_kg, site.max_motor_kg))
    return out


def packs_in_bay(
    bay: Bay, length_m: float, width_m: float, height_m: float, upright: bool = True
) -> int:
    """How many equal packs go into a bay, all turned the same way; lead stands `upright`.

    >>> packs_in_bay(Bay("locker", 0.7, 0.4, 0.3), 0.33, 0.17, 0.22)
    4
    """
    size = (length_m, width_m, height_m)
    turns = (
        [(0, 1, 2), (1, 0, 2)]
        if upright
        else [(a, b, 3 - a - b) for a in range(3) for b in range(3) if a != b]
    )
    counts = [
        int(bay.length_m / size[a] + 1e-9)
        * int(bay.width_m / size[b] + 1e-9)
        * int(bay.height_m / size[c] + 1e-9)
        for a, b, c in turns
    ]
    return max(counts)


@dataclass(frozen=True)
class Stowed:
    """So many packs in one bay."""

    bay: Bay
    packs: int


def stow(bays: Sequence[Bay], battery: Battery, packs: int) -> tuple[list[Stowed], Finding | None]:
    """Where the packs go: all in one bay if any holds them, else spread over several; or the
    finding that they do not.

    Sizes in three dimensions, all packs of a bay turned the same way (lead-acid stands upright),
    each through the lid, the bay's allowed mass kept. Packs of unknown size fit everywhere.

    >>> bay = Bay("locker", 0.7, 0.4, 0.3, 25.0)
    >>> battery = Battery("lfp", 12.8, 100, 11.4, length_m=0.33, width_m=0.17, height_m=0.22)
    >>> stow([bay], battery, 2)[0][0].packs, stow([bay], battery, 3)[1].rule
    (2, 'bay-mass')
    """
    sizes = (battery.length_m, battery.width_m, battery.height_m)
    if not bays or None in sizes:
        return [], None
    room = [_room(bay, battery) for bay in bays]
    held = [
        min(n, int(bay.max_kg / battery.weight_kg + 1e-9)) if bay.max_kg is not None else n
        for n, bay in zip(room, bays, strict=True)
    ]
    for bay, n in zip(bays, held, strict=True):
        if n >= packs:
            return [Stowed(bay, packs)], None
    if sum(held) >= packs:
        left, out = packs, []
        for n, bay in sorted(zip(held, bays, strict=True), key=lambda row: -row[0]):
            out.append(Stowed(bay, min(n, left)))
            left -= out[-1].packs
        return [s for s in out if s.packs], None
    best = max(range(len(bays)), key=lambda i: room[i])
    names = bays[best].name if len(bays) == 1 else "the bays"
    if sum(room) >= packs:
        kilos = sum(bay.max_kg for bay in bays if bay.max_kg is not None)
        return [], find("bay-mass", packs * battery.weight_kg, kilos, bay=names)
    lid = bays[best]
    if room[best] == 0 and packs_in_bay(lid, *sizes, not battery.chem.lithium):  # type: ignore[arg-type]
        return [], find(
            "bay-lid",
            1000 * sorted(sizes)[1],
            1000 * min(lid.lid_length_m or 9, lid.lid_width_m or 9),  # type: ignore[type-var, operator]
            bay=lid.name,
        )
    return [], find("bay-size", sum(room), packs, packs=packs, bay=names)


def _room(bay: Bay, battery: Battery) -> int:
    """How many packs the bay takes by size, 0 where none passes its lid."""
    sizes = (battery.length_m or 0.0, battery.width_m or 0.0, battery.height_m or 0.0)
    lid = sorted((bay.lid_length_m or bay.length_m, bay.lid_width_m or bay.width_m))
    if sorted(sizes)[0] > lid[0] or sorted(sizes)[1] > lid[1]:
        return 0
    return packs_in_bay(bay, *sizes, upright=not battery.chem.lithium)
