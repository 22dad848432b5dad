"""Boats and days at the edge of sense, through every station: nothing breaks, and no figure on
screen is not a number.
"""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.enquiry.need import Leg
from jolvek.core.hydro.hull import Hull, Load
from jolvek.store import enquiries as store
from tests.web.steps import STATIONS, pin
from tests.web.test_every_boat import opened

HERE = (*STATIONS, *(f"fitting?tab={tab}" for tab in ("wiring", "sheet", "mounts")))


def sized(need, length, kilos_per_m3):
    """The boat at another length, beam in proportion, bare of everything measured."""
    h = need.hull
    beam = h.beam_m * length / h.length_m
    return replace(
        need,
        hull=Hull(
            h.family,
            length,
            beam,
            kilos_per_m3 * length * beam * 0.5,
            transom_height_m=h.transom_height_m,
        ),
    )


def tiny(need):
    return replace(sized(need, need.hull.fam.length_min_m, 15), load=Load(1, 60))


def overloaded(need):
    return replace(need, load=Load(need.load.people + 6, None, 400))


def empty(need):
    return replace(need, load=Load(0))


def huge(need):
    return replace(sized(need, need.hull.fam.length_max_m, 250), load=Load(12))


def strong_stream(need):
    return replace(need, day=replace(need.day, current_m_s=3.0))


def gale(need):
    return replace(need, day=replace(need.day, wind_m_s=18.0))


def crawl(need):
    return replace(need, day=replace(need.day, speed_m_s=0.3, distance_m=100.0))


def hurry(need):
    return replace(need, day=replace(need.day, speed_m_s=15.0))


def far(need):
    return replace(need, day=replace(need.day, distance_m=400_000.0))


def frost(need):
    return replace(need, day=replace(need.day, temperature_c=-15.0))


def only_waiting(need):
    return replace(
        need,
        day=replace(need.day.with_legs((Leg("anchored", 1.0, None, 3 * 3600.0),)), hotel_w=60.0),
    )


CASES = (tiny, overloaded, empty, huge, strong_stream, gale, crawl, hurry, far, frost, only_waiting)


EACH_ON_ONE = [(case, i % 6) for i, case in enumerate(CASES)]


@pytest.mark.parametrize(("case", "boat"), EACH_ON_ONE)
def test_every_station_answers(client, conn, case, boat):
    enquiry = demo.enquiries()[boat]
    number = store.add(conn, replace(enquiry, need=case(enquiry.need)), "2026-11-24T10:00:00")
    conn.commit()
    if f'action="/enquiry/{number}/pin"' in client.get(f"/enquiry/{number}/shortlist").text:
        pin(client, number)
    for station in HERE:
        opened(client, f"/enquiry/{number}/{station}")


@pytest.mark.parametrize(
    "asked",
    [
        "wind=55&fetch=100&from=9:00",  # 7 m of waves
        "wind=58&fetch=107&from=9:00&against=out&tow=6&depth=0.3",
        "depth=0.3",
        "tow=1.8&fetch=0.01&wind=0.1",
    ],
)
@pytest.mark.parametrize("number", [2, 5])
def test_the_worst_sea_that_may_be_asked_opens(fitted, number, asked):
    assert fitted.get(f"/enquiry/{number}/day-out?{asked}").status_code == 200
