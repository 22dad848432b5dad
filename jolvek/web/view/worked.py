"""What the pages need, worked out by plain functions from store and core; no HTML here."""

from __future__ import annotations

import sqlite3
from collections import OrderedDict
from dataclasses import dataclass, replace
from functools import cached_property
from threading import Lock

import numpy as np

from jolvek.core.electric.bank import Bank, layout
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sizing import Sizing, size
from jolvek.core.fit.fitted import Fitted
from jolvek.core.hydro.floating import awash_kg, float_at, hull_speed_m_s
from jolvek.core.match.matching import Match
from jolvek.core.match.matching import match as run_match
from jolvek.core.match.ranking import Pick, Step, measures, pareto, picks, steps
from jolvek.core.predict.performance import Performance, Point
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item, Shelf
from jolvek.core.rules.findings import Finding, worst
from jolvek.store import shelf as shelf_store
from jolvek.store.enquiries import Stored
from jolvek.store.setups import Pinned

STATIONS = (
    (1, "boat", "Boat"),
    (2, "waters", "Waters"),
    (3, "shortlist", "Shortlist"),
    (4, "side_by_side", "Side by side"),
    (5, "day_out", "Day out"),
    (6, "fitting", "Fitting"),
    (7, "offer", "Offer"),
    (8, "", "Handover"),
    (9, "", "Aftercare"),
)


@dataclass(frozen=True)
class Tick:
    """One station on the sheer line: endpoint of its page (empty: not built yet) and its state."""

    number: int
    endpoint: str
    name: str
    state: str  # done | empty | look | blocked
    says: str


@dataclass(frozen=True)
class Worked:
    """One pinned setup worked out for its enquiry."""

    pinned: Pinned
    fitted: Fitted

    @property
    def letter(self) -> str:
        """Its letter."""
        return self.pinned.letter

    @property
    def performance(self) -> Performance:
        """Its figures."""
        return self.fitted.performance

    @cached_property
    def wish(self) -> Point:
        """At the wished speed."""
        return self.performance.at_speed(self.fitted.need.day.speed_m_s)

    @property
    def findings(self) -> list[Finding]:
        """What the rule book says, worst first."""
        return self.fitted.findings

    @property
    def charge_h(self) -> float | None:
        """Hours from the reserve to full."""
        return self.fitted.charge_h

    @property
    def bank_text(self) -> str:
        """The bank in words."""
        return layout(self.fitted.bank)

    @property
    def level(self) -> str:
        """Worst level of its findings."""
        return worst(self.findings)

    @property
    def lift_kg(self) -> float:
        """Heaviest single lift."""
        return self.fitted.lift_kg

    @property
    def parts_kg(self) -> float:
        """Motor, mount and bank."""
        s = self.performance.setup
        return s.motor.weight_kg + s.mount_kg + (s.bank.mass_kg if s.bank else 0.0)

    @property
    def blocked(self) -> bool:
        """Whether it cannot be offered."""
        return self.level == "block"


@dataclass(frozen=True)
class Card:
    """The boat card at the left of every station."""

    sizing: Sizing
    draught_m: float
    hull_speed_m_s: float
    displacement_kg: float
    awash: bool
    in_hand: Worked | None
    ticks: tuple[Tick, ...]


def work_out(need: Need, pinned: Pinned) -> Worked:
    """Performance and findings of one pinned setup on one boat."""
    item = {p.kind: p.item for p in pinned.parts}
    return Worked(
        pinned,
        Fitted(
            need,
            item["motor"],
            item["battery"],
            item["mount"],
            item.get("charger"),
            pinned.series,
            pinned.parallel,
            pinned.shaft_m,
        ),
    )


def card(stored: Stored, pinned: list[Pinned], here: str) -> Card:
    """Boat card and sheer line."""
    need = stored.need
    chosen = next((p for p in pinned if p.chosen), pinned[0] if pinned else None)
    in_hand = work_out(need, chosen) if chosen else None
    sizing = size(need)
    mass = in_hand.performance.displacement_kg if in_hand else sizing.displacement_kg
    rho = need.water.density_kg_m3
    return Card(
        sizing,
        float(float_at(need.hull, mass, rho).draught_m),
        float(hull_speed_m_s(need.hull.waterline_m)),
        mass,
        mass >= awash_kg(need.hull, rho),
        in_hand,
        ticks(need, pinned, in_hand),
    )


def ticks(need: Need, pinned: list[Pinned], in_hand: Worked | None) -> tuple[Tick, ...]:
    """The nine stations with what each still lacks."""
    chosen = any(p.chosen for p in pinned)
    level = in_hand.level if in_hand else "fine"
    side = (
        ("empty", "pin a setup first")
        if not pinned
        else (
            ("blocked", "a setup cannot be offered")
            if level == "block"
            else (
                ("look", "one setup only: pin another to compare")
                if len(pinned) == 1
                else ("done", f"{len(pinned)} setups")
            )
        )
    )
    offer = (
        ("empty", "choose a setup first")
        if not chosen
        else (
            ("blocked", "cannot be offered")
            if level == "block"
            else ("look", "read the cautions")
            if level == "caution"
            else ("done", "ready")
        )
    )
    lacks = "transom" in need.site.places and need.hull.transom_height_m is None
    state = {
        "boat": (
            ("look", "transom height is estimated")
            if lacks
            else ("done", "sizes and load are given")
        ),
        "waters": (
            ("blocked", "a current as fast as the boat")
            if need.day_blocked
            else (
                "done",
                f"{len(need.day.legs)} legs" if need.day.legs else "speed and distance are given",
            )
        ),
        "fitting": (
            ("empty", "pin a setup first")
            if not pinned
            else (
                ("look", "see the findings")
                if in_hand and in_hand.level in ("caution", "block")
                else ("done", "fits")
            )
        ),
        "day_out": ("empty", "pin a setup first") if not pinned else ("done", "the day can be run"),
        "shortlist": ("done", "setups pinned") if pinned else ("empty", "nothing pinned yet"),
        "side_by_side": side,
        "offer": offer,
    }
    return tuple(
        Tick(n, endpoint, name, *state.get(endpoint, ("empty", "not built yet")))
        for n, endpoint, name in STATIONS
    )


