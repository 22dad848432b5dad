"""Mounts: what each needs on the boat, what it carries, where it puts the motor, and what may go on
it.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.messages import words

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
    weed: str  # what to do when it is caught
    loses: str
    or_places: tuple[str, ...] = ()  # it goes on as well

    def __post_init__(self) -> None:
        words(self, "name", "steering", "shallows", "weed", "loses")

    @property
    def places(self) -> tuple[str, ...]:
        """All places that it goes on."""
        return (self.place, *self.or_places)


PLACES = {
    "transom": "a transom",
    "fin_box": "a fin box",
    "rail": "side rails",
    "track": "gear tracks",
    "pad": "glued pads",
    "rowlock": "rowlock sockets",
    "stern_deck": "a stern deck to bolt through",
    "hull_bottom": "a hull bottom to bolt through",
    "motor_well": "a motor well",
}
TRANSOM_PLACES = ("transom", "motor_well")  # where the leg hangs behind the boat
FIXED = ("fin_box", "pod", "cassette")  # under the hull, where the propeller stays down
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
            shallows="tilts up",
            weed="tilt up and clear it",
            loses="nothing",
        ),
        MountKind(
            "quick_release",
            "Quick-release bracket",
            "transom",
            ("outboard", "pole"),
            (),
            "tiller or remote",
            shallows="tilts up",
            weed="tilt up and clear it",
            loses="a little height at the transom",
        ),
        MountKind(
            "rowlock_pin",
            "Rowlock-pin bracket",
            "rowlock",
            ("pole",),
            (),
            "tiller, off to one side",
            shallows="lifts out",
            weed="lift out and clear it",
            loses="one rowlock",
        ),
        MountKind(
            "side_bar",
            "Side bar",
            "rail",
            ("pole",),
            _PADDLED,
            "tiller behind the seat; thrust is off-centre",
            shallows="swings up",
            weed="swing up and clear it",
            loses="paddling room on one side",
            or_places=("track", "pad"),
        ),
        MountKind(
            "stern_plate",
            "Stern plate with pedals",
            "stern_deck",
            ("pole", "outboard"),
            _PADDLED,
            "foot pedals, hands free",
            shallows="swings up by line",
            weed="swing up by line",
            loses="a weekend of work",
        ),
        MountKind(
            "fin_box",
            "Fin-box adapter",
            "fin_box",
            ("fin",),
            _PADDLED,
            "paddle; throttle at the wrist",
            shallows="fixed: lift the stern",
            weed="hard to reach: lift the stern ashore",
            loses="the fin",
        ),
        MountKind(
            "pod",
            "Pod with wedge",
            "hull_bottom",
            ("pod",),
            _KEELED,
            "rudder; remote throttle",
            shallows="fixed below the hull",
            weed="a diver's job",
            loses="a hole in the hull, drag under sail",
        ),
        MountKind(
            "swing_arm",
            "Swing-up arm",
            "stern_deck",
            ("pod",),
            _KEELED,
            "rudder; remote throttle",
            shallows="swings up",
            weed="swing up and clear it",
            loses="deck space aft",
        ),
        MountKind(
            "cassette",
            "Cassette in a trunk",
            "hull_bottom",
            ("pod",),
            _KEELED,
            "rudder; remote throttle",
            shallows="lifts up into its trunk",
            weed="lift it into the boat and clear it",
            loses="a trunk through hull and cabin sole",
        ),
        MountKind(
            "offset_bracket",
            "Offset bracket beside the rudder",
            "transom",
            ("outboard", "pole"),
            ("sailing_dinghy", "keelboat", "multihull"),
            "rudder; motor locked straight",
            shallows="tilts up",
            weed="tilt up and clear it",
            loses="off-centre thrust",
        ),
        MountKind(
            "well",
            "Motor-well plate",
            "motor_well",
            ("outboard",),
            (),
            "tiller or remote",
            shallows="lifts out",
            weed="lift out and clear it",
            loses="the well",
        ),
    )
}


@dataclass(frozen=True)
class Mount:
    """One mount on the shelf; lengths m, masses kg, thrust N, work in hours.

    `drop_m` lowers the motor's seat below the top of the place (negative raises it); `offset_m` is
    from the centre line; `transom_min_m` and `transom_max_m` are the thickness it clamps.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "max_motor_kg": (0.5, 1000),
        "max_thrust_n": (1, 50000),
        "mass_kg": (0, 500),
        "transom_min_m": (0, 1),
        "transom_max_m": (0, 1),
        "drop_m": (-1, 1),
        "offset_m": (0, 3),
        "hours": (0, 500),
        "foot_length_m": (0.02, 1),
        "foot_width_m": (0.002, 0.1),
    }
    CHOICES: ClassVar[checked.Choices] = {"kind": tuple(KINDS)}
    TEXTS: ClassVar[checked.Counts] = {"parts": 200}

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
    foot_length_m: float | None = None  # that goes into a fin box; None: cut to the box
    foot_width_m: float | None = None
    parts: tuple[str, ...] = ()
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "mount")

    @property
    def general(self) -> MountKind:
        """Its kind."""
        return KINDS[self.kind]

    @property
    def fixed(self) -> bool:
        """Whether the motor is fixed under the hull: no shaft to set, no tilt."""
        return self.kind in FIXED
