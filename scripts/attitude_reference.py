"""Trim and heel of meshes that core/hydro/shapes.py was not fitted to, by counting small cubes.

Run once, by hand: `python -m scripts.attitude_reference`; tests/reference/test_attitude.py keeps
the values. No part of Jolvek is used: a plane is laid through the cubes until the weight floats and
its centre stands over theirs.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from scripts.hydrostatics_reference import (
    RHO,
    Section,
    chine,
    ends,
    fine_bow,
    inflatable,
    prism,
    rocker,
    round_bilge,
    straight,
)

CUBES = 110
Body = tuple[list[float], list]


def hard(
    length: float, beam: float, deadrise: float, depth: float, fine: float, rise: float
) -> Body:
    """A chine boat with flared sides."""
    flare = 0.08 * beam
    half = beam / 2 - flare
    return prism(
        length, lambda s: chine(half, deadrise, depth, flare), fine_bow(fine), straight(rise)
    )


def soft(length: float, beam: float, depth: float, power: float, stern: float, rise: float) -> Body:
    """A round boat."""
    shape = lambda s: round_bilge(beam / 2, depth, power)  # noqa: E731
    return prism(length, shape, ends(2.0, stern), rocker(rise, 1.2 * rise))


HEIGHT_M = {"kayak": 0.15, "canoe": 0.25}  # of the centre of weights above the keel, else 0.35
MOVED_KG = 80.0
BOATS = {  # (family, length, beam, kg), body
    "small dinghy": (("rigid_dinghy", 2.8, 1.4, 230), hard(2.8, 1.4, 10, 0.5, 0.45, 0.3)),
    "RIB": (("rib", 4.2, 1.95, 480), inflatable(4.2, 1.95, 0.48, 20.0)),
    "air floor": (("inflatable_air", 3.4, 1.65, 270), inflatable(3.4, 1.65, 0.43, 4.0)),
    "flat bottom": (("flat_bottom", 3.6, 1.4, 280), hard(3.6, 1.4, 0.5, 0.45, 0.6, 0.4)),
    "skiff": (("skiff", 4.9, 1.5, 320), hard(4.9, 1.5, 6, 0.5, 0.5, 0.3)),
    "kayak": (("kayak", 4.4, 0.66, 120), soft(4.4, 0.66, 0.3, 8.0, 0.0, 0.04)),
    "canoe": (("canoe", 5.2, 0.88, 230), soft(5.2, 0.88, 0.36, 7.0, 0.0, 0.05)),
    "sailing dinghy": (("sailing_dinghy", 3.8, 1.5, 240), soft(3.8, 1.5, 0.5, 4.0, 0.65, 0.07)),
}


def inside(corners: Sequence[tuple[float, float]], points: np.ndarray) -> np.ndarray:
    """Which points lie in a polygon, by crossings."""
    ring, x, y = np.array(corners), points[:, 0], points[:, 1]
    within = np.zeros(len(points), dtype=bool)
    for (x1, y1), (x2, y2) in zip(ring, np.roll(ring, -1, axis=0), strict=True):
        if y1 != y2:
            within ^= ((y1 > y) != (y2 > y)) & (x < (x2 - x1) * (y - y1) / (y2 - y1) + x1)
    return within


def cubes(xs: Sequence[float], sections: Sequence[Section]) -> tuple[np.ndarray, np.ndarray]:
    """Middles (N, 3) and volumes (N,) of what fills a body."""
    heights = [z for s in sections for _, z in s]
    z = np.linspace(min(heights), max(heights), CUBES + 1)
    y = np.linspace(0, max(b for s in sections for b, _ in s), CUBES + 1)
    grid = np.array([(a, b) for a in (y[1:] + y[:-1]) / 2 for b in (z[1:] + z[:-1]) / 2])
    thick = np.zeros(len(xs))
    thick[1:] += np.diff(xs) / 2
    thick[:-1] += np.diff(xs) / 2
    middles, volumes = [], []
    for x, section, dx in zip(xs, sections, thick, strict=True):
        found = grid[inside([(0, section[0][1]), *section, (0, section[-1][1])], grid)]
        middles.append(np.column_stack([np.full(len(found), x), found]))
        volumes.append(np.full(len(found), dx * (y[1] - y[0]) * (z[1] - z[0])))
    half, of_half = np.vstack(middles), np.concatenate(volumes)
    return np.vstack([half, half * (1, -1, 1)]), np.tile(of_half, 2)


def floats(
    volume: float, middles: np.ndarray, volumes: np.ndarray, trim: float, heel: float
) -> tuple[np.ndarray, np.ndarray]:
    """The centre of what is under water at angles in radians, and the way up."""
    up = np.array([np.sin(trim), -np.sin(heel) * np.cos(trim), np.cos(heel) * np.cos(trim)])
    order = np.argsort(middles @ up)
    wet = order[: int(np.searchsorted(np.cumsum(volumes[order]), volume))]
    return (middles[wet] * volumes[wet, None]).sum(0) / volumes[wet].sum(), up


def rests(
    volume: float, middles: np.ndarray, volumes: np.ndarray, centre: np.ndarray
) -> tuple[float, float]:
    """Trim by the stern and heel in degrees at which weights of that centre rest."""

    def off(trim: float, heel: float) -> np.ndarray:
        buoyancy, up = floats(volume, middles, volumes, trim, heel)
        arm = centre - buoyancy
        return np.asarray((arm - up * (arm @ up))[:2])

    at = np.zeros(2)
    for _ in range(60):
        now = off(*at)
        slopes = np.column_stack([(off(*(at + d)) - now) / 0.01 for d in 0.01 * np.eye(2)])
        if abs(centre[1]) < 1e-9:
            step = np.array([-now[0] / slopes[0, 0], 0.0])
        else:
            step = np.linalg.solve(slopes, -now)
        at += np.clip(step, -0.05, 0.05)
        if np.abs(step).max() < 2e-4:
            break
    return float(np.degrees(at[0])), float(np.degrees(at[1]))


def main() -> None:
    """Print the rows of the test."""
    for name, ((family, length, beam, kg), (xs, sections)) in BOATS.items():
        middles, volumes = cubes(xs, sections)
        level = floats(kg / RHO, middles, volumes, 0.0, 0.0)[0]
        low = min(z for s in sections for _, z in s)
        centre = np.array([level[0], 0.0, low + HEIGHT_M.get(family, 0.35)])
        row = []
        for aft in (0.5, 1.0):
            put = centre - np.array([MOVED_KG * aft / kg, 0.0, 0.0])
            row.append(rests(kg / RHO, middles, volumes, put)[0])
        for aside in (0.15, 0.3):
            put = centre + np.array([0.0, MOVED_KG * aside / kg, 0.0])
            row.append(rests(kg / RHO, middles, volumes, put)[1])
        said = ", ".join(f"{x:.2f}" for x in row)
        print(f'    ("{name}", "{family}", {length}, {beam}, {kg}, {said}),')


if __name__ == "__main__":
    main()
