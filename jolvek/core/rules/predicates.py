"""The predicates of the hard rules: plain comparisons over facts in arrays, one function a rule."""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.base.messages import msg
from jolvek.core.rules.facts import DriveFacts, NeedFacts, PairFacts, SetupFacts
from jolvek.core.rules.rule import SLACK, Verdict, at_least, at_most

MOST_JOINED, MOST_STRINGS = 8, 4  # packs of a bank that is offered; common practice, no source
RUDDER_NEEDS_M = 0.03
FOOT_SLACK_MM = 1.0  # that a screw takes up; common practice, no source
ROUNDING_M = 0.0005  # a plate is measured to the millimetre


def plate_people(f: NeedFacts) -> Verdict:
    """People aboard against the plate."""
    return at_most(f.people, f.most_people)


def approval_year(f: NeedFacts) -> Verdict:
    """The hull's model year against the years of the maker's approval."""
    ok = np.isnan(f.model_year) or f.from_year <= f.model_year <= f.to_year
    return Verdict(
        np.asarray(ok), f.model_year, f.from_year, {"low": f.from_year, "high": f.to_year}
    )


def wind_limit(f: NeedFacts) -> Verdict:
    """The day's strongest wind against what a boat of that length goes out in."""
    return at_most(f.wind_m_s, f.most_wind_m_s, length=f.length_m)


def plate_power(f: DriveFacts) -> Verdict:
    """Input power against the plate."""
    return at_most(f.power_w, f.plate_w)


def approval_power(f: DriveFacts) -> Verdict:
    """Input power against the hull maker's approval."""
    return at_most(f.power_w, f.approved_w)


def approval_thrust(f: DriveFacts) -> Verdict:
    """Static thrust against the hull maker's approval."""
    return at_most(f.thrust_n, f.approved_n)


def motor_mass(f: DriveFacts) -> Verdict:
    """Motor with mount against what the transom is rated for."""
    return at_most(f.hung_kg, f.transom_kg)


def mount_place(f: DriveFacts) -> Verdict:
    """The boat has the place that the mount needs."""
    return Verdict(f.place_fits, values={"needs": f.place_needed, "has": f.places_there})


def fin_box(f: DriveFacts) -> Verdict:
    """The adapter's foot goes into the boat's fin box: no longer, and as wide within a hair."""
    long = np.round(1000 * (f.foot_m - f.slot_m)) > 0
    wide = np.round(1000 * np.abs(f.foot_wide_m - f.slot_wide_m), 1) > FOOT_SLACK_MM
    foot = {"long": 1000 * f.foot_m, "wide": 1000 * f.foot_wide_m, "box": f.slot_name}
    return Verdict(np.logical_not(long | wide), 1000 * f.foot_m, 1000 * f.slot_m, foot)


def mount_style(f: DriveFacts) -> Verdict:
    """The mount takes this kind of motor."""
    return Verdict(f.style_fits, values={"needs": f.styles, "style": f.style})


def mount_motor_mass(f: DriveFacts) -> Verdict:
    """Motor against what the mount carries."""
    return at_most(f.motor_kg, f.carries_kg)


def mount_thrust(f: DriveFacts) -> Verdict:
    """Static thrust against what the mount takes."""
    return at_most(f.thrust_n, f.takes_n)


def mount_transom(f: DriveFacts) -> Verdict:
    """The transom's thickness within the clamp's jaws."""
    thin, thick = f.transom_m < f.grip_least_m, f.transom_m > f.grip_most_m
    jaws = {"low": 1000 * f.grip_least_m, "high": 1000 * f.grip_most_m}
    return Verdict(np.logical_not(f.grips & (thin | thick)), 1000 * f.transom_m, None, jaws)


def shaft_short(f: DriveFacts) -> Verdict:
    """The plate at the hull bottom or below, or as far above as the propeller draws no air there;
    of a transom that is only estimated, as far as it may be off.
    """
    short = np.maximum(np.round(-1000 * f.plate_m), 0.0)
    on = msg(" for the transom as it is estimated") if f.estimated_m else ""
    first = msg("Measure the transom first. ") if f.estimated_m else ""
    ok = np.logical_not(f.plate_m < -ROUNDING_M - np.maximum(f.estimated_m, f.above_m))
    return Verdict(ok, f.plate_m, 0.0, {"short": short, "on": on, "first": first})


def rudder_strikes(f: DriveFacts) -> Verdict:
    """The rudder at every angle clear of the propeller."""
    ok = np.logical_not(f.rudder_gap_m < RUDDER_NEEDS_M)
    gap = np.maximum(f.rudder_gap_m, 0.0)  # where it strikes there is none
    return Verdict(ok, 1000 * gap, 1000 * RUDDER_NEEDS_M)


