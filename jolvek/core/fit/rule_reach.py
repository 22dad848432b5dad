"""Whether a rule can speak on a shelf as it stands: the products without which it never does."""

from __future__ import annotations

from collections.abc import Callable

from jolvek.core.electric.bank import VOLTS_DANGEROUS
from jolvek.core.electric.wire_sizes import FUSE_VOLTS
from jolvek.core.fit.inspected import INRUSH_V, INRUSH_W, WET_TOUCH_V
from jolvek.core.products.shelf import Shelf

Needs = Callable[[Shelf], bool]


def _lithium(s: Shelf) -> bool:
    return any(b.spec.chem.lithium for b in s.batteries)


def _lead(s: Shelf) -> bool:
    return any(not b.spec.chem.lithium for b in s.batteries)


def _battery(key: str) -> Needs:
    return lambda s: any(getattr(b.spec, key) is not None for b in s.batteries)


def _motor(key: str) -> Needs:
    return lambda s: any(getattr(m.spec, key) is not None for m in s.motors)


def _volts(most: float) -> Needs:
    """A motor that takes a bank of more volts, or a battery that has them."""
    return lambda s: (
        any(m.spec.window_v(most)[1] > most for m in s.motors)
        or any(b.spec.charge_v > most for b in s.batteries)
    )


def _inrush(s: Shelf) -> bool:
    strong = (m.spec for m in s.motors if m.spec.input_power_w > INRUSH_W)
    return any((m.voltage_v or INRUSH_V) >= INRUSH_V for m in strong)


NEEDS: dict[str, Needs] = {
    "pack-own": lambda s: any(m.pack_ids for m in s.motors),
    "series-most": _battery("max_series"),
    "parallel-most": _battery("max_parallel"),
    "bms-limit": _battery("bms_max_a"),
    "connector-limit": _battery("connector_max_a"),
    "current-continuous": _battery("max_continuous_a"),
    "current-unknown": lambda s: any(
        b.spec.max_continuous_a is None and b.spec.bms_max_a is None for b in s.batteries
    ),
    "current-peak": _motor("peak_power_w"),
    "controller-limits": _motor("controller_max_a"),
    "thrust-claim": _motor("static_thrust_n"),
    "thrust-impossible": _motor("static_thrust_n"),
    "pitch-bound": _motor("propeller_pitch_m"),
    "voltage-dangerous": _volts(VOLTS_DANGEROUS),
    "wet-touch": _volts(WET_TOUCH_V),
    "inrush": _inrush,
    "petrol-aboard": lambda s: any(not m.spec.ignition_protected for m in s.motors),
    "noise": lambda s: any(m.noise_db is not None for m in s.motors),
    "lead-ventilation": _lead,
    "bay-ventilation": _lead,
    "gauge-lithium": lambda s: (
        _lithium(s) and any(a.spec.measures == "voltage" for a in s.accessories)
    ),
    "charge-voltage-unknown": lambda s: any(c.spec.charge_voltage_v is None for c in s.chargers),
    "mount-transom": lambda s: any(k.spec.transom_min_m or k.spec.transom_max_m for k in s.mounts),
    "side-mount-yaw": lambda s: any(k.spec.offset_m for k in s.mounts),
    "fuse-volts": _volts(FUSE_VOLTS[0]),
    "sun-bank": lambda s: bool(s.controllers),
    "sun-chemistry": lambda s: bool(s.controllers),
    "sun-window": lambda s: bool(s.controllers),
    "sun-volts-dangerous": lambda s: bool(s.controllers),
    "sun-low": lambda s: bool(s.controllers),
    "sun-amps": lambda s: bool(s.controllers),
    "sun-volts-unknown": lambda s: any(p.spec.open_v is None for p in s.panels),
    "no-battery": lambda s: False,  # `jolvek predict` alone asks without a battery
    **dict.fromkeys(
        (
            *("gauge-missing", "lithium-charging", "bms-cuts-off", "transport", "insurer"),
            *("charge-watched", "charge-freezing", "first-charge"),
        ),
        _lithium,
    ),
}


def can_speak(rule_id: str, shelf: Shelf) -> bool:
    """Whether a rule can speak of some setup of a shelf; rules of boat and people always can.

    >>> from jolvek.core.products.shelf import sample
    >>> can_speak("lead-ventilation", sample()), can_speak("plate-people", sample())
    (False, True)
    """
    needs = NEEDS.get(rule_id)
    return needs is None or needs(shelf)
