"""A job's figures as pages and papers write them: each carries its key, so that the same figure can
be found wherever it stands. In text the key rides between marks that no keyboard has; a page gets
`<span data-figure="A.top">` for them, and everything else loses them.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from flask import Flask, Response
from markupsafe import Markup

from jolvek.core.base.units import hours
from jolvek.core.job.figures import Figure, figure
from jolvek.core.job.job_setup import JobSetup
from jolvek.web.kit.dates import clock
from jolvek.web.kit.display import Units, kwh, money
from jolvek.web.kit.doubt_words import manages
from jolvek.web.kit.language import decimal

BEGIN, MIDDLE, END = "\ue000", "\ue001", "\ue002"
MARKED = re.compile(f"{BEGIN}([^{MIDDLE}]*){MIDDLE}([^{END}]*){END}")
# what is no running text: tags, and what stands in scripts, titles, lists and text boxes
_CLOSED = re.compile(r"<(script|style|title|textarea|option|svg)\b.*?</\1>|<[^>]*>", re.S)
_TEXTS = ("text/html", "text/csv", "text/plain", "application/json", "text/calendar")
_WAYS: dict[str, Callable[[Any], str]] = {
    "time": hours,
    "clock": clock,
    "kWh": lambda x: kwh(x, 2),
    "percent": lambda x: f"{100 * x:.0f}",
    "money": money,
    "word": manages,
    "mm": lambda x: f"{1000 * x:.0f}",
}
_UNITS = {"kWh": "kWh", "percent": "%", "amps": "A", "Wh": "Wh", "seconds": "s", "metres": "m"}
_UNITS |= {"mm": "mm", "mm²": "mm²", "degrees": "°", "noise": "dB(A)", "time": "h"}


def fig(setup: JobSetup, key: str, u: Units, unit: bool = True) -> Markup:
    """A figure of a setup in the reader's units, with or without its unit, under its key."""
    return marked(setup.letter, key, written(figure(setup, key), u, unit))


def written(f: Figure, u: Units, unit: bool = True) -> str:
    """A figure in the reader's units; a dash where there is none."""
    if f.value is None:
        return "–"
    if f.quantity in _WAYS:
        text = _WAYS[f.quantity](f.value)
    elif f.quantity in _UNITS:
        text = decimal(f"{f.value:.{f.decimals or 0}f}")
    elif unit:
        return str(u.full(float(f.value), f.quantity, f.decimals))
    else:
        return u.number(float(f.value), f.quantity, f.decimals)
    name = _UNITS.get(f.quantity, "") if unit else ""
    return f"{text}\u00a0{name}" if name else text


def marked(letter: str, key: str, text: str) -> Markup:
    """A text that shows the figure of a key."""
    return Markup("{}{}.{}{}{}{}").format(BEGIN, letter, key, MIDDLE, text, END)


def unmarked(value: Any) -> Any:
    """A text, or a plain record, without its keys.

    >>> unmarked({"top": ["\\ue000A.top\\ue0013.5 kn\\ue002"]})
    {'top': ['3.5 kn']}
    """
    if isinstance(value, dict):
        return {k: unmarked(v) for k, v in value.items()}
    if isinstance(value, list | tuple):
        return [unmarked(x) for x in value]
    return MARKED.sub(r"\2", value) if isinstance(value, str) and BEGIN in value else value


def spans(html: str) -> str:
    """A page with its marks as spans in running text, and none elsewhere."""
    if BEGIN not in html:
        return html
    out, at = [], 0
    for closed in _CLOSED.finditer(html):
        out += [MARKED.sub(_span, html[at : closed.start()]), unmarked(closed[0])]
        at = closed.end()
    return "".join([*out, MARKED.sub(_span, html[at:])])


def _span(m: re.Match[str]) -> str:
    return f'<span data-figure="{m[1]}">{m[2]}</span>'


def set_up(app: Flask) -> None:
    """Every answer of the application goes through here."""
    app.after_request(_answered)


def _answered(response: Response) -> Response:
    if response.is_streamed and response.direct_passthrough:
        return response
    if response.mimetype not in _TEXTS:
        return response
    if BEGIN.encode() in response.get_data():
        text = response.get_data(as_text=True)
        response.set_data(spans(text) if response.mimetype == "text/html" else unmarked(text))
    return response
