"""Doubt about a prediction: what is not known of boat and motor, carried through to power at a
speed, speed at a power, range and the day; and which measurement would narrow it most.

The same doubt is small in speed at a power and large in power at a speed. Errors are taken as
independent and each small: σ² = Σ (∂ ln P/∂ ln θ · s)².
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.messages import msg
from jolvek.core.base.units import GRAVITY_M_S2
from jolvek.core.hydro import shape
from jolvek.core.hydro.hull import UNKNOWNS, Hull
from jolvek.core.hydro.resistance import leg_n, parts, remembered_table
from jolvek.core.predict.drag import drag_n
from jolvek.core.predict.fit_slopes import all_slopes
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE
from jolvek.core.predict.likelihood import CONFIDENCE, chance, z_of
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.priors import GIVEN, TRIED, TRIED_EFFICIENCY, WEIGHED, priors

MOST_SIGMA = 1.0  # where wind and drag nearly cancel, nothing is known of the power
PITCH_DOUBT = 0.05  # of the speed where the propeller runs out: slip of 15 to 30 %; common practice
COARSE = 44  # speeds of the neighbouring boats' tables: half as many as the boat's own
_STEP = {"mass": 1.05, "length": 0.97, "beam": 0.93}


@dataclass(frozen=True)
class Doubt:
    """The doubt about one performance over its grid of speeds (N,); `slopes` holds ∂ ln P/∂ ln θ of
    each unknown there.
    """

    performance: Performance
    slopes: Mapping[str, Array]
    priors: Mapping[str, float]
    steep: Array  # ∂ ln P/∂ ln T
    of_hull: Array  # ∂ ln P/∂ ln of the hull's resistance
    z: float

    @cached_property
    def shape_slopes(self) -> Array:
        """∂ ln P/∂ ln of the factor at each node of the curve's form (N, 12)."""
        p = self.performance
        froude = p.speed_m_s / np.sqrt(GRAVITY_M_S2 * p.setup.hull.waterline_m)
        return np.asarray(self.of_hull[:, None] * shape.weights(np.log(froude)))

    @cached_property
    def sigma(self) -> Array:
        """1σ of ln power at a fixed speed (N,)."""
        hull, h = self.performance.setup.hull, self.shape_slopes
        form = shape.covariance(hull.fam.planes)
        if hull.trial_spread:
            g = all_slopes(self.slopes)
            spread = np.array(hull.trial_spread)
            side = math.isqrt(spread.size)
            if side > len(UNKNOWNS):
                g, form = np.concatenate([g, h], axis=1), 0.0 * form
            known = np.einsum("ni,ij,nj->n", g, spread.reshape(side, side), g)
        else:
            known = np.sum([(self.slopes[key] * s) ** 2 for key, s in self.priors.items()], axis=0)
        known = known + np.einsum("ni,ij,nj->n", h, form, h)
        return np.asarray(np.minimum(np.sqrt(np.maximum(known, 0.0)), MOST_SIGMA))

    def sigma_at(self, speed_m_s: ArrayLike) -> Array:
        """The same at speeds of any shape."""
        at = np.asarray(speed_m_s, dtype=float)
        return np.asarray(np.interp(at, self.performance.speed_m_s, self.sigma))

    def drag_factor(self, speed_m_s: float, side: int) -> float:
        """Resistance of the boat at that end of the band (1: the hardest, −1: the easiest) over the
        boat's as predicted.
        """
        sigma, steep = (
            float(np.interp(speed_m_s, self.performance.speed_m_s, x))
            for x in (self.sigma, self.steep)
        )
        return float(np.exp(side * self.z * sigma / steep))

    def power_band_w(self, speed_m_s: ArrayLike) -> tuple[Array, Array]:
        """Power in W that speeds (any shape) may take at least and at most."""
        p = self.performance
        power = np.nan_to_num(p.power_at_w(speed_m_s), nan=p.power_limit_w)
        spread = np.exp(self.z * self.sigma_at(speed_m_s))
        return power / spread, power * spread

    def speed_band_m_s(self, power_w: ArrayLike) -> tuple[Array, Array]:
        """Speed in m/s that powers (any shape) may give: where the power needed at most, and at
        least, reaches it. Past a hump the two lie on its sides. Where the propeller runs out or the
        motor's torque ends, power tells nothing: both ends lie about the speed itself.
        """
        p = self.performance
        low, high = (
            first_speed_m_s(p.power_from_rest_w * np.exp(sign * self.z * self.sigma), p, power_w)
            for sign in (1, -1)
        )
        at = p.speed_at_w(power_w)
        if p.limited_by in ("pitch", "torque"):
            out = at >= p.top_speed_m_s - 1e-9
            top = p.top_speed_m_s
            low = np.where(out, np.minimum(low, (1 - PITCH_DOUBT) * top), low)
            if p.limited_by == "pitch":  # past its torque a lighter boat still gets going
                high = np.minimum(high, (1 + PITCH_DOUBT) * top)
        return np.minimum(low, at), np.maximum(high, at)

    def range_band_m(self, speed_m_s: ArrayLike) -> tuple[Array, Array]:
        """Range in m over ground at fixed speeds through the water (any shape); a battery is
        needed.
        """
        p = self.performance
        way = np.maximum(np.asarray(speed_m_s, dtype=float) - p.setup.current_m_s, 0.0)
        least, most = self.power_band_w(speed_m_s)
        return way * p.runtime_at_s(most), way * p.runtime_at_s(least)

    def way_band_m(self, power_w: ArrayLike) -> tuple[Array, Array]:
        """Range in m over ground at fixed powers (any shape): the time hangs on the battery alone;
        a battery is needed.
        """
        p = self.performance
        seconds, stream = p.runtime_at_s(power_w), p.setup.current_m_s
        low, high = (np.maximum(v - stream, 0.0) * seconds for v in self.speed_band_m_s(power_w))
        return low, high

    def speed_share(self, power_w: float) -> float:
        """Half the band of speed at a power, as a share of the speed."""
        low, high = self.speed_band_m_s(power_w)
        middle = max(float(self.performance.speed_at_w(power_w)), 1e-6)
        return float(high - low) / 2 / middle

    @cached_property
    def planing_chance(self) -> float | None:
        """Chance that she gets over her hump; None for hulls that cannot plane."""
        p = self.performance
        if p.hump_margin is None:
            return None
        edge = p.resistance.planing_speed_m_s(p.displacement_kg, PLANING_FROUDE)
        near = float(self.sigma_at(0.8 * edge))
        if p.limited_by == "pitch" and p.top_speed_m_s < edge:
            return float(chance(np.log(p.top_speed_m_s / edge), PITCH_DOUBT))
        # thrust at a power falls short by about two thirds of what power at a thrust does
        margin = np.log(max(1 + p.hump_margin, 1e-3) / (1 + HUMP_MARGIN))
        return float(chance(margin, near / 1.5))

    @property
    def planing_band_w(self) -> tuple[float, float] | None:
        """Power in W that planing may take; None for hulls that cannot plane."""
        p = self.performance
        if p.planing_power_w is None:
            return None
        edge = p.resistance.planing_speed_m_s(p.displacement_kg, PLANING_FROUDE)
        spread = float(np.exp(self.z * self.sigma_at(0.8 * edge)))
        return p.planing_power_w / spread, p.planing_power_w * spread

    def narrowed(self, power_w: float) -> tuple[tuple[str, float], ...]:
        """What measuring would do: each way with half the band of speed it leaves, best first."""
        ways = {
            msg("weigh the boat"): {"mass": WEIGHED},
            msg("measure the waterline afloat"): GIVEN,
            msg("try one speed on the water"): {**TRIED, "efficiency": TRIED_EFFICIENCY},
        }
        out: list[tuple[str, float]] = []
        if self.performance.setup.hull.trial_spread:
            return ()  # the water has told what there is
        for way, better in ways.items():
            known = {k: min(s, better.get(k, s)) for k, s in self.priors.items()}
            after = replace(self, priors=known).speed_share(power_w)
            if known != dict(self.priors):
                out.append((way, after))
        return tuple(sorted(out, key=lambda x: x[1]))


