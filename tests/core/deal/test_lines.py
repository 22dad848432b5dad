"""The sums of an offer against an independent calculation in fractions, and five hundred offers
whose printed lines add up to the printed total.
"""

import random
from decimal import Decimal
from fractions import Fraction

import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.money import major, minor, split
from jolvek.core.deal.lines import Line, Terms, sums

D = Decimal
THREE = (
    Line("part", "Motor", D(1), 129_999, tax=D("25"), buying_minor=90_000),
    Line("wiring", "Cable", D("3.5"), 1_115, "m", D("12.5"), tax=D("25"), buying_minor=400),
    Line("labour", "Hours", D("2.75"), 8_000, "h", tax=D("12"), buying_minor=0),
    Line("free", "Transport", D(1), 4_950, tax=D("0"), buying_minor=4_000),
    Line("addon", "Cover", D(2), 5_555, tax=D("25"), optional=True, ticked=False),
)


def half_up(x: Fraction) -> int:
    """Rounded half away from zero, in whole numbers only."""
    sign, x = (-1, -x) if x < 0 else (1, x)
    return sign * int((2 * x + 1) // 2)


def by_fractions(lines, terms):
    """The same sums without Decimal and without our code: (total, net, tax by rate)."""
    of_rate = {}
    for x in lines:
        if x.optional and not x.ticked:
            continue
        share = (100 - Fraction(x.discount)) / 100
        amount = half_up(Fraction(x.quantity) * x.price_minor * share)
        of_rate[x.tax] = of_rate.get(x.tax, 0) + amount
    total = net = 0
    taxes = {}
    for rate, amount in of_rate.items():
        left = half_up(amount * (100 - Fraction(terms.discount)) / 100)
        r = Fraction(rate)
        tax = half_up(left * r / (100 + r)) if terms.tax_included else half_up(left * r / 100)
        taxes[rate] = tax
        total += left if terms.tax_included else left + tax
        net += left - tax if terms.tax_included else left
    return total, net, taxes


@pytest.mark.parametrize("included", [True, False])
@pytest.mark.parametrize("off", ["0", "7.5", "100"])
def test_three_rates_with_discounts_are_as_by_fractions(included, off):
    terms = Terms(included, D(off))
    found, (total, net, taxes) = sums(THREE, terms), by_fractions(THREE, terms)
    assert (found.total, found.net) == (total, net)
    assert {r.rate: r.tax for r in found.rates} == taxes


def test_a_discount_before_and_after_tax_comes_to_the_same_rate():
    added = sums(THREE[:1], Terms(False, D(10)))
    assert (added.net, added.tax, added.total) == (116_999, 29_250, 146_249)
    inside = sums(THREE[:1], Terms(True, D(10)))
    assert (inside.total, inside.tax, inside.net) == (116_999, 23_400, 93_599)
    assert inside.off == 13_000


def test_the_margin_is_over_the_buying_prices_and_unknown_where_one_is():
    s = sums(THREE, Terms(False))
    assert s.margin == s.net - (90_000 + 1_400 + 4_000)
    assert sums(THREE, Terms()).margin is not None  # an add-on that is not ticked buys nothing
    assert sums((*THREE, Line("free", "?", D(1), 1)), Terms()).margin is None


def test_five_hundred_offers_print_lines_that_add_up():
    chance = random.Random(3)
    for _ in range(500):
        lines = [
            Line(
                "free",
                "x",
                D(chance.randrange(1, 4000)) / 100,
                chance.randrange(0, 400_000),
                discount=D(chance.randrange(0, 500)) / 10,
                tax=D(chance.choice(("0", "6", "12", "19", "25"))),
                optional=chance.random() < 0.3,
                ticked=chance.random() < 0.5,
            )
            for _ in range(chance.randrange(1, 14))
        ]
        terms = Terms(
            chance.random() < 0.5, D(chance.randrange(0, 300)) / 10, D(30), chance.randrange(1, 7)
        )
        s = sums(lines, terms)
        printed = [major(x.amount) for x in lines if x.counts]
        taxes = 0 if terms.tax_included else major(s.tax)
        assert sum(printed) - major(s.off) + taxes == major(s.total)
        assert sum(r.gross for r in s.rates) == s.total == s.net + s.tax
        assert s.deposit + sum(s.instalments) == s.total
        assert max(s.instalments) - min(s.instalments) <= 1
        assert by_fractions(lines, terms)[0] == s.total


def test_what_is_no_amount_and_no_line_is_refused():
    for wrong in ("", "abc", "nan", "inf", "1e40"):
        with pytest.raises(ValueRefused):
            minor(wrong)
    for change in ({"kind": "gift"}, {"discount": D(101)}, {"tax": D(99)}, {"quantity": D(99_999)}):
        with pytest.raises(ValueRefused):
            Line(**({"kind": "free", "text": "x", "quantity": D(1), "price_minor": 1} | change))
    with pytest.raises(ValueRefused, match="nothing or more"):
        sums([Line("free", "back", D(-1), 500)], Terms())
    assert split(10, 4) == (3, 3, 2, 2)
