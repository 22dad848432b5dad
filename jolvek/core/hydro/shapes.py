"""How each family floats: draught, wetted surface and moments of the waterplane by displacement.

Power laws about a typical load, fitted to meshes of invented boats by
scripts/hydrostatics_reference.py (navaltoolbox); tests/reference/test_floating.py holds them
against other loads. What floats a boat is wider than what makes her waves: the tubes of an
inflatable float nearly over its whole beam.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Shape:
    """One body of a family over its volume coefficient v = V/(L B²), L and B overall.

    ln(T/B) = ln draught + rise x + bend x², x = ln(v/v0); S, I_T and I_L by a power of v alone; the
    centre of buoyancy stands at kb·T above the keel and lcb·L ahead of the stern, level.
    """

    volume: float  # v0
    draught: float  # T/B
    rise: float  # d ln T/d ln V = V/(A T) at v0
    bend: float
    wetted: float  # S/(L B)
    wetted_power: float
    across: float  # I_T/(L B³)
    across_power: float
    along: float  # I_L/(L³ B)
    along_power: float
    kb: float
    lcb: float


# fmt: off
SHAPES: dict[str, Shape] = {
    "kayak": Shape(
        0.0563, 0.1123, 0.862, 0.020, 0.697, 0.311,
        0.0254, 0.264, 0.0289, 0.098, 0.546, 0.495,
    ),
    "canoe": Shape(
        0.0504, 0.1071, 0.835, 0.022, 0.660, 0.308,
        0.0232, 0.322, 0.0279, 0.122, 0.554, 0.496,
    ),
    "board": Shape(
        0.0483, 0.0875, 0.843, 0.022, 0.728, 0.249,
        0.0319, 0.291, 0.0367, 0.110, 0.552, 0.465,
    ),
    "sailing_dinghy": Shape(
        0.0250, 0.0765, 0.672, 0.030, 0.519, 0.323,
        0.0127, 0.646, 0.0279, 0.303, 0.608, 0.462,
    ),
    "rigid_dinghy": Shape(
        0.0362, 0.0852, 0.627, 0.089, 0.738, 0.211,
        0.0353, 0.143, 0.0392, 0.183, 0.647, 0.391,
    ),
    "inflatable_soft": Shape(
        0.0329, 0.0652, 0.681, 0.031, 0.885, 0.338,
        0.0561, 0.280, 0.0396, 0.395, 0.613, 0.374,
    ),
    "inflatable_air": Shape(
        0.0322, 0.0679, 0.657, 0.028, 0.853, 0.377,
        0.0536, 0.330, 0.0386, 0.419, 0.621, 0.375,
    ),
    "rib": Shape(
        0.0292, 0.0925, 0.465, 0.047, 0.777, 0.442,
        0.0484, 0.461, 0.0362, 0.486, 0.700, 0.377,
    ),
    "flat_bottom": Shape(
        0.0310, 0.0500, 0.855, 0.026, 0.790, 0.173,
        0.0414, 0.120, 0.0446, 0.190, 0.553, 0.403,
    ),
    "skiff": Shape(
        0.0299, 0.0622, 0.722, 0.071, 0.715, 0.175,
        0.0346, 0.123, 0.0371, 0.175, 0.614, 0.380,
    ),
    "cabin": Shape(
        0.0510, 0.1368, 0.693, 0.033, 0.634, 0.392,
        0.0170, 0.589, 0.0315, 0.263, 0.601, 0.463,
    ),
    "keelboat": Shape(
        0.0582, 0.1798, 0.649, 0.021, 0.620, 0.478,
        0.0150, 0.691, 0.0269, 0.446, 0.612, 0.490,
    ),
    "multihull": Shape(
        0.2284, 0.5831, 0.733, 0.015, 1.330, 0.662,
        0.0173, 0.649, 0.0300, 0.239, 0.585, 0.469,
    ),
}
# fmt: on
