"""Ranking: scores by visible weights, the Pareto set, and what the next step of money buys."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from jolvek.core.base.arrays import Array, Index
from jolvek.core.enquiry.need import WISHES
from jolvek.core.match.banks import Supplies
from jolvek.core.match.matching import Match
from jolvek.core.match.sensible import sensible
from jolvek.core.products.mounting import PLATE_BELOW_M

SHORT_POOL = 4000
DEEP_LOSES_PER_M = 0.1  # marks: 0.01 for the next longer shaft
LATE = 0.4  # of the marks that a setup can lose by filling late
GRID_CELLS = 4e6  # of the Pareto grid; coarser levels are taken past it


@dataclass(frozen=True)
class Step:
    """What a budget step buys: the best range at the wanted speed, and what it gains on the step
    before.
    """

    budget: float
    index: int
    range_m: float
    top_speed_m_s: float


def measures(match: Match) -> dict[str, Array]:
    """Each wish as a figure from 0 (worst) to 1 (best among those that do the day), arrays (N,).

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> boat = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36)
    >>> m = match(Need(boat, Load(2)), sample())
    >>> measures(m)["price"].max().item(), sorted(measures(m))
    (1.0, ['hands_free', 'light', 'price', 'range', 'silence', 'speed', 'tidy'])
    """
    field, s, d = match.field, match.supplies, match.drives
    if not field.price.size:
        return {wish: np.zeros(0) for wish in WISHES}
    noise = np.where(np.isnan(field.noise_db), 65.0, field.noise_db)
    base = field.does_day if field.does_day.any() else np.ones(field.price.size, dtype=bool)

    def small(x: Array) -> Array:
        return np.asarray(np.minimum(np.maximum(x[base].min(), 1e-9) / np.maximum(x, 1e-9), 1.0))

    def large(x: Array, asked: float) -> Array:
        """Marks of the largest, and of what falls short of the day the part of it that is had."""
        most = max(float(x[base].max()), asked, 1e-9)
        return np.asarray(np.minimum(x / most, 1.0))

    clips = np.array([bool(item.pack_ids) for item in match.shelf.motors], dtype=bool)[d.motor]
    packs = (s.series * s.parallel).astype(float)[field.supply]
    return {
        "price": small(field.price),
        "light": 0.5 * (small(field.lift_kg) + small(field.mass_kg)),
        "range": large(field.range_m, match.need.day.distance_m),
        "speed": large(field.top_speed_m_s, match.need.day.speed_m_s),
        "silence": np.clip((80.0 - noise) / 40.0, 0, 1),
        "hands_free": d.hands_free[field.drive].astype(float),
        "tidy": np.where(clips[field.drive], 1.0, 0.8 / packs),
    }


def in_time(match: Match) -> Array:
    """What is left of a setup's marks (N,) where it does not fill in the hours given: 1 where it
    does, down to 1 − LATE.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> boat = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36)
    >>> in_time(match(Need(boat, Load(2)), sample())).tolist()[0]
    1.0
    """
    hours = np.where(np.isnan(match.field.charge_h), 0.0, match.field.charge_h)
    given = match.need.day.charge_h
    return np.asarray(1.0 - LATE * (1.0 - given / np.maximum(hours, given)))


def score(match: Match, values: dict[str, Array] | None = None) -> Array:
    """Weighted mean of the measures (N,), 0–1; setups that do not do the day rank below all that
    do.

    `values` may be handed in where only the weights change.

    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.shelf import Shelf
    >>> score(run(Need(Hull("kayak", 3.7, 0.78, 34), Load(1)), Shelf())).size
    0
    """
    values, need, f = values or measures(match), match.need, match.field
    total = sum(need.weight(wish) for wish in WISHES) or 1.0
    mean = np.zeros(f.price.size)
    for wish in WISHES:
        if need.weight(wish):
            mean += need.weight(wish) / total * values[wish]
    out = mean * in_time(match) - _too_deep(match)
    # what nobody has said ranks behind what is known, and before what does not do the day
    unknown = match.not_given & f.does_day
    out[unknown] = 0.5 * out[unknown] - 0.5
    short = np.nonzero(~f.does_day)[0]
    day = np.minimum(f.range_m[short] / max(need.day.distance_m, 1.0), 1.0) * np.minimum(
        f.top_speed_m_s[short] / need.day.speed_m_s, 1.0
    )
    out[short] = 0.5 * out[short] * day - 1.0
    return out


def _too_deep(match: Match) -> Array:
    """What a longer shaft than the transom asks for loses (N,): it drags, and grounds earlier."""
    below = np.nan_to_num(match.drives.plate_m[match.field.drive], nan=PLATE_BELOW_M)
    return np.asarray(DEEP_LOSES_PER_M * np.maximum(below - PLATE_BELOW_M, 0.0))


def ranked(
    match: Match,
    most: int = 12,
    per_motor: int = 2,
    keep: NDArray[np.bool_] | None = None,
    values: dict[str, Array] | None = None,
) -> list[int]:
    """Indices of the best candidates, best first, at most `per_motor` of one motor; of those in
    `keep` (N,) if given.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2)), sample())
    >>> len(ranked(m)), int(m.supplies.parallel[m.field.supply[ranked(m)[0]]])
    (2, 1)
    """
    marks = score(match, values)
    if keep is not None:
        marks = np.where(keep, marks, -9.0)
    f, d, s = match.field, match.drives, match.supplies
    pool = (
        np.argpartition(-marks, min(SHORT_POOL, marks.size) - 1)[:SHORT_POOL]
        if marks.size
        else np.zeros(0, dtype=int)
    )
    out = _spread(
        pool[np.argsort(-marks[pool], kind="stable")],
        marks,
        f.drive,
        f.supply,
        d.motor,
        s,
        most,
        per_motor,
    )
    if len(out) < most and marks.size > SHORT_POOL:
        out = _spread(
            np.argsort(-marks, kind="stable"), marks, f.drive, f.supply, d.motor, s, most, per_motor
        )
    return out


def _spread(
    order: Index,
    marks: Array,
    drive: Index,
    supply: Index,
    motor_of: Index,
    s: Supplies,
    most: int,
    per_motor: int,
) -> list[int]:
    """The first of an order with few of one motor and none with the same bank twice."""
    seen: dict[int, int] = {}
    banks: set[tuple[int, ...]] = set()
    out: list[int] = []
    for i in order.tolist():
        if marks[i] <= -9.0 or len(out) == most:
            break
        motor, k = int(motor_of[drive[i]]), int(supply[i])
        if seen.get(motor, 0) >= per_motor:
            continue
        key = (motor, int(s.battery[k]), int(s.series[k]), int(s.parallel[k]))
        if key not in banks:
            seen[motor] = seen.get(motor, 0) + 1
            banks.add(key)
            out.append(i)
    return out


def pareto(match: Match, most: int = 4000, fineness: float = 0.01) -> Index:
    """Indices of setups that no other beats at once in price, weight, range and speed, cheapest
    first.

    Figures within `fineness` (1 %, or 2 % where the field is wide) count as equal, so that hair's
    breadths do not fill the set. The levels make a grid of weight × range × speed that holds the
    lowest price; a running minimum along each axis then tells at once whether anything at least as
    good costs no more. Linear in the candidates.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2)), sample())
    >>> m.field.price[pareto(m)].tolist()
    [2000.0, 2700.0, 3400.0, 4100.0]
    """
    f = match.field
    pool = np.nonzero(f.does_day)[0] if f.does_day.any() else np.arange(f.price.size)
    if not pool.size:
        return np.zeros(0, dtype=int)
    logs = [np.log(np.maximum(x[pool], 1e-6)) for x in (f.mass_kg, f.range_m, f.top_speed_m_s)]
    axes = [
        np.floor((sign * (x - (x.min() if sign > 0 else x.max()))) / fineness).astype(np.int64)
        for x, sign in zip(logs, (1, -1, -1), strict=True)
    ]
    shape = tuple(int(axis.max()) + 2 for axis in axes)
    if np.prod(shape, dtype=float) > GRID_CELLS:
        return pareto(match, most, 2 * fineness)
    price = np.floor(np.log(np.maximum(f.price[pool], 1e-2)) / fineness).astype(np.int32)
    cell = np.ravel_multi_index(
        tuple(axis + 1 for axis in axes), shape
    )  # a rim of one cell stands for "better than all"
    lowest = np.full(shape, np.iinfo(np.int32).max, dtype=np.int32)
    np.minimum.at(lowest.reshape(-1), cell, price)
    running = lowest
    for axis in range(3):
        running = np.minimum.accumulate(running, axis=axis)
    flat = running.reshape(-1)
    strides = (shape[1] * shape[2], shape[2], 1)
    better = np.minimum.reduce([flat[cell - stride] for stride in strides])
    front = (price == lowest.reshape(-1)[cell]) & (price < better)
    pool, cell = pool[front], cell[front]
    order = np.argsort(f.price[pool], kind="stable")
    first = np.unique(cell[order], return_index=True)[1]  # one of each cell, the cheapest
    return np.asarray(pool[order][np.sort(first)][:most])


def steps(match: Match, size: float = 500.0, most: int = 6) -> list[Step]:
    """What each further `size` of money buys: the longest range at the wanted speed within the
    budget.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2)), sample())
    >>> [s.budget for s in steps(m)]
    [2000.0, 3000.0, 3500.0, 4500.0]
    """
    f = match.field
    reaches = ~np.isnan(f.power_at_wish_w)
    able = sensible(match, reaches)
    if not able.size:
        return []
    out: list[Step] = []
    budget = float(np.ceil(f.price[able].min() / size) * size)
    while len(out) < most and budget <= float(f.price[able].max()) + size:
        within = able[f.price[able] <= budget]
        i = int(within[np.argmax(f.range_m[within])])
        if not out or f.range_m[i] > out[-1].range_m * 1.02:
            out.append(Step(budget, i, float(f.range_m[i]), float(f.top_speed_m_s[i])))
        budget += size
    return out
