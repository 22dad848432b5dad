"""What catalogues claim, held against physics and plain arithmetic: thrust, horsepower, watt-hours,
weight, speed, missing data.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.base.units import HORSEPOWER_W
from jolvek.core.electric.bank import Bank, runtime_s
from jolvek.core.electric.battery import Battery
from jolvek.core.hydro.drive import momentum_thrust_n
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.propulsor import LOSS_FACTOR_BELIEVED, loss_factor_from_static
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.shelf import Item

WATT_HOURS_OFF = 0.05
ALONE = (
    Hull("skiff", 4.3, 1.35, 68),
    Load(1, 80, 10),
)  # a light, easily driven boat with one adult


@dataclass(frozen=True)
class Claim:
    """One claim: level (block: impossible, caution: doubtful, note: missing, fine), what was
    claimed, what is so, why.
    """

    level: str
    about: str
    says: str


def check_claims(item: Item[Any]) -> list[Claim]:
    """Every claim of a product checked; a product without claims and gaps gives an empty list.

    >>> from jolvek.core.products.shelf import sample
    >>> [c.about for c in check_claims(sample().batteries[0])]
    ['energy']
    """
    if isinstance(item.spec, Motor):
        return [*_thrust(item), *_horsepower(item), *_speed(item), *_runtime(item), *_missing(item)]
    if isinstance(item.spec, Battery):
        return [*_energy(item), *_weight(item), *_missing(item)]
    return []


def _thrust(item: Item[Any]) -> list[Claim]:
    m = item.spec
    if m.static_thrust_n is None:
        return []
    level, says = _thrust_text(m, m.propulsor().diameter_m)
    return [Claim(level, msg("static thrust"), says)]


def _thrust_text(m: Motor, diameter_m: float) -> tuple[str, str]:
    claimed = m.static_thrust_n or 0.0
    factor = float(loss_factor_from_static(claimed, diameter_m, m.peak_w))
    text = msg(
        "%(static_thrust)s N claimed from %(peak)s W on %(diameter)s mm",
        static_thrust=f"{claimed:.0f}",
        peak=f"{m.peak_w:.0f}",
        diameter=f"{1000 * diameter_m:.0f}",
    )
    if factor > 1:
        limit = f"{float(momentum_thrust_n(m.peak_w, 0.0, diameter_m)):.0f}"
        return "block", msg(
            "%(text)s: impossible, the momentum limit without any loss is %(limit)s N.",
            text=text,
            limit=limit,
        )
    if factor > LOSS_FACTOR_BELIEVED:
        most = float(momentum_thrust_n(LOSS_FACTOR_BELIEVED * m.peak_w, 0.0, diameter_m))
        return "caution", msg(
            "%(text)s: more than about %(most)s N is not believed; the prediction rests on"
            " %(loss_factor)s of the input.",
            text=text,
            most=f"{most:.0f}",
            loss_factor=f"{m.propulsor().loss_factor:.2f}",
        )
    return "fine", msg(
        "%(text)s: a loss factor of %(factor)s, within what such propellers do.",
        text=text,
        factor=f"{factor:.2f}",
    )


def _horsepower(item: Item[Any]) -> list[Claim]:
    if item.claimed_hp is None:
        return []
    real = item.spec.input_power_w / HORSEPOWER_W
    level = "caution" if item.claimed_hp > 1.25 * real else "fine"
    return [
        Claim(
            level,
            "horsepower",
            msg(
                "%(claimed_hp)s hp claimed; %(input_power)s W of input are %(real)s hp.",
                claimed_hp=f"{item.claimed_hp:g}",
                input_power=f"{item.spec.input_power_w:.0f}",
                real=f"{real:.1f}",
            ),
        )
    ]


def _speed(item: Item[Any]) -> list[Claim]:
    if item.claimed_speed_m_s is None:
        return []
    top = evaluate(Setup(*ALONE, item.spec)).top_speed_m_s
    level = "caution" if item.claimed_speed_m_s > 1.12 * top else "fine"
    return [
        Claim(
            level,
            msg("top speed"),
            f"{item.claimed_speed_m_s:.1f} m/s claimed; a light 4.3 m skiff with one adult makes"
            f" {top:.1f} m/s.",
        )
    ]


def _runtime(item: Item[Any]) -> list[Claim]:
    """Times claimed at full and at half of full power: the energy that each takes at least."""
    out = []
    for word, share, time_s in (
        ("full", 1.0, item.claimed_runtime_s),
        ("half", 0.5, item.claimed_half_runtime_s),
    ):
        if time_s is not None:
            needed = share * item.spec.input_power_w * time_s / 3600
            text = msg(
                "%(time)s min at %(word)s power take at least %(needed)s Wh of",
                time=f"{time_s / 60:.0f}",
                word=word,
                needed=f"{needed:.0f}",
            )
            out.append(
                Claim(
                    "note",
                    msg("time at %(word)s power", word=word),
                    msg("%(text)s usable energy.", text=text),
                )
            )
    return out


def _energy(item: Item[Any]) -> list[Claim]:
    b: Battery = item.spec
    minutes = float(runtime_s(Bank(b), b.energy_wh, 0.0)) / 60
    if item.claimed_energy_wh is None:
        return [
            Claim(
                "fine",
                "energy",
                msg(
                    "%(volts)s V × %(ah)s Ah = %(energy)s Wh; at that many watts it runs "
                    "%(minutes)s min.",
                    volts=f"{b.nominal_voltage_v:g}",
                    ah=f"{b.capacity_ah:g}",
                    energy=f"{b.energy_wh:.0f}",
                    minutes=f"{minutes:.0f}",
                ),
            )
        ]
    off = item.claimed_energy_wh / b.energy_wh - 1
    level = "caution" if off > WATT_HOURS_OFF else "fine"
    return [
        Claim(
            level,
            "energy",
            msg(
                "%(claimed_energy)s Wh claimed; %(nominal_voltage)s V × %(capacity)s Ah are "
                "%(energy)s Wh.",
                claimed_energy=f"{item.claimed_energy_wh:.0f}",
                nominal_voltage=f"{b.nominal_voltage_v:g}",
                capacity=f"{b.capacity_ah:g}",
                energy=f"{b.energy_wh:.0f}",
            ),
        )
    ]


def _weight(item: Item[Any]) -> list[Claim]:
    b: Battery = item.spec
    if b.mass_kg is None:
        return []
    got, (low, high) = b.energy_wh / b.mass_kg, b.chem.wh_per_kg
    if low <= got <= high:
        return []
    word = "lighter" if got > high else "heavier"
    return [
        Claim(
            "caution" if got > high else "note",
            "weight",
            msg(
                "%(got)s Wh per kg; %(lower)s packs have %(low)s to %(high)s: %(word)s than usual.",
                got=f"{got:.0f}",
                lower=b.chem.name.lower(),
                low=f"{low:.0f}",
                high=f"{high:.0f}",
                word=word,
            ),
        )
    ]


_WEAKENS = {
    "mass_kg": "trim and displacement",
    "voltage_v": "which batteries fit",
    "propeller_diameter_m": "thrust and speed",
    "propeller_pitch_m": "the speed at which it runs out of pitch",
    "propeller_rpm": "the speed at which it runs out of pitch",
    "voltage_min_v": "when it stops",
    "voltage_max_v": "which banks are allowed",
    "max_continuous_a": "which motors it may feed",
    "length_m": "whether it fits the bay",
    "width_m": "whether it fits the bay",
    "height_m": "whether it fits the bay",
}


def _missing(item: Item[Any]) -> list[Claim]:
    gaps = [key for key in _WEAKENS if hasattr(item.spec, key) and getattr(item.spec, key) is None]
    if not gaps:
        return []
    what = ", ".join(key.rsplit("_", 1)[0].replace("_", " ") for key in gaps)
    weak = ", ".join(dict.fromkeys(_WEAKENS[key] for key in gaps))
    return [
        Claim(
            "note",
            msg("missing data"),
            msg(
                "Not given: %(what)s. Estimated instead; it weakens %(weak)s.", what=what, weak=weak
            ),
        )
    ]
