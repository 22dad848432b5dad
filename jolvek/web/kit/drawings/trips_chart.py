"""The last trips of a boat as bars, the newest at the right."""

from __future__ import annotations

from collections.abc import Sequence

from markupsafe import Markup

from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.room import chart_px
from jolvek.web.kit.drawings.svg import line, rect, tag, text

WIDTH, HEIGHT = 420.0, 130.0
BAR_PX, GAP_PX = 14.0, 7.0
CARD_PX = 32.0  # the margins of the card it stands in


def trips_chart(trips: Sequence[tuple[str, str, float]], unit: str) -> Markup:
    """Bars of (day, title, figure), the oldest first, as many of the last as there is room for;
    `unit` says what a bar is.
    """
    width = chart_px(WIDTH) - CARD_PX
    shown = list(trips)[-int((width - 48) / (BAR_PX + GAP_PX)) :]
    most = max(value for _, _, value in shown)
    f = axes.Frame(40, width - 8, HEIGHT - 24, 22, 1.0, most)
    bars = []
    for i, (_, title, value) in enumerate(reversed(shown)):
        right = f.x1 - i * (BAR_PX + GAP_PX)
        top = f.y(value)
        bars.append(rect(right - BAR_PX, top, BAR_PX, f.y0 - top, "trip-bar", title=title))
    first = f.x1 - (len(shown) - 1) * (BAR_PX + GAP_PX) - BAR_PX
    out = [
        axes.beside(f, axes.round_figures(most, 3)),
        axes.names(f, y=unit),
        *bars,
        tag("g", line(f.x0, f.y0, f.x1, f.y0, "base"), stroke=axes.INK),
        text(f.x1, f.y0 + 16, shown[-1][0], "tick", "end"),
        text(first, f.y0 + 16, shown[0][0], "tick") if len(shown) > 8 else "",
    ]
    label = f"{unit}: " + "; ".join(title for _, title, _ in shown)
    return axes.small(width, HEIGHT, "care-chart trips-chart", label, out)
