"""The languages of what a customer gets: whole sentences as messages, by gettext's files. Texts of
the core's data (steps, faults) are messages too, told by their English.
"""

from __future__ import annotations

import gettext as files
from functools import cache
from pathlib import Path
from typing import Any

from flask import g, has_request_context

LANGUAGES = {
    "en": "English",
    "de": "Deutsch",
    "fr": "Français",
    "nl": "Nederlands",
    "es": "Español",
}
FOLDER, DOMAIN = Path(__file__).parents[1] / "locale", "jolvek"


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


def said(message: str, **values: Any) -> str:
    """A message in the language of this request, its named places filled.

    >>> said("%(n)s of %(all)s", n=1, all=2)
    '1 of 2'
    """
    found = _catalogue(current()).gettext(message)
    return found % values if values else found


def counted_said(one: str, many: str, n: int, **values: Any) -> str:
    """The same by number, `n` among its places."""
    return _catalogue(current()).ngettext(one, many, n) % {"n": n, **values}
