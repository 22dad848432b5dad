"""A signature drawn by pointer: strokes of points, kept as text, shown as a picture."""

from __future__ import annotations

import re

from markupsafe import Markup

from jolvek.core.base.errors import ValueRefused
from jolvek.web.kit.drawings.svg import path, picture, poly
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 600, 200
LONGEST = 20_000  # characters
_STROKES = re.compile(r"(\d{1,3},\d{1,3})([ ;]\d{1,3},\d{1,3})*")


def checked(text: str) -> str:
    """The strokes, `x,y x,y;x,y x,y` on a field of 600 × 200; empty for none. Raises ValueRefused
    for anything else.

    >>> checked("1,2 3,4;5,6 7,8"), checked("")
    ('1,2 3,4;5,6 7,8', '')
    """
    text = text.strip()
    if text and (len(text) > LONGEST or not _STROKES.fullmatch(text)):
        raise ValueRefused("signature", text[:40], tr("strokes drawn on the field"))
    return text


def drawn(text: str) -> Markup:
    """The picture of checked strokes."""
    strokes = [
        [(float(a), float(b)) for a, b in (point.split(",") for point in stroke.split(" "))]
        for stroke in text.split(";")
    ]
    pen = {"fill": "none", "stroke": "#22292C"}
    parts = [path(poly(x), "stroke", "", **pen, stroke_width="3") for x in strokes if x]
    return picture(WIDTH, HEIGHT, "signature", tr("Signature as drawn"), parts)
