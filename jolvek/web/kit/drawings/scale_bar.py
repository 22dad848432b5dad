"""A bar that says how large a drawing is, in the reader's units."""

from __future__ import annotations

from flask import has_request_context

from jolvek.core.base.units import FOOT_M
from jolvek.web.kit import display
from jolvek.web.kit.drawings.svg import path, text


def scale_bar(right: float, y: float, scale: float) -> str:
    """A metre, or three feet, ending at picture x `right`; `scale` in px per m."""
    feet = has_request_context() and display.current()["length"] == "ft"
    long = (3 * FOOT_M if feet else 1.0) * scale
    ends = f"M{right - long:.1f} {y - 4:.1f}v8m0 -4H{right:.1f}m0 -4v8"
    words = "3\u00a0ft" if feet else "1\u00a0m"
    return path(ends, "dim") + text(right - long / 2, y + 15, words, "dimtext", "middle")
