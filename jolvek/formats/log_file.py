"""Logs of a trial as CSV, with the columns chosen or found by their names, and tracks as GPX: into
samples of time, speed, course and power.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from datetime import date, datetime
from typing import Any

import gpxpy
import gpxpy.gpx

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.units import KNOT_M_S
from jolvek.core.trial.segments import Sample
from jolvek.formats.gpx_file import bearing_deg, distance_m
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


def samples(content: bytes, chosen: dict[str, str], unit: str) -> list[Sample]:
    """Rows of a CSV with a head; `chosen` names columns, empty ones are found. Raises LogRefused.

    >>> log = b"t,sog,watts\\n0,4.0,500\\n1,4.1,505\\n"
    >>> [round(s.speed_m_s, 2) for s in samples(log, {}, "kn")]
    [2.06, 2.11]
    """
    try:
        text = content.decode("utf-8-sig")
        dialect: Any = csv.Sniffer().sniff(text[:4000], delimiters=",;\t")
        rows = list(csv.DictReader(io.StringIO(text), dialect=dialect))
    except (UnicodeDecodeError, csv.Error):
        raise LogRefused("not a CSV with a head line in UTF-8") from None
    if not rows or len(rows) > MOST_ROWS:
        raise LogRefused(f"read {len(rows)} rows, allowed are 1 to {MOST_ROWS}")
    names = [n for n in rows[0] if n]
    columns = {key: _column(key, chosen.get(key, ""), names) for key in GUESSES}
    if not columns["speed"] or not columns["time"]:
        lacking = [key for key in ("time", "speed") if not columns[key]]
        told = f"no column for {' and '.join(lacking)}; there are {', '.join(names)[:200]}"
        raise LogRefused(f"{told}: name it above")
    return _read(rows, columns, SPEED_UNITS.get(unit, KNOT_M_S))


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


def _read(rows: Sequence[dict[str, str]], c: dict[str, str], factor: float) -> list[Sample]:
    out: list[Sample] = []
    began: float | None = None
    for row in rows:
        try:
            t, speed = _time(row[c["time"]]), float(row[c["speed"]].replace(",", ".")) * factor
            course = _maybe(row, c["course"])
            power = _maybe(row, c["power"])
        except (ValueError, AttributeError, TypeError):
            continue
        began = t if began is None else began
        if t - began >= 0 and 0 <= speed < 60:
            out.append(Sample(t - began, speed, course, power))
    if not out:
        raise LogRefused("no row holds a time and a speed that can be read")
    return sorted(out, key=lambda s: s.t_s)


def _maybe(row: dict[str, str], name: str) -> float | None:
    text = (row.get(name) or "").replace(",", ".").strip() if name else ""
    return float(text) if text else None


def _time(text: str) -> float:
    try:
        return float(text)
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


def track(content: bytes) -> list[Sample]:
    """The points of a GPX with times, as speeds over some seconds; raises LogRefused."""
    return _speeds([point for points in _days(content).values() for point in points])


def tracks(content: bytes) -> dict[date, list[Sample]]:
    """The same by the day on which they were (UTC)."""
    return {day: _speeds(points) for day, points in _days(content).items() if len(points) > 1}


def _days(content: bytes) -> dict[date, list[tuple[float, float, float]]]:
    try:
        gpx = gpxpy.parse(content.decode("utf-8-sig"))
    except (UnicodeDecodeError, gpxpy.gpx.GPXException):
        raise LogRefused("not a GPX file") from None
    points = [p for t in gpx.tracks for s in t.segments for p in s.points if p.time]
    if len(points) < 2 or len(points) > MOST_ROWS:
        raise LogRefused(f"read {len(points)} points with a time, allowed are 2 to {MOST_ROWS}")
    out: dict[date, list[tuple[float, float, float]]] = {}
    for p in points:
        assert p.time is not None
        told = (p.time.timestamp(), p.latitude, p.longitude)
        out.setdefault(p.time.date(), []).append(told)
    return out


def _speeds(points: Sequence[tuple[float, float, float]]) -> list[Sample]:
    out: list[Sample] = []
    i = 0
    for k in range(1, len(points)):
        b = points[k]
        while i < k - 1 and b[0] - points[i + 1][0] >= SMOOTH_S:
            i += 1
        a = points[i]
        seconds = b[0] - a[0]
        if seconds > 0:
            ends = a[1:], b[1:]
            speed = distance_m(*ends) / seconds
            out.append(Sample(b[0] - points[0][0], speed, bearing_deg(*ends)))
    return out
