"""What a revision of an offer changed, in the customer's words, by data."""

from __future__ import annotations

from typing import Any

from jolvek.core.base.money import major
from jolvek.core.job.figures import Figure
from jolvek.web.kit import display
from jolvek.web.kit.display import amount_of
from jolvek.web.kit.figures import written
from jolvek.web.kit.followed import label
from jolvek.web.kit.language import tr
from jolvek.web.kit.rates import digits_of


def _moved_facts(letter: str, old: dict[str, Any], new: dict[str, Any]) -> list[str]:
    """Figures of a setup that read otherwise now, each with both values; by data, so that another
    language or another way of writing is no change.
    """
    u, out, was = display.current(), [], old.get("facts", {})
    for key, now in new.get("facts", {}).items():
        if key not in was:
            continue
        before, after = (written(Figure(*x), u) for x in (was[key], now))
        if before != after:
            values = {"x": letter, "what": label(key), "then": before, "now": after}
            out.append(tr("Setup %(x)s: %(what)s was %(then)s and is now %(now)s.", **values))
    return out


def _alternative(old: dict[str, Any], x: dict[str, Any], currency: str) -> list[str]:
    """What is otherwise of one setup: its parts, its total, what it does."""
    out = []
    if old.get("made_of", old["title"]) != x.get("made_of", x["title"]):
        values = {"x": x["letter"], "old": old["title"], "x2": x["title"]}
        out.append(tr("Setup %(x)s: %(old)s is now %(x2)s.", **values))
    minor = [y["sums"]["total"]["minor"] for y in (old, x)]
    if minor[0] != minor[1]:
        then, now = (amount_of(major(m, digits_of(currency)), currency) for m in minor)
        out.append(tr("Setup %(x)s: %(then)s is now %(now)s.", x=x["letter"], then=then, now=now))
    return out + _moved_facts(x["letter"], old, x)


def changed(before: dict[str, Any], after: dict[str, Any]) -> list[str]:
    """What a revision changed, in words, by data and never by how it is written."""
    out = []
    was = {x["letter"]: x for x in before["alternatives"]}
    for x in after["alternatives"]:
        old = was.pop(x["letter"], None)
        if old is None:
            out.append(tr("Setup %(x)s is new.", x=x["letter"]))
        else:
            out += _alternative(old, x, after["currency"])
    out += [tr("Setup %(letter)s is left out.", letter=letter) for letter in was]
    words = {
        "valid_to": tr("The validity has changed."),
        "terms": tr("The terms have changed."),
        "customer": tr("The customer’s data have changed."),
    }
    for key, word in words.items():
        if before[key] != after[key]:
            out.append(word)
    return out
