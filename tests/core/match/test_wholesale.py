"""A wholesaler's catalogue is worked out in bounded memory, and what stands for the rest is as good
as the whole: checked against the match that folds nothing.
"""

import tracemalloc

import numpy as np
import pytest

from jolvek.cli.bench import wholesale_shelf
from jolvek.core.match import banks, drives
from jolvek.core.match.matching import match
from jolvek.core.match.picks import picks

CAPS = {
    "motors": ((drives, "MOST_MOTORS"), (drives, "MANY")),
    "batteries": ((banks, "MOST_BATTERIES"),),
}


def best(found):
    """The picks' own figures: what they were picked for."""
    f = found.field
    by = {"cheapest": f.price, "lightest": f.lift_kg, "furthest": -f.range_m}
    return {p.id: float(by[p.id][p.index]) for p in picks(found) if p.id in by}


@pytest.mark.parametrize("kinds", ["motors mounts", "batteries"])
def test_what_stands_for_the_rest_is_as_good_as_the_whole(enquiries, monkeypatch, kinds):
    shelf = wholesale_shelf(500, kinds)
    few = match(enquiries[1].need, shelf)
    for kind in kinds.split():
        for module, name in CAPS.get(kind, ()):
            monkeypatch.setattr(module, name, 10**9)
    whole = match(enquiries[1].need, shelf, most=10**7)
    assert few.field.price.size < whole.field.price.size
    mine, all_of_them = best(few), best(whole)
    assert mine.keys() == all_of_them.keys() == {"cheapest", "lightest", "furthest"}
    for key, figure in all_of_them.items():
        assert abs(mine[key] - figure) <= 0.03 * abs(figure), key


def test_five_thousand_products_take_less_than_half_a_gigabyte(enquiries):
    shelf = wholesale_shelf(1700)
    tracemalloc.start()
    found = match(enquiries[3].need, shelf, most=200_000)
    most = tracemalloc.get_traced_memory()[1]
    tracemalloc.stop()
    assert most < 500e6 and found.field.does_day.any()
    motors = np.unique(found.drives.motor[found.field.drive])
    result = set(found.motor_reasons) | set(motors.tolist())
    assert result == set(range(1700))  # each has setups or a reason
