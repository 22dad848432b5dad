"""Why a boat runs otherwise than promised: each cause is a hypothesis with its own shift of the
curve, compared by how well it explains the points; and the next run that tells two of them apart.

What the points say is ln power measured less ln power promised at the measured speed. A cause adds
its own shift by an amount of a size usual for it (half-normal), of shaft speed and volts too where
they were read; what is not known of the boat, the
form of her curve, the day's speedometer and the noise of the points are the same for all. The
evidence is integrated over the amount; priors and sizes are Jolvek's own.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.base.messages import msg, words
from jolvek.core.hydro import shape
from jolvek.core.hydro.hull import UNKNOWNS
from jolvek.core.predict.doubt import Doubt
from jolvek.core.predict.fit_slopes import all_slopes
from jolvek.core.trial.runs import TrialPoint
from jolvek.core.trial.shaft_and_volts import Evidence

SPEED_BIAS = 0.015  # 1σ of a speedometer that is as good as usual, of speed
TOP_FROM = 0.85  # of the highest power tried, from which power may be lost
BLOW_M_S = 4.0  # a wind that nobody noted
MODEL_NOISE = 0.005
SQUAT_WAVES = 0.3  # of what squat does to the transom's drag, to the waves'
MOST_EVIDENCE = 600.0  # of ln: more is as good as certain
AMOUNTS = np.linspace(0.0, 3.0, 61)  # in sizes
HEALTHY = 0.6  # before anything is known
ALARM = 0.72  # chance that something is wrong, from which it is reported
LEAST_CHANCE = 0.05
WORDS = ((0.8, msg("very likely")), (0.5, msg("likely")), (0.2, msg("possible")))


@dataclass(frozen=True)
class Cause:
    """One cause: the fault that it shows as, what it is, its prior among causes, the size of its
    shift (of ln of what it changes), what to check, the cure.
    """

    key: str
    fault: str
    what: str
    prior: float
    size: float
    check: str
    cure: str

    def __post_init__(self) -> None:
        words(self, "what", "check", "cure")


# fmt: off
CAUSES = (
    Cause("fouled", "slow", "the bottom is foul", .22, .7,
          "a hand over the bottom, amidships and aft", "clean the bottom"),
    Cause("heavy", "slow", "the boat is heavier than stated", .2, .3,
          "waterline against the drawing; water in tubes and bilge",
          "take weight out, or weigh it"),
    Cause("propeller", "slow", "the propeller is damaged, or not the one stated", .2, .4,
          "blades, the order of the washers, the size cast into the hub", "another propeller"),
    Cause("power", "slow_high", "power is lost at full throttle", .14, .35,
          "volts at the motor’s plug and its messages at full power; the battery’s age",
          "joints cleaned, packs charged or replaced, motor cooled"),
    Cause("battery", "slow_high", "the packs are worn, or a joint is poor", .12, .1,
          "volts at the pack and at the motor’s plug at full power; a capacity test",
          "joints cleaned, packs charged or replaced"),
    Cause("trim", "slow", "the boat squats", .08, 1.4,
          "trim from the quay, people and packs as on the run", "people and packs forward"),
    Cause("instrument", "slow", "the speed shown is wrong", .12, .14,
          "a second GPS beside it", "go by the second one"),
    Cause("wind", "slow", "wind that was not noted", .04, 2.5,
          "wind of the runs", "try again in a calm"),
)
# fmt: on


@dataclass(frozen=True)
class Likely:
    """A cause with its probability, and the amount that explains the points best."""

    cause: Cause
    chance: float
    amount: float

    @property
    def word(self) -> str:
        """Its probability in a word."""
        return next((word for least, word in WORDS if self.chance >= least), msg("unlikely"))


@dataclass(frozen=True)
class Explained:
    """What explains a trial: the chance that nothing is wrong, the causes with the likeliest first,
    and the power in W whose run would tell the first two apart best.
    """

    healthy: float
    causes: tuple[Likely, ...]
    next_w: float
    points: int

    @property
    def worth_a_look(self) -> tuple[Likely, ...]:
        """The causes that are worth a look."""
        return tuple(x for x in self.causes if x.chance >= LEAST_CHANCE)

    @property
    def wrong(self) -> bool:
        """Whether something is to be reported."""
        return 1 - self.healthy >= ALARM


@dataclass(frozen=True)
class _At:
    """A promise at speeds (N,): what each unknown does to ln power, and whether a run is one at
    full throttle.
    """

    d: Doubt
    log_v: Array
    full: Array

    def read(self, values: Array) -> Array:
        """Values over the grid of speeds (M,), at these."""
        return np.asarray(np.interp(self.log_v, np.log(self.d.performance.speed_m_s), values))

    @property
    def steep(self) -> Array:
        """d ln P/d ln V."""
        p = self.d.performance
        slope = np.gradient(np.log(np.maximum(p.power_w, 1e-6)), np.log(p.speed_m_s))
        return np.maximum(self.read(slope), 1.0)

    def shift(self, key: str, amount: Array) -> Array:
        """ln power that a cause adds at amounts (K,) → (K, N)."""
        a, d = amount[:, None], self.d
        if key == "instrument":  # what is shown is less than what is run
            p = d.performance
            grid, log_p = np.log(p.speed_m_s), np.log(np.maximum(p.power_w, 1e-6))
            return np.asarray(
                np.interp(self.log_v + a, grid, log_p) - np.interp(self.log_v, grid, log_p)
            )
        if key == "battery":  # volts tell, not speed at the power that is drawn
            return np.zeros((amount.size, self.log_v.size))
        if key in ("propeller", "power"):
            return np.asarray(a * (self.full if key == "power" else np.ones_like(self.log_v)))
        if key == "heavy":
            return np.asarray(a * self.read(d.slopes["mass"]))
        blow = (BLOW_M_S / np.exp(self.log_v)) ** 2
        if key == "wind":
            return self._dearer(self.read(d.slopes["air"]) * blow, 1.0 + a)
        part = (
            d.slopes["friction"]
            if key == "fouled"
            else d.slopes["transom"] + SQUAT_WAVES * d.slopes["waves"]
        )
        return self._dearer(self.read(part), np.exp(a))

    def _dearer(self, slope: Array, by: Array) -> Array:
        """ln power where a part of the drag, by its slope, is `by` times what it was."""
        steep = np.maximum(self.read(self.d.steep), 0.5)
        return np.asarray(steep * np.log1p(np.maximum(slope / steep, 0.0) * (by - 1.0)))


def _spread(d: Doubt, log_v: Array) -> Array:
    """Covariance of ln power promised at speeds (N, N): all that is not known of a healthy boat,
    and of the day's speedometer.
    """
    p = d.performance
    grid = np.log(p.speed_m_s)
    known = np.diag([d.priors[key] ** 2 for key in UNKNOWNS])
    steep = np.maximum(np.gradient(np.log(np.maximum(p.power_w, 1e-6)), grid), 1.0)

    def at(slopes: Array) -> Array:
        return np.stack([np.interp(log_v, grid, x) for x in slopes.T], axis=-1)

    g, h = at(all_slopes(d.slopes)), at(d.shape_slopes)
    n = np.interp(log_v, grid, steep)
    form = shape.covariance(p.setup.hull.fam.planes)
    return np.asarray(g @ known @ g.T + h @ form @ h.T + SPEED_BIAS**2 * np.outer(n, n))


def explain(points: Sequence[TrialPoint], promised: Doubt, limit_w: float) -> Explained:
    """What explains the points of a trial of a boat as promised (untried).

    >>> from jolvek.core.predict.doubt import doubt
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.measured import SOFT
    >>> p = evaluate(SOFT)
    >>> as_promised = [TrialPoint(w, float(p.speed_at_w(w)), .01, (0,)) for w in (300., 600., 900.)]
    >>> explain(as_promised, doubt(p), 1100.0).wrong
    False
    """
    log_v = np.log([p.speed_m_s for p in points])
    watts = np.array([p.power_w for p in points])
    perf = promised.performance
    grid, log_p = np.log(perf.speed_m_s), np.log(np.maximum(perf.power_w, 1e-6))
    off = np.log(watts) - np.interp(log_v, grid, log_p)
    n = np.maximum(np.interp(log_v, grid, np.gradient(log_p, grid)), 1.0)
    noise = np.array([p.noise for p in points])
    known = _spread(promised, log_v) + np.diag((n * noise) ** 2 + MODEL_NOISE**2)
    here = _At(promised, log_v, np.asarray(watts >= TOP_FROM * watts.max(), dtype=float))
    read = Evidence(points, perf, here.full)
    plain = _log_density(off[None, :], known)[0] + read.of("", np.zeros(1))[0]
    evidence, amounts = {}, {}
    causes = [c for c in CAUSES if c.key != "battery" or read.volts]
    for c in causes:
        sizes, prior = c.size * AMOUNTS, np.exp(-0.5 * AMOUNTS**2)
        density = _log_density(off[None, :] - here.shift(c.key, sizes), known)
        density = density + read.of(c.key, sizes)
        weight = prior / prior.sum() * np.exp(np.minimum(density - plain, MOST_EVIDENCE))
        evidence[c.key] = (1 - HEALTHY) * c.prior * float(weight.sum())
        amounts[c.key] = float(sizes[int(np.argmax(weight))])
    whole = HEALTHY + sum(evidence.values())
    found = [Likely(c, evidence[c.key] / whole, amounts[c.key]) for c in causes]
    ranked = tuple(sorted(found, key=lambda x: -x.chance))
    return Explained(HEALTHY / whole, ranked, _next_w(promised, ranked, limit_w), len(points))


def _log_density(off: Array, known: Array) -> Array:
    """ln of the density of departures (K, N), but for what is common to all."""
    return np.asarray(-0.5 * np.einsum("kn,kn->k", off, np.linalg.solve(known, off.T).T))


def _next_w(d: Doubt, ranked: Sequence[Likely], limit_w: float) -> float:
    """The power at which the first two causes, each at its best amount, lie furthest apart for the
    doubt there is.
    """
    shares = np.array([0.15, 0.3, 0.5, 0.75, 1.0])
    watts = shares * limit_w
    log_v = np.log(np.maximum(d.performance.speed_at_w(watts), 1e-3))
    here = _At(d, log_v, np.asarray(shares >= TOP_FROM, dtype=float))
    sizes = [np.array([x.amount or x.cause.size]) for x in ranked[:2]]
    first, second = (here.shift(x.cause.key, a)[0] for x, a in zip(ranked[:2], sizes, strict=True))
    apart = first - second
    sigma = np.sqrt(np.diag(_spread(d, log_v)))
    return float(watts[int(np.argmax(np.abs(apart) / sigma))])


def planted(d: Doubt, key: str, amount: float) -> Doubt:
    """A promise as it would be measured with a cause at work: for trying the diagnosis.

    >>> from jolvek.core.predict.doubt import doubt
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.measured import SOFT
    >>> d = doubt(evaluate(SOFT))
    >>> bool((planted(d, "fouled", 0.5).performance.power_w > d.performance.power_w).all())
    True
    """
    p = d.performance
    here = _At(d, np.log(p.speed_m_s), np.asarray(p.power_w >= TOP_FROM * p.power_limit_w, float))
    more = np.exp(here.shift(key, np.array([amount]))[0])
    power = p.power_w * more
    rest = np.maximum.accumulate(p.power_from_rest_w * more)
    return replace(d, performance=replace(p, power_w=power, power_from_rest_w=rest))
