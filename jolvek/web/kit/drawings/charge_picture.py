"""The charge over the day as a small picture for a customer: what is expected, what it may be
between, and the reserve.
"""

from __future__ import annotations

import numpy as np
from markupsafe import Markup

from jolvek.core.day.outing import Outing
from jolvek.core.day.voyage import Voyage
from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.day_chart import clock
from jolvek.web.kit.drawings.svg import text
from jolvek.web.kit.language import tr

WIDTH, HEIGHT, POINTS = 320, 200, 60


def charge_picture(out: Outing) -> Markup:
    """The day as planned: charge from 0 to 100 % over the clock, from setting out to home."""
    v, start = out.planned, out.need.day.start_h
    t = np.linspace(0.0, float(v.t_s[-1]), POINTS)
    hours = t / 3600
    f = axes.Frame(40, WIDTH - 12, HEIGHT - 26, 24, max(float(hours[-1]), 1e-3), 100.0)
    low, high = (100 * np.minimum(_charge(x, t), 1.0) for x in out.between)
    kept = 100 * out.kept
    end = float(hours[-1])
    clocks = [(0.0, clock(start)), (end / 2, clock(start + end / 2)), (end, clock(start + end))]
    parts = [
        axes.beside(f, axes.round_figures(100, step=50)),
        axes.below(f, [(x, "") for x, _ in clocks], lines=False),
        *(
            text(f.x(x), f.y0 + 16, words, "tick", anchor)
            for (x, words), anchor in zip(clocks, ("start", "middle", "end"), strict=True)
        ),
        axes.names(f, y=tr("charge, %")),
        axes.area(f, hours.tolist(), low.tolist(), high.tolist()),
        axes.curve(f, hours.tolist(), (100 * _charge(v, t)).tolist(), "sum-line", stroke_width=2.5),
        axes.curve(f, (0.0, end), (kept, kept), "kept-line", stroke_dasharray="6 4"),
        text(f.x0 + 6, f.y(kept) + 14, tr("reserve %(kept)s %%", kept=f"{kept:.0f}"), "tick"),
    ]
    label = tr(
        "Charge over the day: from %(full)s %% at %(start)s to %(left)s %% at %(end)s",
        full=f"{100 * v.soc[0]:.0f}",
        start=clock(start),
        left=f"{100 * v.left:.0f}",
        end=clock(start + end),
    )
    return axes.small(WIDTH, HEIGHT, "charge-picture", label, parts)


def _charge(v: Voyage, t: np.ndarray) -> np.ndarray:
    """Charge at times in s; what it ended with after its end."""
    return np.asarray(np.interp(t, v.t_s, v.soc))
