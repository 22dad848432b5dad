"""What `jolvek match` prints of each ranked setup is what the rule book says of it."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of
from jolvek.formats import match_file


@pytest.mark.parametrize("which", range(6))
def test_each_ranked_setup_comes_with_its_findings_and_none_that_stops_it(which):
    m = match(demo.enquiries()[which].need, demo.shelf())
    told = match_file.answer(m, most=3)["setups"]
    held = [[x.rule for x in fitted_of(m, i).findings] for i in ranked(m, 3)]
    assert [[x["rule"] for x in setup["findings"]] for setup in told] == held
    assert not [x for setup in told for x in setup["findings"] if x["level"] == "block"]


def test_what_stands_against_the_boat_is_told():
    need = demo.enquiries()[1].need
    crowd = replace(need, site=replace(need.site, max_people=1))
    assert (
        "the plate allows 1" in match_file.answer(match(crowd, demo.shelf()))["against_the_boat"][0]
    )
