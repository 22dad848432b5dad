"""Cables and fuses: allowed amps, voltage drop, the next size up, the fuse that protects it.

Tables are typed from memory of the named sources; tests/reference/test_wiring.py holds what is
checked. Local codes and the cable's own marking decide.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg

# 33 CFR 183.425 Table 5, conductors insulated for 105 °C, under 50 V, outside engine spaces:
# (AWG, A)
# fmt: off
AWG_105C_A = (
    (18, 20), (16, 25), (14, 35), (12, 45), (10, 60), (8, 80), (6, 120), (4, 160), (3, 180),
    (2, 210), (1, 245), (0, 285), (-1, 330), (-2, 385), (-3, 445),
)
# ISO 10133 Table A.1, insulation of 105 °C at 30 °C outside engine spaces: (mm², A)
ISO_105C_A = (
    (0.75, 16), (1, 20), (1.5, 25), (2.5, 35), (4, 45), (6, 60), (10, 90), (16, 130), (25, 170),
    (35, 210), (50, 270), (70, 330), (95, 390), (120, 450), (150, 475),
)
# IEC 60228 class 5 (fine-stranded, plain copper), highest resistance at 20 °C: (mm², Ω/km)
IEC_OHM_KM = (
    (0.75, 26.0), (1, 19.5), (1.5, 13.3), (2.5, 7.98), (4, 4.95), (6, 3.30), (10, 1.91),
    (16, 1.21), (25, 0.780), (35, 0.554), (50, 0.386), (70, 0.272), (95, 0.206), (120, 0.161),
    (150, 0.129),
)
# fmt: on
ENGINE_SPACE = 0.85  # factor on allowed amps for 105 °C insulation, 33 CFR 183.425
COPPER_PER_K = 0.00393  # rise of resistance, IEC 60228
RUNNING_C = 45.0  # conductor temperature for the drop; common practice, no source
# 3 % for motor circuits and charge leads, 10 % elsewhere; common practice, no source
DROP = {"motor": 0.03, "charge": 0.03, "other": 0.10}
# fmt: off
FUSES_A = (
    5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 70, 80, 100, 125, 150, 175, 200, 225, 250, 300, 350,
    400, 450, 500,
)
# fmt: on
MOST_FUSE_SHARE = 1.0  # fuse over what the cable carries: ISO 13297 and ABYC E-11, from memory
OTHER_FUSE_SHARE = 1.5  # allowed below 50 V by 33 CFR 183.455, from memory; not used here
FUSE_SHARE = 1.25  # fuse over steady current; its cable carries its rating
FUSE_VOLTS = (32, 58, 80, 125, 250, 600, 1000)  # DC ratings on sale; common practice, no source
LITHIUM_BREAKS_A = 10_000.0  # least breaking capacity at lithium, ABYC E-13, from memory
FUSE_WITHIN_M = 0.18  # of the battery's pole along the cable (7 in), 33 CFR 183.455
MOST_PARALLEL_CABLES = 4


@dataclass(frozen=True)
class Cable:
    """One chosen cable: mm² with the AWG size at least as thick, what it carries and what it loses
    there and back.
    """

    size_mm2: float
    awg: str
    runs: int  # cables side by side, equal in length
    allowed_a: float
    drop_v: float
    drop: float  # share of the voltage
    ruled_by: str  # amps | drop
    next_mm2: float | None


def awg_area_mm2(gauge: int) -> float:
    """Copper area in mm² of an American gauge (0 = 1/0, −1 = 2/0 …). Source: ASTM B258, d = 0.127
    mm · 92^((36−n)/39).

    >>> round(awg_area_mm2(6), 1), round(awg_area_mm2(-3), 1)
    (13.3, 107.2)
    """
    return float(np.pi / 4 * (0.127 * 92 ** ((36 - gauge) / 39)) ** 2)


def awg_name(gauge: int) -> str:
    """The gauge as it is written.

    >>> awg_name(6), awg_name(-1)
    ('6', '2/0')
    """
    return str(gauge) if gauge > 0 else f"{1 - gauge}/0"


def awg_for_mm2(size_mm2: float, amps: float = 0.0) -> str:
    """The thinnest American gauge of the table with at least nine tenths of the copper that also
    carries the amps.

    >>> awg_for_mm2(16), awg_for_mm2(35)
    ('4', '2')
    """
    for gauge, allowed in AWG_105C_A:
        if awg_area_mm2(gauge) >= 0.9 * size_mm2 and allowed >= amps:
            return awg_name(gauge)
    return msg("over %(awg_name)s", awg_name=awg_name(-3))


def allowed_a(size_mm2: float, engine_space: bool = False) -> float:
    """Amps that one cable of a standard size may carry. Source: ISO 10133 Table A.1, 105 °C; raises
    ValueRefused.

    >>> allowed_a(16), round(allowed_a(16, engine_space=True), 1)
    (130.0, 110.5)
    """
    table = dict(ISO_105C_A)
    if size_mm2 not in table:
        raise ValueRefused(
            "size_mm2", size_mm2, msg("one of ") + ", ".join(f"{s:g}" for s in table)
        )
    return table[size_mm2] * (ENGINE_SPACE if engine_space else 1.0)


def drop_v(
    size_mm2: float, current_a: float, there_and_back_m: float, temperature_c: float = RUNNING_C
) -> float:
    """Volts lost over a cable's whole length, there and back, at a conductor temperature. Source:
    IEC 60228 class 5.

    >>> round(drop_v(16, 100.0, 4.0, 20.0), 3)
    0.484
    """
    table = dict(IEC_OHM_KM)
    if size_mm2 not in table:
        raise ValueRefused(
            "size_mm2", size_mm2, msg("one of ") + ", ".join(f"{s:g}" for s in table)
        )
    return (
        table[size_mm2]
        / 1000
        * (1 + COPPER_PER_K * (temperature_c - 20))
        * there_and_back_m
        * current_a
    )


def cable(
    current_a: float,
    there_and_back_m: float,
    voltage_v: float,
    circuit: str = "motor",
    engine_space: bool = False,
    at_least_mm2: float = 0.75,
) -> Cable:
    """The smallest standard cable that carries a steady current (A) and keeps the drop within its
    circuit's share.

    `there_and_back_m` is the length of plus and minus together; `circuit` is motor (3 %) or other
    (10 %). Past the largest size cables are laid side by side. Sources: `allowed_a`, `drop_v`.
    Raises ValueRefused.

    >>> c = cable(100.0, 4.0, 24.0)
    >>> c.size_mm2, c.awg, c.ruled_by, c.next_mm2
    (16, '4', 'amps', 25)
    >>> cable(100.0, 10.0, 24.0).ruled_by
    'drop'
    """
    if circuit not in DROP:
        raise ValueRefused("circuit", circuit, msg("one of ") + ", ".join(DROP))
    for key, value in (
        ("current_a", current_a),
        ("there_and_back_m", there_and_back_m),
        ("voltage_v", voltage_v),
    ):
        if not 0 < value < 1e5:
            raise ValueRefused(key, value, msg("a number above 0"))
    sizes = [size for size, _ in ISO_105C_A if size >= at_least_mm2]
    for runs in range(1, MOST_PARALLEL_CABLES + 1):
        amps, most_v = current_a / runs, DROP[circuit] * voltage_v
        by_amps = next((s for s in sizes if allowed_a(s, engine_space) >= amps), None)
        by_drop = next((s for s in sizes if drop_v(s, amps, there_and_back_m) <= most_v), None)
        if by_amps is not None and by_drop is not None:
            size = max(by_amps, by_drop)
            ruled_by = "drop" if by_drop > by_amps else "amps"
            way = (there_and_back_m, voltage_v)
            return _laid(size, runs, current_a, *way, engine_space, ruled_by)
    most = msg(
        "what %(most_parallel_cables)s cables of %(sizes)s mm² carry; raise the voltage",
        most_parallel_cables=MOST_PARALLEL_CABLES,
        sizes=f"{sizes[-1]:g}",
    )
    raise ValueRefused("current_a", current_a, most)


def heaviest(
    current_a: float, there_and_back_m: float, voltage_v: float, engine_space: bool = False
) -> Cable:
    """The largest cables, as many as carry the current, where `cable` finds none that also keeps
    the drop: to be drawn with what is wrong, never to be fitted.

    >>> heaviest(2000.0, 4.0, 12.0).runs > 4, heaviest(100.0, 600.0, 12.0).drop > 0.03
    (True, True)
    """
    size = ISO_105C_A[-1][0]
    runs = max(math.ceil(current_a / allowed_a(size, engine_space)), MOST_PARALLEL_CABLES)
    return _laid(size, runs, current_a, there_and_back_m, voltage_v, engine_space, "drop")


def _laid(
    size: float,
    runs: int,
    current_a: float,
    there_and_back_m: float,
    voltage_v: float,
    engine_space: bool,
    ruled_by: str,
) -> Cable:
    amps = current_a / runs
    lost = drop_v(size, amps, there_and_back_m)
    return Cable(
        size,
        awg_for_mm2(size, amps),
        runs,
        runs * allowed_a(size, engine_space),
        lost,
        lost / voltage_v,
        ruled_by=ruled_by,
        next_mm2=next((s for s, _ in ISO_105C_A if s > size), None),
    )


@dataclass(frozen=True)
class Fuse:
    """One fuse: rating, where it sits, the short-circuit current it must break and the DC volts it
    must stand.
    """

    rating_a: float
    within_m: float
    must_break_a: float
    fits_cable: bool
    volts_v: float = FUSE_VOLTS[0]


def fuse_rating_a(current_a: float) -> float:
    """The next rating over 1.25 times a steady current, or the largest known.

    >>> fuse_rating_a(42.0), fuse_rating_a(900.0)
    (60, 500)
    """
    return next((f for f in FUSES_A if f >= FUSE_SHARE * current_a - 1e-9), FUSES_A[-1])


def fuse(
    current_a: float, allowed: float, short_circuit_a: float = 0.0, full_v: float = 0.0
) -> Fuse:
    """The fuse for a steady current (A) in a cable that carries `allowed` amps: the next rating
    over 1.25 times the current, no more than the cable carries; its DC rating over `full_v`.

    >>> fuse(50.0, 90.0).rating_a, fuse(100.0, 80.0).fits_cable, fuse(50.0, 90.0, 0, 58.4).volts_v
    (70, False, 80)
    """
    rating = fuse_rating_a(current_a)
    volts = next((v for v in FUSE_VOLTS if v >= full_v), FUSE_VOLTS[-1])
    fits = rating <= MOST_FUSE_SHARE * allowed * (1 + 1e-9)
    return Fuse(rating, FUSE_WITHIN_M, short_circuit_a, fits, volts)
