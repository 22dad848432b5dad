"""What an enquiry asks for: the boat, its site, the day it must do, and what matters to the
customer.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from math import ceil
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.site import Site
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.water import Water

WISHES = ("price", "light", "range", "speed", "silence", "hands_free", "tidy")
DEFAULT_WEIGHTS = {
    "price": 3.0,
    "light": 2.0,
    "range": 2.0,
    "speed": 1.0,
    "silence": 0.0,
    "hands_free": 0.0,
    "tidy": 0.0,
}
MOST_WEIGHT = 10.0
RESERVE_SCHOOLS = {"fifth": 0.2, "thirds": 1 / 3, "hour": 0.0}
MOST_LEGS = 24
SKIES = ("clear", "fair", "mixed", "overcast")
AGAINST = ("home", "all day")  # when the day's wind and current are against the boat
STILL_M_S = 0.02  # over ground; slower makes no way


@dataclass(frozen=True)
class Leg:
    """One leg of a day: distance in m or time in s, wanted speed through the water, current and
    wind against, a hold after it.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "speed_m_s": (0.2, 20),
        "distance_m": (0, 1e06),
        "duration_s": (0, 2.592e06),
        "current_m_s": (-6, 6),
        "wind_m_s": (-30, 30),
        "hold_s": (0, 432000),
        "latitude_deg": (-90, 90),
        "longitude_deg": (-180, 180),
    }
    TEXTS: ClassVar[checked.Counts] = {"name": 80}

    name: str = ""
    speed_m_s: float = 1.8
    distance_m: float | None = None
    duration_s: float | None = None
    current_m_s: float = 0.0
    wind_m_s: float = 0.0
    hold_s: float = 0.0
    latitude_deg: float | None = None  # of its end, where known
    longitude_deg: float | None = None

    def __post_init__(self) -> None:
        checked.check(self, "leg")
        if self.distance_m is None and self.duration_s is None:
            raise ValueRefused("leg.distance_m", None, msg("a distance or a time"))

    @property
    def stays(self) -> bool:
        """Whether the boat holds its place: for a time, against a current as fast as it runs.

        >>> Leg("fishing", 0.5, None, 14400.0, 0.5).stays, Leg("out", 0.5, 900.0, None, 0.5).stays
        (True, False)
        """
        stands = self.current_m_s > 0 and self.speed_m_s <= self.current_m_s + STILL_M_S
        return self.duration_s is not None and stands

    @property
    def blocked(self) -> bool:
        """Whether no way is made at the wanted speed: the current is as fast."""
        return not self.stays and self.speed_m_s - self.current_m_s <= STILL_M_S

    @property
    def as_run(self) -> Leg:
        """The leg at the speed it is run at: a place is held at the speed of the current."""
        return replace(self, speed_m_s=self.current_m_s) if self.stays else self

    @property
    def way_m_s(self) -> float:
        """Speed over ground at the wanted speed, never below a crawl of 2 cm/s."""
        return max(self.speed_m_s - self.current_m_s, STILL_M_S)

    @property
    def seconds(self) -> float:
        """Time under way at the wanted speed."""
        return (
            self.duration_s
            if self.duration_s is not None
            else (self.distance_m or 0.0) / self.way_m_s
        )

    @property
    def metres(self) -> float:
        """Distance over ground at the wanted speed."""
        return (
            self.distance_m
            if self.distance_m is not None
            else max(self.speed_m_s - self.current_m_s, 0.0) * (self.duration_s or 0.0)
        )

    @property
    def back(self) -> Leg:
        """The same way back: current and wind from the other side, no hold."""
        return replace(
            self,
            name="back" if not self.name else f"{self.name}, back",
            current_m_s=-self.current_m_s,
            wind_m_s=-self.wind_m_s,
            hold_s=0.0,
            latitude_deg=None,
            longitude_deg=None,
        )