def first_speed_m_s(power: Array, p: Performance, wanted: ArrayLike) -> Array:
    """Speed in m/s where a power over the speeds of `p` (N,) first passes what is wanted in W (any
    shape), on cube roots.

    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.measured import SOFT
    >>> p = evaluate(SOFT)
    >>> abs(float(first_speed_m_s(p.power_w, p, 500.0)) - float(p.speed_at_w(500.0))) < 0.02
    True
    """
    rising = np.maximum.accumulate(power)
    kept = np.concatenate(([True], rising[1:] > rising[:-1]))
    at = np.cbrt(np.asarray(wanted, dtype=float))
    return np.asarray(np.interp(at, np.cbrt(rising[kept]), p.speed_m_s[kept]))


def _other(hull: Hull, key: str) -> Hull:
    """The hull with one size a little off."""
    by = _STEP[key]
    if key == "length":
        return replace(hull, waterline_length_m=by * hull.waterline_m)
    chine = by * hull.chine_m if hull.fam.planes else None
    if hull.body_count > 1:
        return replace(hull, body_beam_m=by * hull.body_waterline_beam_m, chine_beam_m=chine)
    return replace(hull, waterline_beam_m=by * hull.body_waterline_beam_m, chine_beam_m=chine)


@lru_cache(maxsize=64)
def doubt(p: Performance, confidence: float = CONFIDENCE) -> Doubt:
    """The doubt about a performance; bands hold with that confidence if the priors are right.

    A `drag_factor` of the setup's own shifts its figures, not the doubt. Validity as `evaluate`;
    three neighbouring boats are worked out for the sizes. Raises ValueRefused for a confidence that
    is none.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.motor import Motor
    >>> from jolvek.core.predict.setup import Setup
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> d = doubt(evaluate(Setup(Hull("inflatable_soft", 2.9, 1.5, 32), Load(2), Motor(1100))))
    >>> 0.05 < d.speed_share(900.0) < 0.12, 0.14 < float(d.sigma_at(1.8)) < 0.25
    (True, True)
    """
    s, v, mass = p.setup, p.speed_m_s, p.displacement_kg
    split = parts(p.resistance, v, mass, s.wind_m_s)
    leg = leg_n(s.water, split, v, s.motor.leg_area_m2)
    plain = split.total_n + leg
    seas = np.maximum(drag_n(replace(s, drag_factor=1.0), p.resistance, v) - plain, 0.0)
    total = np.maximum(plain + seas, 1e-6)
    steep = _thrust_slope(p, total)
    shares = {
        "friction": split.friction_n,
        "waves": split.wave_n,
        "transom": split.transom_n,
        "planing": split.planing_n,
        "air": split.air_n,
        "leg": leg,
        "seas": seas,
    }
    slopes = {key: np.clip(steep * part / total, -20, 20) for key, part in shares.items()}
    same = parts(remembered_table(s.hull, s.water, float(mass), s.load), v, mass, 0.0)
    hull_n = same.total_n - same.air_n
    for key, by in _STEP.items():
        hull = s.hull if key == "mass" else _other(s.hull, key)
        at = mass * by if key == "mass" else mass
        near = remembered_table(hull, s.water, float(at), s.load, None, COARSE)
        other = parts(near, v, at, 0.0)
        change = np.log((other.total_n - other.air_n) / np.maximum(hull_n, 1e-9)) / np.log(by)
        slopes[key] = steep * hull_n / total * np.clip(change, -4, 4)
    slopes["efficiency"] = np.ones_like(v)
    return Doubt(p, slopes, priors(s), steep, steep * hull_n / total, z_of(confidence))


def _thrust_slope(p: Performance, thrust: Array) -> Array:
    """∂ ln P/∂ ln T at fixed speeds."""
    drive, rho, v = p.propulsor.drive, p.setup.water.density_kg_m3, p.speed_m_s
    more, less = (drive.power_w(by * thrust, v, rho) for by in (1.02, 0.98))
    turning = less > 0
    ratio = np.where(turning, more, math.e) / np.where(turning, less, 1.0)
    return np.asarray(np.where(turning, np.log(ratio) / np.log(1.02 / 0.98), 1.0))
