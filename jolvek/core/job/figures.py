"""Every figure of a setup that is shown, by key: its value in SI and how it is written."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.job.job_setup import JobSetup
from jolvek.core.predict.handling import handling
from jolvek.core.predict.performance import Point


@dataclass(frozen=True)
class Figure:
    """One figure: its value (SI, a word, or None where there is none), the quantity it is written
    as, and decimals where they are not those of the quantity.
    """

    value: float | str | None
    quantity: str
    decimals: int | None = None


Reads = Callable[[JobSetup], Figure]


def _points(name: str, of: Callable[[JobSetup], Point]) -> dict[str, Reads]:
    """Speed, power, running time, range and amps of one way of running."""
    return {
        f"{name}.speed": lambda j: Figure(of(j).speed_m_s, "speed"),
        f"{name}.power": lambda j: Figure(of(j).power_w, "power"),
        f"{name}.time": lambda j: Figure(of(j).runtime_s, "time"),
        f"{name}.range": lambda j: Figure(of(j).range_m, "distance"),
        f"{name}.amps": lambda j: Figure(of(j).current_a, "amps", 1),
    }


FIGURES: dict[str, Reads] = {
    **_points("wish", lambda j: j.wish_or_top),
    **_points("full", lambda j: j.settings[0]),
    **_points("half", lambda j: j.settings[1]),
    **_points("lowest", lambda j: j.settings[2]),
    "top": lambda j: Figure(j.performance.top_speed_m_s, "speed"),
    "thrust": lambda j: Figure(j.performance.static_thrust_n, "thrust", 0),
    "lift": lambda j: Figure(j.fitted.lift_kg, "mass", 1),
    "mass": lambda j: Figure(j.mass_kg, "mass", 1),
    "loaded": lambda j: Figure(j.performance.displacement_kg, "mass", 0),
    "charge.time": lambda j: Figure(j.fitted.charge_h and 3600 * j.fitted.charge_h, "time"),
    "noise": lambda j: Figure(j.fitted.motor.noise_db, "noise", 0),
    "bank.energy": lambda j: Figure(j.fitted.bank.energy_wh, "Wh", 0),
    "kept": lambda j: Figure(j.fitted.kept, "percent", 0),
    "handling.to-speed": lambda j: Figure(handling(j.performance).to_speed_s, "seconds", 0),
    "handling.coasts": lambda j: Figure(handling(j.performance).coasts_m, "metres", 0),
    "day.energy": lambda j: Figure(j.run.energy_wh, "kWh", 2),
    "day.hours": lambda j: Figure(3600 * j.run.hours, "time"),
    "day.left": lambda j: Figure(j.run.left, "percent", 0),
    "day.left.low": lambda j: Figure(j.day.between[0].left, "percent", 0),
    "day.left.high": lambda j: Figure(j.day.between[1].left, "percent", 0),
    "day.end": lambda j: Figure(j.need.day.start_h + j.run.hours, "clock"),
    "day.far": lambda j: Figure(float(j.day.planned.distance_m[-1]), "distance"),
    "day.likely": lambda j: Figure(j.day.likely, "word"),
    "day.turn": lambda j: Figure(j.day.point.distance_m, "distance"),
    "day.slowest": lambda j: Figure(j.day.homing.slowest_m_s, "speed"),
    "day.fastest": lambda j: Figure(j.day.homing.fastest_m_s, "speed"),
    "day.cheapest": lambda j: Figure(j.day.homing.cheapest_m_s, "speed"),
    "price.parts": lambda j: Figure(j.parts_price, "money"),
    "price.fitted": lambda j: Figure(j.fitted_price, "money"),
    "price.add-ons": lambda j: Figure(j.extras_price, "money"),
    "cable.run": lambda j: Figure(j.fitted.run_m, "length"),
    "cable.size": lambda j: Figure(_main_mm2(j), "mm²", 0),
    "fuse.main": lambda j: Figure(_main_fuse_a(j), "amps", 0),
    "leg.hub": lambda j: Figure(_hub_m(j), "mm"),
    "trim": lambda j: Figure(abs(j.fitted.attitude.trim_deg), "degrees", 1),
}


def _main_mm2(j: JobSetup) -> float | None:
    wires = [w for w in j.fitted.netlist.wires if w.role == "plus"]
    return None if j.fitted.clips_on or not wires else wires[-1].size.size_mm2


def _main_fuse_a(j: JobSetup) -> float | None:
    fuses = j.fitted.netlist.fuses.values()
    return None if j.fitted.clips_on else max((f.rating_a for f in fuses), default=None)


def _hub_m(j: JobSetup) -> float | None:
    return hung_leg(j.fitted)[0].hub_m


def figure(setup: JobSetup, key: str) -> Figure:
    """One figure of a setup; raises KeyError for a key there is not.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.job.job_setup import of_fitted
    >>> figure(of_fitted(sample_fitted()), "price.parts")
    Figure(value=2000.0, quantity='money', decimals=None)
    """
    return FIGURES[key](setup)
