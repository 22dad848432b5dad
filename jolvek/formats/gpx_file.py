"""Ways as GPX and GeoJSON: a track or route read into legs, and legs with places written back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import gpxpy.gpx
import numpy as np
from geographiclib.geodesic import Geodesic

from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.need import Leg
from jolvek.formats import gpx_points
from jolvek.formats.gpx_points import Point

MOST_LEGS = 12  # that one reads at a glance; a day may hold more
FEW = 2000  # points up to which every step is the geodesic
SHORT_M = 5000.0  # up to here a step is as good on the plane that touches the ellipsoid


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
    left_out: tuple[str, ...] = ()  # points that could not be read, and why


def distance_m(a: tuple[float, float], b: tuple[float, float]) -> float:
    """Geodesic distance in m between (latitude, longitude) pairs. Source: Karney 2013,
    geographiclib.
    """
    return float(Geodesic.WGS84.Inverse(*a, *b)["s12"])


def bearing_deg(a: tuple[float, float], b: tuple[float, float]) -> float:
    """Course at the start from one place to the other, 0–360°."""
    return float(Geodesic.WGS84.Inverse(*a, *b)["azi1"]) % 360.0


def between(a_deg: Array, b_deg: Array) -> tuple[Array, Array]:
    """Distance in m and course in degrees (N,) from places to others, each (N, 2) as latitude and
    longitude. Short ways by the radii of curvature of WGS 84 between their ends, which is right to
    a millionth; long ones by geodesic.

    >>> far, course = between(np.array([[58.0, 11.0]]), np.array([[58.01, 11.0]]))
    >>> far.round(2).tolist(), course.tolist()
    ([1113.78], [0.0])
    """
    start, end = np.radians(a_deg), np.radians(b_deg)
    north, east = (end - start).T
    mid = (start[:, 0] + end[:, 0]) / 2
    east = (east + np.pi) % (2 * np.pi) - np.pi
    a, e2 = 6_378_137.0, 0.00669437999014
    w = 1 - e2 * np.sin(mid) ** 2
    north, east = a * (1 - e2) / w**1.5 * north, a / np.sqrt(w) * np.cos(mid) * east
    far, course = np.hypot(north, east), np.degrees(np.arctan2(east, north)) % 360.0
    for i in np.nonzero(far > SHORT_M)[0].tolist():
        ends = tuple(a_deg[i]), tuple(b_deg[i])
        far[i], course[i] = distance_m(*ends), bearing_deg(*ends)
    return far, course


def _way(points: Sequence[Point]) -> list[Point]:
    """The points of the first track, else of the first route, else the waypoints."""
    for kind in ("track", "route", "waypoint"):
        of_kind = [p for p in points if p.kind == kind]
        if of_kind:
            return [p for p in of_kind if kind == "waypoint" or p.part == of_kind[0].part]
    return []


def read(content: bytes, speed_m_s: float) -> Way:
    """The first track, route or row of waypoints of a GPX file as at most 12 legs; raises
    WayRefused.

    A leg's distance is that of the whole track between its ends; the ends are chosen where the way
    bends most.
    """
    found = gpx_points.read(content)
    points = _way(found.points)
    if len(points) < 2:
        why = f": {found.left_out[0]}" if found.left_out else ""
        raise WayRefused(f"the file holds no track, route or two waypoints{why}")
    places = [(p.latitude_deg, p.longitude_deg) for p in points]
    at = np.array(places)
    if len(places) <= FEW:
        steps = [distance_m(a, b) for a, b in zip(places, places[1:], strict=False)]
    else:
        steps = between(at[:-1], at[1:])[0].tolist()
    along = [0.0, *np.cumsum(steps).tolist()]
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
    return Way(*places[0], legs, found.left_out)


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
            off = _off_m(places[i], places[j], np.array(places[i + 1 : j]).reshape(-1, 2))
            if off.size and off.max() > best:
                best, at = float(off.max()), i + 1 + int(np.argmax(off))
        if at < 0:
            break
        ends = sorted([*ends, at])
    return ends


def _off_m(a: tuple[float, float], b: tuple[float, float], p: Array) -> Array:
    """How far places (N, 2) lie off the straight line between two others; from the nearer one where
    they are the same.
    """
    k = 111_320.0
    scale = k * np.cos(np.radians(a[0]))
    x1, y1 = (b[1] - a[1]) * scale, (b[0] - a[0]) * k
    x, y = (p[:, 1] - a[1]) * scale, (p[:, 0] - a[0]) * k
    length = float(np.hypot(x1, y1))
    if length < 1:
        return np.asarray(np.hypot(x, y))
    t = np.clip((x * x1 + y * y1) / length**2, 0.0, 1.0)
    return np.asarray(np.hypot(x - t * x1, y - t * y1))


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
