"""The trim as measured afloat against what the weights give: where the boat's own weight acts."""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.level import slope_m

MUCH_DEG = 2.0  # off by more, something aboard is elsewhere or heavier; common practice, no source


@dataclass(frozen=True)
class Off:
    """Degrees more by the stern than the weights give, and how much further aft in m all of it
    together acts.
    """

    more_deg: float
    aft_m: float

    @property
    def much(self) -> bool:
        """Whether what is aboard should be looked at again."""
        return abs(self.more_deg) > MUCH_DEG


def _unmeasured(f: Fitted) -> Fitted:
    return replace(f, fitting=replace(f.fitting, trim_deg=None, hull_aft_m=0.0))


def hull_aft_m(f: Fitted, trim_deg: float) -> float:
    """How far aft of level the hull's own weight acts where she lies at that trim (degrees, by the
    stern) with the weights as they stand, by `attitude`'s metacentre.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> f = replace(f, fitting=replace(f.fitting, hull_aft_m=hull_aft_m(f, 1.5)))
    >>> round(f.attitude.trim_deg, 6)
    1.5
    """
    a, hull = _unmeasured(f).attitude, f.need.hull
    wanted, now = (slope_m(hull, deg, a.draught_m) for deg in (trim_deg, a.trim_asked_deg))
    return a.gm_long_m * (wanted - now) * a.displacement_kg / hull.mass_kg


def off(f: Fitted) -> Off | None:
    """How far the trim is off by the measurement; None where nothing was measured.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> off(sample_fitted()) is None
    True
    """
    if f.fitting.trim_deg is None:
        return None
    a = _unmeasured(f).attitude
    aft = f.fitting.hull_aft_m * f.need.hull.mass_kg / a.displacement_kg
    return Off(f.attitude.trim_asked_deg - a.trim_asked_deg, aft)
