"""What an enquiry matches on the shelf, remembered while only the weights change, and its rows."""

from __future__ import annotations

import sqlite3
from collections import OrderedDict
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from threading import Lock, Thread
from typing import Any

import numpy as np

from jolvek.core.electric.bank import Bank, layout, rating
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.match.likely import likely
from jolvek.core.match.matching import Match
from jolvek.core.match.matching import match as run_match
from jolvek.core.match.picks import Pick, picks
from jolvek.core.match.ranking import Step, measures, pareto, steps
from jolvek.core.match.whole import fitted_of, parts_of
from jolvek.core.predict.likelihood import LIKELY, UNLIKELY
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.rates import Rates
from jolvek.core.products.shelf import Item, Shelf
from jolvek.core.products.unknown import shaft_unknown, weight_unknown
from jolvek.store import own_gear
from jolvek.store import shelf as shelf_store
from jolvek.web.kit import language
from jolvek.web.kit.language import tr
from jolvek.web.kit.rates import shop_rates


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

    @cached_property
    def size_bytes(self) -> int:
        """Memory that the arrays of the match hold."""
        m = self.match
        parts = (m.field, m.drives, m.supplies, m.motors)
        arrays = (x for part in parts for x in vars(part).values() if isinstance(x, np.ndarray))
        table = m.resistance.log_wave.nbytes if m.resistance else 0
        derived = 12 * m.field.price.nbytes  # measures, front and picks, once asked for
        return sum(x.nbytes for x in arrays) + table + derived


MOST_CANDIDATES = 200_000  # more than one looks at; keeps a cold shortlist under a second
MOST_BYTES = 96_000_000  # of remembered matches
Key = tuple[Need, int, Rates]
_ANSWERS: OrderedDict[Key, Answer] = OrderedDict()
_LOCK = Lock()


def _key(need: Need, shelf: Shelf, rates: Rates | None = None) -> Key:
    return replace(need, weights=()), id(shelf), rates or shop_rates()


def answered(need: Need, shelf: Shelf, rates: Rates | None = None) -> Answer:
    """The match for a need at the shop's rates; remembered while only the weights of the wishes
    change.
    """
    key = _key(need, shelf, rates)
    with _LOCK:
        if key in _ANSWERS:
            _ANSWERS.move_to_end(key)
            return _ANSWERS[key]
    found = run_match(key[0], shelf, most=MOST_CANDIDATES, rates=key[2])
    answer = Answer(found, shelf)
    with _LOCK:
        _ANSWERS[key] = answer
        while len(_ANSWERS) > 1 and sum(a.size_bytes for a in _ANSWERS.values()) > MOST_BYTES:
            _ANSWERS.popitem(last=False)
    return answer


LARGE = 1500  # products from which on a match is worked out beside the page
_ONE = Lock()  # large matches are worked out one after the other
_UNDER_WAY: set[Key] = set()


def is_ready(need: Need, shelf: Shelf) -> bool:
    """Whether a page may wait for the match: it is remembered, or quick."""
    parts = (shelf.motors, shelf.batteries, shelf.mounts, shelf.chargers)
    key = _key(need, shelf)
    with _LOCK:
        return sum(map(len, parts)) < LARGE or key in _ANSWERS


def begin(need: Need, shelf: Shelf) -> None:
    """Work a match out in the background, once, so that the page that asks again finds it."""
    key = _key(need, shelf)
    with _LOCK:
        if key in _UNDER_WAY:
            return
        _UNDER_WAY.add(key)

    def run() -> None:
        try:
            with _ONE:
                answered(need, shelf, key[2])
        finally:
            with _LOCK:
                _UNDER_WAY.discard(key)

    Thread(target=run, name="match", daemon=True).start()


def matched(need: Need, shelf: Shelf) -> Match:
    """The match alone, with this need's weights."""
    return replace(answered(need, shelf).match, need=need)


_SHELVES: dict[str, tuple[str, Shelf, Shelf]] = {}


