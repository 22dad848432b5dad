"""The same setup in a worse case each time."""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolvek.core.base.told import percent, tell
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import Setup


@dataclass(frozen=True)
class Case:
    """One what-if: its name in plain words and the whole prediction."""

    id: str
    title: str
    performance: Performance


def _heavier(s: Setup, share: float) -> Setup:
    """The boat heavier by a share of all that floats, put into the load as gear."""
    return replace(s, load=replace(s.load, gear_kg=s.load.gear_kg + share * s.displacement_kg))


def what_if(
    setup: Setup,
    heavier: float = 0.15,
    bottom: str = "weed",
    aged: float = 0.2,
    wind_m_s: float = 5.0,
) -> list[Case]:
    """The setup as it is, 15 % heavier, with a foul bottom, with a battery 20 % aged, in 5 m/s of
    wind against, and all at once.

    Shares 0–0.5, wind in m/s added to what already blows. Validity as `performance.evaluate`.

    >>> from jolvek.core.electric.bank import Bank; from jolvek.core.electric.battery import Battery
    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.motor import Motor
    >>> motor, bank = Motor(1200, voltage_v=24), Bank(Battery("lfp", 25.6, 50))
    >>> cases = what_if(Setup(Hull("rigid_dinghy", 3.2, 1.45, 65), Load(2), motor, bank))
    >>> [c.id for c in cases]
    ['as planned', 'heavier', 'foul', 'aged', 'wind', 'all']
    >>> cases[-1].performance.top_speed_m_s < cases[0].performance.top_speed_m_s
    True
    """
    bank = replace(setup.bank, ageing=min(setup.bank.ageing + aged, 0.9)) if setup.bank else None
    foul = replace(setup.hull, bottom=bottom)
    worst = replace(
        _heavier(setup, heavier), hull=foul, bank=bank, wind_m_s=setup.wind_m_s + wind_m_s
    )
    rows = (
        (tell("as planned"), tell("as planned"), setup),
        (
            "heavier",
            tell("%(heavier)s heavier", heavier=percent(heavier)),
            _heavier(setup, heavier),
        ),
        ("foul", tell("bottom with %(bottom)s", bottom=bottom), replace(setup, hull=foul)),
        ("aged", tell("battery %(aged)s aged", aged=percent(aged)), replace(setup, bank=bank)),
        ("wind", tell("more wind against"), replace(setup, wind_m_s=setup.wind_m_s + wind_m_s)),
        ("all", tell("all of it at once"), worst),
    )
    return [Case(key, title, evaluate(s)) for key, title, s in rows]
