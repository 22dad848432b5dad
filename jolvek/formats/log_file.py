"""Logs of a trial as CSV, with the columns chosen or found by their names, and tracks as GPX: into
samples of time, speed, course and power.
"""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterable, Sequence
from datetime import date, datetime
from typing import Any

import numpy as np

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.units import KNOT_M_S
from jolvek.core.trial.segments import Sample
from jolvek.formats import gpx_points
from jolvek.formats.budget import Budget
from jolvek.formats.gpx_file import between
from jolvek.formats.nmea import Stream

SPEED_UNITS = {"kn": KNOT_M_S, "km/h": 1 / 3.6, "m/s": 1.0, "mph": 0.44704}
GUESSES = {
    "time": ("time", "t", "seconds", "timestamp", "date"),
    "speed": ("speed", "sog", "speed_m_s", "velocity"),
    "course": ("course", "cog", "heading", "track"),
    "power": ("power", "power_w", "watts", "w"),
}
MOST_ROWS = 200_000
SMOOTH_S = 5.0  # over which a track's points make a speed


class LogRefused(JolvekError):
    """The log cannot be read."""


class Samples(list[Sample]):
    """The samples of a log, and a sentence for each row that was left out."""

    def __init__(self, good: Iterable[Sample] = (), left_out: Sequence[str] = ()) -> None:
        super().__init__(good)
        self.left_out = tuple(left_out)


def figure(text: str) -> float:
    """A finite number, with a comma or a point; raises ValueError.

    >>> figure("2,5")
    2.5
    """
    value = float(text.replace(",", "."))
    if not math.isfinite(value):
        raise ValueError(text)
    return value


def samples(content: bytes, chosen: dict[str, str], unit: str) -> Samples:
    """Rows of a CSV with a head; `chosen` names columns, empty ones are found. Raises LogRefused.

    >>> log = b"t,sog,watts\\n0,4.0,500\\n1,4.1,505\\n"
    >>> [round(s.speed_m_s, 2) for s in samples(log, {}, "kn")]
    [2.06, 2.11]
    """
    try:
        text = content.decode("utf-8-sig")
        dialect: Any = csv.Sniffer().sniff(text[:4000], delimiters=",;\t")
        rows = _bounded(csv.DictReader(io.StringIO(text), dialect=dialect))
    except (UnicodeDecodeError, csv.Error):
        raise LogRefused("not a CSV with a head line in UTF-8") from None
    if not rows:
        raise LogRefused(f"read no rows, allowed are 1 to {MOST_ROWS}")
    names = [n for n in rows[0] if n]
    columns = {key: _column(key, chosen.get(key, ""), names) for key in GUESSES}
    if not columns["speed"] or not columns["time"]:
        lacking = [key for key in ("time", "speed") if not columns[key]]
        message = f"no column for {' and '.join(lacking)}; there are {', '.join(names)[:200]}"
        raise LogRefused(f"{message}: name it above")
    return _read(rows, columns, SPEED_UNITS.get(unit, KNOT_M_S))


def _bounded(rows: Iterable[dict[str, str]]) -> list[dict[str, str]]:
    budget, out = Budget(MOST_ROWS), []
    for row in rows:
        budget.spend()
        out.append(row)
    return out


def _column(key: str, chosen: str, names: Sequence[str]) -> str:
    if chosen:
        if chosen not in names:
            raise LogRefused(f"read “{chosen}”; allowed is one of {', '.join(names)[:200]}")
        return chosen
    for guess in GUESSES[key]:
        for name in names:
            if name.strip().lower() == guess:
                return name
    starts = (n for n in names if n.strip().lower().startswith(GUESSES[key][0]))
    return next(starts, "")


