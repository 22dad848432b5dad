"""What may be put together by hand on one boat: banks and mounts that go with a motor, and why the
others do not; by the same rules as matching.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from jolvek.core.electric.bank_facts import bank_facts, own_suits
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger, served_how
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fit_facts import drive_facts, one_hung
from jolvek.core.fit.fitted import Fitted
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.own import packs_there_are
from jolvek.core.products.pair_facts import motor_facts, pair_facts
from jolvek.core.products.shelf import Item, joins
from jolvek.core.rules import judge
from jolvek.core.rules.findings import Finding
from jolvek.core.rules.rule import Verdict

MOST_SERIES, MOST_PARALLEL = 4, 3


@dataclass(frozen=True)
class BankOption:
    """So many packs of a battery, and why they do not go (none: they do)."""

    item: Item[Battery]
    series: int
    parallel: int
    why: Finding | None = None

    @property
    def price(self) -> float:
        """All packs."""
        return self.series * self.parallel * self.item.price


@dataclass(frozen=True)
class MountOption:
    """A mount, and why it does not go (none: it does)."""

    item: Item[Mount]
    why: Finding | None = None


def _blocks(found: Iterable[Finding]) -> list[Finding]:
    return [f for f in found if f.level == "block"]


def bank_options(
    need: Need,
    motor: Item[Motor],
    mount: Item[Mount],
    batteries: Sequence[Item[Battery]],
    chargers: Sequence[Item[Charger]] = (),
) -> list[BankOption]:
    """The banks that a motor takes on a boat, those that go first; of a battery that makes none, a
    single pack with what stands against it at its nearest. A bank counts as charged where
    one of the chargers serves it.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> [o.why for o in bank_options(f.need, f.motor, f.mount, [f.battery], [f.charger])][:1]
    [None]
    """
    banks = [
        BankOption(item, s, p)
        for item in batteries
        for s, p in itertools.product(range(1, MOST_SERIES + 1), range(1, MOST_PARALLEL + 1))
        if s * p <= packs_there_are(item)
    ]
    verdicts = _pair_verdicts(need, motor, banks, chargers)
    shape = (1, len(banks))
    rules, held = list(verdicts), list(verdicts.values())
    broken = np.array([~np.broadcast_to(h.ok, shape)[0] for h in held])  # (rules, banks)
    goes, not_so = [], []
    for _, group in itertools.groupby(range(len(banks)), key=lambda k: id(banks[k].item)):
        mine = list(group)
        sound = [k for k in mine if not broken[:, k].any()]
        fits = [banks[k] for k in sound if not _unstowed(need, motor, mount, banks[k])]
        goes += fits
        if not fits:
            k = min(mine, key=lambda row: int(broken[:, row].sum()))
            breaks, problem = broken[:, k], _unstowed(need, motor, mount, banks[k])
            first = int(np.argmax(breaks))
            text = judge.finding_of(rules[first], held[first], (0, k), shape)
            not_so.append(replace(banks[k], why=text if breaks.any() else problem))
    return goes + not_so


def _unstowed(need: Need, motor: Item[Motor], mount: Item[Mount], o: BankOption) -> Finding | None:
    """Why the packs go nowhere; none where they do."""
    problem = Fitted(need, motor, o.item, mount, None, o.series, parallel=o.parallel).stowed[1]
    return problem if problem and problem.level == "block" else None


def _pair_verdicts(
    need: Need, motor: Item[Motor], banks: Sequence[BankOption], chargers: Sequence[Item[Charger]]
) -> Mapping[str, Verdict]:
    """What the rule book finds of a motor with every bank (1, B)."""
    spec = [o.item.spec for o in banks]
    series, parallel = np.array([(o.series, o.parallel) for o in banks], int).reshape(-1, 2).T
    kinds = {
        (c.voltage_v, c.charge_voltage_v, c.chemistries, c.outputs): c
        for c in (x.spec for x in chargers)
    }  # whether one serves a bank hangs on no more
    served = served_how(spec, series, parallel, list(kinds.values())).any(axis=1)
    charged = own_suits(spec, series, need.day.own_charger_v) | served
    facts = bank_facts(spec, series, parallel, need.day.kept_share, charged)
    taken = [joins(motor, o.item, o.series * o.parallel) for o in banks]
    takes = np.array(taken, dtype=bool).reshape(1, -1)
    return judge.judge("pair", pair_facts(motor_facts([motor.spec]), facts, takes))


def mount_options(
    need: Need, motor: Item[Motor], shaft_m: float | None, mounts: Sequence[Item[Mount]]
) -> list[MountOption]:
    """The mounts that carry a motor with a shaft in m on a boat, those that go first.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> mount_options(f.need, f.motor, 0.381, [f.mount])[0].why is None
    True
    """
    out, hung = [], one_hung(motor, shaft_m, need.water.density_kg_m3)
    for item in mounts:
        blocks = _blocks(judge.findings("drive", drive_facts(need, hung, [item.spec])))
        out.append(MountOption(item, blocks[0] if blocks else None))
    return sorted(out, key=lambda o: bool(o.why))
