"""The current that a finding names is the one that the cables and fuses are made for."""

import pytest

from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.rules.findings import find


def test_findings_and_wiring_tell_one_current():
    f = sample_fitted()
    result = next(x for x in f.findings if x.rule == "high-current")
    assert f.netlist.motor_a == pytest.approx(result.figure) == pytest.approx(50.0)
    assert result.text == find("high-current", f.netlist.motor_a, 50.0).text