def _shelves(conn: sqlite3.Connection) -> tuple[str, Shelf, Shelf]:
    """The shelf's version, all of it and what is offered, read again when it changed."""
    path, now = conn.execute("PRAGMA database_list").fetchone()[2], shelf_store.version(conn)
    found = _SHELVES.get(path)
    if found is None or found[0] != now:
        whole = shelf_store.load(conn)
        found = _SHELVES[path] = (now, whole, whole.on_offer)
    return found


def whole_shelf(conn: sqlite3.Connection) -> Shelf:
    """Every product that can be read, the discontinued ones too."""
    return _shelves(conn)[1]


def shelf_of(conn: sqlite3.Connection) -> Shelf:
    """What the shop offers."""
    return _shelves(conn)[2]


@lru_cache(maxsize=16)
def _with_own(shelf: Shelf, own: tuple[tuple[str, tuple[Item[Any], ...]], ...]) -> Shelf:
    return shelf.with_own(dict(own))


def shelf_for(conn: sqlite3.Connection, enquiry_id: int) -> Shelf:
    """What the shop offers, and what this customer has."""
    own = own_gear.items(conn, enquiry_id)
    return _with_own(shelf_of(conn), tuple(own.items())) if own else shelf_of(conn)


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
    price: float  # the one that ranks
    parts_price: float
    fitted_price: float
    mass_kg: float
    lift_kg: float
    charge_h: float | None
    does_day: bool
    open: tuple[str, ...]  # what of it nobody has said
    chance: float | None  # of managing the day; None where something stands against every setup
    as_wished: bool  # as fast as requested on every leg
    why: str

    @property
    def volts_text(self) -> str:
        """The bank's volts and ampere hours alone."""
        bank = Bank(self.battery.spec, self.series, self.parallel)
        return str(language.shown(rating(bank.nominal_v, bank.capacity_ah)))

    @property
    def bank_text(self) -> str:
        """The bank in words."""
        return str(language.shown(layout(Bank(self.battery.spec, self.series, self.parallel))))

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


def _open(match: Match, index: int) -> tuple[str, ...]:
    """What of a candidate nobody has said, in words."""
    if not match.not_given[index]:
        return ()
    motor, battery, *_ = parts_of(match, index)
    drive = int(match.field.drive[index])
    short = -1000 * float(np.nan_to_num(match.drives.plate_m[drive], nan=0.0))
    rows = (
        (shaft_unknown(motor), tr("shaft not given")),
        (weight_unknown(motor), tr("motor’s weight not given")),
        (weight_unknown(battery), tr("battery’s weight not given")),
        (
            not match.need.hull.transom_height_m and short > 1,
            tr("shaft %(short)s mm too short for the estimated transom", short=f"{short:.0f}"),
        ),
    )
    return tuple(text for known, text in rows if known)


NEAR = 0.1  # of a chance, to where another word for it begins


@lru_cache(maxsize=512)
def _exact(fitted: Fitted) -> float:
    return of_fitted(fitted).day.chance


def _chance(match: Match, index: int) -> float:
    """Of managing the day at the requested speed; where the word for it is near to another, it is
    worked out as once the setup is pinned.
    """
    rough = float(likely(match, index))
    near = any(abs(rough - limit) < NEAR for limit in (LIKELY, UNLIKELY))
    return _exact(fitted_of(match, index)) if near else rough


def row(match: Match, index: int, why: str = "") -> Row:
    """Candidate `index` with its products; what it does is worked out as it is once pinned."""
    f, job = match.field, of_fitted(fitted_of(match, index))
    hours, power, at = float(f.charge_h[index]), float(f.power_at_wish_w[index]), job.wish_or_top
    return Row(
        index,
        *parts_of(match, index),
        job.performance.top_speed_m_s,
        None if np.isnan(power) else at.power_w,
        at.runtime_s or 0.0,
        at.range_m or 0.0,
        float(f.price[index]),
        float(f.parts_price[index]),
        float(f.fitted_price[index]),
        float(f.mass_kg[index]),
        float(f.lift_kg[index]),
        None if np.isnan(hours) else hours,
        bool(f.does_day[index]),
        _open(match, index),
        None if match.need_findings else _chance(match, index),
        bool(np.isfinite(f.day_wh[index])),
        why,
    )
