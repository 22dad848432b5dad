"""What the rule book says of a setup on its boat: plates, fit, water, wishes, electrics."""

from __future__ import annotations

from typing import TYPE_CHECKING

from jolvek.core.electric import charging, network
from jolvek.core.electric.bank import weather
from jolvek.core.fit.hanging import fits
from jolvek.core.fit.leg import largest_tilt_deg, rudder_clearance_m
from jolvek.core.fit.trim import best_place_m
from jolvek.core.predict import power_limit
from jolvek.core.products.mounting import PLATE_TOO_DEEP_M
from jolvek.core.rules.findings import Finding, find

if TYPE_CHECKING:
    from jolvek.core.fit.fitted import Fitted

TRIM_MUCH_DEG, HEEL_MUCH_DEG = 2.5, 4.0  # common practice, no source
RUDDER_NEEDS_M = 0.03
TILT_NEEDS_DEG = 60.0
BEHIND_M = 0.20  # propeller's disc aft of the transom


def plates(f: Fitted) -> list[Finding]:
    """Builder's plate, maker's approval, and the formula where there is no plate.

    >>> from jolvek.core.fit.fitted import sample_fitted
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

    >>> from jolvek.core.fit.fitted import sample_fitted
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

    >>> from jolvek.core.fit.fitted import sample_fitted
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

    >>> from jolvek.core.fit.fitted import sample_fitted
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

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> [x.rule for x in electrics(f)]
    ['first-charge']
    """
    out = weather(f.bank)
    if f.charger is not None:
        out += charging.check_charging(
            f.bank,
            [f.charger.spec],
            f.need.day.charge_h,
            f.need.day.reserve,
            f.need.day.temperature_c,
        )
    return out + network.check_wiring(f.netlist)
