"""Care over five years with a clock that is handed in, and batteries whose ageing is hidden."""

from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pytest

from jolvek.core.care.due import Logged, Season, add_months, due
from jolvek.core.care.health import END, Used, health, worn
from jolvek.core.care.steps import Care, care_for, profile_of
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.chemistry import temperature_factor
from jolvek.core.fit.fitted import sample_fitted

SEASON = Season(4, 10)
BEGAN = date(2026, 5, 20)


def lived(care, log, end, forget=()):
    """Five years, day by day: what is overdue is done that day; gives each step's days done."""
    done: dict[str, list[date]] = {}
    day = BEGAN
    while day < end:
        for d in due(care, BEGAN, [x for x in log if x.on <= day], done, SEASON, day):
            if d.state == "overdue" and d.care.key not in forget:
                done.setdefault(d.care.key, []).append(day)
        day += timedelta(days=1)
    return done


def test_nothing_is_missed_or_doubled_over_five_years():
    care = [
        Care("shaft", "hours", "x", 50),
        Care("start", "date", "x", at="start"),
        Care("lay-up", "date", "x", at="end"),
        Care("cord", "months", "x", 12),
        Care("anode", "months", "x", 6),
    ]
    log, day = [], BEGAN
    while day < date(2031, 5, 20):
        if 4 <= day.month <= 10 and day.weekday() >= 5:
            log.append(Logged(day, 2.0))
        day += timedelta(days=1)
    done = lived(care, log, date(2031, 5, 20))
    hours = sum(x.hours for x in log)
    assert len(done["shaft"]) == int(hours // 50)
    assert done["start"] == [date(y, 4, 1) for y in range(2027, 2032)]
    assert done["lay-up"] == [date(y, 10, 31) for y in range(2026, 2031)]
    assert done["cord"] == [date(y, 5, 20) for y in range(2027, 2031)]
    assert len(done["anode"]) == 9
    for days in done.values():
        assert len(set(days)) == len(days)


def test_hours_typed_late_count_where_they_belong():
    care = [Care("shaft", "hours", "x", 50)]
    log = [Logged(date(2026, 6, 1) + timedelta(days=i), 5.0) for i in range(12)]
    today = date(2026, 8, 1)
    (full,) = due(care, BEGAN, log, {}, SEASON, today)
    assert full.state == "overdue" and full.on == date(2026, 6, 10)
    done = {"shaft": [date(2026, 6, 11)]}
    (after,) = due(care, BEGAN, log, done, SEASON, today)
    assert after.why == "5 of 50 h"  # of the 12th alone
    (late,) = due(care, BEGAN, [*log, Logged(date(2026, 5, 25), 30.0)], done, SEASON, today)
    assert late.why == after.why  # ridden before it was done, typed after


def test_a_boat_laid_up_and_a_boat_unused_are_not_pressed():
    care = [Care("shaft", "hours", "x", 50)]
    (idle,) = due(care, BEGAN, [], {}, SEASON, date(2030, 1, 1))
    assert idle.on is None and idle.state == "later"


@pytest.mark.parametrize("done_on", ["2027-03-10", "2027-04-01", "2027-05-20"])
def test_the_season_is_served_once_a_little_early_or_late(done_on):
    care = [Care("start", "date", "x", at="start")]
    done = {"start": [date.fromisoformat(done_on)]}
    (d,) = due(care, BEGAN, [], done, SEASON, date(2027, 6, 1))
    assert d.on == date(2028, 4, 1) and d.state == "later"


def test_what_is_asked_in_store_is_asked_in_store():
    care = [Care("charge-check", "months", "x", 3, at="laid up")]
    (summer,) = due(care, BEGAN, [], {}, SEASON, date(2026, 8, 1))
    assert summer.on == date(2027, 1, 31)
    done = {"charge-check": [date(2026, 11, 20)]}
    (winter,) = due(care, BEGAN, [], done, SEASON, date(2026, 12, 1))
    assert winter.on == date(2027, 2, 20)
    done = {"charge-check": [date(2027, 3, 20)]}
    (spring,) = due(care, BEGAN, [], done, SEASON, date(2027, 4, 1))
    assert spring.on == date(2028, 1, 31)


def test_a_season_over_the_new_year_and_the_day_that_is_not_every_year():
    south = Season(11, 2)
    assert (south.starts(2026), south.ends(2026)) == (date(2026, 11, 1), date(2027, 2, 28))
    assert south.ends(2027) == date(2028, 2, 29)
    assert add_months(date(2028, 2, 29), 12) == date(2029, 2, 28)
    care = [Care("cord", "months", "x", 12)]
    (d,) = due(care, date(2028, 2, 29), [], {}, south, date(2028, 3, 1))
    assert d.on == date(2029, 2, 28)


def test_care_is_of_this_boat():
    f = sample_fitted()
    keys = {c.key for c in care_for(profile_of(f))}
    assert {"line", "shaft", "lay-up", "charge-check"} <= keys
    salt = {c.key for c in care_for(profile_of(f))}
    fresh = replace(f, need=replace(f.need, water=replace(f.need.water, kind="fresh")))
    assert "anode" in salt and "anode" not in {c.key for c in care_for(profile_of(fresh))}
    assert all(
        c.hazard
        for c in care_for(profile_of(f))
        if c.key in ("line", "shaft", "terminals", "lay-up")
    )
    assert all(c.source for c in care_for(profile_of(f)))


BANK = Bank(Battery("lfp", 25.6, 100))


def aged(chance, bank, trips=10, years=3.0):
    """Hidden capacity, the uses that show it with noise, part charges and cold days, the cycles,
    and the share of the rated that it loses a year.
    """
    cycles = 60.0 * years
    fresh, fade = 1 + 0.05 * chance.standard_normal(), np.exp(0.5 * chance.standard_normal())
    by_cycles, by_years = worn(bank, cycles, 0.5, years)
    wear = by_cycles + by_years
    uses = []
    for i in range(trips):
        t = years * (i + 1) / trips
        capacity = fresh * (1 - fade * (1 - END) * wear * t / years)
        a, b = chance.uniform(0.6, 1.0), chance.uniform(0.15, 0.5)
        warm = float(chance.uniform(5, 25))
        wh = (a - b) * capacity * bank.energy_wh * temperature_factor(bank.battery.chem, warm)
        shown = np.clip([a, b] + 0.025 * chance.standard_normal(2), 0, 1)
        wh *= 1 + 0.01 * chance.standard_normal()
        if chance.random() < 0.1:
            wh *= 0.6  # the display was reset on the way
        uses.append(Used(t, float(wh), float(shown[0]), float(shown[1]), warm))
    rate = fresh * fade * (1 - END) * wear / years
    return fresh * (1 - fade * (1 - END) * wear), uses, cycles, rate


@pytest.mark.parametrize("chemistry", ["lfp", "nmc", "agm"])
def test_capacity_is_found_after_ten_trips_and_the_band_covers(chemistry):
    chance = np.random.default_rng(7)
    bank = Bank(Battery(chemistry, 25.6, 100))
    off, held = [], []
    for _ in range(80):
        true, uses, cycles, _ = aged(chance, bank)
        h = health(bank, uses, 3.0, cycles)
        off.append(abs(h.capacity / true - 1))
        held.append(h.low <= true <= h.high)
    assert np.median(off) < 0.03
    assert np.mean(np.array(off) < 0.04) > (0.6 if chemistry == "agm" else 0.7)
    assert 0.7 <= np.mean(held) <= 0.9


def test_more_trips_say_more_and_shallow_ones_nothing():
    chance = np.random.default_rng(1)
    true, uses, cycles, _ = aged(chance, BANK, 30)
    few, many = (health(BANK, uses[:n], 3.0, cycles) for n in (3, 30))
    assert many.high - many.low < few.high - few.low
    shallow = [Used(1.0, 100.0, 0.5, 0.45)] * 20
    assert health(BANK, shallow, 3.0, cycles).count == 0
    assert true > 0.7


@pytest.mark.parametrize(("years", "trips"), [(1.0, 40), (6.0, 60)])
def test_the_end_lies_between_sooner_and_later_as_often_as_promised(years, trips):
    """8 in 10 batteries, young or old, of other fades than usual (the band holds 85 to 90 %)."""
    chance = np.random.default_rng(3)
    held = []
    for _ in range(150):
        capacity, uses, cycles, rate = aged(chance, BANK, trips, years)
        h = health(BANK, uses, years, cycles)
        end = np.clip((capacity - END) / rate, 0, 40)
        held.append(h.sooner - 0.1 <= end <= h.later + 0.1)
        for column, left in enumerate((h.sooner, h.years_left, h.later)):
            if 0 < left < 40:  # where the picture's band meets the end, the words name the year
                assert h.in_years(left)[column] == pytest.approx(END, abs=0.01)
    assert 0.75 <= np.mean(held) <= 0.95


def test_the_end_comes_sooner_with_more_use_and_is_told_with_its_doubt():
    uses = [Used(0.3 * i, 0.92 * 0.5 * BANK.energy_wh, 0.9, 0.4) for i in range(1, 11)]
    calm, hard = (health(BANK, uses, 3.0, n) for n in (100, 1500))
    assert hard.years_left < calm.years_left
    assert calm.sooner <= calm.years_left <= calm.later
    assert calm.capacity_in(0) == pytest.approx(calm.capacity)
    assert calm.capacity_in(calm.years_left) == pytest.approx(END, abs=0.01)
