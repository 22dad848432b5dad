"""What pages say is what the core says, tested without HTML."""

from dataclasses import replace
from types import SimpleNamespace

import numpy as np

from jolvek.core.base.units import show
from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import measures
from jolvek.core.products.shelf import sample
from jolvek.store import shelf as shelf_store
from jolvek.web.kit.display import Units
from jolvek.web.stations.offer.setups import expected
from jolvek.web.stations.side_by_side.table import best_of
from tests.web.pages import made

BOAT = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.36)
KNOTS = Units({"speed": "kn", "distance": "nm", "power": "W"})


def test_the_offer_gives_the_lower_end_first_and_both_are_the_band_of_the_core():
    w = made.worked(0)
    at = w.performance.at_power(0.6 * w.performance.power_limit_w)
    low, high = (float(x) for x in expected("Most", "full", at, w, KNOTS).figures[1].split(" – "))
    ends = w.fitted.doubt.speed_band_m_s(at.power_w)
    a, b = (float(x) * 3600 / 1852 for x in ends)  # a nautical mile is 1852 m: BIPM SI brochure
    assert abs(low - a) < 0.06 and abs(high - b) < 0.06 and a < at.speed_m_s * 3600 / 1852 < b


def test_silence_likes_the_quieter_motor():
    shelf = sample()
    motors = [replace(shelf.motors[0], id=str(db), noise_db=db) for db in (50.0, 75.0)]
    m = match(Need(BOAT, Load(2)), replace(shelf, motors=tuple(motors)))
    noise, quiet = m.field.noise_db, measures(m)["silence"]
    assert quiet[noise == 50.0].min() > quiet[noise == 75.0].max()


def test_the_price_of_a_setup_counts_every_pack():
    m = match(Need(BOAT, Load(2)), sample())
    s = m.supplies
    many = np.flatnonzero(s.series * s.parallel > 1)
    assert many.size
    for k in many:
        packs = int(s.series[k] * s.parallel[k])
        one = m.shelf.batteries[int(s.battery[k])].price
        assert s.price[k] >= packs * one - 1e-6


def test_undo_leaves_a_product_that_was_changed_since(conn, shelf):
    motor = shelf.motors[0]
    dearer = [("motors", replace(motor, price=motor.price + more)) for more in (1, 2)]
    first = shelf_store.change(conn, dearer[:1], "edit", "2026")
    shelf_store.change(conn, dearer[1:], "edit", "2026")
    assert shelf_store.undo(conn, first) == 0
    assert shelf_store.get(conn, "motors", motor.id).price == motor.price + 2


def worked(letter, price, mass, noise):
    """As much of a setup worked out as the table's best needs."""
    return SimpleNamespace(
        letter=letter,
        performance=SimpleNamespace(top_speed_m_s=3.0 + mass / 100, static_thrust_n=300 + mass),
        lift_kg=mass,
        parts_kg=2 * mass,
        job=SimpleNamespace(ranking_price=price),
        charge_h=mass / 5,
        fitted=SimpleNamespace(motor=SimpleNamespace(noise_db=noise)),
    )


def test_best_of_a_row_is_the_cheapest_lightest_quietest_quickest_charged_and_the_fastest():
    two = [worked("A", 900.0, 40.0, 50.0), worked("B", 1900.0, 20.0, 60.0)]
    best = best_of(two, {}, {})
    assert {k: best[k] for k in ("price", "noise")} == {"price": "A", "noise": "A"}
    assert {k: best[k] for k in ("mass", "lift", "charge")} == dict.fromkeys(
        ("mass", "lift", "charge"), "B"
    )
    assert best["top"] == best["thrust"] == "A" and best_of(two[:1], {}, {}) == {}
    alike = best_of([two[0], worked("B", 903.0, 40.0, 50.0)], {}, {})
    assert [alike[k] for k in ("price", "mass", "noise")] == ["A", "", ""]  # none is lighter


def test_figures_have_the_digits_of_their_quantity():
    assert [show(3.5306, "length", "m"), show(1.2346, "speed", "m/s")] == ["3.53", "1.23"]
