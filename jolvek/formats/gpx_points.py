"""The points of a GPX file: what is read of it, bounded, and what of it is left out and why."""

from __future__ import annotations

import io
import math
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from xml.etree import ElementTree

from jolvek.core.base.errors import JolvekError

MOST_POINTS = 50_000
POINTS = {"trkpt": "track", "rtept": "route", "wpt": "waypoint"}


class GpxRefused(JolvekError):
    """The file is no GPX that can be read."""


@dataclass(frozen=True)
class Point:
    """One point: degrees on WGS 84, the time where it has one, its name, and of what it is."""

    latitude_deg: float
    longitude_deg: float
    at: datetime | None
    name: str
    kind: str  # track, route or waypoint
    part: int  # which track or route of the file


@dataclass(frozen=True)
class Points:
    """The good points, and a sentence for each that was left out."""

    points: tuple[Point, ...]
    left_out: tuple[str, ...]


def read(content: bytes) -> Points:
    """The points of a file; raises GpxRefused with one sentence.

    >>> text = b'<gpx><trk><trkseg><trkpt lat="58" lon="11"/><trkpt lat="nan" lon="11"/></trkseg>'
    >>> read(text + b'</trk></gpx>').left_out
    ('point 2: read “nan”, “11”; allowed is -90 to 90 and -180 to 180',)
    """
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise GpxRefused(f"not a GPX file: byte {error.start} is no UTF-8 text") from None
    declared = next((x for x in ("<!DOCTYPE", "<!ENTITY") if x in text), None)
    if declared:
        line = text[: text.index(declared)].count("\n") + 1
        raise GpxRefused(f"line {line}: the file declares entities; a GPX file needs none")
    good, bad = [], []
    try:
        for n, (element, kind, part) in enumerate(_elements(text), 1):
            if n > MOST_POINTS:
                message = f"more than {MOST_POINTS} points were read; allowed are {MOST_POINTS}"
                raise GpxRefused(f"{message}: simplify the track first")
            point = _point(element, kind, part)
            if point is None:
                read_as = "”, “".join(element.get(k) or "" for k in ("lat", "lon"))[:80]
                bad.append(f"point {n}: read “{read_as}”; allowed is -90 to 90 and -180 to 180")
            else:
                good.append(point)
    except ElementTree.ParseError as error:
        raise GpxRefused(f"not a GPX file that can be read: {error}") from None
    return Points(tuple(good), tuple(bad))


def _elements(text: str) -> Iterator[tuple[ElementTree.Element, str, int]]:
    part = 0
    stream = io.BytesIO(text.encode())
    for _, element in ElementTree.iterparse(stream):
        name = element.tag.rpartition("}")[2]
        if name in POINTS:
            yield element, POINTS[name], part
            element.clear()
        elif name in ("trk", "rte"):
            part += 1
            element.clear()
        elif name == "trkseg":
            element.clear()


def _point(element: ElementTree.Element, kind: str, part: int) -> Point | None:
    try:
        lat, lon = float(element.get("lat") or "nan"), float(element.get("lon") or "nan")
    except ValueError:
        return None
    if not (math.isfinite(lat) and math.isfinite(lon) and abs(lat) <= 90 and abs(lon) <= 180):
        return None
    at, name = None, ""
    for child in element:
        tag = child.tag.rpartition("}")[2]
        if tag == "name":
            name = (child.text or "").strip()
        elif tag == "time":
            at = _time((child.text or "").strip())
    return Point(lat, lon, at, name, kind, part)


def _time(text: str) -> datetime | None:
    try:
        return datetime.fromisoformat(text)
    except ValueError:
        return None
