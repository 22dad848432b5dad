"""The job bar: the loaded boat and the current setup, over every station."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.enquiry.sizing import Sizing, size
from jolvek.core.hydro.floating import awash_kg, draws_m, float_at, hull_speed_m_s
from jolvek.core.predict.performance import Point
from jolvek.store.enquiries import Stored
from jolvek.store.setups import Pinned
from jolvek.web.kit.display import band
from jolvek.web.kit.doubt_words import tried_text
from jolvek.web.kit.language import tr
from jolvek.web.kit.stations import Standing, Tick, ticks
from jolvek.web.kit.worked import Worked, work_out


@dataclass(frozen=True)
class Card:
    """What the job bar shows; `at` is the setup in hand at the wanted speed, or at its top."""

    sizing: Sizing
    draught_m: float
    hull_speed_m_s: float
    displacement_kg: float
    awash: bool
    plate_w: float | None
    in_hand: Worked | None
    at: Point | None
    ticks: tuple[Tick, ...]
    doubted: str  # of the speed at that power

    @property
    def against(self) -> int:
        """How many stops and cautions the current setup has."""
        found = self.in_hand.findings if self.in_hand else []
        return sum(f.level in ("block", "caution") for f in found)


def card_of(stored: Stored, pinned: list[Pinned]) -> Card:
    """Job bar and stations."""
    need = stored.need
    chosen = next((p for p in pinned if p.chosen), pinned[0] if pinned else None)
    in_hand = work_out(need, chosen) if chosen else None
    sizing = size(need)
    mass = in_hand.performance.displacement_kg if in_hand else sizing.displacement_kg
    rho = need.water.density_kg_m3
    return Card(
        sizing,
        float(draws_m(need.hull, float_at(need.hull, mass, rho))),
        float(hull_speed_m_s(need.hull.waterline_m)),
        mass,
        mass >= awash_kg(need.hull, rho),
        need.hull.max_power_w or need.site.approval_power_w,
        in_hand=in_hand,
        at=in_hand.wish_or_top if in_hand else None,
        ticks=ticks(Standing(need, pinned, in_hand)),
        doubted=_doubted(in_hand),
    )


def _doubted(w: Worked | None) -> str:
    power = w.wish_or_top.power_w if w else None
    if w is None or not power:
        return ""
    hull = w.fitted.need.hull
    return tr(
        "%(power)s of speed, %(hull)s.",
        power=band(w.fitted.doubt.speed_share(power)),
        hull=tried_text(hull),
    )
