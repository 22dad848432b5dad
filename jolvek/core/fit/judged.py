"""What the rule book says of a setup on its boat: plates, fit, water, wishes, electrics."""

from __future__ import annotations

from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.electric import charging, network
from jolvek.core.electric.bank import weather
from jolvek.core.enquiry.need import Leg
from jolvek.core.fit.fit import Fit
from jolvek.core.fit.fit_facts import drive_facts, need_facts, setup_facts
from jolvek.core.fit.in_wind import in_wind
from jolvek.core.fit.leg import ABOVE_M, largest_tilt_deg
from jolvek.core.fit.level import lies, water_aboard_deg
from jolvek.core.fit.stowage import best_place
from jolvek.core.fit.trim import HEEL_HELD_DEG
from jolvek.core.predict import capacity
from jolvek.core.predict.performance import Performance
from jolvek.core.products.mounting import PLATE_TOO_DEEP_M
from jolvek.core.products.unknown import shaft_unknown, weight_unknown
from jolvek.core.rules import judge
from jolvek.core.rules.findings import Finding, find, uncured
from jolvek.core.rules.predicates import ROUNDING_M
from jolvek.core.rules.rulebook import RULES

TRIM_MUCH_DEG, HEEL_MUCH_DEG = 2.5, 4.0  # common practice, no source
TO_THE_SIDE = 0.35  # of the beam, off the middle: standing inside the rail; common practice
NEARLY_WET = 0.6  # of the heel at which water comes aboard; common practice, no source
AT_BEST_M = 0.05  # nearer than this a battery stands at its best place
TILT_NEEDS_DEG = 60.0


def hard(f: Fit) -> list[Finding]:
    """What the one judge says, by the same predicates as matching: need, drive, pair, setup, bays.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> hard(sample_fitted()), [x.rule for x in hard(sample_fitted(transom_height_m=0.45))]
    ([], ['shaft-short'])
    """
    return [borne(f, x) for x in _hard(f)]


def borne(f: Fit, finding: Finding) -> Finding:
    """A finding whose cure is more packs in series or in parallel says so only where the boat and
    the motor bear them by every hard rule.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> more = find("voltage-low", 11.9, 21.0, packs=3, cured=True)
    >>> borne(sample_fitted(), more).cure
    'Choose a motor for this voltage, or a battery within its voltage range.'
    """
    values: dict[str, Any] = dict(finding.values)
    if not values.get("cured") or "packs" not in values:
        return finding
    strings, packs = values.get("strings"), values["packs"]
    more = {"series": packs} if strings is None else {"parallel": strings}
    had = {x.rule for x in _hard(f) if x.level == "block"} - {finding.rule}
    then = {x.rule for x in _hard(f.rejoined(**more))}
    blocks = {rule for rule in then if RULES[rule].level == "block"}
    return finding if finding.rule not in then and blocks <= had else uncured(finding)


def _hard(f: Fit) -> list[Finding]:
    problem = f.stowed[1]
    asked = f.attitude.trim_asked_deg, f.attitude.heel_asked_deg
    return [
        *judge.findings("need", need_facts(f.need)),
        *judge.findings("drive", drive_facts(f.need, f.hung, [f.mount.spec])),
        *judge.findings("pair", f.pair),
        *judge.findings("setup", setup_facts(f.need, f.displacement_kg, *asked)),
        *([problem] if problem else []),
    ]


def plates(f: Fit) -> list[Finding]:
    """What the boat is likely made for, where there is no plate.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> plates(sample_fitted())
    []
    """
    need, site = f.need, f.need.site
    load, people = site.max_load_kg is not None, site.max_people is not None
    plate = capacity.Plate(load, people, site.transom_width_m, site.remote_steering)
    carried = f.displacement_kg - need.hull.mass_kg
    return capacity.without_plate(need.hull, need.load, f.motor.spec.input_power_w, carried, plate)


def on_the_boat(f: Fit) -> list[Finding]:
    """Air for the bays, tilt, and how she lies.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> [x.rule for x in on_the_boat(f)]
    []
    """
    need, mount, stowed = f.need, f.mount.spec, f.stowed[0]
    out = []
    if not f.bank.chem.lithium and any(not s.bay.ventilated for s in stowed):
        out.append(
            find("bay-ventilation", bay=next(s.bay.name for s in stowed if not s.bay.ventilated))
        )
    if mount.general.place == "transom":
        if need.hull.fam.sails and need.site.rudder_chord_m is None:
            out.append(find("rudder-unknown"))
        tilt = largest_tilt_deg(need.site.room_ahead_m)
        if tilt < TILT_NEEDS_DEG:
            out.append(find("tilt-short", tilt, TILT_NEEDS_DEG))
    a = f.attitude
    if abs(a.trim_deg) > TRIM_MUCH_DEG:
        out.append(_trim_finding(f))
    if abs(a.heel_deg) > HEEL_MUCH_DEG:
        out.append(find("side-mount-heel", abs(a.heel_deg), HEEL_MUCH_DEG))
    return [*out, *_one_at_the_side(f)]


