"""Every component once, for whoever builds a page or checks the look."""

from __future__ import annotations

from flask import Blueprint, render_template

from jolvek.core.rules.findings import find
from jolvek.web.drawings.charts import Axes, Series, compare
from jolvek.web.forms.quick_form import QuickForm

bp = Blueprint("patterns", __name__)
ANSWER = "Setup *B* holds *4 knots* for 3 h 10 min, *12.7 nautical miles*, with 20 % kept."


@bp.get("/patterns")
def page() -> str:
    """The components, fed with made figures."""
    form = QuickForm(formdata=None, meta={"csrf": False})
    wrong = QuickForm(formdata=None, meta={"csrf": False})
    wrong.length.errors = ["read “long”; expected a length in m, ft, for example 3.55 m or 11 ft 7"]
    findings = [
        find("plate-power", 3000.0, 2200.0),
        find("high-current", 78.0, 50.0),
        find("life-jacket"),
    ]
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
            "plate 1500 W",
            2.0,
        ),
    )
    return render_template(
        "patterns/page.html", form=form, wrong=wrong, findings=findings, chart=chart, answer=ANSWER
    )
