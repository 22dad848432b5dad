"""What nobody has said of a product or a boat never wins, is marked, and asks to be said."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.fit.fitted import Fitted
from jolvek.core.match.matching import match
from jolvek.core.match.picks import picks
from jolvek.core.match.ranking import ranked, score
from jolvek.core.match.whole import fitted_of


def without(shelf, **gone):
    """The shelf with a twin of every motor, cheaper as it seems, that lacks something."""

    def twin(item):
        spec = replace(item.spec, mass_kg=None) if "mass_kg" in gone else item.spec
        shafts = () if "shafts_m" in gone else item.shafts_m
        return replace(item, id=f"{item.id}-x", price=0.5 * item.price, spec=spec, shafts_m=shafts)

    return replace(shelf, motors=(*shelf.motors, *map(twin, shelf.motors)))


@pytest.mark.parametrize("lacks", ["shafts_m", "mass_kg"])
@pytest.mark.parametrize("which", [1, 2])
def test_a_motor_that_lacks_its_shaft_or_weight_never_wins(enquiries, shelf, which, lacks):
    m = match(enquiries[which].need, without(shelf, **{lacks: 1}))
    f = m.field
    assert (m.not_given & f.does_day).any() and (~m.not_given & f.does_day).any()
    for pick in picks(m):
        assert not m.not_given[pick.index], pick.id
    marks = score(m)
    assert marks[m.not_given & f.does_day].max() < marks[~m.not_given & f.does_day].min()
    assert marks[~f.does_day].max() < marks[m.not_given & f.does_day].min()
    assert not m.not_given[ranked(m)[0]]
    rule = {"shafts_m": "shaft-unknown", "mass_kg": "weight-unknown"}[lacks]
    outboards = np.array([x.style == "outboard" for x in m.shelf.motors])
    one = int(np.nonzero(m.not_given & outboards[m.drives.motor[f.drive]])[0][0])
    found = {x.rule: x.level for x in fitted_of(m, one).findings}
    assert found[rule] == "caution"  # it is ticked by name before an offer goes out


def test_a_shaft_set_by_hand_is_given(enquiries, shelf):
    m = match(enquiries[1].need, without(shelf, shafts_m=1))
    i = int(np.nonzero(m.not_given)[0][0])
    f = fitted_of(m, i)
    assert f.shaft_m is None and "shaft-unknown" in {x.rule for x in f.findings}
    by_hand = replace(f.fitting, pole_m=0.508)
    parts = (f.need, f.motor, f.battery, f.mount, f.charger, f.series, f.parallel, None)
    assert "shaft-unknown" not in {x.rule for x in Fitted(*parts, fitting=by_hand).findings}


def test_an_estimated_transom_refuses_nothing_near_it_and_asks_to_be_measured(enquiries, shelf):
    need = enquiries[1].need
    low = replace(need, hull=replace(need.hull, transom_height_m=None, length_m=3.5))
    guess = low.hull.transom_m
    known = replace(need, hull=replace(low.hull, transom_height_m=guess))
    open_one, sure = match(low, shelf), match(known, shelf)
    assert open_one.field.does_day.sum() > sure.field.does_day.sum()
    given = open_one.field.does_day & ~open_one.not_given
    assert given.sum() == sure.field.does_day.sum()  # as it is estimated, the same fit
    i = int(np.nonzero(open_one.not_given & open_one.field.does_day)[0][0])
    result = next(x for x in fitted_of(open_one, i).findings if x.rule == "transom-estimated")
    assert result.level == "caution" and "Measure the transom" in result.cure
    tall = replace(need, hull=replace(need.hull, transom_height_m=None, length_m=5.9))
    refused = [x for x in match(tall, shelf).motor_reasons.values() if x.rule == "shaft-short"]
    for x in refused:  # far too short for anything that is likely: it says on what it rests
        assert "as it is estimated" in x.text and x.cure.startswith("Measure the transom first")
