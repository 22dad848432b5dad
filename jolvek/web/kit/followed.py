"""What a change brought, in the reader's words and units."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.job.changes import LEADING, Changes, MovedFigure
from jolvek.core.job.figures import Figure
from jolvek.web.kit.display import Units, money
from jolvek.web.kit.figures import written
from jolvek.web.kit.language import tr

NAMES = {
    "wish": msg("at the wanted speed"),
    "full": msg("at full power"),
    "half": msg("at half power"),
    "lowest": msg("at the lowest step"),
}
_OF_A_WAY = {
    "speed": msg("Speed %(way)s"),
    "power": msg("Power %(way)s"),
    "time": msg("Running time %(way)s"),
    "range": msg("Range %(way)s"),
    "amps": msg("Current %(way)s"),
}
LABELS = {
    "top": msg("Top speed"),
    "thrust": msg("Static thrust"),
    "lift": msg("Heaviest lift"),
    "mass": msg("Weight of motor, mount and battery"),
    "loaded": msg("Loaded weight"),
    "charge.time": msg("Time to charge"),
    "noise": msg("Noise"),
    "bank.energy": msg("Energy of the battery bank"),
    "kept": msg("Kept at the end"),
    "handling.to-speed": msg("Time to 90 % of top speed"),
    "handling.coasts": msg("Coasts for"),
    "day.energy": msg("Energy of the day"),
    "day.hours": msg("Time out"),
    "day.left": msg("Charge left at home"),
    "day.left.low": msg("Charge left at home, at least"),
    "day.left.high": msg("Charge left at home, at most"),
    "day.end": msg("Home at"),
    "day.far": msg("Distance of the day"),
    "day.likely": msg("The day"),
    "day.turn": msg("Last point from which the boat gets home"),
    "day.slowest": msg("Slowest speed that brings the boat home"),
    "day.fastest": msg("Fastest speed that brings the boat home"),
    "day.cheapest": msg("Speed of least energy"),
    "price.parts": msg("Price, parts only"),
    "price.fitted": msg("Price, fitted"),
    "price.add-ons": msg("Price of the add-ons"),
    "cable.run": msg("Cable, one way"),
    "cable.size": msg("Cable size"),
    "fuse.main": msg("Main fuse"),
    "leg.hub": msg("Depth of the hub"),
    "trim": msg("Trim"),
}


FIRST = 4  # figures that stand in sight; what is newly found always does


@dataclass(frozen=True)
class Strip:
    """What followed: the texts in sight, the others, and whether it can be taken back."""

    first: tuple[str, ...]
    more: tuple[str, ...]
    undo: bool = False
    done: str = ""  # what the change was, where it moved no figure


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
    new = [tr("New: %(text)s", text=u.rendered(f).text) for f in found.new if f.level != "note"]
    notes = [tr("New: %(text)s", text=u.rendered(f).text) for f in found.new if f.level == "note"]
    gone = [tr("No longer: %(text)s", text=u.rendered(f).text) for f in found.gone]
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
