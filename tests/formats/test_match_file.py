"""What `jolvek match` prints of each ranked setup is what the rule book says of it."""

import json
from dataclasses import replace

import pytest
from click.testing import CliRunner

from jolvek import demo
from jolvek.cli import main
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of
from jolvek.formats import enquiry_file, match_file, shelf_file


@pytest.mark.parametrize("which", range(6))
def test_each_ranked_setup_comes_with_its_findings_and_none_that_stops_it(which):
    m = match(demo.enquiries()[which].need, demo.shelf())
    result = match_file.answer(m, most=3)["setups"]
    held = [[x.rule for x in fitted_of(m, i).findings] for i in ranked(m, 3)]
    assert [[x["rule"] for x in setup["findings"]] for setup in result] == held
    assert not [x for setup in result for x in setup["findings"] if x["level"] == "block"]


def test_what_stands_against_the_boat_is_told():
    need = demo.enquiries()[1].need
    crowd = replace(need, site=replace(need.site, max_people=1))
    assert (
        "the plate allows 1" in match_file.answer(match(crowd, demo.shelf()))["against_the_boat"][0]
    )


@pytest.mark.parametrize("withdrawn", [{"discontinued": True}, {"stock": "none"}])
def test_match_from_files_offers_nothing_that_is_withdrawn(tmp_path, withdrawn):
    """The top pick of a shop's own list was a motor that nobody can buy."""
    need, shelf = tmp_path / "need.json", tmp_path / "shelf.json"
    need.write_text(json.dumps(enquiry_file.write(demo.enquiries()[2])))
    best = ranked(match(demo.enquiries()[2].need, demo.shelf()))[0]
    motor = fitted_of(match(demo.enquiries()[2].need, demo.shelf()), best).motor.id
    rows = []
    for lack in ({}, withdrawn):
        motors = (replace(m, **lack) if m.id == motor else m for m in demo.shelf().motors)
        shelf.write_text(json.dumps(shelf_file.write(replace(demo.shelf(), motors=tuple(motors)))))
        rows.append(CliRunner().invoke(main, ["match", str(need), "--shelf", str(shelf)]).output)
    assert f'"{motor}"' in rows[0] and f'"{motor}"' not in rows[1]
