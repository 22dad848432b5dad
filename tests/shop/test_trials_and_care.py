"""Trials taken over, trips and charges logged once, care of the shop's own."""

from dataclasses import replace
from datetime import date

import pytest

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.care.steps import Care
from jolvek.core.trial.runs import Run
from jolvek.shop import By
from jolvek.store import bookings, care, care_edits, enquiries, trials
from jolvek.store.bookings import Booking
from jolvek.store.care import Charge, Trip

RUN = Run(500.0, 2.0, "out")


@pytest.fixture
def trial(fitted, by):
    return shop.trials.begin(fitted, by, 2, "A", "inflatable_air")


def test_a_trial_is_begun_once_and_anew_only_when_asked(fitted, by, trial):
    assert (trial.letter, trial.who, trial.began_at) == ("A", "Tove", by.at)
    again = shop.trials.current(fitted, by, 2, "B", "inflatable_air")
    assert again.id == trial.id and again.letter == "A"
    assert shop.trials.begin(fitted, by, 2, "B", "inflatable_air").id != trial.id
    assert shop.trials.current(fitted, by, 3, "A", "rib").letter == "A"


def test_runs_sent_twice_are_one_and_how_she_was_is_made_of_what_stands(fitted, trial):
    for _ in range(2):
        shop.trials.add_runs(fitted, trial.id, (RUN,), "typed", "op-1")
    shop.trials.add_runs(fitted, trial.id, (RUN, replace(RUN, heading="back")), "file")
    kept = trials.runs(fitted, trial.id)
    assert [k.source for k in kept] == ["typed", "file", "file"]
    shop.trials.drop_run(fitted, trial.id, kept[0].id)
    assert len(trials.runs(fitted, trial.id)) == 2
    shop.trials.set_up(fitted, 2, lambda stands: {**stands, "wind_m_s": 3.0})
    shop.trials.set_up(fitted, 2, lambda stands: {**stands, "depth_m": 5.0})
    assert trials.latest(fitted, 2).data == {"wind_m_s": 3.0, "depth_m": 5.0}


def test_a_boat_goes_by_its_trial_with_the_family_or_not_at_all(fitted, by, trial):
    found = {"friction_factor": 1.2}
    shop.trials.go_by(fitted, by, trial, lambda h: replace(h, **found), found)
    assert enquiries.get(fitted, 2).need.hull.friction_factor == 1.2
    assert trials.latest(fitted, 2).factors == found

    def broken(hull):
        raise JolvekError("no")

    with pytest.raises(JolvekError):
        shop.trials.go_by(fitted, by, trial, broken, None)
    assert trials.latest(fitted, 2).factors == found
    shop.trials.use_family(fitted, "rib", True)
    shop.trials.use_family(fitted, "no family", True)
    assert trials.used_families(fitted) == {"rib"}


@pytest.mark.parametrize(
    ("kind", "state", "taken_back"),
    [("slow", "closed", True), ("slow", "accepted", False), ("vibrates", "closed", False)],
)
def test_a_cure_takes_back_the_trial_that_was_run_with_the_fault(
    fitted, by, trial, kind, state, taken_back
):
    found = {"friction_factor": 1.4}
    tried = dict(found, tried_on="2026-11-26")
    shop.trials.go_by(fitted, by, trial, lambda h: replace(h, **tried), found)
    shop.handovers.add_fault(fitted, by, 2, kind, "seen")
    number = fitted.execute("SELECT max(id) FROM fault").fetchone()[0]
    assert shop.handovers.settle_fault(fitted, by, 2, number, state, "cleaned") is taken_back
    hull = enquiries.get(fitted, 2).need.hull
    assert (hull.friction_factor, hull.tried_on) == (
        (1.0, "") if taken_back else (1.4, "2026-11-26")
    )
    assert (trials.latest(fitted, 2).factors is None) is taken_back


def test_trips_and_charges_of_a_log_count_once(fitted, by):
    trips = [
        Trip(0, f"2026-10-0{i}", 2.0, 900.0, 0.9, 0.5, note="", who="", op=f"op-{i}")
        for i in (1, 2)
    ]
    plugged = Charge(0, "2026-10-03", 1000.0, 0.5, 0.9, "", who="")
    known = lambda there: [t.op for t in there]  # noqa: E731
    assert shop.care.log_trips(fitted, by, 2, trips, [plugged], known) == 2
    assert shop.care.log_trips(fitted, by, 2, trips, [plugged], known) == 0
    assert len(care.trips(fitted, 2)) == 2 and len(care.charges(fitted, 2)) == 1
    shop.care.drop_trip(fitted, 2, care.trips(fitted, 2)[0].id)
    shop.care.add_charge(fitted, by, 2, plugged)
    assert len(care.trips(fitted, 2)) == 1 and len(care.charges(fitted, 2)) == 2
    shop.care.done(fitted, by, 2, "anode", date(2026, 10, 4), "new one")
    assert care.acts(fitted, 2) == {"anode": [date(2026, 10, 4)]}


def test_a_step_of_the_shops_own_stands_until_the_usual_one_is_taken_back(fitted, by):
    mine = Care("anode", "months", "Look at the anode", 3.0, "", "", source="the shop")
    assert shop.care.keep_step(fitted, by, "", lambda edits: (mine.key, mine)) == "anode"
    assert [e.care for e in care_edits.all_edits(fitted)] == [mine]
    assert shop.care.keep_step(fitted, by, "", lambda edits: ("", None)) == ""
    shop.care.usual_step(fitted, "", "anode")
    assert care_edits.all_edits(fitted) == []


def test_a_boat_is_booked_once_at_a_time(fitted, by):
    shop.care.book(fitted, by, Booking(0, 2, "2026-12-05", 9.0, 3.0))
    with pytest.raises(JolvekError):
        shop.care.book(fitted, By("Ivar", by.at), Booking(0, 2, "2026-12-05", 11.0, 3.0))
    (kept,) = bookings.on(fitted, "2026-12-05")
    shop.care.drop_booking(fitted, kept.id)
    assert bookings.on(fitted, "2026-12-05") == []
