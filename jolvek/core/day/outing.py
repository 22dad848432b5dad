"""The day out as one answer: every setup's voyage, why it comes otherwise, and getting home."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from jolvek.core.day.aboard import Aboard, laden, spare_of
from jolvek.core.day.getting_home import (
    Homing,
    NoReturn,
    Regeneration,
    best_against_m_s,
    homing,
    no_return,
    regeneration,
    speed_for_arrival_m_s,
)
from jolvek.core.day.scenario import Switches, legs_otherwise, switched
from jolvek.core.day.seas import Seas, seas
from jolvek.core.day.stepped import sail_out
from jolvek.core.day.voyage import Voyage
from jolvek.core.electric.bank import Bank
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sun import sun_at
from jolvek.core.fit.fitted import Fitted
from jolvek.core.predict.likelihood import CONFIDENCE, chance, in_words, z_of

EMPTY, LITTLE = 0.05, 1e-6  # of the charge: short of home; just below the reserve; Jolvek's own
ENDS_STEP_S = 240.0  # of the day at the ends of the doubt, which nobody reads to the minute
SAIL_SHARE = 0.8  # of hull speed: a good day under sail, where regeneration is told; Jolvek's own


@dataclass(frozen=True)
class Against:
    """The hardest stream of the day, and the speed through the water that costs least against it;
    None where none makes way.
    """

    stream_m_s: float
    best_m_s: float | None


@dataclass(frozen=True)
class Outing:
    """The day of the setup in hand, beside the day as planned, with what the others do."""

    need: Need
    letter: str
    voyages: dict[str, Voyage]
    planned: Voyage
    switches: Switches
    kept: float  # share of the rated charge that stays
    point: NoReturn
    homing: Homing
    sunless: tuple[NoReturn, Homing] | None  # the same without the sun, where there is any
    against: Against | None
    arrive_m_s: float | None
    regeneration: Regeneration | None
    seas: Seas
    between: tuple[Voyage, Voyage]  # of the setup in hand: the boat harder, and easier to drive

    @property
    def chance(self) -> float:
        """Chance that she comes home with the reserve: where between the ends of the doubt and the
        boat as predicted what is left falls to it, by a line; a boat that stops on the way stands
        for nothing left.
        """
        z = z_of(CONFIDENCE)
        hard, easy = self.between
        over = [self._over(v) for v in (hard, self.voyage, easy)]
        if over[0] >= 0 or over[-1] < 0:
            return float(chance(z if over[0] >= 0 else -z, 1.0))
        return float(chance(np.interp(0.0, np.maximum.accumulate(over), (z, 0.0, -z)), 1.0))

    def _over(self, v: Voyage) -> float:
        """What is left over what stays; below 0 wherever she is not home with the reserve."""
        over = v.left - self.kept if v.done else -self.kept - EMPTY
        return max(over, 0.0) if v.home else min(over, -LITTLE)

    @property
    def likely(self) -> str:
        """That chance in the words that all stations use."""
        return in_words(self.chance)

    @property
    def voyage(self) -> Voyage:
        """The voyage of the setup in hand."""
        return self.voyages[self.letter]


def outing(
    setups: dict[str, Fitted],
    letter: str,
    switches: Switches | None = None,
    spare: bool = False,
    arrive_h: float | None = None,
    sail: Callable[..., Voyage] = sail_out,
) -> Outing:
    """The day of the setups, by letter, with that of `letter` worked out whole.

    `sail` may be a remembered `sail_out`. Validity as `evaluate`.

    >>> from jolvek.core.enquiry.need import Day
    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> o = outing({"A": sample_fitted(Day(1.5, 4000))}, "A")
    >>> o.voyage.home, o.planned is o.voyage, o.point.safe
    (True, True, True)
    """
    s = switches or Switches()
    hand = setups[letter]

    def run(key: str, asked: Switches) -> Voyage:
        fitted = setups[key]
        return sail(fitted, asked, spare_of(fitted) if spare else None)

    voyages = {key: run(key, s) for key in setups}
    as_planned = s == Switches(wind_from_h=s.wind_from_h, wind_against=s.wind_against)
    pack, sun = spare_of(hand) if spare else None, sun_at(hand.need.day, hand.solar_w)
    fitted, lit, unlit = laden(switched(hand, s), pack), Aboard(pack, sun), Aboard(pack)
    day, hull = hand.need.day, hand.need.hull
    legs = legs_otherwise(day, s)
    return Outing(
        hand.need,
        letter,
        voyages,
        voyages[letter] if as_planned else run(letter, Switches()),
        s,
        fitted.kept,
        point=no_return(fitted, legs, lit),
        homing=homing(fitted, legs, lit),
        sunless=(no_return(fitted, legs, unlit), homing(fitted, legs, unlit)) if sun else None,
        against=_against(fitted, voyages[letter]),
        arrive_m_s=speed_for_arrival_m_s(fitted, arrive_h, legs) if arrive_h else None,
        regeneration=_regeneration(hand) if hull.fam.sails and hand.motor.style == "pod" else None,
        seas=seas(fitted, legs, s.wind_m_s or 0.0),
        between=_ends(hand, fitted, s, pack),
    )


def _ends(hand: Fitted, fitted: Fitted, s: Switches, pack: Bank | None) -> tuple[Voyage, Voyage]:
    """The same day at both ends of the doubt, at the speed where the day's energy goes."""
    fastest = max(leg.speed_m_s for leg in fitted.need.day.trip)
    at = min(fastest, fitted.performance.top_speed_m_s)
    drags = (fitted.doubt.drag_factor(at, side) for side in (1, -1))
    hard, easy = (
        sail_out(hand, replace(s, drag_factor=drag), pack, step_s=ENDS_STEP_S) for drag in drags
    )
    return hard, easy


def _against(fitted: Fitted, v: Voyage) -> Against | None:
    stream = max((leg.current_m_s for leg in v.legs), default=0.0)
    if stream <= 0:
        return None
    return Against(stream, best_against_m_s(fitted.performance, stream))


def _regeneration(fitted: Fitted) -> Regeneration:
    return regeneration(fitted.performance, SAIL_SHARE * fitted.performance.hull_speed_m_s)


def with_legs(fitted: Fitted, need: Need) -> Fitted:
    """The same setup on another day.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> with_legs(f, f.need) == f
    True
    """
    return replace(fitted, need=need)
