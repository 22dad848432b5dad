"""The messages of pages and papers as gettext's files: collected from templates, code and tables of
the core, merged into each language's `.po`. `python scripts/messages.py`.
"""

from __future__ import annotations

import io
import json
import re
import sys
from collections.abc import Iterator
from dataclasses import fields
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.extract import extract
from babel.messages.pofile import read_po, write_po

from jolvek.core.care.faults import FAULT_STATE_WORDS, SERVICE_FAULTS
from jolvek.core.care.steps import Care, Profile, care_for
from jolvek.core.electric.chemistry import CHEMISTRIES
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.products.boat_model import FIN_BOXES
from jolvek.core.products.mounting import KINDS as MOUNTS
from jolvek.core.products.mounting import PLACES
from jolvek.core.products.plain import fields_of
from jolvek.core.rules.examples import EXAMPLES
from jolvek.core.rules.rulebook import RULES
from jolvek.core.rules.signals import SIGNAL_WORDS
from jolvek.core.trial.causes import CAUSES
from jolvek.core.trial.diagnosis import FAULTS
from jolvek.core.trial.runs import HEADINGS
from jolvek.store.finding import WAITS
from jolvek.store.people import ROLES
from jolvek.store.recalls import ANSWERS
from jolvek.store.shelf import KINDS
from jolvek.store.shop import MAIL_SUBJECT, MAIL_WORDS, Shop
from jolvek.web.kit.display import CHOICES, COUNTED
from jolvek.web.kit.language import DOMAIN, FOLDER, LANGUAGES, SCREENS
from jolvek.web.kit.words import key_words
from jolvek.web.stations.aftercare.view import STATE_WORDS
from jolvek.web.stations.boat.form import BOTTOMS, CHAMBERS, CONSTRUCTIONS, STORAGE
from jolvek.web.stations.offer.years import LABELS
from jolvek.web.stations.waters.form import SCHOOL_WORDS, SKIES, WISH_WORDS

TOP = Path(__file__).parents[1] / "jolvek"
KEYWORDS = {"_": None, "n_": (1, 2), "tr": None, "counted_text": (1, 2), "_run": None}
KEYWORDS |= {"msg": None, "msg_n": (1, 2)}
TEMPLATES = {"extensions": "jolvek.web.kit.template_messages.RunningText", "trimmed": "true"}
# what a customer reads: her offer, link, papers, form and the boat's own page
CUSTOMERS = re.compile(
    r"web/public/|kit/papers/|kit/base\.html|stations/\w+/_?paper\.html"
    r"|stations/offer/(_(paper\w*|small_print|appendix|beside|expected|know|lines|pictures"
    r"|years_table)\.html"
    r"|content|customers_page|for_customer|lines|setups|revision|shop_data|years)"
    r"|stations/aftercare/(_new_fault|label|copy|battery)|handover/record|desk/care/letters"
    r"|day_out/(view|figures|text)|kit/fields/chosen"
    r"|kit/(doubt_words|display|worked|what_if|followed)"
    r"|drawings/(boat_drawing|pictures|years_chart|day_chart|charge_picture|charts|signature)"
    r"|core/(day|deal|job)/|shop/answers|core/care/(due|steps)\.py"
    r"|core/fit/(handover\w*|controls|mounting_work|checklist|materials)\.py"
    r"|core/predict/(claims|likelihood|performance)|core/electric/(bank|chemistry)"
)


def found() -> tuple[Catalog, set[str]]:
    """Every message there is, and which of them customers read."""
    out, customers = Catalog(domain=DOMAIN, project="Jolvek", fuzzy=False), set(for_customers())
    for text in of_scripts():  # any page may say them
        _add(out, text)
        customers.add(text)
    for path in sorted((*TOP.rglob("*.html"), *TOP.rglob("*.py"))):
        method = "jinja2.ext:babel_extract" if path.suffix == ".html" else "python"
        for message in _in_file(method, path):
            _add(out, message)
            if CUSTOMERS.search(path.as_posix()):
                customers.add(message if isinstance(message, str) else message[0])
    for text in (*for_customers(), *for_the_shop()):
        _add(out, text)
    for word in COUNTED:
        _add(out, (f"%(n)s {word}", f"%(n)s {word}s"))
        customers.add(f"%(n)s {word}")
    return out, customers


def of_scripts() -> list[str]:
    """What the scripts of pages say."""
    out: list[str] = []
    for path in sorted((TOP / "web" / "static" / "app").glob("*.js")):
        source = io.BytesIO(path.read_bytes())
        out += [
            m for _, m, _, _ in extract("javascript", source, {"tr": None}) if isinstance(m, str)
        ]
    return sorted(set(out))


def _in_file(method: str, path: Path) -> Iterator[str | tuple[str, str]]:
    source = io.BytesIO(path.read_bytes())
    for _, message, _, _ in extract(method, source, KEYWORDS, options=TEMPLATES):
        yield message if isinstance(message, str) else (message[0], message[1])


