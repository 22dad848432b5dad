"""Keeping an enquiry: the version check that never overwrites silently, and what differs when two
people edit.
"""

from __future__ import annotations

from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from typing import Any

from jolvek.formats.enquiry_file import Enquiry
from jolvek.store import enquiries
from jolvek.store.db import transaction
from jolvek.web import conn


def now() -> str:
    """The time as kept."""
    return datetime.now(UTC).isoformat(timespec="microseconds")


@dataclass(frozen=True)
class Clash:
    """Somebody else's version beside what was typed: their time, and (what, theirs, yours) where
    they differ.
    """

    changed_at: str
    rows: tuple[tuple[str, str, str], ...]


def keep(
    enquiry_id: int, before: enquiries.Stored, enquiry: Enquiry | None, seen: str | None
) -> tuple[str, Clash | None]:
    """Keep an enquiry if nobody changed it since `seen`; the new time and nothing, or no time and
    the clash.

    The check and the write are one transaction: of two savers one comes second and is told.
    """
    if enquiry is None:
        return "", None
    with transaction(conn()) as c:
        current = enquiries.get(c, enquiry_id)
        assert current is not None
        if seen and seen != current.changed_at:
            return "", Clash(current.changed_at, differences(current.enquiry, enquiry))
        if current.enquiry == enquiry:
            return current.changed_at, None
        time = now()
        enquiries.save(c, enquiry_id, enquiry, time)
    return time, None


def differences(theirs: Enquiry, mine: Enquiry) -> tuple[tuple[str, str, str], ...]:
    """(name, theirs, mine) of every figure or word that differs."""
    a, b = _flat(asdict(theirs)), _flat(asdict(mine))
    return tuple(
        (key.split(".", 1)[-1].replace("_", " "), _text(a.get(key)), _text(b.get(key)))
        for key in sorted({*a, *b})
        if a.get(key) != b.get(key)
    )


def _flat(data: Any, key: str = "") -> dict[str, Any]:
    if isinstance(data, dict):
        pairs = [(str(k), v) for k, v in data.items()]
    elif isinstance(data, list | tuple) and any(isinstance(x, dict | list | tuple) for x in data):
        pairs = [(str(i + 1), v) for i, v in enumerate(data)]
    else:
        return {key: data}
    out: dict[str, Any] = {}
    for name, value in pairs:
        out |= _flat(value, f"{key}.{name}" if key else name)
    return out


def _text(value: Any) -> str:
    if value is None or value == "" or value == ():
        return "–"
    return (
        f"{value:g}"
        if isinstance(value, float)
        else ", ".join(map(str, value))
        if isinstance(value, list | tuple)
        else str(value)
    )
