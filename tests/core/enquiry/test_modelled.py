"""Boat models: taken into an enquiry, the right row for her year, and judged by it."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.modelled import as_model, differs
from jolvek.core.match.matching import against_the_boat, match
from jolvek.core.products.boat_model import BoatModel, of_year

KAYAK = demo.enquiries()[0].need
MODELS = [x.spec for x in demo.shelf().boats if x.name == "Angler 375"]


YEARS = {2012: None, 2014: None, 2018: None, 2019: 750, 2030: 750, None: 750}


@pytest.mark.parametrize(("year", "power_w"), YEARS.items())
def test_the_row_of_her_year_is_taken(year, power_w):
    assert of_year(MODELS, year).approval_power_w == power_w


def test_no_model_is_no_row():
    assert of_year([], 2020) is None


def test_sizes_plate_and_years_are_taken_and_load_and_day_stay():
    new = of_year(MODELS, 2020)
    need = as_model(KAYAK, new)
    assert (need.load, need.day, need.site.bays) == (KAYAK.load, KAYAK.day, KAYAK.site.bays)
    assert (need.site.fin_box, need.site.approval_from_year) == ("short", 2019)
    assert differs(KAYAK, new) and not differs(need, new)


def test_an_old_hull_of_the_model_has_no_fin_adapter_that_fits():
    older = as_model(replace(KAYAK, site=replace(KAYAK.site, places=())), of_year(MODELS, 2016))
    younger = as_model(KAYAK, of_year(MODELS, 2020))
    shelf = demo.shelf()
    kinds = {
        need.site.fin_box: {
            shelf.mounts[k].spec.kind for k in match(need, shelf).drives.mount.tolist()
        }
        for need in (older, younger)
    }
    assert "fin_box" in kinds["short"] and "fin_box" not in kinds["side"]


def test_plate_and_approval_of_another_row_do_not_stay():
    plated = replace(KAYAK, hull=replace(KAYAK.hull, max_power_w=900.0))
    assert plated.site.approval_power_w == 750
    older = as_model(plated, of_year(MODELS, 2016))
    assert older.site.approval_power_w is None and older.hull.max_power_w is None


def test_a_measured_size_that_the_model_cannot_have_is_let_go():
    long = replace(KAYAK.hull, length_m=5.2, waterline_length_m=5.0, bottom="weed")
    new = of_year(MODELS, 2020)
    assert differs(replace(KAYAK, hull=long), new)
    hull = as_model(replace(KAYAK, hull=long), new).hull
    assert (hull.length_m, hull.waterline_length_m, hull.bottom) == (3.75, None, "weed")


def test_another_kind_of_boat_keeps_nothing_of_the_old_hull():
    board = next(x.spec for x in demo.shelf().boats if x.spec.family == "board")
    need = as_model(replace(KAYAK, hull=replace(KAYAK.hull, bottom="weed")), board)
    assert (need.hull.family, need.hull.bottom) == ("board", "clean")
    assert need.site.chambers == "drop-stitch"


def test_a_hull_older_than_its_approval_is_stopped_before_ranking():
    need = as_model(KAYAK, of_year(MODELS[1:], 2020))
    old = replace(need, site=replace(need.site, model_year=2016))
    assert "approval-year" in {f.rule for f in against_the_boat(old)}


@pytest.mark.parametrize(
    "wrong",
    [
        {"family": "raft"},
        {"length_m": 90.0},
        {"from_year": 2020, "to_year": 2010},
        {"places": ("roof",)},
        {"fin_box": "tall"},
        {"mass_kg": -1.0},
    ],
)
def test_a_model_that_cannot_be_is_refused(wrong):
    with pytest.raises(ValueRefused):
        replace(BoatModel("kayak", 3.7, 0.8, 34), **wrong)
