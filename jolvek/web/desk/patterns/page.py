"""Every component once, for whoever builds a page or checks the look."""

from __future__ import annotations

from flask import Blueprint, render_template

from jolvek.core.rules.findings import example
from jolvek.web.desk.counter.form import QuickForm
from jolvek.web.kit import pages
from jolvek.web.kit.drawings.charts import Axes, Series, compare
from jolvek.web.kit.pages import READER
from jolvek.web.stations.boat.form import BoatForm

bp = Blueprint("patterns", __name__)
pages.add(
    bp,
    {
        "page": READER,
    },
)
ONE_OF_EACH = ("plate-power", "below-reserve", "charger-voltage", "too-slow", "overpowered")
ANSWER = "Setup *B* holds *4 knots* for 3 h 10 min, *12.7 nautical miles*, with 20 % kept."


@bp.get("/patterns")
def page() -> str:
    """The components, fed with made figures."""
    form = QuickForm(formdata=None, meta={"csrf": False})
    boat = BoatForm(formdata=None, meta={"csrf": False})
    wrong = QuickForm(formdata=None, meta={"csrf": False})
    wrong.length.errors = ["read “long”; expected a length in m, ft, for example 3.55 m or 11 ft 7"]
    findings = [example(rule) for rule in ONE_OF_EACH]
    x = [0.5 + 0.05 * i for i in range(60)]
    series = [
        Series(
            letter,
            x[: 60 - 8 * i],
            [60 * v**3 for v in x[: 60 - 8 * i]],
            [30 / v**2 for v in x[: 60 - 8 * i]],
        )
        for i, letter in enumerate("ABCDE")
    ]
    chart = compare(
        series,
        Axes(
            "speed, kn",
            "power, W",
            "range, nm",
            "kn",
            ((2.6, "hull speed 2.6"),),
            1500,
            plate_label="plate 1500 W",
            cursor=2.0,
        ),
    )
    shown = {"form": form, "boat": boat, "wrong": wrong, "findings": findings}
    return render_template("desk/patterns/page.html", chart=chart, answer=ANSWER, **shown)
