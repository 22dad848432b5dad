"""Cases of core/rules/fitting_rules.py."""

from dataclasses import replace

from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.as_set import AsSet
from jolvek.core.hydro.water import Water
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from tests.core.rules.cases.made import BESIDE, KAYAK, LFP, POLE, SAIL, SIDE, at, fit, matched

FIN = Motor(300, voltage_v=24, mass_kg=4)


def finned(box="short", foot=(None, None)):
    mount = Mount("fin_box", 20, 400, foot_length_m=foot[0], foot_width_m=foot[1])
    kayak = replace(KAYAK, site=replace(KAYAK.site, places=("fin_box",), fin_box=box))
    return fit(kayak, motor=FIN, mount=mount, style="fin", shaft_m=None)


def air(places):
    """A pole motor on a side bar of an inflatable kayak."""
    site = replace(KAYAK.site, places=places, construction="inflatable")
    return fit(replace(KAYAK, site=site), motor=FIN, mount=SIDE, style="pole", shaft_m=None)


def worked(site=None, **fitting):
    need = at({"helm_ahead_m": 1.2, "rudder_chord_m": 0.2} | (site or {}))
    return fit(need, fitting=AsSet(**fitting))


CASES = {
    "fin-box": (
        lambda case: finned(*case),
        (
            ("short", (0.2, 0.010)),
            ("short", (0.15, 0.0110)),
            ("", (0.9, 0.05)),
            ("long", (None, None)),
        ),
        (("short", (0.201, 0.010)), ("short", (0.2, 0.0112)), ("side", (0.114, 0.010))),
    ),
    "registration": (lambda yes: fit(at({"registration": yes})), (False,), (True,)),
    "throttle-cable": (
        lambda m: worked(throttle="cable", throttle_m=m),
        (None, 3.1, 4.0),
        (3.0, 1.0),
    ),
    "tiller-reach": (
        lambda ahead: worked(places=(("person 1", ahead),)),
        (0.4, 1.0),
        (1.2, 2.4),
    ),
    "helm-unknown": (
        lambda m: worked({"helm_ahead_m": m}, throttle="cable"),
        (0.0, 1.2),
        (None,),
    ),
    "rudder-only": (
        lambda m: worked({"rudder_chord_m": m}, locked=True),
        (0.15, 0.2),
        (None, 0.0),
    ),
    "salt-anode": (lambda kind: fit(at(water=Water(kind))), ("fresh",), ("salt",)),
    "transom-estimated": (
        lambda shaft: fit(at(hull={"transom_height_m": None}), shaft_m=shaft),
        (0.508,),
        (0.32,),
    ),
    "shaft-unknown": (lambda shaft: fit(shaft_m=shaft), (0.381, 0.508), (None,)),
    "weight-unknown": (
        lambda kg: fit(motor=Motor(1200, voltage_v=24, mass_kg=kg)),
        (12.0, 20.0),
        (None,),
    ),
    "shaft-short": (
        lambda m: fit(at(hull={"transom_height_m": m})),
        (0.36, 0.381, 0.405),
        (0.407, 0.45),
    ),
    "shaft-shallow": (
        lambda m: fit(
            at({"bays": (Bay("b", 0.8, 0.4, 0.3, 200, m),)}, hull={"transom_height_m": 0.38}),
            replace(LFP, mass_kg=120.0),
            motor=Motor(1200, voltage_v=24, mass_kg=14, propeller_diameter_m=0.4),
        ),
        (1.2,),
        (2.9,),
    ),
    "shaft-long": (
        lambda m: fit(at(hull={"transom_height_m": m}), shaft_m=0.508),
        (0.36, 0.3581),
        (0.357,),
    ),
    "bay-size": (lambda m: fit(at({"bays": (Bay("b", m, 0.4, 0.3),)})), (0.34, 0.33), (0.16,)),
    "bay-lid": (
        lambda m: fit(at({"bays": (Bay("b", 0.8, 0.4, 0.3, lid_length_m=0.3, lid_width_m=m),)})),
        (0.23, 0.22),
        (0.16,),
    ),
    "bay-mass": (
        lambda kg: fit(at({"bays": (Bay("b", 0.8, 0.4, 0.3, kg),)})),
        (11.7, 11.6),
        (11.5,),
    ),
    "bay-ventilation": (
        lambda yes: fit(
            at({"bays": (Bay("b", 0.8, 0.4, 0.3, ventilated=yes),)}), replace(LFP, chemistry="agm")
        ),
        (True,),
        (False,),
    ),
    "rudder-unknown": (
        lambda m: fit(
            replace(SAIL, site=replace(SAIL.site, rudder_chord_m=m)), mount=BESIDE, shaft_m=0.508
        ),
        (0.0, 0.15),
        (None,),
    ),
    "trim-beyond": (
        lambda kg: fit(
            at({"bays": (Bay("b", 0.8, 0.4, 0.3, 500, 0.05),)}, load={"people": 1}),
            replace(LFP, mass_kg=kg),
        ),
        (11.6, 80),
        (250, 400),
    ),
    "heel-beyond": (
        lambda m: fit(
            at({"bays": (Bay("b", 0.8, 0.4, 0.3, 500, 1.2, off_m=m),)}, load={"people": 1}),
            replace(LFP, mass_kg=150),
        ),
        (0.0, 0.1),
        (0.7,),
    ),
    "rudder-strikes": (
        lambda m: fit(
            replace(SAIL, site=replace(SAIL.site, rudder_chord_m=m)), mount=BESIDE, shaft_m=0.508
        ),
        (None, 0.15),
        (0.45,),
    ),
    "tilt-short": (lambda m: fit(at({"room_ahead_m": m})), (None, 0.3), (0.2,)),
    "lift-mass": (lambda kg: fit(at(day={"max_lift_kg": kg})), (15, 14), (13.9,)),
    "mount-motor-mass": (lambda kg: fit(mount=Mount("transom_clamp", kg, 2000)), (15, 14), (13.9,)),
    "mount-thrust": (
        lambda n: fit(mount=Mount("transom_clamp", 60, n)),
        (500, 360),
        (330, 300),
    ),
    "mount-place": (
        lambda places: fit(at({"places": (places,)})) if isinstance(places, str) else air(places),
        ("transom", ("pad",), ("rail", "pad")),
        ("rail", ("rail",), ("track",), ("rail", "track")),
    ),
    "mount-style": (lambda style: fit(style=style), ("outboard", "pole"), ("fin",)),
    "mount-transom": (
        lambda m: fit(
            at({"transom_thickness_m": m}),
            mount=Mount("transom_clamp", 60, 2000, transom_min_m=0.02, transom_max_m=0.05),
        ),
        (0.02, 0.05, None),
        (0.019, 0.051),
    ),
    "no-mount": (lambda there: matched(mounts=there), (True,), (False,)),
    "side-mount-yaw": (
        lambda v: fit(
            replace(KAYAK, day=replace(KAYAK.day, speed_m_s=v, wind_m_s=14.0 if v < 0.8 else 0.0)),
            mount=SIDE,
            style="pole",
            shaft_m=None,
            motor=POLE,
        ),
        (1.4,),
        (0.5,),
    ),
    "side-mount-heel": (
        lambda kg: fit(
            KAYAK,
            motor=Motor(300, voltage_v=24, mass_kg=kg),
            mount=SIDE,
            style="pole",
            shaft_m=None,
        ),
        (4,),
        (14,),
    ),
    "trim-angle": (
        lambda m: fit(
            at({"bays": (Bay("b", 0.8, 0.4, 0.3, 60, m),)}, load={"people": 1, "people_kg": 75.0}),
            battery=replace(LFP, mass_kg=40.0),
        ),
        (1.6,),
        (0.1,),
    ),
    "noise": (lambda db: fit(at(day={"max_noise_db": 55.0}), noise=db), (None, 54, 55), (56,)),
    "hands-free": (
        lambda yes: fit(
            at(day={"hands_free": True}), mount=Mount("transom_clamp", 60, 2000, hands_free=yes)
        ),
        (True,),
        (False,),
    ),
}
