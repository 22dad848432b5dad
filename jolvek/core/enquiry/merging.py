"""Two people at one enquiry: what each changed is merged field by field; only where both changed
the same field is one asked.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.enquiry import Enquiry, as_plain, from_plain


@dataclass(frozen=True)
class Clash:
    """One field that differs: its key as stored, and the stored value in either hand."""

    key: str
    theirs: Any
    mine: Any


@dataclass(frozen=True)
class Merged:
    """The merged enquiry, the fields both changed, and the keys of those the other one changed."""

    enquiry: Enquiry
    clashes: tuple[Clash, ...] = ()
    theirs: tuple[str, ...] = ()


def merge(base: Enquiry, mine: Enquiry, theirs: Enquiry) -> Merged:
    """What came of `base` in two hands. Where both changed a field, theirs stays and it is told.

    Lists of bays, legs, places and people are one field each: their rows belong together.

    >>> from dataclasses import replace
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> e = Enquiry(Need(Hull("kayak", 3.7, .78, 34), Load(1)))
    >>> merge(e, replace(e, title="A"), replace(e, note="B")).enquiry.title
    'A'
    >>> merge(e, replace(e, title="A"), replace(e, title="B")).clashes
    (Clash(key='title', theirs='B', mine='A'),)
    """
    if theirs in (base, mine):
        return Merged(mine)
    a, b, c = (_flat(as_plain(x)) for x in (base, mine, theirs))
    out, clashes, others = dict(c), [], []
    for key in sorted({*a, *b, *c}):
        was, my, their = a.get(key), b.get(key), c.get(key)
        if my in (was, their):
            others += [key] if their not in (was, my) else []
        elif their == was:
            out[key] = my
        else:
            clashes.append(Clash(key, their, my))
    try:
        return Merged(from_plain(_nested(out)), tuple(clashes), tuple(others))
    except ValueRefused as error:  # both halves are right alone and wrong together
        clash = Clash(error.key, None, str(error))
        return Merged(theirs, (*clashes, clash), tuple(others))


def differences(before: Enquiry, after: Enquiry) -> tuple[Clash, ...]:
    """The fields that differ: `theirs` what stood before, `mine` what stands after.

    >>> from dataclasses import replace
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> e = Enquiry(Need(Hull("kayak", 3.7, .78, 34), Load(1)))
    >>> differences(e, replace(e, title="A"))
    (Clash(key='title', theirs='', mine='A'),)
    """
    a, b = _flat(as_plain(before)), _flat(as_plain(after))
    keys = [k for k in {**a, **b} if a.get(k) != b.get(k)]
    return tuple(Clash(k, a.get(k), b.get(k)) for k in keys)


def _flat(data: Mapping[str, Any], prefix: str = "") -> dict[str, Any]:
    out: dict[str, Any] = {}
    for key, value in data.items():
        name = f"{prefix}{key}"
        out |= _flat(value, f"{name}.") if isinstance(value, dict) else {name: value}
    return out


def _nested(flat: Mapping[str, Any]) -> dict[str, Any]:
    out: dict[str, Any] = {}
    for key, value in flat.items():
        first, _, rest = key.partition(".")
        if rest:
            out.setdefault(first, {})[rest] = value
        else:
            out[first] = value
    return {
        k: {x: y for x, y in v.items() if y is not None} if isinstance(v, dict) else v
        for k, v in out.items()
    }
