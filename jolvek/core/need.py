"""What an enquiry asks for: the boat, its site, the day it must do, and what matters to the customer."""

from __future__ import annotations

from dataclasses import dataclass, field

from jolvek.core.errors import ValueRefused
from jolvek.core.hull import Hull, Load
from jolvek.core.mounting import Site
from jolvek.core.water import Water

WISHES = ("price", "light", "range", "speed", "silence")
DEFAULT_WEIGHTS = {"price": 3.0, "light": 2.0, "range": 2.0, "speed": 1.0, "silence": 0.0}


@dataclass(frozen=True)
class Day:
    """The day the setup must do: speed through the water m/s, distance in all m, the rest as named.

    Wind and current in m/s are the worst expected against; `charge_h` the hours it can charge.
    """

    speed_m_s: float = 1.8
    distance_m: float = 9000.0
    reserve: float = 0.2
    wind_m_s: float = 0.0
    current_m_s: float = 0.0
    charge_h: float = 10.0
    max_lift_kg: float | None = None
    budget: float | None = None
    hands_free: bool = False
    max_noise_db: float | None = None

    def __post_init__(self) -> None:
        for key, low, high in (("speed_m_s", .2, 20), ("distance_m", 0, 1e6), ("reserve", 0, .9), ("wind_m_s", -30, 30),
                               ("current_m_s", -6, 6), ("charge_h", .5, 240), ("max_lift_kg", 1, 500), ("budget", 1, 1e7)):
            value = getattr(self, key)
            if value is not None and not low <= value <= high:
                raise ValueRefused(f"day.{key}", value, f"{low:g} to {high:g}")


@dataclass(frozen=True)
class Need:
    """A whole enquiry as the matching engine sees it. `weights` per wish (0–10) set the ranking."""

    hull: Hull
    load: Load
    site: Site = field(default_factory=Site)
    water: Water = field(default_factory=Water)
    day: Day = field(default_factory=Day)
    weights: tuple[tuple[str, float], ...] = tuple(DEFAULT_WEIGHTS.items())

    def weight(self, wish: str) -> float:
        """The weight of one wish, 0 where it is not named.

        >>> Need(Hull("kayak", 3.7, 0.78, 34), Load(1)).weight("price")
        3.0
        """
        return dict(self.weights).get(wish, 0.0)
