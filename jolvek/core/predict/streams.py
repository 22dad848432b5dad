"""Against a stream: what each power setting makes good over ground, and for how long."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.units import KNOT_M_S
from jolvek.core.predict.performance import DRIFT_W, Performance

STREAMS_M_S = tuple(k * 0.5 * KNOT_M_S for k in range(7))  # 0 to 3 kn
LOWEST_SHARE = 0.1  # of the power limit: the first step of most throttles; common practice
HOLDS_M_S = 0.05  # less way over ground than this is none


@dataclass(frozen=True)
class HeldPlace:
    """One setting in one stream: W, m/s over ground (0 or less: she does not hold), seconds that
    the bank lasts (None: no battery).
    """

    power_w: float
    ground_m_s: float
    runtime_s: float | None

    @property
    def holds(self) -> bool:
        """Whether she makes way against it."""
        return self.ground_m_s > HOLDS_M_S


@dataclass(frozen=True)
class InStream:
    """One stream in m/s against her: its settings in the order they were asked, and the power that
    just holds her (None: none does).
    """

    stream_m_s: float
    settings: tuple[HeldPlace, ...]
    hold_w: float | None


def settings_w(p: Performance, chosen_w: float | None = None) -> tuple[float, ...]:
    """Full power (what is drawn at the top speed, which the pitch may limit), half of it, lowest
    power, and a chosen one, W.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.motor import Motor
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.setup import Setup
    >>> p = evaluate(Setup(Hull("canoe", 4.8, 0.92, 32), Load(2), Motor(600)))
    >>> [round(w) for w in settings_w(p, 250.0)]
    [600, 300, 60, 250]
    """
    full = p.at_speed(p.top_speed_m_s).power_w or p.power_limit_w
    return (full, 0.5 * full, LOWEST_SHARE * full, *([chosen_w] if chosen_w else []))


def against_streams(p: Performance, chosen_w: float | None = None) -> tuple[InStream, ...]:
    """The table for streams of 0 to 3 kn. Validity as `evaluate`; the wind is the setup's own.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.motor import Motor
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.setup import Setup
    >>> rows = against_streams(evaluate(Setup(Hull("canoe", 4.8, 0.92, 32), Load(2), Motor(600))))
    >>> rows[0].settings[0].holds, rows[-1].settings[2].holds, rows[-1].hold_w > rows[1].hold_w
    (True, False, True)
    """
    powers = settings_w(p, chosen_w)
    speeds = [float(p.speed_at_w(w)) for w in powers]
    lasts = [float(p.runtime_at_s(w)) if p.setup.bank else None for w in powers]
    out = []
    for stream in STREAMS_M_S:
        held = (HeldPlace(w, v - stream, s) for w, v, s in zip(powers, speeds, lasts, strict=True))
        hold = p.at_speed(stream).power_w if stream else 0.0
        out.append(InStream(stream, tuple(held), hold if hold is None or hold > DRIFT_W else 0.0))
    return tuple(out)
