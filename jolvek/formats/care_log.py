"""The log of a boat in service: jolvek-log, tables of trips as CSV, logs of one trip as CSV or
NMEA, tracks as GPX. Each trip gets a name made of what it says: a file read twice counts once.
"""

from __future__ import annotations

import csv
import hashlib
import io
from collections.abc import Iterable, Mapping
from itertools import islice
from typing import Any

from jolvek.core.care.trips import summed
from jolvek.core.trial.segments import Sample
from jolvek.formats import log_file, schema
from jolvek.formats.log_file import LogRefused

FORMAT, VERSION = "jolvek-log", 1


class Trips(list[dict[str, Any]]):
    """The trips of a file, and a sentence for each row that was left out."""

    left_out: tuple[str, ...] = ()


_NAMES = {
    "on_day": ("on_day", "day", "date"),
    "hours": ("hours", "h", "duration_h"),
    "energy_wh": ("energy_wh", "wh", "energy"),
    "charge_from": ("charge_from", "soc_from", "soc_before", "before"),
    "charge_to": ("charge_to", "soc_to", "soc_after", "after"),
    "temperature_c": ("temperature_c", "temperature", "battery_c"),
    "distance_m": ("distance_m", "distance"),
    "note": ("note", "remark"),
}
MOST_TRIPS = 5000


def read(content: bytes, name: str, day: str) -> tuple[Trips, list[dict[str, Any]]]:
    """(trips, charges) of a file as plain rows; `day` (ISO) is that of a log without dates of its
    own. Raises LogRefused, UnreadableFile or ValueRefused with one sentence.

    >>> text = b"day,hours,Wh\\n2026-07-03,2.5,900\\n"
    >>> [(t["on_day"], t["hours"], t["energy_wh"]) for t in read(text, "log.csv", "")[0]]
    [('2026-07-03', 2.5, 900.0)]
    """
    if content.lstrip()[:1] == b"{":
        data = schema.loads(content)
        schema.check_schema(data, "log")
        return _named(data["trips"]), list(data.get("charges", ()))
    if name.lower().endswith(".gpx"):
        found, left_out = log_file.tracks(content)
        tracks = _named(_trip(d.isoformat(), s) for d, s in sorted(found.items()))
        tracks.left_out = left_out
        return tracks, []
    if content.lstrip()[:1] in (b"$", b"!"):
        return _named([_trip(day, log_file.sentences(content))]), []
    table = _table(content)
    if table is not None:
        trips = _named(table[0])
        trips.left_out = table[1]
        return trips, []
    read_in = log_file.samples(content, {}, "kn")
    one = _named([_trip(day, read_in)])
    one.left_out = read_in.left_out
    return one, []


def write(boat: str, trips: Iterable[Any], charges: Iterable[Any]) -> dict[str, Any]:
    """A boat's log as a jolvek-log object; rows have the attributes of the format's fields."""
    charge = ("on_day", "wall_wh", "charge_from", "charge_to", "note")
    return {
        "format": FORMAT,
        "version": VERSION,
        "boat": boat,
        "trips": [{k: getattr(t, k) for k in _NAMES} for t in trips],
        "charges": [{k: getattr(c, k) for k in charge} for c in charges],
    }


def names(trips: Iterable[Any]) -> set[str]:
    """The names that trips already kept would have in a file."""
    rows = [{k: getattr(t, k) for k in _NAMES} for t in trips]
    return {str(t["op"]) for t in _named(rows)}


def _trip(day: str, samples: list[Sample]) -> dict[str, Any]:
    s = summed(samples)
    if not s.hours:
        raise LogRefused("the boat was not under way in it")
    values: dict[str, Any] = {"on_day": day, "hours": round(s.hours, 3)}
    values["distance_m"] = round(s.distance_m)
    if s.energy_wh is not None:
        values["energy_wh"] = round(s.energy_wh, 1)
    return values


def _table(content: bytes) -> tuple[list[dict[str, Any]], tuple[str, ...]] | None:
    """Rows of a table of trips, and what was left out of it; None where it is none. Shares may be
    typed in per cent.
    """
    try:
        text = content.decode("utf-8-sig")
        dialect: Any = csv.Sniffer().sniff(text[:4000], delimiters=",;\t")
        read = csv.DictReader(io.StringIO(text), dialect=dialect)
        rows = list(islice(read, MOST_TRIPS + 1))
    except (UnicodeDecodeError, csv.Error):
        return None
    heads = {h.strip().lower(): h for h in (rows[0] if rows else {}) if h}
    columns = {k: next((heads[n] for n in names if n in heads), "") for k, names in _NAMES.items()}
    if not columns["on_day"] or not columns["hours"]:
        return None
    if len(rows) > MOST_TRIPS:
        raise LogRefused(f"more than {MOST_TRIPS} trips were read, allowed are {MOST_TRIPS}")
    good, bad = [], []
    for line, row in enumerate(rows, start=2):
        try:
            good.append(_row(line, row, columns))
        except LogRefused as error:
            bad.append(str(error))
    if not good and bad:
        raise LogRefused(bad[0])
    return good, tuple(bad)


def _row(line: int, row: Mapping[str, str], columns: Mapping[str, str]) -> dict[str, Any]:
    out: dict[str, Any] = {}
    for key, name in columns.items():
        text = (row.get(name) or "").strip() if name else ""
        if not text:
            continue
        if key in ("on_day", "note"):
            out[key] = text
            continue
        try:
            value = log_file.figure(text.rstrip("% "))
        except ValueError:
            raise LogRefused(f"line {line}: read “{text}” for {key}, allowed is a number") from None
        percent = key in ("charge_from", "charge_to") and ("%" in text or value > 1)
        out[key] = value / 100 if percent else value
    if "on_day" not in out or "hours" not in out:
        raise LogRefused(f"line {line}: a day and hours are needed")
    return out


def _named(trips: Iterable[Mapping[str, Any]]) -> Trips:
    """Each with a name of its own: of what it says, and which of several alike it is."""
    out = Trips()
    seen: dict[str, int] = {}
    for t in trips:
        there = [(k, v) for k, v in t.items() if v not in (None, "")]
        result = repr(sorted((k, v if isinstance(v, str) else float(v)) for k, v in there))
        key = hashlib.sha256(result.encode()).hexdigest()[:20]
        seen[key] = seen.get(key, 0) + 1
        out.append({**t, "op": f"file-{key}-{seen[key]}"})
    return out