def pack_own(f: PairFacts) -> Verdict:
    """A motor with its own battery takes that one alone, and that one no other motor."""
    return Verdict(f.own_pack)


def voltage_high(f: PairFacts) -> Verdict:
    """The bank's charging voltage against the motor's highest; fewer packs only where one less
    still suits.
    """
    fewer = np.floor(f.most_v * f.bank.series / f.charge_v)  # that the motor bears
    cured = (fewer >= 1) & (f.mid_v * fewer / f.bank.series >= f.least_v)
    return at_most(f.charge_v, f.most_v, cured=cured)


def voltage_low(f: PairFacts) -> Verdict:
    """The bank's voltage under load at 60 % charge against the motor's lowest."""
    one_v = np.maximum(f.mid_v / f.bank.series, 1e-3)
    packs = np.ceil(f.least_v / one_v - 1e-9)
    cured = packs * f.charge_v / f.bank.series <= f.most_v * SLACK
    cured &= (packs <= np.minimum(f.bank.most_series, MOST_JOINED)) & f.own_pack
    return at_least(f.mid_v, f.least_v, packs=packs, cured=cured)


def series_allowed(f: PairFacts) -> Verdict:
    """Packs in series against what their management allows."""
    return at_most(f.bank.series, f.bank.most_series)


def parallel_allowed(f: PairFacts) -> Verdict:
    """Strings in parallel against what the packs' management allows."""
    return at_most(f.bank.parallel, f.bank.most_parallel)


def _amps(f: PairFacts, amps: Array, limit_a: Array) -> Verdict:
    """A current against a limit of the bank, with the strings that cure it in whole numbers."""
    one = limit_a / f.bank.parallel
    with np.errstate(invalid="ignore"):
        strings = np.ceil(amps / one - 1e-9)
    cured = strings <= np.minimum(f.bank.most_parallel, MOST_STRINGS)
    cured &= (strings * f.bank.series <= MOST_JOINED) & f.own_pack
    cured &= (f.charge_v <= f.most_v * SLACK) & (f.mid_v * SLACK >= f.least_v)
    return at_most(
        np.where(np.isfinite(limit_a), amps, 0.0),
        limit_a,
        volts=f.at_v,
        strings=strings,
        packs=strings * f.bank.series,
        watts=limit_a * f.at_v,
        cured=cured,
    )


def current_continuous(f: PairFacts) -> Verdict:
    """Continuous current against what the cells are stated to give."""
    return _amps(f, f.amps, f.bank.cells_a)


def current_unknown(f: PairFacts) -> Verdict:
    """Continuous current against what is usual for the chemistry, where nothing is stated."""
    return _amps(f, f.amps, f.bank.usual_a)


def bms_limit(f: PairFacts) -> Verdict:
    """Continuous current against the battery management's."""
    return _amps(f, f.amps, f.bank.bms_a)


def connector_limit(f: PairFacts) -> Verdict:
    """Continuous current against the connectors'."""
    return _amps(f, f.amps, f.bank.connector_a)


def current_peak(f: PairFacts) -> Verdict:
    """Peak current against the smallest of cells, battery management and connector."""
    limit = np.minimum(np.minimum(f.bank.peak_a, f.bank.bms_a), f.bank.connector_a)
    held = _amps(f, f.peak_amps, limit)
    ok = np.isnan(f.peak_amps) | held.ok
    return Verdict(ok, held.figure, limit, {**held.values, "peak": f.peak_w})


def fuse_most(f: PairFacts) -> Verdict:
    """The fuse that the continuous current asks for against the largest known."""
    return at_most(f.fuse_a, f.most_fuse_a)


def has_charger(f: PairFacts) -> Verdict:
    """A charger is chosen, or the customer's own suits the bank."""
    return Verdict(f.bank.charged, f.bank.charge_v)


def awash(f: SetupFacts) -> Verdict:
    """All that floats against what sinks her to the sheer."""
    return Verdict(f.displacement_kg < f.awash_kg, f.displacement_kg, f.awash_kg)


def trim_beyond(f: SetupFacts) -> Verdict:
    """Trim against where its sums end."""
    way = np.where(np.asarray(f.trim_deg) > 0, "stern", "bow")
    return at_most(np.abs(f.trim_deg), f.most_trim_deg, way=way)


def heel_beyond(f: SetupFacts) -> Verdict:
    """Heel against where its sums end; without stability it is 90°."""
    return at_most(np.abs(f.heel_deg), f.most_heel_deg)


def plate_load(f: SetupFacts) -> Verdict:
    """People, gear and kit against the plate."""
    over = np.asarray(f.carried_kg) - f.most_carried_kg
    return at_most(f.carried_kg, f.most_carried_kg, over=over)
