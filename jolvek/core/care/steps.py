"""The care of a rigged boat as data: after each trip, by hours, by date, and what has a shelf life.
Makers' manuals come first.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.fit.fitted import Fitted
from jolvek.core.rules.rule import COMMON

KINDS = ("trip", "hours", "date", "months")
SEASON_START, SEASON_END, LAID_UP = "start", "end", "laid up"


@dataclass(frozen=True)
class Care:
    """One step of care: due after each trip, every so many hours, at the start or end of the
    season, or every so many months (while laid up alone, where `at` says so); hazard and source.
    """

    key: str
    kind: str
    text: str
    every: float = 0.0  # hours or months
    at: str = ""  # of the season
    hazard: str = ""
    source: str = COMMON


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


def care_of(f: Fitted) -> tuple[Care, ...]:
    """All steps for one setup on its water.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> found = care_of(sample_fitted())
    >>> {c.kind for c in found} == set(KINDS), len({c.key for c in found}) == len(found)
    (True, True)
    """
    salt, lead = f.need.water.kind == "salt", not f.battery.spec.chem.lithium
    hired = f.need.day.runs_per_day > 1
    stored = "Top the battery up." if lead else "Look at the charge of the battery in store."
    anode = Care("anode", "months", "Anode: anew when half of it is gone.", 6)
    return (
        *_each_trip(salt),
        SHAFT,
        TERMINALS,
        Care("seals", "hours", "Shaft seals by a workshop.", HIRED_SEALS_H if hired else SEALS_H),
        START,
        LAY_UP_LEAD if lead else LAY_UP,
        Care("charge-check", "months", stored, 1 if lead else 3, at=LAID_UP),
        *YEARLY,
        *((anode,) if salt else ()),
    )


def _each_trip(salt: bool) -> tuple[Care, ...]:
    wash = "Rinse motor and leg with fresh water, dry" if salt else "Wipe motor and leg dry"
    look = "Look behind the propeller for line, at its blades for nicks."
    return (
        Care("rinse", "trip", f"{wash}, caps on the sockets."),
        Care("line", "trip", look, hazard=SWITCHED_OFF),
        Care("contacts", "trip", "Look at plugs and contacts: dry, no green, pressed home."),
    )
