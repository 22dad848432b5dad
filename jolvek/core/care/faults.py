"""Faults in service: those a trial knows and those that come with the years, what a log says of
them, and how long boats ran before their first. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jolvek.core.base.messages import msg
from jolvek.core.rules.signals import CAUTION, DANGER, WARNING
from jolvek.core.trial.diagnosis import FAULTS as TRIAL_FAULTS
from jolvek.core.trial.diagnosis import Cause, Fault, Suspected

FAULT_STATE_WORDS = {
    "open": msg("open"),
    "closed": msg("fixed"),
    "accepted": msg("accepted as it is"),
}
LATEST, MORE_POWER = 5, 0.15  # trips looked at, and how much more they take; Jolvek's own

_OWN = (
    Fault(
        "dead",
        "It does not start",
        (
            Cause("the kill cord or magnet is not in", "the cord's seat", "put it in; its spare"),
            Cause("the main switch is off or a fuse is blown", "switch, fuse", "find why it blew"),
            Cause(
                "a plug is loose or green", "plugs from pack to motor", "dry, press home, grease"
            ),
            Cause("the pack has switched itself off", "its display", "charge it; the maker"),
        ),
        "it starts five times in a row, cord out stops it",
        "Magnet or cord out before a hand goes near the propeller.",
    ),
    Fault(
        "charge",
        "It does not charge",
        (
            Cause("the shore supply is off", "breaker and earth leakage switch", "a trip: why?"),
            Cause("the pack is below freezing or hot", "its temperature", "warm it, let it cool"),
            Cause(
                "charger and pack do not fit", "volts and chemistry on both", "the right charger"
            ),
            Cause("a charging lead or fuse is broken", "lead by lead", "replace it"),
        ),
        "full by the hours worked out",
        "Shore power can kill: a licensed electrician looks at it.",
    ),
    Fault(
        "hot",
        "A cable, plug or fuse gets hot",
        (
            Cause("a joint is loose or corroded", "each joint by hand, switched off", "made anew"),
            Cause("the cable is too thin or too long", "its section on the sheet", "a thicker one"),
            Cause("more is drawn than it was made for", "amps against the sheet", "less, or fuse"),
        ),
        "hand-warm at most after ten minutes of full power",
        "Stop using it: hot joints burn boats.",
    ),
    Fault(
        "wet",
        "Water in motor, plug or battery box",
        (
            Cause(
                "a seal is worn or cut by line", "look behind the propeller", "a workshop: seals"
            ),
            Cause("a cap was left off", "caps and glands", "rinse fresh, dry, grease, cap on"),
            Cause("the box has no drain", "its lowest corner", "a drain, the pack raised"),
        ),
        "dry after an hour afloat",
        "A lithium pack that was under water stays outside, away from people, and is not charged.",
    ),
    Fault(
        "short_day",
        "It does not go as far as it did",
        (
            Cause("the battery has aged", "its health on this page", "a new pack"),
            Cause("it is not charged full", "charge shown in the morning", "charger, hours"),
            Cause("bottom or propeller are foul", "a hand over both", "clean them"),
            Cause("wind, current, load", "against the day as worked out", "a shorter way, slower"),
        ),
        "a usual trip takes the charge worked out",
    ),
    Fault(
        "steering",
        "Steering, tilt or clamp are stiff or loose",
        (
            Cause("salt and no grease", "pivot and clamp screws", "rinse, grease"),
            Cause("a bolt works loose", "every bolt of mount and link", "tighten, secure"),
        ),
        "lock to lock with two fingers, no play in the clamp",
    ),
)
SERVICE_FAULTS: dict[str, Fault] = {
    **{f.key: f for f in _OWN},
    **TRIAL_FAULTS,
    "other": Fault("other", "Something else", (), "the owner is content"),
}


_SIGNALS = {  # what it can do; Jolvek's own
    "hot": DANGER,
    "wet": DANGER,
    "dead": WARNING,
    "charge": WARNING,
    "vibrates": WARNING,
    "other": WARNING,  # nobody has looked yet
}


def signal_of_fault(kind: str) -> str:
    """What a kind of fault can do: one of the signals.

    >>> signal_of_fault("hot"), signal_of_fault("slow")
    ('danger', 'caution')
    """
    return _SIGNALS.get(kind, CAUTION)


def suspect_from_log(shares: Sequence[float], aged: bool = False) -> list[Suspected]:
    """What a log says: `shares` are the power of her latest trips over the one worked out, less
    one, the latest first; `aged` whether the battery is at its end.

    >>> [x.fault.key for x in suspect_from_log([0.3, 0.25, 0.2, 0.4, 0.3])]
    ['slow']
    >>> suspect_from_log([0.3, 0.0, 0.0, 0.0, 0.0]), suspect_from_log([0.5])
    ([], [])
    """
    out = []
    latest = list(shares[:LATEST])
    if len(latest) == LATEST and float(np.median(latest)) >= MORE_POWER:
        why = msg(
            "the last %(latest)s trips took %(latest2)s %% more power (median)",
            latest=LATEST,
            latest2=f"{100 * np.median(latest):.0f}",
        )
        out.append(Suspected(TRIAL_FAULTS["slow"], msg("%(why)s than worked out", why=why)))
    if aged:
        out.append(Suspected(SERVICE_FAULTS["short_day"], msg("the battery is at its end")))
    return out


@dataclass(frozen=True)
class FirstFault:
    """Of the boats with a product: how many, how many had a fault, hours by which a quarter and a
    half have had one (None: fewer have, so far), and the share without one by hours, as steps.
    """

    boats: int
    faulted: int
    quarter_h: float | None
    half_h: float | None
    curve: tuple[tuple[float, float], ...]


def first_fault(hours: Sequence[float], faulted: Sequence[bool]) -> FirstFault:
    """From the hours of each boat at her first fault, or now where she had none: by Kaplan and
    Meier's estimate (1958), through scipy.stats.ecdf with right-censored data.

    >>> f = first_fault([50, 120, 200, 300], [True, False, True, False])
    >>> f.faulted, f.half_h, [round(s, 3) for _, s in f.curve]
    (2, 200.0, [1.0, 0.75, 0.375])
    """
    from scipy.stats import CensoredData, ecdf  # takes a second to import

    h, had = np.asarray(hours, dtype=float), np.asarray(faulted, dtype=bool)
    if not had.any():
        return FirstFault(h.size, 0, None, None, ((0.0, 1.0),))
    found = ecdf(CensoredData(uncensored=h[had], right=h[~had])).sf
    steps = [(0.0, 1.0)]
    for at, share in zip(found.quantiles, found.probabilities, strict=True):
        if share < steps[-1][1] - 1e-12:
            steps.append((float(at), float(share)))
    at_most = [next((at for at, s in steps if s <= x + 1e-9), None) for x in (0.75, 0.5)]
    return FirstFault(h.size, int(had.sum()), at_most[0], at_most[1], tuple(steps))
