"""Hydrostatics of simple meshes by navaltoolbox, for core/hydro/shapes.py and its test.

Run once, by hand: `pip install navaltoolbox` in a venv of its own, then this script. The library is
no dependency of Jolvek. Meshes are invented, of plain sections lofted over stations: half breadths
and heights in m, x from the transom.
"""

from __future__ import annotations

import struct
import sys
import tempfile
from collections.abc import Callable, Sequence
from pathlib import Path

import numpy as np

Section = list[tuple[float, float]]  # (half breadth, height) from the centre line up to the sheer
RHO = 1026.0


def arc(y: float, z: float, r: float, first: float, last: float, steps: int = 28) -> Section:
    """Points of a circle about (y, z), angles in degrees from straight down, outwards."""
    angles = np.radians(np.linspace(first, last, steps))
    return [(float(y + r * np.sin(a)), float(z - r * np.cos(a))) for a in angles]


def inflatable(length: float, beam: float, tube: float, v_deg: float) -> tuple[list[float], list]:
    """Two tubes with a floor between them; the bow rises and narrows."""
    r = tube / 2

    def section(x: float) -> Section:
        bow = max(0.0, (x / length - 0.62) / 0.38)
        narrow, lift = 1 - 0.72 * bow**2, 0.30 * bow**2
        y = max((beam / 2 - r) * narrow, 0.02)
        floor, drop = 0.02 + lift, np.tan(np.radians(v_deg)) * 0.55 * y
        keel = [(1e-3, floor - drop), (0.55 * y, floor)]
        inner = max(np.degrees(np.arcsin(min(1.0, 0.45 * y / r))), 1.0)
        tubes = arc(y, r + lift, r, -min(inner, 65), 170)
        return [*keel, *tubes]

    xs = [float(x) for x in np.linspace(0, length * 0.985, 34)]
    return xs, [section(x) for x in xs]


def prism(
    length: float,
    shape: Callable[[float], Section],
    half: Callable[[float], float],
    rise: Callable[[float], float],
) -> tuple[list[float], list]:
    """One section scaled in breadth and lifted along the length."""
    xs = [float(x) for x in np.linspace(0, length, 40)]
    out = []
    for x in xs:
        s = x / length
        out.append([(max(y * half(s), 1e-3), z + rise(s)) for y, z in shape(s)])
    return xs, out


def fine_bow(from_s: float, power: float = 2.0) -> Callable[[float], float]:
    """1 up to a share of the length, then falling to nothing at the bow."""
    return lambda s: 1.0 if s < from_s else max(1 - ((s - from_s) / (1 - from_s)) ** power, 0.004)


def chine(half: float, deadrise: float, depth: float, flare: float) -> Section:
    """A V bottom to the chine, then flared sides."""
    up = half * np.tan(np.radians(deadrise))
    side = (half + flare, depth)
    bottom = [(float(half * k), float(up * k)) for k in np.linspace(0.01, 1, 12)]
    return [*bottom, *[(half + flare * k, up + (side[1] - up) * k) for k in np.linspace(0.1, 1, 8)]]


def round_bilge(half: float, depth: float, power: float) -> Section:
    """y = half (z/depth)^(1/power)."""
    return [(float(half * k ** (1 / power)), float(depth * k)) for k in np.linspace(0.002, 1, 30)]


def ends(power: float, aft: float) -> Callable[[float], float]:
    """Parabolic waterlines about a widest place, a share `aft` of the breadth left at the stern."""

    def half(s: float) -> float:
        w = 0.46
        k = (w - s) / w if s < w else (s - w) / (1 - w)
        return max(1 - (1 - aft if s < w else 1.0) * k**power, 0.004)

    return half


def rocker(aft: float, fore: float) -> Callable[[float], float]:
    """Rise of the bottom towards the ends, m."""
    return lambda s: aft * (max(0.0, 0.46 - s) / 0.46) ** 2 + fore * max(0.0, s - 0.46) ** 4 * 11.8


def straight(rise: float) -> Callable[[float], float]:
    """A bottom that lies straight and rises at the bow alone, m."""
    return lambda s: rise * s**12


def boats() -> dict[str, tuple[float, float, list[float], list]]:
    """(length, beam overall, stations, sections) of one body of each family."""

    def hard(length, beam, deadrise, depth, fine):  # type: ignore[no-untyped-def]
        flare = 0.09 * beam
        half = beam / 2 - flare
        made = prism(
            length, lambda s: chine(half, deadrise, depth, flare), fine_bow(fine), straight(0.35)
        )
        return (length, beam, *made)

    def soft(length, beam, depth, power, stern, aft, fore):  # type: ignore[no-untyped-def]
        made = prism(
            length,
            lambda s: round_bilge(beam / 2, depth, power),
            ends(2.0, stern),
            rocker(aft, fore),
        )
        return (length, beam, *made)

    return {
        "kayak": soft(3.7, 0.78, 0.33, 10.0, 0.0, 0.03, 0.03),
        "canoe": soft(4.8, 0.92, 0.36, 8.0, 0.0, 0.04, 0.04),
        "board": soft(3.3, 0.82, 0.16, 9.0, 0.35, 0.02, 0.04),
        "sailing_dinghy": soft(4.3, 1.65, 0.55, 3.5, 0.7, 0.08, 0.12),
        "rigid_dinghy": hard(3.2, 1.45, 8, 0.52, 0.5),
        "inflatable_soft": (2.9, 1.5, *inflatable(2.9, 1.5, 0.40, 0.0)),
        "inflatable_air": (2.9, 1.55, *inflatable(2.9, 1.55, 0.42, 6.0)),
        "rib": (3.6, 1.75, *inflatable(3.6, 1.75, 0.44, 16.0)),
        "flat_bottom": hard(4.3, 1.6, 1, 0.5, 0.7),
        "skiff": hard(4.3, 1.35, 4, 0.42, 0.45),
        "cabin": soft(6.5, 2.3, 1.2, 4.0, 0.75, 0.2, 0.25),
        "keelboat": soft(7.5, 2.5, 1.3, 3.2, 0.55, 0.42, 0.4),
        "multihull": soft(6.7, 0.55, 0.9, 3.5, 0.4, 0.1, 0.1),
    }


