"""Languages: whole sentences as messages, by gettext's files. English stands in the source; a text
of the core (`Told`) is said in the language of the page where it is shown. docs/why.md, "Words".
"""

from __future__ import annotations

import gettext as files
import re
from functools import cache
from pathlib import Path
from typing import Any

from babel.lists import format_list
from flask import g, has_request_context
from markupsafe import Markup

from jolvek.core.base.told import Told

LANGUAGES = {
    "en": "English",
    "de": "Deutsch",
    "fr": "Français",
    "nl": "Nederlands",
    "es": "Español",
}
SCREENS = ("en", "de")  # what the shop's own pages speak
FOLDER, DOMAIN = Path(__file__).parents[1] / "locale", "jolvek"
STARRED = re.compile(r"<(\w+) \*>")


@cache
def _catalogue(language: str) -> files.NullTranslations:
    return files.translation(DOMAIN, FOLDER, [language], fallback=True)


def current() -> str:
    """The language of this request's page or paper; English where nobody chose."""
    return str(g.get("language", "en")) if has_request_context() else "en"


def choose(language: str) -> str:
    """Take a language for this request, where it is one of LANGUAGES; returns the one taken."""
    g.language = language if language in LANGUAGES else "en"
    return str(g.language)


def message(text: str) -> str:
    """A message in the language of this request, its places as they stand."""
    return _catalogue(current()).gettext(text) if text else ""


def tr(text: str, /, **values: Any) -> str:
    """A message in the language of this request, its named places filled.

    >>> tr("%(n)s of %(all)s", n=1, all=2)
    '1 of 2'
    """
    if isinstance(text, Told) and not values:
        return str(shown(text))
    found = message(text)
    return found % {k: shown(v) for k, v in values.items()} if values else found


def counted_said(one: str, many: str, n: int, **values: Any) -> str:
    """The same by number, `n` among its places."""
    filled = {"n": n, **{k: shown(v) for k, v in values.items()}}
    return _catalogue(current()).ngettext(one, many, n) % filled


def listed(items: list[str]) -> str:
    """Things as a sentence names them: one, two and three."""
    return format_list(items, locale=current()) if items else ""


def shown(value: Any) -> Any:
    """A text of the core in the language of this request; everything else as it is."""
    if not isinstance(value, Told):
        return value
    if value.many:
        return counted_said(value.message, value.many, **value.values)
    return tr(value.message, **value.values)


def run(text: str, tags: list[str], /, **values: Any) -> Markup:
    """Running text of a template (view/template_messages.py): its tags have their attributes again,
    its figures are escaped.
    """
    left = [str(t).replace("%", "%%") for t in tags]

    def tag(m: re.Match[str]) -> str:
        mine = next(i for i, t in enumerate(left) if t.startswith(f"<{m[1]}"))
        return left.pop(mine)

    return Markup(STARRED.sub(tag, message(text))) % {k: shown(v) for k, v in values.items()}  # noqa: S704


def joined(items: Any, between: str = "") -> Markup:
    """Jinja's `join`, each item in the language of the page."""
    return Markup(between).join(shown(x) for x in items)
