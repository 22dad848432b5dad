"""A whole setup fitted to a boat: motor on its shaft and mount, bank in its bays, charger, wiring;
judged by the rule book.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import cached_property

from jolvek.core.electric import charging, network
from jolvek.core.electric.bank import Bank, weather
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.wiring import Netlist, Plan, install
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.fit.hanging import fits, seat_m
from jolvek.core.fit.leg import Leg, largest_tilt_deg, leg, rudder_clearance_m
from jolvek.core.fit.stowage import Stowed, stow
from jolvek.core.fit.trim import Attitude, Weight, Yaw, attitude, best_place_m, crew, yaw
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import Resistance
from jolvek.core.predict import limits, power_limit
from jolvek.core.predict.performance import Performance, evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import PLATE_TOO_DEEP_M, TRANSOM_PLACES, Mount
from jolvek.core.products.shelf import Item, sample
from jolvek.core.rules.findings import Finding, find, ordered

TRIM_MUCH_DEG, HEEL_MUCH_DEG = 2.5, 4.0  # common practice, no source
RUDDER_NEEDS_M = 0.03
TILT_NEEDS_DEG = 60.0
SAIL_RUDDER_M2 = 0.12
BEHIND_M = 0.20  # propeller's disc aft of the transom
STEERED_BY_BOAT = ("side_bar", "offset_bracket", "fin_box")


@dataclass(frozen=True)
class Fitted:
    """One setup on one enquiry's boat. `gauge` is voltage, monitor, or empty where nobody said."""

    need: Need
    motor: Item[Motor]
    battery: Item[Battery]
    mount: Item[Mount]
    charger: Item[Charger] | None = None
    series: int = 1
    parallel: int = 1
    shaft_m: float | None = None
    gauge: str = ""
    plan: Plan = field(default_factory=Plan)
    table: Resistance | None = None
    ageing: float = 0.0

    @cached_property
    def bank(self) -> Bank:
        """The bank."""
        return Bank(
            self.battery.spec, self.series, self.parallel, self.ageing, self.need.day.temperature_c
        )

    @cached_property
    def setup(self) -> Setup:
        """What the prediction needs."""
        day = self.need.day
        return Setup(
            self.need.hull,
            self.need.load,
            replace(self.motor.spec, shaft_length_m=self.shaft_m),
            self.bank,
            self.need.water,
            day.wind_m_s,
            day.current_m_s,
            day.kept_share,
            self.mount.spec.mass_kg,
            day.keep_s,
        )

    @cached_property
    def performance(self) -> Performance:
        """Its figures."""
        return evaluate(self.setup, self.table)

    @cached_property
    def clips_on(self) -> bool:
        """Whether the battery rides on the motor."""
        return self.battery.id in self.motor.pack_ids

    @cached_property
    def stowed(self) -> tuple[list[Stowed], Finding | None]:
        """Where the packs go, or why they do not."""
        return (
            ([], None)
            if self.clips_on
            else stow(self.need.site.bays, self.battery.spec, self.bank.packs)
        )

    @cached_property
    def weights(self) -> list[Weight]:
        """People, gear, motor with mount, and packs, where they sit."""
        hull, mount = self.need.hull, self.mount.spec
        ahead = motor_ahead_m(self.need, mount)
        hung = Weight(
            "motor",
            self.motor.spec.weight_kg + mount.mass_kg,
            ahead,
            mount.offset_m,
            hull.transom_m,
        )
        out = [*crew(hull, self.need.load), hung]
        kilos = self.battery.spec.weight_kg
        if self.clips_on:
            return [
                *out,
                Weight("battery", self.bank.mass_kg, ahead, mount.offset_m, hull.transom_m + 0.1),
            ]
        if not self.stowed[0]:
            return [*out, Weight("battery", self.bank.mass_kg, 0.3 * hull.length_m, 0.0, 0.15)]
        names = (
            ["battery"]
            if len(self.stowed[0]) == 1
            else [f"battery {i}" for i in range(1, len(self.stowed[0]) + 1)]
        )
        return out + [
            Weight(
                name,
                s.packs * kilos,
                s.bay.ahead_m or 0.3 * hull.length_m,
                s.bay.off_m,
                s.bay.above_m + 0.1,
            )
            for name, s in zip(names, self.stowed[0], strict=True)
        ]

    @cached_property
    def attitude(self) -> Attitude:
        """How she lies."""
        return attitude(self.need.hull, self.weights, self.need.water)

    @cached_property
    def leg(self) -> Leg | None:
        """The leg in the water; None for adjustable shafts and motors that are not hung on a
        transom.
        """
        if self.shaft_m is None or self.mount.spec.general.place not in TRANSOM_PLACES:
            return None
        return leg(
            self.shaft_m,
            seat_m(self.need.hull, self.mount.spec),
            self.attitude.draught_aft_m,
            self.performance.propulsor.diameter_m,
        )

    @cached_property
    def yaw(self) -> Yaw | None:
        """What an off-centre thrust does; None where the motor itself steers or sits on the centre
        line.
        """
        mount, hull, p = self.mount.spec, self.need.hull, self.performance
        if not mount.offset_m or mount.kind not in STEERED_BY_BOAT:
            return None
        at = p.at_speed(min(self.need.day.speed_m_s, p.top_speed_m_s))
        rudder = SAIL_RUDDER_M2 if hull.fam.sails else 0.02
        return yaw(
            at.thrust_n or 0.0,
            mount.offset_m,
            hull,
            at.speed_m_s or 0.1,
            rudder,
            self.need.water.density_kg_m3,
        )

    @cached_property
    def netlist(self) -> Netlist:
        """The wiring."""
        c = self.charger.spec if self.charger else None
        plan = replace(
            self.plan,
            charger_a=self.plan.charger_a or (c.current_a if c else 0.0),
            charger_outputs=c.outputs if c else 1,
            connector_a=self.plan.connector_a or self.battery.spec.connector_max_a,
        )
        return install(
            self.bank, self.motor.spec.input_power_w, plan, self.motor.spec.controller_max_a
        )

    @cached_property
    def charge_h(self) -> float | None:
        """Hours from the reserve to full; None without a charger that matches."""
        if self.charger is None:
            return None
        hours = charging.together_h(self.bank, [self.charger.spec], self.need.day.reserve)
        return hours if hours < float("inf") else None

    @cached_property
    def price(self) -> float:
        """All parts."""
        parts = (self.motor.price, self.mount.price, self.charger.price if self.charger else 0.0)
        return sum(parts) + self.bank.packs * self.battery.price

    @cached_property
    def lift_kg(self) -> float:
        """Heaviest single lift: motor or one pack."""
        return max(self.motor.spec.weight_kg, self.battery.spec.weight_kg)

    @cached_property
    def findings(self) -> list[Finding]:
        """Everything the rule book says, worst first, each rule once."""
        checks: tuple[Callable[[Fitted], list[Finding]], ...] = (
            plates,
            on_the_boat,
            in_the_water,
            wishes,
            electrics,
        )
        found = [
            *limits.check(
                self.performance, self.gauge or ("monitor" if self.battery.spec.monitor else "")
            ),
            *(f for check in checks for f in check(self)),
        ]
        return ordered(list({f.rule: f for f in reversed(found)}.values())[::-1])


