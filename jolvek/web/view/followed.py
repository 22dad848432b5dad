"""What a change brought, in the reader's words and units."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.told import tell
from jolvek.core.job.changes import LEADING, Changes, MovedFigure
from jolvek.core.job.figures import Figure
from jolvek.web.view.display import Units, money
from jolvek.web.view.figures import written
from jolvek.web.view.language import tr

NAMES = {
    "wish": tell("at the wanted speed"),
    "full": tell("at full power"),
    "half": tell("at half power"),
    "lowest": tell("at the lowest step"),
}
_OF_A_WAY = {
    "speed": tell("Speed %(way)s"),
    "power": tell("Power %(way)s"),
    "time": tell("Running time %(way)s"),
    "range": tell("Range %(way)s"),
    "amps": tell("Current %(way)s"),
}
LABELS = {
    "top": tell("Top speed"),
    "thrust": tell("Static thrust"),
    "lift": tell("Heaviest lift"),
    "mass": tell("Weight of motor, mount and battery"),
    "loaded": tell("Loaded weight"),
    "charge.time": tell("Time to charge"),
    "noise": tell("Noise"),
    "bank.energy": tell("Energy of the battery bank"),
    "kept": tell("Kept at the end"),
    "handling.to-speed": tell("Time to 90 % of top speed"),
    "handling.coasts": tell("Coasts for"),
    "day.energy": tell("Energy of the day"),
    "day.hours": tell("Time out"),
    "day.left": tell("Charge left at home"),
    "day.left.low": tell("Charge left at home, at least"),
    "day.left.high": tell("Charge left at home, at most"),
    "day.end": tell("Home at"),
    "day.far": tell("Distance of the day"),
    "day.likely": tell("Home with the reserve"),
    "day.turn": tell("Last point from which the boat gets home"),
    "day.slowest": tell("Slowest speed that brings the boat home"),
    "day.fastest": tell("Fastest speed that brings the boat home"),
    "day.cheapest": tell("Speed of least energy"),
    "price.parts": tell("Price, parts only"),
    "price.fitted": tell("Price, fitted"),
    "price.add-ons": tell("Price of the add-ons"),
    "cable.run": tell("Cable, one way"),
    "cable.size": tell("Cable size"),
    "fuse.main": tell("Main fuse"),
    "leg.hub": tell("Depth of the hub"),
    "trim": tell("Trim"),
}


FIRST = 4  # figures that stand in sight; what is newly found always does


@dataclass(frozen=True)
class Strip:
    """What followed: the texts in sight, the others, and whether it can be taken back."""

    first: tuple[str, ...]
    more: tuple[str, ...]
    undo: bool = False


def label(key: str) -> str:
    """A figure's name."""
    way, _, what = key.partition(".")
    if way in NAMES:
        return tr(_OF_A_WAY[what], way=tr(NAMES[way]))
    return tr(LABELS[key])


def strip(found: Changes, u: Units, undo: bool = False) -> Strip:
    """The changes in words; a figure whose text is the same did not change for a reader."""
    parts = [_part(*x) for x in found.parts]
    lead: list[str] = []
    rest: list[str] = []
    for x in found.figures:
        text = _figure(x, u)
        if text:
            (lead if x.key in LEADING else rest).append(text)
    new = [tr("New: %(text)s", text=u.said(f).text) for f in found.new if f.level != "note"]
    notes = [tr("New: %(text)s", text=u.said(f).text) for f in found.new if f.level == "note"]
    gone = [tr("No longer: %(text)s", text=u.said(f).text) for f in found.gone]
    return Strip((*parts, *lead[:FIRST], *new), (*lead[FIRST:], *rest, *notes, *gone), undo)


def _part(was: str, now: str) -> str:
    if not was:
        return tr("%(now)s was added.", now=now)
    if not now:
        return tr("%(was)s was removed.", was=was)
    return tr("%(was)s is now %(now)s.", was=was, now=now)


def _figure(x: MovedFigure, u: Units) -> str:
    before, after = written(x.before, u), written(x.after, u)
    if before == after:
        return ""
    if x.key.startswith("price."):
        return f"{label(x.key)} {before} → {after} ({_more(x.before, x.after)})"
    return f"{label(x.key)} {before} → {after}"


def _more(before: Figure, after: Figure) -> str:
    apart = float(after.value or 0) - float(before.value or 0)
    return f"{'+' if apart > 0 else '−'} {money(abs(apart))}"
