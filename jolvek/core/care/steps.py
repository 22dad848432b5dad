"""The care of a rigged boat as data: after each trip, by hours, by date, and what has a shelf life.
Makers' manuals come first.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg, words
from jolvek.core.fit.fitted import Fitted
from jolvek.core.rules.rule import COMMON

KINDS = ("trip", "hours", "date", "months")
SEASON_START, SEASON_END, LAID_UP = "start", "end", "laid up"
SHELF = "shelf"  # of a spare: until the day that stands on it


@dataclass(frozen=True)
class Care:
    """One step of care: due after each trip, every so many hours, at the start or end of the
    season, or every so many months (while laid up alone, where `at` says so); hazard and source.
    Raises ValueRefused for one that could never be due.
    """

    RANGES: ClassVar[checked.Ranges] = {"every": (0, 20_000)}
    TEXTS: ClassVar[checked.Counts] = {"key": 40, "text": 300, "hazard": 300, "source": 200}
    CHOICES: ClassVar[checked.Choices] = {
        "kind": (*KINDS, SHELF),
        "at": ("", SEASON_START, SEASON_END, LAID_UP),
    }

    key: str
    kind: str
    text: str
    every: float = 0.0  # hours or months
    at: str = ""  # of the season
    hazard: str = ""
    source: str = COMMON

    def __post_init__(self) -> None:
        words(self, "text", "hazard", "source")
        checked.check(self, "care")
        if not self.key or not self.text.strip():
            raise ValueRefused("care.text", self.text, msg("a key and what is to be done"))
        if self.kind in ("hours", "months") and self.every < 1:
            raise ValueRefused("care.every", self.every, msg("1 and more %(kind)s", kind=self.kind))
        if self.kind == "months" and self.every % 1:
            raise ValueRefused("care.every", self.every, msg("whole months"))
        if self.kind == "date" and self.at not in (SEASON_START, SEASON_END):
            raise ValueRefused("care.at", self.at, f"{SEASON_START} or {SEASON_END}")


@dataclass(frozen=True)
class Profile:
    """What of a boat decides her care: her water, her battery, whether she is hired out, and the
    ids of her products.
    """

    salt: bool
    lead: bool
    hired: bool
    products: tuple[str, ...] = ()


@dataclass(frozen=True)
class Edit:
    """The shop's own word on a step for a product (all boats where empty): instead of the one with
    that key, besides those there are, or none (`care` None).
    """

    product_id: str
    key: str
    care: Care | None


SWITCHED_OFF = "Magnet or kill cord out before a hand goes near the propeller."


SHAFT = Care(
    "shaft",
    "hours",
    "Propeller off: line, seal, drive pin, grease; nut nipped, not forced.",
    50,
    hazard=SWITCHED_OFF,
)
TERMINALS = Care(
    "terminals",
    "hours",
    "Terminals, fuses and lugs: tight, cool, covered.",
    100,
    hazard="Switch off; no tools across poles.",
)
START = Care(
    "start",
    "date",
    "Before the season: charge fully, kill cord tried, steering and clamp, fuses, life jackets.",
    at=SEASON_START,
)
LAY_UP = Care(
    "lay-up",
    "date",
    "After the season: battery off the boat or disconnected, about half charged, frost-free and"
    " dry; motor rinsed and stored upright.",
    at=SEASON_END,
    hazard="Never charge lithium below freezing.",
)
LAY_UP_LEAD = Care(
    "lay-up",
    "date",
    "After the season: battery charged full, disconnected, frost-free and aired; motor rinsed and"
    " stored upright.",
    at=SEASON_END,
    hazard="Charging lead gives off hydrogen: air it, no sparks.",
)
YEARLY = (
    Care("cord", "months", "Kill cord, magnet and their spares: tried, not looked at.", 12),
    Care("pins", "months", "Spares aboard: pins, nut, propeller, fuses, magnet.", 12),
)
SEALS_H, HIRED_SEALS_H = 1000, 2000  # hire boats are run steadily; common practice, no source


def profile_of(f: Fitted) -> Profile:
    """What of a setup on its water decides its care.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> profile_of(sample_fitted()).lead
    False
    """
    parts = (f.motor, f.battery, f.mount, f.charger)
    return Profile(
        f.need.water.kind == "salt",
        not f.battery.spec.chem.lithium,
        f.need.day.runs_per_day > 1,
        tuple(p.id for p in parts if p is not None and p.id),
    )


def care_for(p: Profile, edits: Iterable[Edit] = ()) -> tuple[Care, ...]:
    """All steps for a boat: Jolvek's, changed by the shop's edits; those of a product come after
    those for all boats.

    >>> p = Profile(True, False, False, ("motor-1",))
    >>> {c.kind for c in care_for(p)} == set(KINDS)
    True
    >>> own = Edit("motor-1", "shaft", Care("shaft", "hours", "Grease", 25, source="its manual"))
    >>> [c.every for c in care_for(p, [own]) if c.key == "shaft"]
    [25]
    >>> "cord" in {c.key for c in care_for(p, [Edit("", "cord", None)])}
    False
    """
    steps = {c.key: c for c in _usual(p)}
    for e in sorted(edits, key=lambda e: e.product_id != ""):
        if e.product_id and e.product_id not in p.products:
            continue
        if e.care is None:
            steps.pop(e.key, None)
        else:
            steps[e.key] = e.care
    return tuple(steps.values())


def _usual(p: Profile) -> tuple[Care, ...]:
    stored = (
        msg("Top the battery up.") if p.lead else msg("Look at the charge of the battery in store.")
    )
    anode = Care("anode", "months", msg("Anode: replace when half worn."), 6)
    return (
        *_each_trip(p.salt),
        SHAFT,
        TERMINALS,
        Care(
            "seals",
            "hours",
            msg("Shaft seals by a workshop."),
            HIRED_SEALS_H if p.hired else SEALS_H,
        ),
        START,
        LAY_UP_LEAD if p.lead else LAY_UP,
        Care("charge-check", "months", stored, 1 if p.lead else 3, at=LAID_UP),
        *YEARLY,
        *((anode,) if p.salt else ()),
    )


def _each_trip(salt: bool) -> tuple[Care, ...]:
    wash = (
        msg("Rinse motor and leg with fresh water, dry") if salt else msg("Wipe motor and leg dry")
    )
    look = msg("Look behind the propeller for line, at its blades for nicks.")
    return (
        Care("rinse", "trip", msg("%(wash)s, caps on the sockets.", wash=wash)),
        Care("line", "trip", look, hazard=SWITCHED_OFF),
        Care("contacts", "trip", msg("Look at plugs and contacts: dry, no green, pressed home.")),
    )