@dataclass(frozen=True)
class Answer:
    """A match with what of its ranking does not hang on the weights, kept while only they
    change.
    """

    match: Match
    shelf: Shelf

    @cached_property
    def measures(self) -> dict[str, np.ndarray]:
        """Each wish as a figure from 0 to 1."""
        return measures(self.match)

    @cached_property
    def picks(self) -> list[Pick]:
        """The named picks."""
        return picks(self.match)

    @cached_property
    def front(self) -> np.ndarray:
        """The Pareto set."""
        return pareto(self.match)

    @cached_property
    def steps(self) -> list[Step]:
        """What each step of money buys."""
        return steps(self.match)


MOST_CANDIDATES = 200_000  # more than one looks at; keeps a cold shortlist under a second
_ANSWERS: OrderedDict[tuple[Need, int], Answer] = OrderedDict()
_LOCK = Lock()


def answered(need: Need, shelf: Shelf) -> Answer:
    """The match for a need; kept while only the weights of the wishes change."""
    key = (replace(need, weights=()), id(shelf))
    with _LOCK:
        if key in _ANSWERS:
            _ANSWERS.move_to_end(key)
            return _ANSWERS[key]
    answer = Answer(run_match(key[0], shelf, most=MOST_CANDIDATES), shelf)
    with _LOCK:
        _ANSWERS[key] = answer
        while len(_ANSWERS) > 12:
            _ANSWERS.popitem(last=False)
    return answer


def matched(need: Need, shelf: Shelf) -> Match:
    """The match alone, with this need's weights."""
    return replace(answered(need, shelf).match, need=need)


_SHELVES: dict[str, tuple[str, Shelf]] = {}


def shelf_of(conn: sqlite3.Connection) -> Shelf:
    """What the shop offers, read again when the shelf changed."""
    path, now = conn.execute("PRAGMA database_list").fetchone()[2], shelf_store.version(conn)
    if _SHELVES.get(path, (None,))[0] != now:
        _SHELVES[path] = (now, shelf_store.load(conn).on_offer)
    return _SHELVES[path][1]


@dataclass(frozen=True)
class Row:
    """One candidate as the shortlist shows it."""

    index: int
    motor: Item[Motor]
    battery: Item[Battery]
    mount: Item[Mount]
    charger: Item[Charger] | None
    series: int
    parallel: int
    shaft_m: float | None
    top_speed_m_s: float
    power_w: float | None
    runtime_s: float
    range_m: float
    price: float
    mass_kg: float
    lift_kg: float
    charge_h: float | None
    does_day: bool
    why: str

    @property
    def bank_text(self) -> str:
        """The bank in words."""
        return layout(Bank(self.battery.spec, self.series, self.parallel))

    @property
    def energy_wh(self) -> float:
        """Rated energy of the bank."""
        return Bank(self.battery.spec, self.series, self.parallel).energy_wh

    @property
    def key(self) -> str:
        """The same parts have the same key, pinned or not."""
        ids = [f"motor:{self.motor.id}", f"battery:{self.battery.id}", f"mount:{self.mount.id}"]
        ids += [f"charger:{self.charger.id}"] if self.charger else []
        return "|".join(
            [*sorted(ids), f"{self.series}s{self.parallel}p", f"{self.shaft_m or 0:.3f}"]
        )


def row(match: Match, index: int, why: str = "") -> Row:
    """Candidate `index` with its products."""
    f, d, s, shelf = match.field, match.drives, match.supplies, match.shelf
    drive, supply = int(f.drive[index]), int(f.supply[index])
    shaft, charger, hours = (
        float(d.shaft_m[drive]),
        int(s.charger[supply]),
        float(f.charge_h[index]),
    )
    power = float(f.power_at_wish_w[index])
    return Row(
        index,
        shelf.motors[d.motor[drive]],
        shelf.batteries[s.battery[supply]],
        shelf.mounts[d.mount[drive]],
        shelf.chargers[charger] if charger >= 0 else None,
        int(s.series[supply]),
        int(s.parallel[supply]),
        None if np.isnan(shaft) else shaft,
        float(f.top_speed_m_s[index]),
        None if np.isnan(power) else power,
        float(f.runtime_s[index]),
        float(f.range_m[index]),
        float(f.price[index]),
        float(f.mass_kg[index]),
        float(f.lift_kg[index]),
        None if np.isnan(hours) else hours,
        bool(f.does_day[index]),
        why,
    )