def motor_ahead_m(need: Need, mount: Mount) -> float:
    """Where the motor sits, m ahead of the stern: just behind it, behind the seat on a side bar,
    under the hull for a pod.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> motor_ahead_m(Need(Hull("rib", 3.6, 1.75, 110), Load(2)), Mount("transom_clamp", 60, 2000))
    -0.06
    """
    length = need.hull.length_m
    return {
        "side_bar": 0.38 * length,
        "rowlock_pin": 0.45 * length,
        "fin_box": 0.12 * length,
        "pod": 0.2 * length,
        "well": 0.08 * length,
    }.get(mount.kind, -0.06)


def plates(f: Fitted) -> list[Finding]:
    """Builder's plate, maker's approval, and the formula where there is no plate.

    >>> f = sample_fitted()
    >>> [x.rule for x in plates(f)]
    []
    """
    site, hull, motor, need = f.need.site, f.need.hull, f.motor.spec, f.need
    out = []
    if site.approval_power_w is not None and motor.input_power_w > site.approval_power_w * (
        1 + 1e-9
    ):
        out.append(find("approval-power", motor.input_power_w, site.approval_power_w))
    thrust = f.performance.static_thrust_n
    if site.approval_thrust_n is not None and thrust > site.approval_thrust_n * (1 + 1e-9):
        out.append(find("approval-thrust", thrust, site.approval_thrust_n))
    low, high = site.approval_from_year or 0, site.approval_to_year or 9999
    if site.model_year is not None and (low or high < 9999) and not low <= site.model_year <= high:
        out.append(find("approval-year", site.model_year, low, low=low, high=high))
    if hull.max_power_w is None and site.transom_width_m and power_limit.applies(hull):
        most = power_limit.most_w(
            hull.length_m,
            site.transom_width_m,
            hull.family == "flat_bottom",
            site.remote_steering,
            hull.transom_m,
        )
        if motor.input_power_w > most:
            out.append(find("formula-power", motor.input_power_w, most))
    carried = f.performance.displacement_kg - hull.mass_kg
    if site.max_load_kg is not None and carried > site.max_load_kg:
        out.append(find("plate-load", carried, site.max_load_kg, over=carried - site.max_load_kg))
    if site.max_people is not None and need.load.people > site.max_people:
        out.append(find("plate-people", need.load.people, site.max_people))
    return out


