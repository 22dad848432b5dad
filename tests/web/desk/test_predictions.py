"""How good predictions are: the table tells measured points and own trials, and what has none."""

import re

from jolvek.core.predict.calibration import BAND_Z, held, outside
from jolvek.core.predict.likelihood import z_of


def test_the_band_is_that_of_eighty_per_cent():
    assert abs(z_of(0.8) - BAND_Z) < 1e-3
    boat = [(0.1, 1.0), (-0.2, -2.0), (0.0, 1.28), (0.0, 1.29)]
    h = held("rib", [boat[:1], boat[1:]])
    assert (h.points, h.boats, h.within, h.worst) == (4, 2, 0.5, -0.2)


def test_measured_boats_lie_within_an_eighth_and_mostly_within_their_band():
    """The points of `predict.measured`; common practice, no source."""
    assert all(abs(h.worst) < 0.125 for h in outside())
    points = sum(h.points for h in outside())
    assert sum(h.points * h.within for h in outside()) / points >= 0.7


def test_the_page_tells_both_and_names_the_rest(client, working, conn):
    working.backup(conn)
    text = client.get("/rules/predictions").text
    assert re.search(r"<b>\d+ %</b> of 9 measured speeds lie within the band of 80 %", text)
    row = re.search(r"<tr><th scope=\"row\">RIB.*?</tr>", text)[0]
    cells = re.findall(r"<td>(.*?)</td>", row)
    assert cells[4] == "6"  # that owners report
    assert cells[8] == "3"  # of the safety boat's trial
    assert "No measurements for:" in text and "Kayak" in text.split("No measurements for:")[1]
    assert 'href="/rules/predictions"' in client.get("/rules").text
