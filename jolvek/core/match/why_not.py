"""Why products fell out of a match: for each product the binding rule with the missing amount."""

from __future__ import annotations

from collections.abc import Set

import numpy as np

from jolvek.core.base.arrays import Index
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import Need
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.field import Field
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding, find
from jolvek.core.rules.judge import Verdicts, finding_of, nearest


def motor_reasons(
    need: Need,
    shelf: Shelf,
    d: Drives,
    s: Supplies,
    verdicts: Verdicts,
    field: Field,
) -> dict[int, Finding]:
    """For every motor with no setup that does the day: the binding reason with the missing amount.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.enquiry.need import Day
    >>> from jolvek.core.match.matching import match; from jolvek.core.products.shelf import sample
    >>> m = match(Need(Hull("canoe", 4.8, .9, 32), Load(1), day=Day(distance_m=9e5)), sample())
    >>> [f.rule for f in m.motor_reasons.values()]
    ['too-short']
    """
    out = dict(d.rejected)
    motor_of = d.motor[field.drive]
    there = np.bincount(motor_of, minlength=len(shelf.motors))
    good = np.bincount(motor_of[field.does_day], minlength=len(shelf.motors))
    judged = np.unique(d.motor)
    for i in range(len(shelf.motors)):
        if i in out or good[i]:
            continue
        out[i] = (
            _why_not_day(need, field, np.nonzero(motor_of == i)[0])
            if there[i]
            else _why_no_bank(
                int(np.searchsorted(judged, i)), s, verdicts, (judged.size, s.battery.size)
            )
        )
    return out


def _why_no_bank(i: int, s: Supplies, verdicts: Verdicts, shape: tuple[int, int]) -> Finding:
    """The rule that binds a motor: the one that fails at last, where it comes nearest."""
    left = np.zeros(shape, dtype=bool)
    left[i] = True
    for rule, held in verdicts.items():
        now = left & np.broadcast_to(held.ok, shape)
        if left.any() and not now.any():
            return finding_of(rule, held, nearest(held, left), shape)
        left = now
    return find(
        "no-bank",
        why="voltage, current or load leave none",
        how="Order a battery for it, or take another motor.",
    )


def _why_not_day(need: Need, field: Field, rows: Index) -> Finding:
    """Too slow, too short or too dear, by the candidate that comes nearest."""
    fastest = float(field.top_speed_m_s[rows].max())
    able = rows[~np.isnan(field.power_at_wish_w[rows])]
    if not able.size:
        powers = field.power_at_wish_w[~np.isnan(field.power_at_wish_w)]
        if not powers.size:
            return find("too-slow-all", fastest, need.day.speed_m_s)
        return find("too-slow", fastest, need.day.speed_m_s, watts=float(powers.min()))
    if need.day.legs and not np.isfinite(field.day_wh[able]).any():
        return find("too-slow-all", fastest, max(leg.speed_m_s for leg in need.day.legs))
    far = int(able[int(np.argmax(np.maximum(field.spare_wh[able], -1e12)))])
    if field.spare_wh[far] < 0 or need.day_blocked:
        return _too_short(need, field, far)
    return _wish_missed(need, field, able[field.spare_wh[able] >= 0])


def _too_short(need: Need, field: Field, far: int) -> Finding:
    """What the candidate that gets furthest lacks: energy for the legs, way to make, or range."""
    day, power, reach = need.day, float(field.power_at_wish_w[far]), float(field.range_m[far])
    if (day.legs or day.runs_a_charge > 1) and not need.day_blocked:
        spent = float(field.day_wh[far])
        return find("day-energy", spent, spent + float(field.spare_wh[far]))
    if reach <= 0 or need.day_blocked:
        top = float(field.top_speed_m_s[far])
        return find("current-beats-boat", top, day.current_m_s, watts=power)
    hours = float(field.runtime_s[far]) / 3600
    return find("too-short", reach, day.distance_m, energy=power * day.distance_m / reach * hours)


def _wish_missed(need: Need, field: Field, enough: Index) -> Finding:
    """Which must-have no candidate with enough energy keeps."""
    day = need.day
    lightest, cheapest = float(field.lift_kg[enough].min()), float(field.price[enough].min())
    if day.max_lift_kg is not None and lightest > day.max_lift_kg:
        return find("lift-mass", lightest, day.max_lift_kg)
    if day.budget is not None and cheapest > day.budget:
        return find("too-dear", cheapest, day.budget, over=cheapest - day.budget)
    if day.max_noise_db is not None and np.nanmin(field.noise_db[enough]) > day.max_noise_db:
        return find("noise", float(np.nanmin(field.noise_db[enough])), day.max_noise_db)
    return find("hands-free", how="hand")


