"""Boats, motors and banks that the cases are made of."""

from dataclasses import replace

import pytest

from jolvek.cli.bench import launch, made_shelf
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.fit.fitted import Fitted
from jolvek.core.hydro.floating import awash_kg
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.water import Water
from jolvek.core.match.matching import match
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.limits import check_performance, electrical
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item, Shelf

HULL = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.36)
LFP = Battery(
    "lfp", 25.6, 100, 11.6, 100, 200, length_m=0.33, width_m=0.17, height_m=0.22, monitor=True
)
NEED = Need(
    HULL,
    Load(2, 150, 10),
    Site(("transom",), (Bay("locker", 0.8, 0.4, 0.3, 60, 1.2),), rake_deg=0.0),
    Water("fresh"),
    Day(1.6, 4000, 0.2, charge_h=24),
)


def ids(findings):
    return {f.rule for f in findings}


QUAY = Charger(24, 20, ("lfp", "agm"))


def fit(*args, **more):
    f = fitted(*args, **more)
    return ids([*f.findings, *f.precautions])


def fitted(
    need=NEED,
    battery=LFP,
    motor=None,
    mount=None,
    charger=QUAY,
    style="outboard",
    noise=None,
    battery_id="b",
    **more,
):
    motor, mount = (
        motor or Motor(1200, voltage_v=24, mass_kg=14),
        mount or Mount("transom_clamp", 60, 2000),
    )
    c = Item("c", "M", "c", 100, charger) if charger else None
    return Fitted(
        need,
        Item("m", "M", "m", 900, motor, style, noise_db=noise),
        Item(battery_id, "M", "b", 800, battery),
        Item("k", "M", "k", 50, mount),
        c,
        **{"shaft_m": 0.381, **more},
    )


def at(site=None, day=None, hull=None, load=None, water=None):
    return replace(
        NEED,
        site=replace(NEED.site, **site or {}),
        day=replace(NEED.day, **day or {}),
        hull=replace(NEED.hull, **hull or {}),
        load=replace(NEED.load, **load or {}),
        water=water or NEED.water,
    )


def matched(need=NEED, motors=((1200, 24, 900),), batteries=((25.6, 100, 800),), mounts=True):
    shelf = Shelf(
        tuple(
            Item(
                f"m{i}",
                "M",
                f"m{i}",
                price,
                Motor(w, voltage_v=v, mass_kg=14),
                "outboard",
                shafts_m=(0.381,),
                noise_db=60,
            )
            for i, (w, v, price) in enumerate(motors)
        ),
        tuple(
            Item(f"b{i}", "M", f"b{i}", price, Battery("lfp", v, ah, 12, 100))
            for i, (v, ah, price) in enumerate(batteries)
        ),
        (Item("k", "M", "k", 50, Mount("transom_clamp", 60, 2000)),) if mounts else (),
        (Item("c", "M", "c", 100, Charger(24, 20, ("lfp",))),),
    )
    m = match(need, shelf)
    return ids([*m.motor_reasons.values(), *m.battery_reasons.values()])


def thinned(most):
    shelf = made_shelf(6, 12)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("jolvek.core.match.matching.MOST", most)
        m = match(launch(), shelf)
    return ids([*m.motor_reasons.values(), *m.battery_reasons.values()])


def folded(most):
    """What a catalogue of forty batteries says where so many may stand for the rest."""
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("jolvek.core.match.banks.MOST_BATTERIES", most)
        m = match(launch(), made_shelf(6, 40))
    return ids([*m.motor_reasons.values(), *m.battery_reasons.values()])


def elec(motor, battery, s=1, p=1, gauge="monitor"):
    return ids(electrical(motor, Bank(battery, s, p), gauge))


def run(motor=None, hull=HULL, load=None, bank=None, **more):
    return ids(
        check_performance(
            evaluate(
                Setup(
                    hull,
                    load or Load(2, 150),
                    motor or Motor(1200, mass_kg=14),
                    bank,
                    Water("fresh"),
                    **more,
                )
            )
        )
    )


TOP = evaluate(
    Setup(HULL, Load(2, 150), Motor(1200, mass_kg=14), None, Water("fresh"))
).top_speed_m_s
KAYAK = Need(
    Hull("kayak", 3.75, 0.84, 36),
    Load(1, 85),
    Site(("rail",)),
    Water("fresh"),
    Day(1.2, 4000, charge_h=24),
)
POLE = Motor(500, voltage_v=24, mass_kg=8)
SIDE = Mount("side_bar", 15, 400, offset_m=0.42)
AWASH = awash_kg(HULL, Water("fresh").density_kg_m3)
DEAD = AWASH - HULL.mass_kg - 150 - 14
SAIL = Need(
    Hull("sailing_dinghy", 4.8, 1.8, 180, transom_height_m=0.42),
    Load(2, 150),
    Site(("transom",)),
    Water("fresh"),
    Day(1.5, 4000, charge_h=24),
)
BESIDE = Mount("offset_bracket", 40, 900, offset_m=0.32, drop_m=0.1)
NO_BAY = {"bays": ()}
