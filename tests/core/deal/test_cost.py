"""The years' cost against a case worked by hand, and the ends of what may be asked."""

import json
from dataclasses import replace

import pytest
from click.testing import CliRunner

from jolvek.cli import main
from jolvek.core.base.errors import ValueRefused
from jolvek.core.deal.cost import (
    Case,
    Electric,
    OtherAssets,
    Petrol,
    bought_again,
    break_even,
    cost,
)

# A launch: 120 h a year at 900 W. Worked by hand; prices are invented for the example, fuel from
# 0.4 kg/kWh at the shaft (small four-strokes, 0.35 to 0.45 from memory) and 0.74 kg/l.
#   energy      120 × 0.9 / 0.9 = 120 kWh at 0.30  = 36.00 a year
#   cycles      108 kWh / (5.0 × 0.8 = 4 kWh) = 27 a year; 162 / 27 = 6 years
#   petrol      1.1 l/h × 120 h × 1.90            = 250.80, service 180.00, so 430.80 a year
#   battery of the starter motor, 90.00, every 4 years
ELECTRIC = Electric(
    5200,
    900,
    0.30,
    1400,
    5.0,
    162,
    calendar_life_years=12,
    charger_efficiency=0.9,
    usable=0.8,
    service_per_year=20,
)
PETROL = Petrol(2900, 1.1, 1.90, 180, (OtherAssets("starter battery", 90, 4),))
CASE = Case(10, 120, ELECTRIC, PETROL)
BY_HAND_ELECTRIC = [5200, 5256, 5312, 5368, 5424, 5480, 6936, 6992, 7048, 7104, 7160]
BY_HAND_PETROL = [
    2990,
    3420.8,
    3851.6,
    4282.4,
    4803.2,
    5234.0,
    5664.8,
    6095.6,
    6616.4,
    7047.2,
    7478,
]


def test_a_launch_worked_by_hand():
    c = cost(CASE)
    assert c.electric == pytest.approx(BY_HAND_ELECTRIC)
    assert c.petrol == pytest.approx(BY_HAND_PETROL)
    assert c.battery_replaced_in == (6,)
    # over by 56.80 at the end of year 9 and under by 318.00 at the end of year 10
    assert c.break_even_year == pytest.approx(9 + 56.8 / (56.8 + 318.0))
    assert c.electric_per_hour == pytest.approx(7160 / 1200)
    assert c.petrol_per_hour == pytest.approx(7478 / 1200)


def test_a_battery_ages_by_the_sooner_of_cycles_and_years():
    old = replace(ELECTRIC, calendar_life_years=3)
    assert cost(replace(CASE, electric=old)).battery_replaced_in == (3, 6, 9)
    assert cost(replace(CASE, hours_per_year=240)).battery_replaced_in == (3, 6, 9)
    assert cost(replace(CASE, hours_per_year=0)).battery_replaced_in == ()
    assert bought_again(5, 10) == (5,)  # nothing is bought at the end of the last year


def test_later_money_counts_less():
    c = cost(replace(CASE, discount_rate=0.05))
    assert c.electric[1] == pytest.approx(5200 + 56 / 1.05)
    assert c.electric[6] - c.electric[5] == pytest.approx((56 + 1400) / 1.05**6)


def test_hours_energy_and_petrol_may_be_nothing():
    idle = cost(replace(CASE, hours_per_year=0))
    assert idle.electric_per_hour is None and idle.electric[-1] == 5200 + 200
    free = cost(replace(CASE, electric=replace(ELECTRIC, price_per_kwh=0, service_per_year=0)))
    assert free.electric[5] == 5200
    none = cost(replace(CASE, petrol=Petrol(0, 0, 0)))
    assert none.petrol[-1] == 0 and none.break_even_year is None


def test_break_even_is_the_last_time_electric_gets_cheaper_and_stays_so():
    assert break_even((10, 10, 20, 20), (8, 12, 19, 23)) == pytest.approx(2.25)
    assert break_even((10, 10, 30), (8, 12, 20)) is None
    assert break_even((5, 6), (5, 7)) == 0.0


@pytest.mark.parametrize(
    ("change", "told"),
    [
        ({"purchase": -1}, "electric.purchase"),
        ({"usable": 0}, "electric.usable"),
        ({"cycle_life": 0}, "electric.cycle_life"),
        ({"charger_efficiency": 2}, "charger_efficiency"),
    ],
)
def test_what_cannot_be_is_refused_by_name(change, told):
    with pytest.raises(ValueRefused, match=told):
        replace(ELECTRIC, **change)


def test_the_command_answers_by_year_and_refuses_in_one_line(tmp_path):
    case = {
        "format": "jolvek-cost",
        "version": 1,
        "years": 10,
        "hours_per_year": 120,
        "electric": {k: getattr(ELECTRIC, k) for k in Electric.RANGES},
        "petrol": {
            "purchase": 2900,
            "litres_per_hour": 1.1,
            "price_per_litre": 1.9,
            "service_per_year": 180,
            "also": [{"name": "starter battery", "price": 90, "life_years": 4}],
        },
    }
    path = tmp_path / "case.json"
    path.write_text(json.dumps(case))
    result = json.loads(CliRunner().invoke(main, ["cost", str(path)]).output)
    assert [r["electric"] for r in result["rows"]] == BY_HAND_ELECTRIC
    assert result["break_even_year"] == 9.152 and result["battery_replaced_in"] == [6]
    assert result["per_hour"] == {"electric": 5.9667, "petrol": 6.2317}
    path.write_text(json.dumps(case | {"years": 0}))
    bad = CliRunner().invoke(main, ["cost", str(path)])
    assert bad.exit_code == 2 and "years" in bad.output and bad.output.count("\n") == 1
