"""Two people at one form: what each changed stays; where both changed a field, one is asked.

A form says in a hidden field what it was filled with. When it comes back, what its reader did not
touch is taken as it stands by then, so that a page left open overwrites nobody.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from flask import Flask, render_template, request
from markupsafe import Markup
from werkzeug.datastructures import MultiDict

from jolvek.core.base.errors import JolvekError
from jolvek.web.kit.language import tr

FILLED = "filled"
Form = MultiDict[str, str]
Values = Mapping[str, Any]  # by field: a text, the texts of several boxes, True for a ticked one


@dataclass(frozen=True)
class FieldClash:
    """One field that two people changed: its label, and what either wrote."""

    label: str
    theirs: str
    mine: str


class Clashed(Exception):  # noqa: N818
    """A form whose fields somebody else changed too; nothing of it is kept. No refusal of what was
    typed: no route answers it, the page of both versions does.
    """

    def __init__(self, clashes: list[FieldClash], rest: Form, now: Values) -> None:
        super().__init__("changed by two people")
        self.clashes, self.rest, self.now = clashes, rest, now


def set_up(app: Flask) -> None:
    """Hand the templates the hidden field, and show a clash with both versions."""
    app.jinja_env.globals.update(filled=filled, filled_text=filled_text)
    app.register_error_handler(Clashed, _ask)


def filled_text(values: Values) -> str:
    """The same as a text, for the address of a button."""
    plain = {name: list(_texts(value)) for name, value in values.items()}
    return json.dumps(plain, ensure_ascii=False)


def filled(values: Values) -> Markup:
    """The hidden field of a form that was filled with these values.

    >>> filled({"price": "190"})
    Markup('<input type="hidden" name="filled" value="{&#34;price&#34;: [&#34;190&#34;]}">')
    """
    hidden = Markup('<input type="hidden" name="{}" value="{}">')
    return hidden.format(FILLED, filled_text(values))


def merged(form: Form, now: Values, labels: Mapping[str, str] | None = None) -> Form:
    """What a form says, with the fields its reader did not touch as they stand `now`. Call it in
    the transaction that writes. Raises Clashed; a form that does not say what it was filled with
    comes back as it is.

    >>> was = '{"price": ["191"], "stock": ["5"]}'
    >>> posted = MultiDict({"price": "191", "stock": "9", "filled": was})
    >>> done = merged(posted, {"price": "190", "stock": "5"})
    >>> done["price"], done["stock"]
    ('190', '9')
    """
    base = _base(form.get(FILLED, ""))
    out, clashes = MultiDict(form), []
    for name in dict.fromkeys([*base, *now]) if base else ():
        was, mine, theirs = (
            base.get(name, ()),
            _texts(form.getlist(name)),
            _texts(now.get(name, "")),
        )
        if mine == theirs or theirs == was:
            continue
        if mine == was:
            _put(out, name, theirs)
        else:
            label = (labels or {}).get(name, name)
            clashes.append(FieldClash(label, ", ".join(theirs) or "–", ", ".join(mine) or "–"))
    if clashes:
        raise Clashed(clashes, out, now)
    return out


def _base(text: str) -> dict[str, tuple[str, ...]]:
    try:
        read = json.loads(text) if text else {}
        return {str(name): _texts(value) for name, value in read.items()}
    except (ValueError, AttributeError, TypeError):
        raise JolvekError(tr("the form is damaged: load the page again")) from None


def _texts(value: Any) -> tuple[str, ...]:
    """A value as its texts, empty ones and ways of ending a line aside."""
    if value is True:
        return ("1",)
    listed: Iterable[Any] = value if isinstance(value, list | tuple) else (value,)
    plain = (str(x).replace("\r\n", "\n").strip() for x in listed if x not in (None, False))
    return tuple(x for x in plain if x)


def _put(form: Form, name: str, texts: tuple[str, ...]) -> None:
    form.poplist(name)
    if texts:
        form.setlist(name, list(texts))


def _ask(error: Exception) -> Any:
    assert isinstance(error, Clashed)
    left = (FILLED, "csrf_token")
    sent = [(k, v) for k, vs in error.rest.lists() for v in vs if k not in left]
    page = render_template(
        "kit/changed.html", clashes=error.clashes, sent=sent, now=error.now, back=_came_from()
    )
    return page, 422


def _came_from() -> str:
    host = request.host_url
    came = request.referrer or ""
    return came.removeprefix(host.rstrip("/")) if came.startswith(host) else "/"