@dataclass(frozen=True)
class Day:
    """The day the setup must do: speed through the water m/s, distance in all m, the rest as named.

    Wind and current in m/s are the worst expected against, on the way home or all day as `against`
    says; `charge_h` the hours it can charge. With `legs` given, they make the day, and speed,
    distance, wind and current say its main run and its worst.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "speed_m_s": (0.2, 20),
        "distance_m": (0, 1e06),
        "reserve": (0, 0.9),
        "wind_m_s": (-30, 30),
        "current_m_s": (-6, 6),
        "charge_h": (0.5, 240),
        "own_charger_v": (3, 500),
        "shore_limit_w": (100, 100000),
        "charges_per_day": (1, 12),
        "dock_solar_w": (0, 50000),
        "dock_battery_wh": (0, 1e06),
        "max_lift_kg": (1, 500),
        "budget": (1, 1e07),
        "budgets": (1, 1e07),
        "max_noise_db": (10, 140),
        "speed_limit_m_s": (0.5, 30),
        "temperature_c": (-20, 40),
        "hotel_w": (0, 20000),
        "solar_w": (0, 20000),
        "latitude_deg": (-90, 90),
        "longitude_deg": (-180, 180),
        "start_h": (0, 24),
        "standby_s": (0, 432000),
        "runs_per_day": (1, 40),
        "days_a_season": (1, 366),
        "start_charge": (0.1, 1),
    }
    CHOICES: ClassVar[checked.Choices] = {
        "reserve_school": tuple(RESERVE_SCHOOLS),
        "sky": SKIES,
        "against": AGAINST,
    }
    COUNTS: ClassVar[checked.Counts] = {"legs": MOST_LEGS, "budgets": 8}

    speed_m_s: float = 1.8
    distance_m: float = 9000.0
    reserve: float = 0.2
    wind_m_s: float = 0.0
    current_m_s: float = 0.0
    against: str = AGAINST[0]
    charge_h: float = 10.0
    own_charger_v: float | None = None  # at the end of its charge; None: the customer has none
    max_lift_kg: float | None = None
    budget: float | None = None
    budgets: tuple[float, ...] = ()  # to be compared: what does each buy?
    hands_free: bool = False
    max_noise_db: float | None = None
    legs: tuple[Leg, ...] = ()
    reserve_school: str = "fifth"
    speed_limit_m_s: float | None = None
    electric_only: bool = False
    shore_limit_w: float | None = None  # of the quay's supply; None: more than is asked of it
    charges_per_day: int = 1
    dock_solar_w: float = 0.0  # panels of a station on the dock, and its battery
    dock_battery_wh: float = 0.0
    temperature_c: float = 20.0
    hotel_w: float = 0.0
    shore_power: bool = True
    solar_w: float = 0.0
    sky: str = "fair"
    latitude_deg: float = 55.0
    longitude_deg: float = 10.0
    date: str = "2026-07-01"
    start_h: float = 9.0
    standby_s: float = (
        0.0  # fishing or waiting at the far end, motor on; legs have holds of their own
    )
    runs_per_day: int = 1  # of a boat on hire; the day above is one of them
    days_a_season: float | None = None
    start_charge: float = 1.0  # share of the rated charge she sets out with

    def __post_init__(self) -> None:
        checked.check(self, "day")
        checked.date("day.date", self.date)

    @property
    def trip(self) -> tuple[Leg, ...]:
        """The legs as they are run; of a day without legs the way out, with wind and current behind
        or against the boat, and the way home against them. The one place where legs are made.

        >>> [(leg.name, leg.distance_m, leg.wind_m_s) for leg in Day(1.5, 4000, wind_m_s=3).trip]
        [('out', 2000.0, -3), ('home', 2000.0, 3)]
        >>> [leg.wind_m_s for leg in Day(wind_m_s=3, against="all day").trip]
        [3, 3]
        """
        if self.legs:
            return tuple(leg.as_run for leg in self.legs)
        half, helps = self.distance_m / 2, -1 if self.against == "home" else 1
        stream, wind = helps * self.current_m_s, helps * self.wind_m_s
        out = Leg(msg("out"), self.speed_m_s, half, None, stream, wind, hold_s=self.standby_s)
        home = Leg(msg("home"), self.speed_m_s, half, None, self.current_m_s, self.wind_m_s)
        return out, home

    @property
    def runs_a_charge(self) -> int:
        """Runs between two charges, of a boat on hire."""
        return ceil(self.runs_per_day / self.charges_per_day)

    @property
    def keep_s(self) -> float:
        """Seconds of running kept in reserve, by the school of hours."""
        return 3600.0 if self.reserve_school == "hour" else 0.0

    @property
    def kept_share(self) -> float:
        """Share of the rated charge kept; 0 by the school of hours."""
        return 0.0 if self.reserve_school == "hour" else self.reserve

    def with_legs(self, legs: tuple[Leg, ...]) -> Day:
        """The day made of legs: its main speed that of the longest, distance their sum, wind and
        current the worst.
        """
        if not legs:
            return replace(self, legs=())
        main = max(legs, key=lambda leg: leg.metres)
        return replace(
            self,
            legs=legs,
            speed_m_s=main.speed_m_s,
            distance_m=sum(leg.metres for leg in legs),
            wind_m_s=max(leg.wind_m_s for leg in legs),
            current_m_s=max(leg.current_m_s for leg in legs),
        )


@dataclass(frozen=True)
class Need:
    """A whole enquiry as the matching engine sees it. `weights` per wish (0–10) set the ranking."""

    hull: Hull
    load: Load
    site: Site = field(default_factory=Site)
    water: Water = field(default_factory=Water)
    day: Day = field(default_factory=Day)
    weights: tuple[tuple[str, float], ...] = tuple(DEFAULT_WEIGHTS.items())

    def __post_init__(self) -> None:
        for wish, weight in self.weights:
            if wish not in WISHES:
                raise ValueRefused("need.weights", wish, msg("one of ") + ", ".join(WISHES))
            if not 0 <= weight <= MOST_WEIGHT:
                raise ValueRefused("need.weights", weight, f"0 to {MOST_WEIGHT:g}")

    @property
    def day_blocked(self) -> bool:
        """Whether a leg's current is as fast as its wanted speed: no setup makes way at that
        speed.
        """
        return any(leg.blocked for leg in self.day.trip)

    def weight(self, wish: str) -> float:
        """The weight of one wish, 0 where it is not named.

        >>> Need(Hull("kayak", 3.7, 0.78, 34), Load(1)).weight("price")
        3.0
        """
        return dict(self.weights).get(wish, 0.0)