def _one_at_the_side(f: Fit) -> list[Finding]:
    """What it does when one person steps to the side of an open boat."""
    hull, a, load = f.need.hull, f.attitude, f.need.load
    rho = f.need.water.density_kg_m3
    wet = water_aboard_deg(hull, a.displacement_kg, rho)
    if wet is None or not load.people:
        return []
    each = load.crew_kg / load.people
    off = sum(w.mass_kg * w.off_m for w in f.weights) + each * TO_THE_SIDE * hull.beam_m
    stands = lies(hull, a.displacement_kg, a.ahead_m, off / a.displacement_kg, a.above_m, rho)
    heel = abs(float(stands.heel_deg))
    if heel < NEARLY_WET * wet:
        return []
    return [find("one-at-the-side", min(heel, HEEL_HELD_DEG), wet, each=each)]


def _trim_finding(f: Fit) -> Finding:
    a = f.attitude
    way = msg("by the stern") if a.trim_deg > 0 else msg("by the bow")
    direction = "forward" if a.trim_deg > 0 else "aft"
    place = best_place(f)
    now = next((w.ahead_m for w in f.weights if w.name == "battery"), 0.0)
    best = place[0] if place else now
    if abs(best - now) > AT_BEST_M:
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


def not_given(f: Fit) -> list[Finding]:
    """Deciding figures that are missing for the products or the boat.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> not_given(sample_fitted())
    []
    """
    out = []
    if shaft_unknown(f.motor) and f.shaft_m is None and f.fitting.pole_m is None:
        out.append(find("shaft-unknown"))
    for what, item in (("motor", f.motor), ("battery", f.battery)):
        if weight_unknown(item):
            out.append(find("weight-unknown", item.spec.weight_kg, what=what))
    x, height = f.leg, f.need.hull.transom_height_m
    if height is None and x is not None and x.plate_m < -ROUNDING_M:
        estimated = 1000 * f.need.hull.transom_m
        out.append(find("transom-estimated", -1000 * x.plate_m, estimated))
    return out


def in_the_water(f: Fit) -> list[Finding]:
    """Shaft and propeller depth, and the turning moment of a side mount.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted(transom_height_m=0.2)
    >>> [x.rule for x in in_the_water(f)]
    ['shaft-long']
    """
    out, x = [], f.leg
    if x is not None:
        above = x.plate_m < -ROUNDING_M
        short = above and any(y.rule == "shaft-short" for y in _hard(f))
        if x.air != "none" and not short and x.plate_m >= -ABOVE_M:
            out.append(find("shaft-shallow", 1000 * x.hub_m, 100.0, tip=1000 * x.tip_m, when=x.air))
        elif above and not short and x.plate_m >= -ABOVE_M:
            out.append(find("plate-above", -1000 * x.plate_m, 0.0, tip=1000 * x.tip_m))
        if x.plate_m > PLATE_TOO_DEEP_M:
            out.append(find("shaft-long", 1000 * x.plate_m, 1000 * PLATE_TOO_DEEP_M))
    turn = f.yaw
    if turn is not None and not turn.answered:
        arm = 0.45 * f.need.hull.waterline_m
        out.append(find("side-mount-yaw", turn.moment_nm, turn.helm_most_n * arm))
    return out


def _legs(f: Fit) -> list[tuple[Leg, Performance]]:
    return [(leg, in_wind(f, leg.wind_m_s)) for leg in f.need.day.trip]


def _too_fast(leg: Leg, p: Performance) -> bool:
    return leg.speed_m_s > p.top_speed_m_s * (1 + 1e-6)


def wishes(f: Fit) -> list[Finding]:
    """Speeds of the day and the customer's must-haves; whether the boat gets home is the job's.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> [x.rule for x in wishes(f)]
    []
    """
    day, out = f.need.day, []
    missed = [(p.top_speed_m_s, leg.speed_m_s) for leg, p in _legs(f) if _too_fast(leg, p)]
    if missed:
        out.append(find("speed-missed", *min(missed, key=lambda x: x[0] / x[1])))
    if day.max_lift_kg is not None and f.lift_kg > day.max_lift_kg:
        out.append(find("lift-mass", f.lift_kg, day.max_lift_kg))
    noise = f.motor.noise_db
    if day.max_noise_db is not None and noise is not None and noise > day.max_noise_db:
        out.append(find("noise", noise, day.max_noise_db))
    if day.hands_free and not f.mount.spec.hands_free:
        out.append(find("hands-free", how=f.mount.spec.general.steering))
    return out


def electrics(f: Fit) -> list[Finding]:
    """Charging, temperature and wiring.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> [x.rule for x in electrics(f)]
    ['first-charge']
    """
    out = weather(f.bank, bool(f.stowed[0]))
    if f.charger is not None:
        out += charging.check_charging(
            f.bank,
            [f.charger.spec],
            f.need.day.charge_h,
            f.need.day.reserve,
            f.need.day.temperature_c,
            new=not f.battery.own,
        )
    return out + network.check_wiring(f.netlist)