def on_the_boat(f: Fitted) -> list[Finding]:
    """Mount, transom, bays, tilt, rudder, and how she lies.

    >>> f = sample_fitted()
    >>> [x.rule for x in on_the_boat(f)]
    []
    """
    need, mount, p = f.need, f.mount.spec, f.performance
    out = fits(need.hull, need.site, mount, f.motor.spec, f.motor.style, p.static_thrust_n)
    stowed, problem = f.stowed
    if problem:
        out.append(problem)
    if not f.bank.chem.lithium and any(not s.bay.ventilated for s in stowed):
        out.append(
            find("bay-ventilation", bay=next(s.bay.name for s in stowed if not s.bay.ventilated))
        )
    if mount.general.place == "transom":
        tilt = largest_tilt_deg(need.site.room_ahead_m)
        if tilt < TILT_NEEDS_DEG:
            out.append(find("tilt-short", tilt, TILT_NEEDS_DEG))
    if mount.kind == "offset_bracket" and need.site.rudder_chord_m:
        gap = rudder_clearance_m(
            mount.offset_m, BEHIND_M, p.propulsor.diameter_m, need.site.rudder_chord_m
        )
        if gap < RUDDER_NEEDS_M:
            out.append(find("rudder-strikes", 1000 * gap, 1000 * RUDDER_NEEDS_M))
    a = f.attitude
    if abs(a.trim_deg) > TRIM_MUCH_DEG:
        out.append(_trim_finding(f))
    if abs(a.heel_deg) > HEEL_MUCH_DEG:
        out.append(find("side-mount-heel", abs(a.heel_deg), HEEL_MUCH_DEG))
    return out


def _trim_finding(f: Fitted) -> Finding:
    a = f.attitude
    movable = "battery" if any(w.name == "battery" for w in f.weights) and not f.clips_on else None
    way = "by the stern" if a.trim_deg > 0 else "by the bow"
    direction = "forward" if a.trim_deg > 0 else "aft"
    if movable:
        now = next(w for w in f.weights if w.name == movable).ahead_m
        best = best_place_m(f.need.hull, f.weights, movable, 0.1, 0.85 * f.need.hull.length_m)
        return find(
            "trim-angle",
            abs(a.trim_deg),
            TRIM_MUCH_DEG,
            way=way,
            what="the battery",
            direction=f"{abs(best - now):.1f} m {'forward' if best > now else 'aft'}",
        )
    return find(
        "trim-angle",
        abs(a.trim_deg),
        TRIM_MUCH_DEG,
        way=way,
        what="people or gear",
        direction=direction,
    )


def in_the_water(f: Fitted) -> list[Finding]:
    """Shaft and propeller depth, and the turning moment of a side mount.

    >>> f = sample_fitted(transom_height_m=0.4)
    >>> [x.rule for x in in_the_water(f)]
    ['shaft-short']
    """
    out, x = [], f.leg
    if x is not None:
        if round(1000 * x.plate_m) < 0:
            out.append(find("shaft-short", x.plate_m, 0.0, short=round(-1000 * x.plate_m)))
        elif x.air != "none":
            out.append(find("shaft-shallow", 1000 * x.hub_m, 100.0, tip=1000 * x.tip_m, when=x.air))
        if x.plate_m > PLATE_TOO_DEEP_M:
            out.append(find("shaft-long", 1000 * x.plate_m, 1000 * PLATE_TOO_DEEP_M))
    turn = f.yaw
    if turn is not None and not turn.answered:
        arm = 0.45 * f.need.hull.waterline_m
        out.append(find("side-mount-yaw", turn.moment_nm, turn.helm_most_n * arm))
    return out


def wishes(f: Fitted) -> list[Finding]:
    """The day and the customer's must-haves.

    >>> f = sample_fitted()
    >>> [x.rule for x in wishes(f)]
    []
    """
    day, out = f.need.day, []
    wish = f.performance.at_speed(day.speed_m_s)
    if wish.power_w is not None and wish.range_m is not None and wish.range_m < day.distance_m:
        out.append(find("short-of-day", wish.range_m, day.distance_m))
    if day.max_lift_kg is not None and f.lift_kg > day.max_lift_kg:
        out.append(find("lift-mass", f.lift_kg, day.max_lift_kg))
    noise = f.motor.noise_db
    if day.max_noise_db is not None and noise is not None and noise > day.max_noise_db:
        out.append(find("noise", noise, day.max_noise_db))
    if day.hands_free and not f.mount.spec.hands_free:
        out.append(find("hands-free", how=f.mount.spec.general.steering))
    return out


def electrics(f: Fitted) -> list[Finding]:
    """Charging, temperature and wiring.

    >>> f = sample_fitted()
    >>> [x.rule for x in electrics(f)]
    ['first-charge']
    """
    out = weather(f.bank)
    if f.charger is not None:
        out += charging.check(
            f.bank,
            [f.charger.spec],
            f.need.day.charge_h,
            f.need.day.reserve,
            f.need.day.temperature_c,
        )
    return out + network.check(f.netlist)


def sample_fitted(day: Day | None = None, transom_height_m: float = 0.36) -> Fitted:
    """The sample shelf's products on a 3.2 m dinghy for two, for examples.

    >>> sample_fitted().bank.nominal_v
    25.6
    """
    hull = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=transom_height_m)
    shelf, need = sample(), Need(hull, Load(2), day=day or Day())
    parts = shelf.motors[0], shelf.batteries[0], shelf.mounts[0], shelf.chargers[0]
    return Fitted(need, *parts, shaft_m=0.381)
