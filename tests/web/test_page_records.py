"""What pages say is what the core says, tested without HTML."""

from dataclasses import replace

import numpy as np

from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import measures
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.shelf import sample
from jolvek.store import shelf as shelf_store
from jolvek.web.pages.offer_page import expected
from jolvek.web.view.display import Units

BOAT = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.36)
KNOTS = Units({"speed": "kn", "distance": "nm", "power": "W"})


def test_the_offer_gives_the_lower_end_first_and_both_are_the_band_of_the_core():
    p = evaluate(Setup(BOAT, Load(2), Motor(1000, mass_kg=15)))
    at = p.at_power(p.power_limit_w)
    low, high = (float(x) for x in expected("Full", at, p, KNOTS).figures[1].split(" – "))
    knots = at.speed_m_s * 3600 / 1852  # a nautical mile is 1852 m: BIPM SI brochure
    assert abs(low - knots * (1 - p.band)) < 0.06 and abs(high - knots * (1 + p.band)) < 0.06


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
