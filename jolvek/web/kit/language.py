"""Languages: whole sentences as messages, by gettext's files. English stands in the source; a text
of the core (`Message`) is said in the language of the page where it is shown. docs/why.md, "Words".
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date
from functools import cache
from gettext import GNUTranslations, NullTranslations
from io import BytesIO
from pathlib import Path
from typing import Any

from babel.dates import format_date
from babel.lists import format_list
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po
from flask import g, has_request_context
from markupsafe import Markup

from jolvek.core.base.messages import Message

LANGUAGES = {
    "en": "English",
    "de": "Deutsch",
    "fr": "Français",
    "nl": "Nederlands",
    "es": "Español",
}
SCREENS = ("en", "de")  # what the shop's own pages speak
FOLDER, DOMAIN = Path(__file__).parents[1] / "locale", "jolvek"
SCRIPT_WORDS = tuple(json.loads((FOLDER / "scripts.json").read_text("utf-8")))
FIGURE = re.compile(r"[+-]?\d+\.\d+(?:[\s\u00a0][^.]*)?")
STARRED = re.compile(r"<(\w+) \*>")


@cache
def _catalogue(language: str) -> NullTranslations:
    """A language's file, made ready once in a process: that takes a tenth of a second."""
    path, ready = FOLDER / f"{language}.po", BytesIO()
    if not path.exists():
        return NullTranslations()
    with path.open("rb") as stream:
        write_mo(ready, read_po(stream, locale=language, domain=DOMAIN))
    ready.seek(0)
    return GNUTranslations(ready)


def current() -> str:
    """The language of this request's page or paper; English where nobody chose."""
    return str(g.get("language", "en")) if has_request_context() else "en"


def choose(language: str) -> str:
    """Take a language for this request, where it is one of LANGUAGES; returns the one taken."""
    g.language = language if language in LANGUAGES else "en"
    return str(g.language)


@contextmanager
def speaking(language: str) -> Iterator[None]:
    """A stretch of work in another language: a paper, a letter, an offer."""
    before = current()
    choose(language)
    try:
        yield
    finally:
        choose(before)


@contextmanager
def watched() -> Iterator[set[str]]:
    """The messages of a stretch of work that its language has no words for: they stay English."""
    before, g.untranslated = g.get("untranslated"), set()
    try:
        yield g.untranslated
    finally:
        g.untranslated = before


def message(text: str) -> str:
    """A message in the language of this request, its places as they stand."""
    if not text:
        return ""
    found = _catalogue(current()).gettext(text)
    if found is text and current() != "en":
        _missing(text)
    return found


def _missing(text: str) -> None:
    if has_request_context() and (watch := g.get("untranslated")) is not None:
        watch.add(text)


def tr(text: str, /, **values: Any) -> str:
    """A message in the language of this request, its named places filled.

    >>> tr("%(n)s of %(all)s", n=1, all=2)
    '1 of 2'
    """
    if isinstance(text, Message) and not values:
        return str(shown(text))
    found = message(text)
    return found % _filling(values) if values else found


def counted_text(one: str, many: str, n: int, **values: Any) -> str:
    """The same by number, `n` among its places."""
    filled = _filling({"n": n, **values})
    found = _catalogue(current()).ngettext(one, many, n)
    if found in (one, many) and current() != "en":
        _missing(one)
    return found % filled


def decimal(text: str) -> str:
    """A figure with the decimal sign of the page's language.

    >>> decimal("1.25")
    '1.25'
    """
    return text if current() == "en" else text.replace(".", ",")


def figure(value: Any) -> Any:
    """The same of what may be a figure with or without its unit; anything else stays as it is.

    >>> figure("2.5 m"), figure("DIN 1.5"), figure(2.5)
    ('2.5 m', 'DIN 1.5', 2.5)
    """
    return decimal(value) if isinstance(value, str) and FIGURE.fullmatch(value) else value


def capital(text: str) -> str:
    """A text that begins a sentence; nouns keep their capitals.

    >>> capital("not yet tried on Lake X")
    'Not yet tried on Lake X'
    """
    return text[:1].upper() + text[1:]


def _filling(values: dict[str, Any]) -> dict[str, Any]:
    """What fills the places of a message: figures, bare or with their unit, have the language's
    decimal sign; days are written as it writes them.
    """
    return {k: _day(v) if isinstance(v, date) else figure(shown(v)) for k, v in values.items()}


def _day(on: date) -> str:
    locale = current()
    return str(format_date(on, "medium", locale="en_GB" if locale == "en" else locale))


def listed(items: list[str]) -> str:
    """Things as a sentence names them: one, two and three."""
    return format_list(items, locale=current()) if items else ""


def resolved(record: Any) -> Any:
    """A plain record with every text of the core said in this request's language: to freeze."""
    if isinstance(record, dict):
        return {k: resolved(v) for k, v in record.items()}
    if isinstance(record, list | tuple):
        return [resolved(x) for x in record]
    return shown(record)


def of_scripts() -> dict[str, str]:
    """What the scripts of a page say, by its English; nothing where the page is English."""
    result = SCRIPT_WORDS if current() != "en" else ()
    return {text: message(text) for text in result}


def shown(value: Any) -> Any:
    """A text of the core in the language of this request; everything else as it is."""
    if not isinstance(value, Message):
        return value
    if value.many:
        return counted_text(value.message, value.many, **value.values)
    return tr(value.message, **value.values)


def run(text: str, tags: list[str], /, **values: Any) -> Markup:
    """Running text of a template (view/template_messages.py): its tags have their attributes again,
    its figures are escaped.
    """
    left = [str(t).replace("%", "%%") for t in tags]

    def tag(m: re.Match[str]) -> str:
        mine = next(i for i, t in enumerate(left) if t.startswith(f"<{m[1]}"))
        return left.pop(mine)

    return Markup(STARRED.sub(tag, message(text))) % _filling(values)  # noqa: S704


def joined(items: Any, between: str = "") -> Markup:
    """Jinja's `join`, each item in the language of the page."""
    return Markup(between).join(shown(x) for x in items)