def _add(out: Catalog, message: str | tuple[str, str]) -> None:
    one = message if isinstance(message, str) else message[0]
    if one:
        out.add(message, flags=["python-format"] if "%(" in one else [])


def _cares() -> Iterator[Care]:
    for salt in (True, False):
        for lead in (True, False):
            yield from care_for(Profile(salt, lead, False))


# parts of the wiring that an offer's list names
NAMED_IN_LISTS = ("minus bar", "plus bar", "shore inlet", "shunt and monitor")


def for_customers() -> list[str]:
    """Texts of tables that a customer reads: rules, care, faults, kinds of boats and batteries."""
    out = list(FAULT_STATE_WORDS.values())
    out += [x for r in RULES.values() for x in (r.sentence, r.cure, r.otherwise) if x != "{how}"]
    out += [x for e in EXAMPLES.values() for x in e.values() if isinstance(x, str)]
    out += [x for c in _cares() for x in (c.text, c.hazard)]
    out += [f.seen for f in (*SERVICE_FAULTS.values(), *FAULTS.values())]
    out += [x for f in FAMILIES.values() for x in (f.name, f.label)]
    out += [c.name for c in CHEMISTRIES.values()]
    out += [*ANSWERS.values(), *STATE_WORDS.values(), *SIGNAL_WORDS.values()]
    out += [x["label"] for x in LABELS.values()]
    out += [MAIL_SUBJECT, MAIL_WORDS, *NAMED_IN_LISTS]
    return [x for x in dict.fromkeys(map(str, out)) if x]


def for_the_shop() -> list[str]:
    """Texts of tables that only the shop reads: causes and cures of faults, mounts, units."""
    every = (*SERVICE_FAULTS.values(), *FAULTS.values())
    out = [x for f in every for x in (f.hazard, f.told_by)]
    out += [x for f in every for c in f.causes for x in (c.what, c.check, c.cure)]
    out += [x for c in CAUSES for x in (c.what, c.check, c.cure)]
    kinds = MOUNTS.values()
    out += [x for k in kinds for x in (k.name, k.steering, k.shallows, k.weed, k.loses)]
    out += [*CHOICES, *(c.source for c in _cares()), *(r.source for r in RULES.values())]
    out += [*WAITS.values(), *WISH_WORDS.values()]
    out += [x for f in fields(Shop) for x in map(f.metadata.get, ("label", "hint")) if x]
    out += [*PLACES.values(), *(x.split(" ", 1)[-1] for x in PLACES.values())]
    out += [*SCHOOL_WORDS.values(), *(name for name, *_ in FIN_BOXES.values())]
    out += [*KINDS, *(key_words(k) for kind in KINDS for k in fields_of(kind)), *HEADINGS[1:]]
    out += [
        *STORAGE,
        *CONSTRUCTIONS,
        *CHAMBERS,
        *BOTTOMS,
        *SKIES,
        *ROLES,
        "salt",
        "fresh",
        "system",
        "light",
        "dark",
    ]
    return [x for x in dict.fromkeys(map(str, out)) if x]


def part(whole: Catalog, wanted: set[str]) -> Catalog:
    """The messages of a catalogue that are wanted."""
    out = Catalog(domain=DOMAIN)
    for m in whole:
        if m.id and (m.id if isinstance(m.id, str) else m.id[0]) in wanted:
            out.add(m.id, flags=m.flags)
    return out


def path_of(language: str) -> Path:
    """The file of a language."""
    return FOLDER / f"{language}.po"


def kept(language: str) -> Catalog:
    """What a language's file says."""
    path = path_of(language)
    if not path.exists():
        return Catalog(locale=language, domain=DOMAIN)
    with path.open("rb") as stream:
        return read_po(stream, locale=language, domain=DOMAIN)


def places(message: str) -> set[str]:
    """The named places of a message."""
    return set(re.findall(r"%\((\w+)\)s", message))


def main() -> int:
    """Merge; prints what is not translated."""
    result = json.dumps(of_scripts(), ensure_ascii=False, indent=1)
    (FOLDER / "scripts.json").write_text(result + "\n", "utf-8")
    (whole, customers), lacking = found(), 0
    for language in LANGUAGES:
        if language == "en":
            continue
        mine = kept(language)
        mine.update(
            whole if language in SCREENS else part(whole, customers), no_fuzzy_matching=True
        )
        mine.obsolete.clear()
        path_of(language).parent.mkdir(parents=True, exist_ok=True)
        with path_of(language).open("wb") as stream:
            write_po(stream, mine, width=100, no_location=True, sort_output=True, omit_header=False)
        left = [m.id for m in mine if m.id and not all(m.string if m.pluralizable else [m.string])]
        lacking += len(left)
        for message in left:
            print(f"{language}: {message}")
    print(f"{len(whole)} messages, {lacking} not translated")
    return 1 if lacking else 0


if __name__ == "__main__":
    sys.exit(main())
