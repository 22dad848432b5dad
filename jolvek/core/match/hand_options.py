"""What may be put together by hand on one boat: banks and mounts that go with a motor, and why the
others do not; by the same rules as matching.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger, matches
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fit_facts import drive_facts, one_hung
from jolvek.core.fit.fitted import Fitted
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.own import packs_there_are
from jolvek.core.products.shelf import Item
from jolvek.core.rules import judge
from jolvek.core.rules.findings import Finding

MOST_SERIES, MOST_PARALLEL = 4, 3


@dataclass(frozen=True)
class BankOption:
    """So many packs of a battery, and why they do not go (empty: they do)."""

    item: Item[Battery]
    series: int
    parallel: int
    why: str = ""

    @property
    def price(self) -> float:
        """All packs."""
        return self.series * self.parallel * self.item.price


@dataclass(frozen=True)
class MountOption:
    """A mount, and why it does not go (empty: it does)."""

    item: Item[Mount]
    why: str = ""


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
    single pack with what stands against it at its nearest. A bank is taken with the first of the
    chargers that serves it.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> [o.why for o in bank_options(f.need, f.motor, f.mount, [f.battery], [f.charger])][:1]
    ['']
    """
    goes, not_so = [], []
    for item in batteries:
        found: list[tuple[BankOption, list[Finding]]] = []
        for s, p in itertools.product(range(1, MOST_SERIES + 1), range(1, MOST_PARALLEL + 1)):
            if s * p > packs_there_are(item):
                continue
            bank = Bank(item.spec, s, p)
            charger = next((c for c in chargers if matches(bank, c.spec)), None)
            f = Fitted(need, motor, item, mount, charger, s, p)
            problem = f.stowed[1]
            told = judge.findings("pair", f.pair) + ([problem] if problem else [])
            found.append((BankOption(item, s, p), _blocks(told)))
        fits = [option for option, blocks in found if not blocks]
        goes += fits
        if not fits:
            option, blocks = min(found, key=lambda x: len(x[1]))
            why = blocks[0].text
            not_so.append(BankOption(item, option.series, option.parallel, why))
    return goes + not_so


def mount_options(
    need: Need, motor: Item[Motor], shaft_m: float | None, mounts: Sequence[Item[Mount]]
) -> list[MountOption]:
    """The mounts that carry a motor with a shaft in m on a boat, those that go first.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> mount_options(f.need, f.motor, 0.381, [f.mount])[0].why
    ''
    """
    out, hung = [], one_hung(motor, shaft_m, need.water.density_kg_m3)
    for item in mounts:
        blocks = _blocks(judge.findings("drive", drive_facts(need, hung, [item.spec])))
        out.append(MountOption(item, blocks[0].text if blocks else ""))
    return sorted(out, key=lambda o: bool(o.why))
