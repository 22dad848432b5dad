"""What she sets out with: a spare and its weight, the sun."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.day.summed import sets_out_with
from jolvek.core.electric.bank import Bank, runtime_s
from jolvek.core.enquiry.sun import SunAt
from jolvek.core.fit.fitted import Fitted

SUN_POINTS, MOST_SUN_S = 145, 24 * 3600.0


def mean_sun_w(
    sun_at: SunAt | None, start_h: float, seconds: ArrayLike, most_w: ArrayLike = np.inf
) -> Array:
    """Mean W of the sun from setting out for so many seconds (any shape), no more than `most_w` of
    it at a time (the same shape); 0 without panels.

    >>> morning = lambda hour: 100.0 if hour < 12 else 0.0
    >>> mean_sun_w(morning, 11.0, [3600.0, 7200.0]).round().tolist()
    [99.0, 50.0]
    """
    spans, most = np.broadcast_arrays(np.asarray(seconds, float), np.asarray(most_w, float))
    if sun_at is None:
        return np.zeros_like(spans)
    longest = min(max(float(spans.max(initial=0.0)), 60.0), MOST_SUN_S)
    times = np.linspace(0.0, longest, SUN_POINTS)
    power = np.array([sun_at((start_h + t / 3600) % 24.0) for t in times])
    out = np.empty(spans.shape)
    for at in np.ndindex(spans.shape):
        taken = np.minimum(power, most[at])
        given = np.concatenate(([0.0], np.cumsum(0.5 * (taken[1:] + taken[:-1]) * np.diff(times))))
        out[at] = np.interp(spans[at], times, given) / max(spans[at], 1.0)
    return out


@dataclass(frozen=True)
class Aboard:
    """What she sets out with besides her bank: a spare, the sun's W by clock hour."""

    spare: Bank | None = None
    sun_at: SunAt | None = None

    def sun_w(self, fitted: Fitted, seconds: ArrayLike, power_w: ArrayLike) -> Array:
        """Mean W of the sun while a power (both any shape) is drawn: a bank that must not be
        charged takes none of what is left over.
        """
        most = np.inf if fitted.bank.takes_charge else power_w
        return mean_sun_w(self.sun_at, fitted.need.day.start_h, seconds, most)

    def lasts_s(self, fitted: Fitted, power_w: ArrayLike) -> Array:
        """Seconds (any shape) of a power until the reserve, that of the spare too."""
        bank, day = fitted.bank, fitted.need.day
        own = runtime_s(bank, power_w, day.kept_share, 0.0, sets_out_with(fitted))
        more = runtime_s(self.spare, power_w, day.kept_share) if self.spare else 0.0
        return np.maximum(own + more - day.keep_s, 0.0)


def spare_of(fitted: Fitted) -> Bank | None:
    """A second pack like the first, to be swapped in; None where it cannot be: the bank is of
    several packs, or neither clips on nor has a plug.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> spare_of(sample_fitted()) is None
    True
    """
    plug = fitted.battery.spec.connector_max_a is not None
    return fitted.bank if fitted.bank.packs == 1 and (fitted.clips_on or plug) else None


def laden(fitted: Fitted, spare: Bank | None) -> Fitted:
    """The setup with a spare among the gear, where it weighs what it weighs.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> round(laden(f, f.bank).displacement_kg - f.displacement_kg, 1) == round(f.bank.mass_kg, 1)
    True
    """
    if spare is None:
        return fitted
    load = fitted.need.load
    load = replace(load, gear_kg=load.gear_kg + spare.mass_kg)
    return replace(fitted, need=replace(fitted.need, load=load), table=None)
