"""The boats of one job beside each other: what each has in hand, how it is set, what it does."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.rules.signals import SIGNAL_WORDS
from jolvek.web.kit.display import Units, about
from jolvek.web.kit.figures import fig
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked

NAMES = (
    msg("Loaded"),
    msg("Current setup"),
    msg("Shaft or pole"),
    msg("Top speed"),
    msg("At the wanted speed"),
    msg("Range there"),
    msg("Price, fitted"),
    msg("Said against it"),
)


@dataclass(frozen=True)
class JobBoat:
    """One boat: her enquiry, title, whether she is this one, and a text for each of NAMES."""

    id: int
    title: str
    here: bool
    cells: tuple[str, ...]


@dataclass(frozen=True)
class JobPage:
    """All boats, and the names of the rows."""

    boats: tuple[JobBoat, ...]
    names: tuple[str, ...] = NAMES


def job_boat(number: int, title: str, here: bool, hand: Worked | None, u: Units) -> JobBoat:
    """One boat's column; without a setup in hand it says so."""
    if hand is None:
        return JobBoat(
            number, title, here, ("–", tr("none pinned yet"), *("–",) * (len(NAMES) - 2))
        )
    f, at = hand.fitted, hand.wish_or_top
    return JobBoat(
        number,
        title,
        here,
        (
            fig(hand.job, "loaded", u),
            f"{hand.pinned.letter}: {f.motor.title}, {hand.bank_text}",
            setting(hand, u),
            fig(hand.job, "top", u),
            f"{u.full(at.speed_m_s, 'speed')}, {u.full(about(at.power_w or 0.0), 'power')}",
            fig(hand.job, "wish.range", u),
            fig(hand.job, "price.fitted", u),
            tr(SIGNAL_WORDS[hand.findings[0].signal]) if hand.findings else "nothing",
        ),
    )


def setting(hand: Worked, u: Units) -> str:
    """How the motor hangs on this boat: its shaft, or the pole's height for her."""
    f = hand.fitted
    if f.mount.spec.fixed:
        return tr("under the hull")
    leg, shaft = hung_leg(f)
    how = "shaft" if f.shaft_m else tr("pole set to")
    plate = f"{abs(1000 * leg.plate_m):.0f} mm {'below' if leg.plate_m >= 0 else 'ABOVE'}"
    return tr(
        "%(how)s %(shaft)s, plate %(plate)s the bottom",
        how=how,
        shaft=u.full(shaft, "length"),
        plate=plate,
    )