def battery_reasons(
    need: Need,
    d: Drives,
    s: Supplies,
    verdicts: Verdicts,
    field: Field,
    shelf: Shelf,
    beaten: Set[int] = frozenset(),
) -> dict[int, Finding]:
    """For every battery in no setup that does the day: the binding reason; `beaten` are those
    thinned out.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.enquiry.need import Day
    >>> from jolvek.core.match.matching import match; from jolvek.core.products.shelf import sample
    >>> m = match(Need(Hull("canoe", 4.8, .9, 32), Load(1), day=Day(distance_m=9e5)), sample())
    >>> [f.rule for f in m.battery_reasons.values()]
    ['too-short']
    """
    out = dict(s.rejected)
    battery_of = s.battery[field.supply]
    shape = (np.unique(d.motor).size, s.battery.size)
    drivable = np.ones(shape[0], dtype=bool)
    there = np.bincount(battery_of, minlength=len(shelf.batteries))
    good = np.bincount(battery_of[field.does_day], minlength=len(shelf.batteries))
    for i in range(len(shelf.batteries)):
        if i in out or good[i]:
            continue
        if there[i]:
            out[i] = _why_not_day(need, field, np.nonzero(battery_of == i)[0])
            continue
        if i in beaten:
            out[i] = find("beaten")
            continue
        mine, left = s.battery == i, drivable[:, None]
        out[i] = find(
            "no-bank",
            why="its volts or amps go with no motor that fits this boat",
            how="Take a battery of another voltage.",
        )
        for rule, held in verdicts.items():
            now = left & np.broadcast_to(held.ok, shape)[:, mine]
            if not now.any():
                why, how = _WHY.get(rule, _ELSE[0]), _HOW.get(rule, _ELSE[1])
                own = rule == "pack-own"
                out[i] = find(rule) if own else find("no-bank", why=why, how=how)
                break
            left = now
    return out


_BY_AMPS = ("current-continuous", "current-peak", "bms-limit", "connector-limit")
_ELSE = (msg("it may not be joined as any motor here needs it"), msg("Take another battery."))
_AMPS = msg("it gives too few amps for every motor of its voltage that fits this boat")
_LARGER = msg("Take a larger battery, or limit the motor's power.")
_WHY = {
    "voltage-high": msg("its voltage is too high for every motor that fits this boat"),
    "voltage-low": msg("its voltage is too low for every motor that fits this boat"),
    **dict.fromkeys(_BY_AMPS, _AMPS),
    "no-charger": msg("no charger in the catalogue suits it"),
}
_HOW = {
    "voltage-high": msg("Take a battery of lower voltage."),
    "voltage-low": msg("Take a battery of higher voltage."),
    **dict.fromkeys(_BY_AMPS, _LARGER),
    "no-charger": msg("Order a charger for it, or take another battery."),
}


def charger_reasons(shelf: Shelf, s: Supplies) -> dict[int, Finding]:
    """For every charger that serves no bank that fits: its voltage or its programmes.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> match(Need(Hull("canoe", 4.8, .9, 32), Load(1)), sample()).charger_reasons
    {}
    """
    out: dict[int, Finding] = {}
    pack_v = np.array([shelf.batteries[b].spec.nominal_voltage_v for b in s.battery])
    for j, item in enumerate(shelf.chargers):
        c = item.spec
        known = np.array([name in c.chemistries for name in s.chemistry], dtype=bool)
        speaks = known[s.chem_index] if s.battery.size else np.zeros(0, dtype=bool)
        fit = (np.abs(s.nominal_v / c.voltage_v - 1) <= 0.1) | (
            np.abs(pack_v / c.voltage_v - 1) <= 0.1
        )
        if (fit & speaks).any() or not s.battery.size:
            continue
        near = s.nominal_v[speaks] if speaks.any() else s.nominal_v
        nearest = float(near[np.argmin(np.abs(near - c.voltage_v))])
        out[j] = (
            find("charger-voltage", c.voltage_v, nearest)
            if not fit.any() or speaks.any()
            else find("charger-chemistry", chem="the batteries of that voltage here")
        )
    return out
