"""Ways as GPX and GeoJSON: a track or route read into legs, and legs with places written back."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import gpxpy
import gpxpy.gpx
from geographiclib.geodesic import Geodesic

from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.need import Leg

MOST_LEGS = 12  # that one reads at a glance; a day may hold more
MOST_POINTS = 50_000


class WayRefused(JolvekError):
    """The file holds no way that can be read."""


@dataclass(frozen=True)
class Way:
    """Where it starts, and the legs from there with their places; distances by geodesic on WGS
    84.
    """

    latitude_deg: float
    longitude_deg: float
    legs: tuple[Leg, ...]


def distance_m(a: tuple[float, float], b: tuple[float, float]) -> float:
    """Geodesic distance in m between (latitude, longitude) pairs. Source: Karney 2013,
    geographiclib.
    """
    return float(Geodesic.WGS84.Inverse(*a, *b)["s12"])


def bearing_deg(a: tuple[float, float], b: tuple[float, float]) -> float:
    """Course at the start from one place to the other, 0–360°."""
    return float(Geodesic.WGS84.Inverse(*a, *b)["azi1"]) % 360.0


def _points(gpx: gpxpy.gpx.GPX) -> list[Any]:
    """The points of the first track, else of the first route, else the waypoints."""
    track = [p for segment in gpx.tracks[0].segments for p in segment.points] if gpx.tracks else []
    return track or (list(gpx.routes[0].points) if gpx.routes else []) or list(gpx.waypoints)


def read(content: bytes, speed_m_s: float) -> Way:
    """The first track, route or row of waypoints of a GPX file as at most 12 legs; raises
    WayRefused.

    A leg's distance is that of the whole track between its ends; the ends are chosen where the way
    bends most.
    """
    try:
        text = content.decode("utf-8-sig")
        if "<!DOCTYPE" in text or "<!ENTITY" in text:
            raise WayRefused("the file declares entities; a GPX file needs none")
        gpx = gpxpy.parse(text)
    except (gpxpy.gpx.GPXException, UnicodeDecodeError, ValueError) as error:
        raise WayRefused(f"not a GPX file that can be read: {error}") from None
    points = _points(gpx)
    if len(points) < 2:
        raise WayRefused("the file holds no track, route or two waypoints")
    if len(points) > MOST_POINTS:
        raise WayRefused(f"more than {MOST_POINTS} points; simplify the track first")
    places = [(p.latitude, p.longitude) for p in points]
    off = next((p for p in places if not (-90 <= p[0] <= 90 and -180 <= p[1] <= 180)), None)
    if off is not None:
        raise WayRefused(f"a point lies at {off[0]}, {off[1]}, which is not on the earth")
    along = [0.0]
    for a, b in zip(places, places[1:], strict=False):
        along.append(along[-1] + distance_m(a, b))
    if along[-1] < 10:
        raise WayRefused("the way is shorter than 10 m")
    ends = _ends(places)
    legs = tuple(
        Leg(
            (points[j].name or f"leg {n}")[:80],
            speed_m_s,
            along[j] - along[i],
            latitude_deg=places[j][0],
            longitude_deg=places[j][1],
        )
        for n, (i, j) in enumerate(zip(ends, ends[1:], strict=False), 1)
    )
    return Way(*places[0], legs)


def _ends(places: list[tuple[float, float]]) -> list[int]:
    """Indices of the legs' ends: both ends, then again and again the point furthest off its leg's
    straight line.
    """
    ends = [0, len(places) - 1]
    south, west = (min(p[k] for p in places) for k in (0, 1))
    spread = distance_m((south, west), (max(p[0] for p in places), max(p[1] for p in places)))
    while len(ends) - 1 < MOST_LEGS:
        best, at = 0.05 * spread, -1  # a bend of less than a twentieth of the whole is no new leg
        for i, j in zip(ends, ends[1:], strict=False):
            for k in range(i + 1, j):
                off = _off_m(places[i], places[j], places[k])
                if off > best:
                    best, at = off, k
        if at < 0:
            break
        ends = sorted([*ends, at])
    return ends


def _off_m(a: tuple[float, float], b: tuple[float, float], p: tuple[float, float]) -> float:
    """How far a place lies off the straight line between two others; from the nearer one where they
    are the same.
    """
    from math import cos, hypot, radians

    k = 111_320.0
    scale = k * cos(radians(a[0]))
    x1, y1, x, y = (
        (b[1] - a[1]) * scale,
        (b[0] - a[0]) * k,
        (p[1] - a[1]) * scale,
        (p[0] - a[0]) * k,
    )
    length = hypot(x1, y1)
    if length < 1:
        return hypot(x, y)
    t = min(max((x * x1 + y * y1) / length**2, 0.0), 1.0)
    return hypot(x - t * x1, y - t * y1)


def write(start: tuple[float, float], legs: tuple[Leg, ...], name: str) -> str:
    """Legs with places as a GPX route."""
    gpx = gpxpy.gpx.GPX()
    route = gpxpy.gpx.GPXRoute(name=name)
    route.points.append(gpxpy.gpx.GPXRoutePoint(*start, name="start"))
    for leg in legs:
        if leg.latitude_deg is not None and leg.longitude_deg is not None:
            route.points.append(
                gpxpy.gpx.GPXRoutePoint(leg.latitude_deg, leg.longitude_deg, name=leg.name)
            )
    gpx.routes.append(route)
    return str(gpx.to_xml())


def geojson(start: tuple[float, float], legs: tuple[Leg, ...], name: str) -> dict[str, Any]:
    """Legs with places as a GeoJSON line with its points."""
    placed = [
        (leg.name, leg.longitude_deg, leg.latitude_deg)
        for leg in legs
        if leg.latitude_deg is not None
    ]
    line = [[start[1], start[0]], *([x, y] for _, x, y in placed)]
    points = [
        {
            "type": "Feature",
            "properties": {"name": n},
            "geometry": {"type": "Point", "coordinates": [x, y]},
        }
        for n, x, y in placed
    ]
    return {
        "type": "FeatureCollection",
        "features": [
            {
                "type": "Feature",
                "properties": {"name": name},
                "geometry": {"type": "LineString", "coordinates": line},
            },
            *points,
        ],
    }