def _read(rows: Sequence[dict[str, str]], c: dict[str, str], factor: float) -> Samples:
    out: list[Sample] = []
    bad: list[str] = []
    began: float | None = None
    for line, row in enumerate(rows, 2):
        try:
            t, speed = _time(row[c["time"]]), figure(row[c["speed"]]) * factor
            course = _maybe(row, c["course"])
            power = _maybe(row, c["power"])
        except (ValueError, AttributeError, TypeError):
            read_as = "”, “".join(str(row[name]) for name in c.values() if name)[:80]
            bad.append(f"line {line}: read “{read_as}”; allowed is a time and finite numbers")
            continue
        began = t if began is None else began
        if t - began >= 0 and 0 <= speed < 60:
            out.append(Sample(t - began, speed, course, power))
    if not out:
        why = f": {bad[0]}" if bad else ""
        raise LogRefused(f"no row holds a time and a speed that can be read{why}")
    return Samples(sorted(out, key=lambda s: s.t_s), bad)


def _maybe(row: dict[str, str], name: str) -> float | None:
    text = (row.get(name) or "").replace(",", ".").strip() if name else ""
    return figure(text) if text else None


def _time(text: str) -> float:
    try:
        return figure(text)
    except ValueError:
        return datetime.fromisoformat(text).timestamp()


def sentences(content: bytes) -> list[Sample]:
    """The sentences of a kept NMEA 0183 log; raises LogRefused.

    >>> from jolvek.formats.nmea import sentence
    >>> text = sentence("PJLVB,25,20,,90") + sentence("IIRMC,120000,A,,,,,4.0,90,261126,,")
    >>> [(s.power_w, s.course_deg) for s in sentences(text.encode())]
    [(500.0, 90.0)]
    """
    stream, out = Stream(), list[Sample]()
    power: float | None = None
    last_s, over_s = -1.0, 0.0
    for r in stream.feed(content + b"\n"):
        power = r.power_w if r.power_w is not None else power
        if r.speed_m_s is None or len(out) >= MOST_ROWS:
            continue
        t = r.time_s if r.time_s is not None else last_s + 1.0
        over_s += 86_400.0 if t < last_s - 1.0 else 0.0  # past midnight
        last_s = t
        out.append(Sample(t + over_s, r.speed_m_s, r.course_deg, power))
    if not out:
        raise LogRefused(f"no sentence tells a speed; {stream.bad} could not be read")
    return out


def track(content: bytes) -> Samples:
    """The points of a GPX with times, as speeds over some seconds; raises LogRefused."""
    days, left_out = _days(content)
    return Samples(_speeds([point for points in days.values() for point in points]), left_out)


def tracks(content: bytes) -> tuple[dict[date, list[Sample]], tuple[str, ...]]:
    """The same by the day on which they were (UTC), and what was left out."""
    days, left_out = _days(content)
    return {day: _speeds(points) for day, points in days.items() if len(points) > 1}, left_out


def _days(
    content: bytes,
) -> tuple[dict[date, list[tuple[float, float, float]]], tuple[str, ...]]:
    try:
        found = gpx_points.read(content)
    except gpx_points.GpxRefused as error:
        raise LogRefused(str(error)) from None
    points = [p for p in found.points if p.kind == "track" and p.at]
    if len(points) < 2:
        why = f": {found.left_out[0]}" if found.left_out else ""
        raise LogRefused(f"read {len(points)} points with a time, allowed are 2 and more{why}")
    out: dict[date, list[tuple[float, float, float]]] = {}
    for p in points:
        assert p.at is not None
        rows = (p.at.timestamp(), p.latitude_deg, p.longitude_deg)
        out.setdefault(p.at.date(), []).append(rows)
    return out, found.left_out


def _speeds(points: Sequence[tuple[float, float, float]]) -> list[Sample]:
    if len(points) < 2:
        return []
    at = np.array(points)
    # each point with the one before it that lies some seconds back
    back = np.searchsorted(at[:, 0], at[1:, 0] - SMOOTH_S, side="right") - 1
    back = np.minimum(np.maximum(back, 0), np.arange(len(points) - 1))
    far, course = between(at[back, 1:], at[1:, 1:])
    seconds = at[1:, 0] - at[back, 0]
    return [
        Sample(float(t - at[0, 0]), float(m / s), float(c))
        for t, m, s, c in zip(at[1:, 0], far, seconds, course, strict=True)
        if s > 0
    ]
