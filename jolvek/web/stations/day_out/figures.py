"""The figures under a day on the water."""

from __future__ import annotations

from jolvek.core.day.outing import Outing
from jolvek.web.kit.display import Units, energy, long_hours
from jolvek.web.kit.figures import marked
from jolvek.web.kit.language import tr
from jolvek.web.stations.day_out.form import Asked
from jolvek.web.stations.day_out.text import planned_letter


def _seas(out: Outing, u: Units) -> list[tuple[str, str]]:
    rows, s = [], out.seas
    if s.wind_m_s:
        side = tr("held") if s.holds else tr("not held")
        rows.append((tr("Leeway with the wind abeam"), f"{s.drift_deg:.0f}°, {side}"))
    if s.wave_m:
        rows.append((tr("Waves there"), str(u.full(s.wave_m, "length"))))
    return rows


def _asked(out: Outing, asked: Asked, u: Units) -> list[tuple[str, str]]:
    rows = []
    if out.against is not None:
        best, stream = out.against.best_m_s, u.full(out.against.stream_m_s, "speed")
        name = tr("Best speed against %(stream)s of current", stream=stream)
        rows.append((name, str(u.full(best, "speed")) if best else tr("none makes way")))
    if asked.arrive_h:
        name = tr("To be home after %(arrive)s", arrive=long_hours(asked.arrive_h * 3600))
        at = out.arrive_m_s
        rows.append((name, str(u.full(at, "speed")) if at else tr("the boat is not that fast")))
    return rows


def figures(out: Outing, asked: Asked, u: Units) -> tuple[tuple[str, str], ...]:
    point, h, v = out.point, out.homing, out.voyage
    turn = tr(", before the turn at %(planned)s", planned=u.full(point.planned_m, "distance"))
    letter = planned_letter(out)

    def keyed(key: str, value: float | None, quantity: str) -> str:
        text = str(u.full(value, quantity))
        return marked(letter, key, text) if letter else text

    last = keyed("day.turn", point.distance_m, "distance") + ("" if point.safe else turn)
    slow = keyed("day.slowest", h.slowest_m_s, "speed")
    fast = keyed("day.fastest", h.fastest_m_s, "speed")
    if out.sunless is not None:
        dark, dark_h = out.sunless
        last += tr("; %(distance)s without the sun", distance=u.full(dark.distance_m, "distance"))
        fast += tr("; %(fastest)s without the sun", fastest=u.full(dark_h.fastest_m_s, "speed"))
    rows = [
        (tr("Last point from which the boat gets home"), last),
        (tr("Slowest speed that brings the boat home"), slow),
        (tr("Fastest speed that brings the boat home"), fast),
        (tr("Speed of least energy"), keyed("day.cheapest", h.cheapest_m_s, "speed")),
    ]
    rows += [*_asked(out, asked, u), *_seas(out, u)]
    rows.append((tr("Used, motor and loads"), energy(v.energy_wh, 2)))
    if v.sun_wh > 1:
        straight = v.energy_wh - v.battery_wh
        rows.append((tr("of it from the battery"), energy(v.battery_wh, 2)))
        rows.append((tr("of it straight from the sun"), energy(straight, 2)))
        rows.append((tr("From the sun into the battery"), energy(v.stored_wh, 2)))
    if out.regeneration is not None:
        less = u.full(out.regeneration.lost_m_s, "speed")
        text = tr(
            "%(power)s W for %(less)s less", power=f"{out.regeneration.power_w:.0f}", less=less
        )
        rows.append((tr("Under sail the propeller gives about"), text))
    return tuple(rows)
