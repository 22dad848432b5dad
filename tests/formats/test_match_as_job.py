"""What `jolvek match` and the API say of a setup is what the job of that setup says."""

import pytest

from jolvek import demo
from jolvek.core.job.figures import figure
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of
from jolvek.formats import match_file

SAME = {
    "top": "top_speed_m_s",
    "wish.time": "runtime_s",
    "wish.range": "range_m",
    "price.parts": "parts_price",
    "price.fitted": "fitted_price",
    "mass": "mass_kg",
    "lift": "lift_kg",
    "loaded": "displacement_kg",
}


@pytest.mark.parametrize("number", range(6))
def test_every_ranked_setup_is_answered_as_its_job(number):
    found = match(demo.enquiries()[number].need, demo.shelf())
    best = ranked(found, 8)
    for result, i in zip(match_file.answer(found, 8)["setups"], best, strict=True):
        job = of_fitted(fitted_of(found, i))
        for key, name in SAME.items():
            assert result[name] == pytest.approx(figure(job, key).value, rel=1e-5), (result, key)
        assert {x["rule"] for x in result["findings"]} == {x.rule for x in job.findings}
        assert result["does_day"] == (job.run.home and job.run.as_wished)
