"""Matching: every setup that a shelf allows on a boat, worked out together in arrays, with reasons.

Read `match` from top to bottom: motors, drives, banks, pairs, speeds, day, reasons; the ranking
follows in `ranking`. The figures are those of `evaluate`, on a coarser grid of speeds.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from jolvek.core.base.arrays import Array, Mask
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fit_facts import need_facts, setup_facts
from jolvek.core.hydro.resistance import Resistance, table
from jolvek.core.match.banks import Supplies, supplies
from jolvek.core.match.candidate_days import days
from jolvek.core.match.drives import Drives, drives
from jolvek.core.match.field import Field, empty_field
from jolvek.core.match.fitted_price import work_price
from jolvek.core.match.motors import Motors, motors
from jolvek.core.match.pairs import Pairs, compatible, joined
from jolvek.core.match.speeds import run
from jolvek.core.match.why_not import (
    battery_reasons,
    charger_reasons,
    motor_reasons,
)
from jolvek.core.products.rates import Rates
from jolvek.core.products.shelf import Shelf
from jolvek.core.products.unknown import weight_unknown
from jolvek.core.rules import judge
from jolvek.core.rules.findings import Finding
from jolvek.core.rules.judge import Verdicts

MOST = 400_000
NODES = 7  # displacements at which the resistance is tabled


@dataclass(frozen=True)
class Match:
    """The answer: the parts in arrays, the field of candidates, and why products fell out."""

    need: Need
    shelf: Shelf
    motors: Motors
    drives: Drives
    supplies: Supplies
    field: Field
    resistance: Resistance | None
    need_findings: tuple[Finding, ...]  # what stands against the boat and her people as they are
    motor_reasons: dict[int, Finding]
    battery_reasons: dict[int, Finding]
    mount_reasons: dict[int, Finding]
    charger_reasons: dict[int, Finding]
    thinned: bool = False

    @property
    def not_given(self) -> Mask:
        """Which candidates (N,) rest on something of a product or the boat that nobody has said."""
        weight = np.array([weight_unknown(x) for x in self.shelf.batteries], dtype=bool)
        packs = weight[self.supplies.battery] if weight.size else np.zeros(0, dtype=bool)
        return np.asarray(self.drives.not_given[self.field.drive] | packs[self.field.supply])


def match(
    need: Need,
    shelf: Shelf,
    keep_curves: bool = False,
    most: int | None = None,
    rates: Rates | None = None,
) -> Match:
    """Work out every setup of `shelf` for `need`, thinned to about `most`; with the shop's `rates`
    their fitted prices too. Never raises for an empty shelf or an odd boat.

    Valid as `performance.evaluate`; speeds agree with it within about 1 %.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> match(Need(Hull("kayak", 3.7, 0.78, 34), Load(1)), Shelf()).field.price.size
    0
    """
    against = against_the_boat(need)
    m, d, s, verdicts, pairs = allowed_pairs(need, shelf, most or MOST)
    resistance, field = None, empty_field()
    if pairs.drive.size:
        resistance = _table(need, pairs)
        runs = run(need, m, d, s, pairs, resistance, keep_curves)
        work = work_price(need, shelf, m, d, s, pairs, rates) if rates else None
        field = days(need, m, d, s, pairs, runs, work, rates is None or rates.ranks_fitted)
        if against:
            field = replace(field, does_day=np.zeros_like(field.does_day))
    return Match(
        need,
        shelf,
        m,
        d,
        s,
        field,
        resistance=resistance,
        need_findings=against,
        motor_reasons=motor_reasons(need, shelf, d, s, verdicts, field),
        battery_reasons=battery_reasons(need, d, s, verdicts, field, shelf, pairs.beaten),
        mount_reasons=d.mounts_rejected,
        charger_reasons=charger_reasons(shelf, s),
        thinned=pairs.thinned,
    )


def allowed_pairs(
    need: Need, shelf: Shelf, most: int = MOST
) -> tuple[Motors, Drives, Supplies, Verdicts, Pairs]:
    """The parts and every pair of drive and bank that the hard rules allow, before any is run.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> allowed_pairs(Need(Hull("kayak", 3.7, 0.78, 34), Load(1)), Shelf())[4].drive.size
    0
    """
    m = motors(shelf, need.water.density_kg_m3, need.hull.efficiency_factor)
    d = drives(need, shelf, m)
    s = supplies(need, shelf, m)
    verdicts = compatible(shelf, m, s, np.unique(d.motor))
    return m, d, s, verdicts, joined(need, shelf, d, s, verdicts, most)


def against_the_boat(need: Need) -> tuple[Finding, ...]:
    """What blocks every setup: people, years, and the load before any motor comes aboard.

    >>> from jolvek.core.enquiry.site import Site
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> crowd = Need(Hull("kayak", 3.7, 0.78, 34), Load(3), Site(max_people=1))
    >>> [f.rule for f in against_the_boat(crowd)]
    ['plate-people']
    """
    bare = setup_facts(need, need.hull.mass_kg + need.load.total_kg)
    found = judge.findings("need", need_facts(need)) + judge.findings("setup", bare)
    return tuple(f for f in found if f.level == "block")


def nodes(lightest_kg: float, heaviest_kg: float) -> Array:
    """Displacements in kg at which the resistance is tabled, evenly in their logarithm.

    >>> nodes(100.0, 200.0).size
    7
    """
    return np.geomspace(lightest_kg * 0.999, max(heaviest_kg, lightest_kg * 1.02) * 1.001, NODES)


def _table(need: Need, pairs: Pairs) -> Resistance:
    """The boat's resistance at displacements that span the candidates."""
    mass = pairs.displacement_kg
    at = nodes(float(mass.min()), float(mass.max()))
    return table(need.hull, need.water, at, need.load)