TYPICAL_KG = {  # loaded, of one body
    "kayak": 130,
    "canoe": 210,
    "board": 110,
    "sailing_dinghy": 300,
    "rigid_dinghy": 250,
    "inflatable_soft": 220,
    "inflatable_air": 230,
    "rib": 330,
    "flat_bottom": 350,
    "skiff": 240,
    "cabin": 1800,
    "keelboat": 2800,
    "multihull": 475,
}


FITTED, CHECKED = (0.6, 0.8, 1.0, 1.4, 1.9), (0.7, 1.25, 1.6)


def faces(xs: Sequence[float], sections: Sequence[Section]) -> list:
    """Triangles of a closed body: both sides, deck and ends."""
    rings = []
    for x, half in zip(xs, sections, strict=True):
        port = [(x, -y, z) for y, z in reversed(half)]
        star = [(x, y, z) for y, z in half]
        rings.append([*port, *star])
    out, n = [], len(rings[0])
    for a, b in zip(rings[:-1], rings[1:], strict=True):
        for i in range(n):
            j = (i + 1) % n
            out += [(a[i], b[j], b[i]), (a[i], a[j], b[j])]
    for ring, flip in ((rings[0], False), (rings[-1], True)):
        middle = tuple(np.mean(ring, axis=0))
        for i in range(n):
            j = (i + 1) % n
            out.append((middle, ring[i], ring[j]) if flip else (middle, ring[j], ring[i]))
    return out


def stl(path: Path, triangles: list) -> None:
    """A binary STL."""
    with path.open("wb") as f:
        f.write(b"\0" * 80 + struct.pack("<I", len(triangles)))
        for a, b, c in triangles:
            n = np.cross(np.subtract(b, a), np.subtract(c, a))
            n = n / (np.linalg.norm(n) + 1e-12)
            f.write(struct.pack("<12fH", *n, *a, *b, *c, 0))


def state(xs: Sequence[float], sections: Sequence[Section], mass: float) -> dict[str, float]:
    """How a body floats level at a mass in kg: T, A, S, KB, I_T, I_L, LCB, V in SI."""
    import navaltoolbox as nt

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "b.stl"
        stl(path, faces(xs, sections))
        vessel = nt.Vessel(nt.Hull(str(path)))
    x = nt.HydrostaticsCalculator(vessel, RHO).from_displacement(float(mass), vcg=0.0)
    lowest = min(z for s in sections for _, z in s)
    return {
        "T": x.draft - lowest,
        "A": x.waterplane_area,
        "S": x.wetted_surface_area,
        "KB": x.vcb - lowest,
        "IT": x.bmt * x.volume,
        "IL": x.bml * x.volume,
        "LCB": x.lcb,
        "V": x.volume,
    }


def main() -> None:
    """Print, by family, the constants of core/hydro/shapes.py and the states they came from."""
    for name, (length, beam, xs, sections) in boats().items():
        m = TYPICAL_KG[name]
        fitted = [state(xs, sections, m * by) for by in FITTED]
        mid, x = fitted[FITTED.index(1.0)], np.log(FITTED)
        bend, slope, _ = np.polyfit(x, [np.log(f["T"]) for f in fitted], 2)
        power = {k: float(np.polyfit(x, [np.log(f[k]) for f in fitted], 1)[0]) for k in mid}
        print(
            f'    "{name}": Shape({mid["V"] / (length * beam**2):.4f}, {mid["T"] / beam:.4f}, '
            f"{slope:.3f}, {bend:.3f}, {mid['S'] / (length * beam):.3f}, {power['S']:.3f}, "
            f"{mid['IT'] / (length * beam**3):.4f}, {power['IT']:.3f}, "
            f"{mid['IL'] / (length**3 * beam):.4f}, {power['IL']:.3f}, "
            f"{mid['KB'] / mid['T']:.3f}, {mid['LCB'] / length:.3f}),"
        )
        for by in CHECKED:  # loads that the constants were not fitted to
            at = state(xs, sections, m * by)
            result = ", ".join(f"{at[k]:.4g}" for k in ("T", "A", "S", "KB", "IT", "IL", "LCB"))
            print(f'# ("{name}", {length}, {beam}, {m * by:.0f}, {result}),')


if __name__ == "__main__":
    sys.exit(main())
