"""How a fitted motor is worked: by its tiller, by a remote throttle with or without a cable, locked
straight with the rudder steering; and how long throttle and phase cables run.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.electric.wire_sizes import fuse_rating_a
from jolvek.core.fit.fit import Fit
from jolvek.core.fit.hanging import motor_ahead_m
from jolvek.core.fit.leg import tiller_gap_m
from jolvek.core.fit.trim import Yaw, yaw
from jolvek.core.rules.findings import Finding, find

# common practice, no source: slack for a bend at each end, and up from the floor at a helm
SLACK_M, UP_M = 0.5, 0.6
SAIL_RUDDER_M2 = 0.12
STEERED_BY_BOAT = ("side_bar", "offset_bracket", "fin_box")


@dataclass(frozen=True)
class Runs:
    """Lengths in m that cables must have; None where nobody said where one end is."""

    throttle_m: float | None  # helm to motor, or to its controller
    phase_m: float | None  # controller to a pod, each of three


def steered_by_boat(f: Fit) -> bool:
    """Whether the boat steers and the motor stays straight: by its mount, or locked.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> steered_by_boat(sample_fitted())
    False
    """
    return f.mount.spec.kind in STEERED_BY_BOAT or f.mount.spec.fixed or f.fitting.locked


def runs(f: Fit) -> Runs:
    """How long the cables run: along the boat, across to the side they lie on, and up.

    >>> from dataclasses import replace
    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> site = replace(f.need.site, helm_ahead_m=1.2)
    >>> round(runs(replace(f, need=replace(f.need, site=site))).throttle_m, 2)
    3.08
    """
    helm, motor = f.need.site.helm_ahead_m, motor_ahead_m(f.need, f.mount.spec)
    hull, place = f.need.hull, f.fitting.controller_ahead_m
    end = motor if place is None or not _pod(f) else place
    throttle = None
    if helm is not None:
        throttle = abs(helm - end) + 0.5 * hull.beam_m + UP_M + SLACK_M
    phase = None if place is None or not _pod(f) else abs(place - motor) + SLACK_M
    return Runs(throttle, phase)


def _pod(f: Fit) -> bool:
    return f.motor.style == "pod"


def remote(f: Fit) -> bool:
    """Whether throttle and motor are apart: set so, or a pod under the hull.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> remote(sample_fitted())
    False
    """
    return bool(f.fitting.throttle) or _pod(f)


def tiller_places_m(f: Fit) -> tuple[float, float] | None:
    """Where the helm sits and where the motor turns, m ahead of the stern; None where nobody holds
    a tiller.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> tiller_places_m(sample_fitted())[1]
    -0.06
    """
    helm = next((w for w in f.weights if w.name == "person 1"), None)
    by_hand = f.mount.spec.general.steering.startswith("tiller")
    if helm is None or f.need.site.remote_steering or f.fitting.locked or not by_hand or remote(f):
        return None
    return helm.ahead_m, next(w.ahead_m for w in f.weights if w.name == "motor")


def steered(f: Fit) -> list[Finding]:
    """What is said against how she is worked.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> steered(sample_fitted())
    []
    """
    out, need = [], runs(f).throttle_m
    if f.fitting.throttle == "cable":
        if need is None:
            out.append(find("helm-unknown"))
        elif f.fitting.throttle_m is not None and f.fitting.throttle_m < need:
            out.append(find("throttle-cable", need, f.fitting.throttle_m))
    if f.fitting.locked and not f.need.site.rudder_chord_m:
        out.append(find("rudder-only"))
    if adapted(f):
        out.append(find("adapter-lead", f.netlist.motor_a, fuse_rating_a(f.netlist.motor_a)))
    places = tiller_places_m(f)
    if places and (gap := tiller_gap_m(*places)) > 0:
        out.append(find("tiller-reach", gap, 0.0))
    if f.need.site.registration:
        out.append(find("registration"))
    return out


def side_pull(f: Fit) -> Yaw | None:
    """What an off-centre thrust does; None where the motor itself steers or sits on the centre
    line.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> side_pull(sample_fitted()) is None
    True
    """
    mount, hull, p = f.mount.spec, f.need.hull, f.performance
    if not mount.offset_m or not steered_by_boat(f):
        return None
    at = p.at_speed(min(f.need.day.speed_m_s, p.top_speed_m_s))
    rudder = SAIL_RUDDER_M2 if hull.fam.sails else 0.02
    return yaw(
        at.thrust_n or 0.0,
        mount.offset_m,
        hull,
        at.speed_m_s or 0.1,
        rudder,
        f.need.water.density_kg_m3,
    )


def steps(f: Fit) -> tuple[str, ...]:
    """What the rigger does of it.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> steps(sample_fitted())
    ()
    """
    out, long = [], runs(f)
    if f.fitting.throttle == "wireless":
        out.append(msg("Pair the wireless throttle; fix its holder within the helm's reach."))
    if f.fitting.throttle == "cable" or (_pod(f) and not f.fitting.throttle):
        need = f.fitting.throttle_m or long.throttle_m
        text = f"{need:.1f} m" if need else msg("its length measured aboard")
        out.append(
            msg(
                "Throttle at the helm: lead its cable (%(text)s) clear of feet and edges.",
                text=text,
            )
        )
    if long.phase_m is not None:
        where = msg(
            "%(controller_ahead)s m ahead of the stern",
            controller_ahead=f"{f.fitting.controller_ahead_m:.2f}",
        )
        out.append(
            msg(
                "Controller %(where)s, dry and cool; three phase cables of %(phase)s m each, "
                "side by side, as the maker marks them.",
                where=where,
                phase=f"{long.phase_m:.1f}",
            )
        )
    if f.fitting.locked:
        out.append(msg("Lock the motor straight; the rudder steers."))
    return tuple(out)


def parts(f: Fit) -> list[tuple[str, str]]:
    """What is ordered for it: (what, how many or how long).

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> parts(sample_fitted())
    []
    """
    out, long, amps = [], runs(f), f.netlist.motor_a
    if f.fitting.throttle:
        out.append((msg("remote throttle, %(throttle)s", throttle=f.fitting.throttle), "1"))
    if f.fitting.throttle == "cable" and (length := f.fitting.throttle_m or long.throttle_m):
        out.append((msg("throttle cable"), f"{length:.1f} m"))
    if long.phase_m is not None:
        out.append((msg("phase cable, one of three"), f"{long.phase_m:.1f} m"))
    if f.fitting.lead_m is not None:
        out.append(
            (
                msg("extension lead for %(amps)s A, battery to motor", amps=f"{amps:.0f}"),
                f"{f.fitting.lead_m:g} m",
            )
        )
    if adapted(f):
        out.append(
            (
                msg(
                    "adapter lead, plugs for %(amps)s A, with %(adapter_fuse)s",
                    amps=f"{amps:.0f}",
                    adapter_fuse=adapter_fuse(f),
                ),
                "1",
            )
        )
    return out


def adapted(f: Fit) -> bool:
    """Whether the customer's own battery is joined to a motor of another maker's plug.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> adapted(sample_fitted())
    False
    """
    return f.battery.own and not f.motor.own


def plugs(f: Fit) -> tuple[str, ...]:
    """The plugs in the motor's cable, from the battery on: those of an adapter lead and of an
    extension lead's two ends.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> plugs(sample_fitted())
    ()
    """
    ends = (
        (msg("lead, battery’s end"), msg("lead, motor’s end"))
        if f.fitting.lead_m is not None
        else ()
    )
    return (*(("adapter",) if adapted(f) else ()), *ends)


def adapter_fuse(f: Fit) -> str:
    """The fuse of an adapter lead at its battery's end.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> adapter_fuse(sample_fitted())
    'a fuse of 70 A at the battery'
    """
    return msg(
        "a fuse of %(motor)s A at the battery", motor=f"{fuse_rating_a(f.netlist.motor_a):g}"
    )
