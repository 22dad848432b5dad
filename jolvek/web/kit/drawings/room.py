"""How wide a chart is drawn: for the screen it is read on, so that its words keep their size. The
scripts say by a cookie that a screen is narrow; a paper has its own width.
"""

from __future__ import annotations

from flask import has_request_context, request

NARROW_PX = 358.0  # of a phone's 390, without the margins


def chart_px(wide_px: float) -> float:
    """The width in px to draw at, where a wide screen has so much."""
    if not has_request_context() or request.path.endswith(".pdf"):
        return wide_px
    return NARROW_PX if request.cookies.get("narrow") == "1" else wide_px
