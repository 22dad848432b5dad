"""The day out: the legs run in time steps with a fitted setup; charge, speed, way, warnings; does
she come home?
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np

from jolvek.core.base.messages import msg
from jolvek.core.day.aboard import laden
from jolvek.core.day.scenario import Switches, switched, turn_index
from jolvek.core.day.summed import kept_at_end, sets_out_with
from jolvek.core.day.voyage import Event, Voyage
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.pack_state import PackState
from jolvek.core.enquiry.need import STILL_M_S, Leg
from jolvek.core.enquiry.sun import dark
from jolvek.core.enquiry.sun import sun_at as own_sun
from jolvek.core.fit.checklist import LOW_CHARGE
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.in_wind import in_wind
from jolvek.core.predict.performance import Performance

STEP_S = 60.0
LONG_S = 60_000.0  # from here on steps grow with the time gone: 17 h
CUT_BACK = 0.5  # of the motor's power below its own low-charge setting; common practice, no source
WARN_S = 15 * 60.0
SWAP_S = 180.0


@dataclass
class _Run:
    """The state of a day under way."""

    fitted: Fitted
    switches: Switches
    legs: tuple[Leg, ...]
    pack: PackState
    spare: Bank | None
    sun_at: Callable[[float], float]
    step_s: float
    turn: int
    t: float = 0.0
    way: float = 0.0
    rows: list[tuple[float, ...]] = field(default_factory=list)
    events: list[Event] = field(default_factory=list)
    announced: set[str] = field(default_factory=set)
    packs: list[PackState] = field(default_factory=list)
    used_wh: float = 0.0  # by motor and loads
    stored_wh: float = 0.0  # put into the pack by the sun
    tables: dict[float, Performance] = field(default_factory=dict)
    powers: dict[tuple[float, float], float] = field(default_factory=dict)

    @property
    def clock_h(self) -> float:
        return self.fitted.need.day.start_h + self.t / 3600

    def say(self, kind: str, text: str, once: bool = True) -> None:
        if once and kind in self.announced:
            return
        self.announced.add(kind)
        self.events.append(Event(self.t, kind, text, self.pack.soc))

    def wind(self, i: int) -> float:
        leg, s = self.legs[i], self.switches
        if s.wind_m_s is None or self.clock_h < s.wind_from_h:
            return leg.wind_m_s
        homeward = i >= self.turn
        return s.wind_m_s if homeward == (s.wind_against == "home") else -s.wind_m_s

    def current(self, i: int) -> float:
        return self.legs[i].current_m_s + (
            self.switches.stream_m_s if i >= self.turn else -self.switches.stream_m_s
        )

    def performance(self, wind: float) -> Performance:
        key = round(wind, 3)
        if key not in self.tables:
            self.tables[key] = in_wind(self.fitted, key)
        return self.tables[key]

    def power(self, p: Performance, speed: float) -> float:
        key = (p.setup.wind_m_s, speed)
        if key not in self.powers:
            self.powers[key] = float(p.power_at_w(speed))
        return self.powers[key]

    def reserve_soc(self, power_w: float) -> float:
        day = self.fitted.need.day
        hour = day.keep_s / 3600 * power_w / self.pack.bank.energy_wh
        return max(
            day.kept_share + hour, 1 - self.pack.bank.chem.usable if self.spare is None else 0.0
        )

    @property
    def step(self) -> float:
        """Seconds of the next step: longer ones once the day is longer than any, so that whatever
        is asked ends in some thousand of them.
        """
        return max(self.step_s, self.t * self.step_s / LONG_S)

    @property
    def swap_soc(self) -> float:
        """Where a spare goes in: at the reserve, or at the half that lead stops at."""
        return max(self.fitted.need.day.kept_share, 1 - self.pack.bank.chem.usable)

    def record(self, i: int, power: float, sun: float, speed: float, ground: float) -> None:
        self.rows.append((self.t, self.pack.soc, power, sun, speed, ground, self.way, i))

    def tick(self, i: int, power: float, sun: float, seconds: float) -> bool:
        """Draw for a while and give the warnings; False when the bank is empty and no spare is
        left.
        """
        net, before = power - sun, (self.pack.given_wh, self.pack.taken_wh)
        self.pack.step(net, seconds / 3600)
        self.t += seconds
        drawn, put_in = self.pack.given_wh - before[0], self.pack.taken_wh - before[1]
        self.used_wh += drawn + min(power, sun) * seconds / 3600
        self.stored_wh += put_in
        keep = self.reserve_soc(max(power, 1.0))
        if net > 0 and self.pack.soc > keep:
            left_s = 3600 * (self.pack.soc - keep) / self.pack.soc_per_h(net)
            if left_s <= WARN_S:
                self.say("warning", msg("15 minutes left before the reserve"))
        if self.pack.soc <= keep and self.spare is None:
            self.say("reserve", msg("the reserve is reached"))
        if self.pack.able(max(net, 1.0)) and (self.spare is None or self.pack.soc > self.swap_soc):
            return True
        if self.spare is None:
            self.say("empty", msg("the bank is empty"))
            return False
        self.packs.append(self.pack)
        self.pack, self.spare = PackState(self.spare, self.pack.motor_min_v), None
        self.t += SWAP_S
        self.announced -= {"warning"}
        self.say("swap", msg("the spare pack goes in"))
        return True

    def under_way(self, i: int) -> bool:
        """One leg; False when the day ends in it."""
        leg, day = self.legs[i], self.fitted.need.day
        self.say("leg", leg.name or msg("leg %(i)s", i=i + 1), once=False)
        left_m, left_s = leg.distance_m, leg.duration_s
        while (left_m if left_s is None else left_s) > 1e-6:  # type: ignore[operator]
            p, current = self.performance(self.wind(i)), self.current(i)
            wanted = leg.speed_m_s if left_s is None else max(leg.speed_m_s, current)
            speed = min(wanted, p.top_speed_m_s)
            power = self.power(p, speed)
            if (
                self.pack.soc <= LOW_CHARGE
                and self.spare is None
                and power > CUT_BACK * p.power_limit_w
            ):
                power = CUT_BACK * p.power_limit_w
                speed = float(p.speed_at_w(power))
                self.say("cut-back", msg("the motor cuts its power back"))
            ground = speed - current
            if ground <= STILL_M_S if left_m is not None else ground < -STILL_M_S:
                self.no_way(i, current)
                self.record(i, power + day.hotel_w, 0.0, speed, ground)
                return False
            sun = self.sun_at(self.clock_h)
            self.record(i, power + day.hotel_w, sun, speed, ground)
            seconds = min(self.step, left_s if left_s is not None else (left_m or 0.0) / ground)
            if not self.tick(i, power + day.hotel_w, sun, seconds):
                return False
            self.way += max(ground, 0.0) * seconds
            left_m = None if left_m is None else left_m - ground * seconds
            left_s = None if left_s is None else left_s - seconds
        return self.waiting(i)

    def no_way(self, i: int, current_m_s: float) -> None:
        name = self.legs[i].name or msg("leg %(i)s", i=i + 1)
        if current_m_s > 0:
            why = msg("no way is made on %(name)s: the current is as fast as the boat", name=name)
        else:
            why = msg(
                "no way is made on %(name)s: wind and waves are as strong as the boat", name=name
            )
        self.say("no-way", why)

    def waiting(self, i: int) -> bool:
        left = self.legs[i].hold_s
        if left > 0:
            self.say(
                "hold",
                msg("waiting after %(name)s", name=self.legs[i].name or f"leg {i + 1}"),
                once=False,
            )
        while left > 1e-6:
            seconds, sun, hotel = (
                min(self.step, left),
                self.sun_at(self.clock_h),
                self.fitted.need.day.hotel_w,
            )
            self.record(i, hotel, sun, 0.0, 0.0)
            if not self.tick(i, hotel, sun, seconds):
                return False
            left -= seconds
        return True


def _at_setting_out(fitted: Fitted) -> PackState:
    bank, lowest = fitted.bank, fitted.motor.spec.window_v(fitted.bank.nominal_v)[0]
    return PackState(bank, min(lowest, bank.nominal_v * 0.97), max(sets_out_with(fitted), 0.01))


_HOME, _HOME_LOW = msg("back at the quay"), msg("back at the quay, below the reserve")


def sail_out(
    fitted: Fitted,
    switches: Switches | None = None,
    spare: Bank | None = None,
    sun_at: Callable[[float], float] | None = None,
    step_s: float = STEP_S,
) -> Voyage:
    """Run the need's legs in steps of `step_s` seconds. `sun_at` gives W for a clock hour in place
    of the setup's own panels; `spare` weighs among the gear and is swapped in at the reserve.

    Steady speeds on each leg; power falls to half below the motor's own low-charge setting. Zero
    legs, a stream faster than the boat and days past midnight are told, never raised. Validity as
    `performance.evaluate`.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> v = sail_out(sample_fitted(Day(1.5, 4000)))
    >>> v.home, v.balance < 1e-3, round(v.distance_m[-1].item())
    (True, True, 4000)
    """
    switches = switches or Switches()
    fitted = laden(switched(fitted, switches), spare)
    legs = fitted.need.day.trip
    pack = _at_setting_out(fitted)
    sun = sun_at or own_sun(fitted.need.day, fitted.solar_w) or dark
    run = _Run(fitted, switches, legs, pack, spare, sun, step_s=step_s, turn=turn_index(legs))
    done = all(run.under_way(i) for i in range(len(legs)))
    last = run.rows[-1] if run.rows else (0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0)
    run.rows.append((run.t, run.pack.soc, 0.0, 0.0, 0.0, 0.0, run.way, last[7]))
    mean_w = 3600 * run.used_wh / max(run.t, 1.0)
    kept = run.pack.soc >= kept_at_end(fitted, mean_w) - 1e-9
    if done:
        run.say("home", _HOME if kept else _HOME_LOW)
    a = np.array(run.rows, dtype=float).T
    packs = [*run.packs, run.pack]
    return Voyage(
        fitted,
        legs,
        a[0],
        a[1],
        a[2],
        a[3],
        speed_m_s=a[4],
        ground_m_s=a[5],
        distance_m=a[6],
        leg=a[7].astype(int),
        events=tuple(run.events),
        home=done and kept,
        done=done,
        balance=max(p.balance for p in packs),
        energy_wh=run.used_wh,
        stored_wh=run.stored_wh,
        battery_wh=sum(p.given_wh for p in packs),
    )
