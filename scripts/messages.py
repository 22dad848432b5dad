"""The messages of what a customer gets, as gettext's files: collected from templates, code and the
core's data, merged into each language's `.po`, compiled. `python scripts/messages.py`.
"""

from __future__ import annotations

import io
import re
import sys
from collections.abc import Iterator
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.extract import extract
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po, write_po

from jolvek.core.care.faults import SERVICE_FAULTS
from jolvek.core.care.steps import Care, Profile, care_for
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.handover import FOR_OWNER, steps
from jolvek.store.recalls import ANSWERS
from jolvek.web.pages.care_page import STATE_WORDS
from jolvek.web.view.language import DOMAIN, FOLDER, LANGUAGES

WEB = Path(__file__).parents[1] / "jolvek" / "web"
KEYWORDS = {"_": None, "n_": (1, 2), "tr": None, "tell": None, "tell_n": (1, 2), "_run": None, "counted_said": (1, 2)}


def found() -> Catalog:
    """Every message there is."""
    out = Catalog(domain=DOMAIN, project="Jolvek", fuzzy=False)
    for path in sorted(WEB.rglob("*.html")):
        _take(out, "jinja2.ext:babel_extract", path)
    for path in sorted(WEB.rglob("*.py")):
        _take(out, "python", path)
    for text in data():
        out.add(text)
    return out


def _take(out: Catalog, method: str, path: Path) -> None:
    source = io.BytesIO(path.read_bytes())
    options = {"trimmed": "true", "silent": "false"}
    for _, message, _, _ in extract(method, source, KEYWORDS, options=options):
        plain = message[0] if isinstance(message, tuple) else message
        if plain:
            out.add(message, flags=["python-format"] if "%(" in plain else [])


def _cares() -> Iterator[Care]:
    for salt in (True, False):
        for lead in (True, False):
            yield from care_for(Profile(salt, lead, False))


def data() -> list[str]:
    """Texts of the core's data that a customer reads."""
    out = [x for c in _cares() for x in (c.text, c.hazard)]
    out += [f.seen for f in SERVICE_FAULTS.values()]
    owner = [s for s in steps(sample_fitted()) if s.group in FOR_OWNER]
    out += [x for s in owner for x in (s.text, s.hazard)]
    out += [*ANSWERS.values(), *STATE_WORDS.values()]
    return [x for x in dict.fromkeys(out) if x]


def path_of(language: str, kind: str) -> Path:
    """The file of a language."""
    return FOLDER / language / "LC_MESSAGES" / f"{DOMAIN}.{kind}"


def kept(language: str) -> Catalog:
    """What a language's file says."""
    path = path_of(language, "po")
    if not path.exists():
        return Catalog(locale=language, domain=DOMAIN)
    with path.open("rb") as stream:
        return read_po(stream, locale=language, domain=DOMAIN)


def compiled(catalogue: Catalog) -> bytes:
    """The same as gettext reads it."""
    out = io.BytesIO()
    write_mo(out, catalogue)
    return out.getvalue()


def places(message: str) -> set[str]:
    """The named places of a message."""
    return set(re.findall(r"%\((\w+)\)s", message))


def main() -> int:
    """Merge and compile; prints what is not translated."""
    whole, lacking = found(), 0
    for language in LANGUAGES:
        if language == "en":
            continue
        mine = kept(language)
        mine.update(whole, no_fuzzy_matching=True)
        mine.obsolete.clear()
        path_of(language, "po").parent.mkdir(parents=True, exist_ok=True)
        with path_of(language, "po").open("wb") as stream:
            write_po(stream, mine, width=100, no_location=True, sort_output=True, omit_header=False)
        path_of(language, "mo").write_bytes(compiled(mine))
        left = [m.id for m in mine if m.id and not all(m.string if m.pluralizable else [m.string])]
        lacking += len(left)
        for message in left:
            print(f"{language}: {message}")
    print(f"{len(whole)} messages, {lacking} not translated")
    return 1 if lacking else 0


if __name__ == "__main__":
    sys.exit(main())
